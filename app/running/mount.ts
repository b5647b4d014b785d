/**
 * The door of a piece that runs on somebody's own page: a stage, play and stop, and the dials that were chosen. It needs no
 * server and no rights: no eval, no style of its own in the page, pictures it carries with it.
 */
import { lendable, lentStep, type DialLoan } from '~~/core/piece/lent.ts'
import type { Controls } from '~~/core/formats/running/running.ts'
import type { Piece } from '~~/core/piece/schema.ts'
import { printNumber } from '~~/core/units/units.ts'
import { carriedPictures } from './carried.ts'
import { Runner } from './runner.ts'
import { LOOK } from './page-style.ts'

export interface MountedPiece {
  readonly piece: Piece
  /** Data addresses of its pictures, by hash. */
  readonly pictures: Readonly<Record<string, string>>
  /** The dials that are shown, with their locks. */
  readonly lent: readonly DialLoan[]
  /** What stands under the stage, unless the page says otherwise. */
  readonly controls?: Controls
}

export interface Choices {
  /** What is shown under the stage; true is the dials too, false nothing. A press on the stage plays and pauses. */
  readonly controls?: Controls | boolean
  /** Whether it begins by itself; true unless said, and never where less motion is asked for. */
  readonly playing?: boolean
}

/** A piece on a page, as its owner commands it. Seconds run on past every lap. */
export interface OnPage {
  play(on?: boolean): void
  seek(seconds: number): void
  /** The value of a dial, by its name; with a number it is turned to it, as far as its lock lets it. */
  dial(name: string, value?: number): number
  /** Values of `part.property`, one a copy, at a moment or now. */
  values(property: string, seconds?: number): number[]
  readonly seconds: number
  readonly playing: boolean
  readonly dials: readonly string[]
  remove(): void
}

const make = <K extends keyof HTMLElementTagNameMap>(
  tag: K,
  set: Partial<HTMLElementTagNameMap[K]>,
  into: ParentNode,
): HTMLElementTagNameMap[K] => {
  const it = Object.assign(document.createElement(tag), set)
  into.append(it)
  return it
}

/** Puts a piece into an element of a page. */
export function mount(element: HTMLElement, given: MountedPiece, { controls, playing = true }: Choices = {}): OnPage {
  const { piece, lent } = given
  const asked = controls ?? given.controls ?? 'dials'
  const shown: Controls = asked === true ? 'dials' : asked === false ? 'none' : asked
  const root = element.shadowRoot ?? element.attachShadow({ mode: 'open' })
  const sheet = new CSSStyleSheet()
  sheet.replaceSync(LOOK)
  root.adoptedStyleSheets = [sheet]
  root.replaceChildren()
  const canvas = make('canvas', { role: 'button', tabIndex: 0, ariaLabel: `${piece.title}: play and pause` }, root)
  canvas.style.aspectRatio = `${piece.stage.width} / ${piece.stage.height}`

  let runner: Runner
  try {
    runner = new Runner(canvas, piece, shown === 'dials' ? lent : lendable(piece), carriedPictures(given.pictures))
  } catch {
    root.replaceChildren()
    make('p', { textContent: 'This browser has no WebGL 2, so this can’t be drawn.', role: 'alert' }, root)
    throw new Error('This browser has no WebGL 2.')
  }
  const { player } = runner
  const slides = new Map<string, () => void>()
  const turn = () => player.play(!player.playing)
  canvas.addEventListener('click', turn)
  canvas.addEventListener('keydown', e => {
    if (e.key !== ' ' && e.key !== 'Enter') return
    e.preventDefault()
    turn()
  })
  if (shown !== 'none') {
    const bar = make('div', { className: 'bar' }, root)
    const button = make('button', { type: 'button' }, bar)
    const say = () => (button.textContent = player.playing ? 'Pause' : 'Play')
    player.changed(say)
    say()
    button.addEventListener('click', turn)
    if (shown === 'dials') for (const it of lent) slides.set(it.dial, slide(bar, runner, it))
  }

  const still = matchMedia('(prefers-reduced-motion: reduce)')
  const obey = () => still.matches && player.play(false)
  still.addEventListener('change', obey)
  player.play(playing && !still.matches)

  const byName = (name: string) => {
    const found = Object.entries(piece.dials).find(([, d]) => d.name === name)
    if (!found) throw new Error(`There’s no dial called ${name}.`)
    return found[0]
  }
  return {
    play: (on = true) => player.play(on),
    seek: seconds => runner.seek(seconds),
    dial(name, value) {
      const id = byName(name)
      if (value === undefined) return runner.current().dials[id]!.value
      const now = runner.turn(id, value)
      slides.get(id)?.()
      return now
    },
    values: (property, seconds) => runner.values(property, seconds),
    get seconds() {
      return player.now().seconds
    },
    get playing() {
      return player.playing
    },
    dials: runner.lent.map(l => piece.dials[l.dial]!.name),
    remove() {
      still.removeEventListener('change', obey)
      runner.dispose()
      root.replaceChildren()
    },
  }
}

/** One dial: its words, its number, its slide, tick or choice. Gives what shows it anew. */
function slide(bar: HTMLElement, runner: Runner, lent: DialLoan): () => void {
  const dial = () => runner.current().dials[lent.dial]!
  const { type, unit, options } = dial()
  const label = make('label', {}, bar)
  make('span', { textContent: lent.says }, label)
  if (type === 'choice') {
    const field = make('select', { ariaLabel: lent.says }, label)
    options?.forEach((o, i) => make('option', { value: String(i), textContent: o }, field))
    field.addEventListener('change', () => runner.turn(lent.dial, Number(field.value)))
    const show = () => (field.value = String(dial().value))
    show()
    return show
  }
  if (type === 'switch') {
    const field = make('input', { type: 'checkbox', ariaLabel: lent.says }, label)
    field.addEventListener('change', () => runner.turn(lent.dial, field.checked ? 1 : 0))
    const show = () => (field.checked = dial().value >= 0.5)
    show()
    return show
  }
  const says = make('output', {}, label)
  const { low, high } = lent
  const field = make('input', { type: 'range', min: String(low), max: String(high) }, label)
  field.ariaLabel = lent.says
  field.step = String(lentStep(dial(), lent))
  const show = () => {
    field.value = String(dial().value)
    says.textContent = `${printNumber(dial().value, 2)}${unit === '' ? '' : ` ${unit}`}`
  }
  field.addEventListener('input', () => {
    runner.turn(lent.dial, Number(field.value))
    show()
  })
  show()
  return show
}

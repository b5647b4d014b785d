/**
 * A lap of a flat piece that repeats for ever without a script: as an SVG with animation elements (SVG 1.1, SMIL), or as a page
 * whose elements follow CSS keyframes (CSS Animations 1, CSS Transforms 2).
 */
import type { Piece } from '../../piece/schema.ts'
import { toNumber, type Rational } from '../../time/rational.ts'
import { elementOf, backgroundOf, MOVES, type ElementChange, type MovingElement } from './moving-elements.ts'
import { short } from './ring-paths.ts'
import { motionOf } from './sampling.ts'

export interface Lap {
  readonly piece: Piece
  readonly from: Rational
  readonly span: Rational
  readonly frames: number
  readonly seeThrough: boolean
  /** Data addresses by hash. */
  readonly pictures: ReadonlyMap<string, string>
}

/** Characters that a drawing may have. */
const LARGEST = 40_000_000
const escaped = (s: string) => s.replace(/[&<>"]/g, c => `&#${c.charCodeAt(0)};`)
const still = ({ values }: ElementChange) => values.length === 1
const isMove = ({ of }: ElementChange) => (MOVES as readonly string[]).includes(of)

/** What stands of a transformation that does nothing. */
const REST: Readonly<Record<(typeof MOVES)[number], string>> = {
  translate: '0 0',
  rotate: '0',
  scale: '1 1',
  skewX: '0',
}

function elementsOf(lap: Lap, done: (n: number) => void): MovingElement[] {
  if (lap.piece.camera)
    throw new Error('A drawing can’t hold a piece in depth. Export a film, a 3D scene or a live page instead.')
  return motionOf(lap.piece, lap.from, lap.span, lap.frames, done).flatMap((m, k) => {
    const made = elementOf(m, lap.piece.stage, lap.pictures, k)
    return made ? [made] : []
  })
}

const attributes = (all: Readonly<Record<string, string>>): string =>
  Object.entries(all)
    .map(([name, value]) => ` ${name}="${value}"`)
    .join('')

function frame({ piece, seeThrough }: Lap, body: string, more = ''): string {
  const { width, height } = piece.stage
  const box = `${-width / 2} ${-height / 2} ${width} ${height}`
  const ground = seeThrough
    ? ''
    : `<rect x="${-width / 2}" y="${-height / 2}" width="${width}" height="${height}" fill="${backgroundOf(piece.stage)}"/>`
  const whole = `<svg xmlns="http://www.w3.org/2000/svg" viewBox="${box}" width="${width}" height="${height}"${more}><title>${escaped(piece.title)}</title>${ground}${body}</svg>`
  if (whole.length > LARGEST)
    throw new Error('That’s too much for one drawing. Export a film or a live page, or fewer laps.')
  return whole
}

/** What stands still of an element, with the first moment of what moves. */
function rest(e: MovingElement, withFirst: boolean): Record<string, string> {
  const all: Record<string, string> = { ...e.attributes }
  for (const c of e.changes) if (!isMove(c) && (withFirst || still(c))) all[c.of] = c.values[0]!
  if (all.opacity === '1') delete all.opacity
  return all
}

/** @throws with a sentence for a piece in depth, or one that is too much */
export function movingSvg(lap: Lap, done: (n: number) => void = () => {}): string {
  const seconds = short(toNumber(lap.span), 6)
  let defs = ''
  const body = elementsOf(lap, done).map(e => {
    defs += e.defs
    const moves = e.changes.filter(isMove)
    const all = rest(e, true)
    if (moves.every(still)) all.transform = moves.map(c => `${c.of}(${c.values[0]!})`).join(' ')
    let inside = ''
    if (!moves.every(still)) {
      // The first replaces what stands, the rest are put on top of it, in order.
      moves.forEach((c, k) => (inside += animated(c, seconds, k > 0)))
    }
    for (const c of e.changes) if (!isMove(c) && !still(c)) inside += animated(c, seconds, false)
    return `<${e.tag} id="${e.id}"${attributes(all)}${inside ? `>${inside}</${e.tag}>` : '/>'}`
  })
  return frame(lap, `${defs ? `<defs>${defs}</defs>` : ''}${body.join('\n')}`)
}

function animated(c: ElementChange, seconds: string, onTop: boolean): string {
  const common = `dur="${seconds}s" repeatCount="indefinite"`
  const of = isMove(c)
    ? `Transform attributeName="transform" type="${c.of}"${onTop ? ' additive="sum"' : ''}`
    : ` attributeName="${c.of}"`
  const times = still(c) ? '' : ` keyTimes="${c.at.map(t => short(t, 7)).join(';')}"`
  return `<animate${of} ${common}${c.stepped ? ' calcMode="discrete"' : ''}${times} values="${c.values.join(';')}"/>`
}

/** A page that holds the drawing and its keyframes. @throws as `movingSvg` */
export function keyframesPage(lap: Lap, done: (n: number) => void = () => {}): string {
  const seconds = short(toNumber(lap.span), 6)
  let [defs, sheet] = ['', '']
  const body = elementsOf(lap, done).map(e => {
    defs += e.defs
    const names: string[] = []
    let own = ''
    for (const c of e.changes) {
      if (still(c)) {
        if (isMove(c) && c.values[0] !== REST[c.of as 'scale']) own += `${declared(c, 0)};`
        continue
      }
      const name = `${e.id}-${c.of}`
      names.push(`${name} ${seconds}s ${c.stepped ? 'step-end' : 'linear'} infinite`)
      sheet += `@keyframes ${name}{${c.values.map((_, k) => `${short(c.at[k]! * 100, 5)}%{${declared(c, k)}}`).join('')}}\n`
    }
    if (names.length > 0) own += `animation:${names.join(',')}`
    if (own) sheet += `#${e.id}{${own}}\n`
    return `<${e.tag} id="${e.id}"${attributes(rest(e, true))}/>`
  })
  const svg = frame(lap, `${defs ? `<defs>${defs}</defs>` : ''}${body.join('\n')}`)
  return `<!doctype html>\n<html lang="en"><head><meta charset="utf-8"><meta name="viewport" content="width=device-width"><title>${escaped(lap.piece.title)}</title>
<style>body{margin:0}svg{display:block;width:100%;height:auto}
${sheet}</style></head><body>${svg}</body></html>\n`
}

/** A value as CSS says it. */
function declared(c: ElementChange, k: number): string {
  const value = c.values[k]!
  switch (c.of) {
    case 'translate':
      return `translate:${value
        .split(' ')
        .map(v => `${v}px`)
        .join(' ')}`
    case 'rotate':
      return `rotate:${value}deg`
    case 'scale':
      return `scale:${value}`
    case 'skewX':
      return `transform:skewX(${value}deg)`
    case 'd':
      return `d:path("${value}")`
    case 'stroke-width':
    case 'stroke-dashoffset':
      return `${c.of}:${value}px`
    default:
      return `${c.of}:${value}`
  }
}

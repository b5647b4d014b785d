/** Dragging a number of a formula sideways, and stepping it with the arrow keys. */
import type { EditorView } from '@codemirror/view'
import { decimalsOf, digitsOf, strideOf } from '~~/core/formula/edit.ts'
import { parse } from '~~/core/formula/parse.ts'
import { handles } from '~~/core/formula/tree.ts'

export interface Tuner {
  begin: () => void
  /** The n-th number, without the sign before it, with the decimals it is written with. */
  tune: (nth: number, value: number, decimals: number) => void
  end: () => void
}

/** Screen pixels a step of the drag. */
const PER_STEP = 4
const STARTS_AT = 3

interface Held {
  /** With the minus before it, where that is its own. */
  readonly value: number
  readonly sign: 1 | -1
  readonly stride: number
  readonly decimals: number
}

function held(text: string, nth: number): Held | null {
  const { formula } = parse(text)
  const n = formula && handles(formula)[nth]
  if (!n) return null
  const before = /-\s*$/.test(text.slice(0, n.from)) && /(^|[(,:=*/^<>]\s*)-\s*$/.test(text.slice(0, n.from))
  const sign = before ? -1 : 1
  return {
    sign,
    value: sign * Number(digitsOf(text, n)),
    stride: strideOf(text, n),
    decimals: decimalsOf(digitsOf(text, n)),
  }
}

const places = (stride: number) => Math.max(0, Math.ceil(-Math.log10(stride) - 1e-9))
const factor = (e: { shiftKey: boolean; altKey: boolean }) => (e.shiftKey ? 10 : 1) * (e.altKey ? 0.1 : 1)

/** Listens on a formula field; gives what ends it. `tuner` is null while the text is being typed. */
export function dragNumbers(view: EditorView, tuner: () => Tuner | null): () => void {
  const down = (e: PointerEvent): void => {
    const handle = (e.target as HTMLElement).closest<HTMLElement>('[data-handle]')
    const to = tuner()
    if (!handle || !to || e.button !== 0) return
    const nth = Number(handle.dataset.handle)
    const start = held(view.state.doc.toString(), nth)
    if (!start) return
    let last = e.clientX
    let steps = 0
    let dragging = false
    const move = (m: PointerEvent): void => {
      if (!dragging) {
        if (Math.abs(m.clientX - last) < STARTS_AT) return
        dragging = true
        last = m.clientX
        to.begin()
        document.body.style.cursor = 'ew-resize'
      }
      m.preventDefault()
      steps += ((m.clientX - last) / PER_STEP) * factor(m)
      last = m.clientX
      const stride = m.altKey ? start.stride / 10 : start.stride
      const value = start.value + Math.round(steps * (start.stride / stride)) * stride
      to.tune(nth, start.sign * value, Math.max(start.decimals, places(stride)))
    }
    const up = (): void => {
      removeEventListener('pointermove', move)
      removeEventListener('pointerup', up)
      removeEventListener('pointercancel', up)
      document.body.style.cursor = ''
      if (dragging) {
        to.end()
        getSelection()?.removeAllRanges()
      }
    }
    addEventListener('pointermove', move)
    addEventListener('pointerup', up)
    addEventListener('pointercancel', up)
    // The caret is set on a click, not by the beginning of a drag.
    e.preventDefault()
    const click = (): void => {
      if (!dragging) {
        view.focus()
        const at = view.posAtCoords({ x: e.clientX, y: e.clientY })
        if (at !== null) view.dispatch({ selection: { anchor: at } })
      }
    }
    addEventListener('pointerup', click, { once: true })
  }
  view.contentDOM.addEventListener('pointerdown', down)
  return () => view.contentDOM.removeEventListener('pointerdown', down)
}

/** Steps the number at the caret up or down; false when the caret is in none. */
export function stepNumber(view: EditorView, direction: 1 | -1, coarse: boolean, tuner: Tuner): boolean {
  const text = view.state.doc.toString()
  const { formula } = parse(text)
  const at = view.state.selection.main.head
  const nth = formula ? handles(formula).findIndex(n => at >= n.from && at <= n.to) : -1
  const start = nth < 0 ? null : held(text, nth)
  if (!start) return false
  tuner.begin()
  tuner.tune(nth, start.sign * (start.value + direction * start.stride * (coarse ? 10 : 1)), start.decimals)
  tuner.end()
  return true
}

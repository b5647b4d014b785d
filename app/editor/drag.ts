/** Dragging a number of a formula sideways, and stepping it with the arrow keys. */
import type { EditorView } from '@codemirror/view'
import { decimalsOf, digitsOf, strideOf } from '~~/core/formula/edit.ts'
import { parse } from '~~/core/formula/parse.ts'
import { handles } from '~~/core/formula/tree.ts'
import { pullSideways, type NumberPull } from './sideways.ts'

export interface Tuner {
  begin: () => void
  /** The n-th number, without the sign before it, with the decimals it is written with. */
  tune: (nth: number, value: number, decimals: number) => void
  end: () => void
}

/** Its value has the minus before it, where that is its own. */
interface Held extends NumberPull {
  readonly sign: 1 | -1
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

/**
 * Clears the selection and makes `document.getSelection` return null until the returned function is called. The editor reads the
 * selection twice per change of its text, and each read forces a layout, although nobody is typing there.
 */
function withoutSelection(): () => void {
  getSelection()?.removeAllRanges()
  // An own property hides the method of the prototype.
  document.getSelection = () => null
  return () => Reflect.deleteProperty(document, 'getSelection')
}

/** Listens on a formula field; gives what ends it. `tuner` is null while the text is being typed. */
export function dragNumbers(view: EditorView, tuner: () => Tuner | null): () => void {
  const down = (e: PointerEvent): void => {
    const handle = (e.target as HTMLElement).closest<HTMLElement>('[data-handle]')
    const to = tuner()
    if (!handle || !to || e.button !== 0) return
    const nth = Number(handle.dataset.handle)
    const start = held(view.state.doc.toString(), nth)
    if (!start) return
    // The caret is set on a click, not by the beginning of a drag.
    e.preventDefault()
    let answerAgain = () => {}
    pullSideways(e, start, {
      begin: () => {
        if (!view.hasFocus) answerAgain = withoutSelection()
        to.begin()
      },
      move: (value, decimals) => to.tune(nth, start.sign * value, decimals),
      end: pulled => {
        answerAgain()
        if (pulled) {
          to.end()
          getSelection()?.removeAllRanges()
          return
        }
        view.focus()
        const at = view.posAtCoords({ x: e.clientX, y: e.clientY })
        if (at !== null) view.dispatch({ selection: { anchor: at } })
      },
    })
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

/** An easing of a formula chosen by its picture: pressed in the text, or from the entry's menu. */
import type { EditorView } from '@codemirror/view'
import { easingAt, easingsIn, withEasing } from '~~/core/formula/easings.ts'

interface Field {
  readonly view: () => EditorView | null
  /** What stands in the field. */
  readonly text: () => string
  /** What the formula is, once what was typed has been run. */
  readonly kept: () => string
  readonly rewrite: (text: string) => void
}

export function useEasings({ view, text, kept, rewrite }: Field) {
  /** Which of those in the text is being chosen, what it is, and where it stands on the page. */
  const chosen = shallowRef<{ nth: number; current: string; at: DOMRect } | null>(null)

  /** Offers the easing at a place of the text, else the first that is or could be written; whether there is one. */
  function offer(place: number | null): boolean {
    const all = easingsIn(text())
    const there = place === null ? all[0] : easingAt(text(), place)
    const box = there && view()?.coordsAtPos(there.span.from)
    if (!there || !box) return false
    const nth = all.findIndex(e => e.span.from === there.span.from)
    chosen.value = { nth, current: there.name, at: new DOMRect(box.left, box.top, 0, box.bottom - box.top) }
    return true
  }

  function choose(name: string): void {
    const there = easingsIn(kept())[chosen.value!.nth]
    chosen.value = null
    if (there) rewrite(withEasing(kept(), there, name))
    view()?.focus()
  }

  return { chosen, offer, choose }
}

/** What a formula's text looks like: kinds of names, handles under numbers, faint units, problems. */
import { RangeSetBuilder, StateEffect, StateField, type Extension, type Text } from '@codemirror/state'
import { Decoration, EditorView, WidgetType, type DecorationSet } from '@codemirror/view'
import type { Checked } from '~~/core/formula/check.ts'
import { easingsOf } from '~~/core/formula/easings.ts'
import type { Problem } from '~~/core/formula/problem.ts'
import { builtinNamed } from '~~/core/formula/words.ts'
import { everyNode, handles, type Node } from '~~/core/formula/tree.ts'

/** A small ring before a term, which leaves it out and brings it back. */
export interface TermRing {
  readonly from: number
  readonly to: number
  readonly off: boolean
}

/** Where a ring stands: what is left out begins with the two marks of a comment. */
export const placeOfRing = ({ from, off }: TermRing): number => (off ? from - 2 : from)

export interface FormulaLook {
  readonly checked: Checked | null
  readonly problems: readonly Problem[]
  readonly rings: readonly TermRing[]
  /** The ring before this place was pressed. */
  readonly press: (place: number) => void
}

/** Puts a new look on the text. */
export const setLook = StateEffect.define<FormulaLook>()

class FaintUnit extends WidgetType {
  constructor(readonly unit: string) {
    super()
  }
  override eq(other: FaintUnit): boolean {
    return other.unit === this.unit
  }
  toDOM(): HTMLElement {
    const span = document.createElement('span')
    span.className = 'tide-faint'
    span.textContent = this.unit === 'deg' ? '°' : this.unit
    span.setAttribute('aria-hidden', 'true')
    return span
  }
}

class RingMark extends WidgetType {
  constructor(
    readonly off: boolean,
    readonly term: string,
    readonly press: FormulaLook['press'],
  ) {
    super()
  }
  override eq(other: RingMark): boolean {
    return other.off === this.off && other.term === this.term && other.press === this.press
  }
  override ignoreEvent(): boolean {
    return true
  }
  override toDOM(view: EditorView): HTMLElement {
    const button = document.createElement('button')
    button.type = 'button'
    button.tabIndex = -1
    button.addEventListener('mousedown', e => e.preventDefault())
    // Where it stands by then: a ring stays while the text before it changes.
    button.addEventListener('click', () => this.press(view.posAtDOM(button)))
    this.updateDOM(button)
    return button
  }
  /** A number dragged in a term changes its name at every move: the ring before it stays. */
  override updateDOM(button: HTMLElement): boolean {
    const says = `${this.off ? 'Bring back' : 'Leave out'} ${this.term}`
    button.className = `tide-ring${this.off ? ' tide-ring-off' : ''}`
    button.setAttribute('aria-label', says)
    button.title = `${says} (Alt B)`
    return true
  }
}

function classOf(node: Node, checked: Checked): [number, number, string][] {
  const read = checked.reads.find(r => r.from === node.from && r.to === node.to)
  if (read) return [[node.from, node.to, `tide-${read.type}`]]
  if (node.type === 'name' && builtinNamed(node.name)) return [[node.from, node.to, 'tide-word']]
  if (node.type === 'call') {
    const labels = node.args.flatMap(a =>
      a.labelAt ? [[a.labelAt.from, a.labelAt.to, 'tide-label'] as [number, number, string]] : [],
    )
    return [[node.nameAt.from, node.nameAt.to, 'tide-call'], ...labels]
  }
  return []
}

function decorations({ checked, problems, rings, press }: FormulaLook, doc: Text): DecorationSet {
  const { length } = doc
  const marks: { from: number; to: number; deco: Decoration }[] = []
  if (checked && checked.formula.text.length === length) {
    for (const node of everyNode(checked.formula)) {
      for (const [from, to, name] of classOf(node, checked))
        marks.push({ from, to, deco: Decoration.mark({ class: name }) })
    }
    for (const { span } of easingsOf(checked.formula)) {
      const attributes = { title: 'Click to choose an easing' }
      if (span.to > span.from) marks.push({ ...span, deco: Decoration.mark({ class: 'tide-easing', attributes }) })
    }
    handles(checked.formula).forEach((n, i) => {
      const attributes = { 'data-handle': String(i), title: 'Drag sideways. Shift is coarser, Alt finer.' }
      marks.push({ from: n.from, to: n.to, deco: Decoration.mark({ class: 'tide-handle', attributes }) })
      const unit = checked.bare.get(n)
      if (unit) marks.push({ from: n.to, to: n.to, deco: Decoration.widget({ widget: new FaintUnit(unit), side: 1 }) })
    })
  }
  for (const ring of rings) {
    const widget = new RingMark(ring.off, doc.sliceString(ring.from, ring.to).trim(), press)
    const from = placeOfRing(ring)
    marks.push({ from, to: from, deco: Decoration.widget({ widget, side: -1 }) })
    if (ring.off) marks.push({ from, to: ring.to, deco: Decoration.mark({ class: 'tide-off' }) })
  }
  for (const p of problems) {
    const from = Math.min(p.from, Math.max(0, length - 1))
    const to = Math.min(length, Math.max(p.to, from + 1))
    if (to > from) marks.push({ from, to, deco: Decoration.mark({ class: 'tide-problem' }) })
  }
  marks.sort((a, b) => a.from - b.from || a.deco.startSide - b.deco.startSide || b.to - a.to)
  const builder = new RangeSetBuilder<Decoration>()
  for (const m of marks) builder.add(m.from, m.to, m.deco)
  return builder.finish()
}

/** The field that keeps the look; between two looks it moves with the text. */
export const looks: Extension = StateField.define<DecorationSet>({
  create: () => Decoration.none,
  update(set, tr) {
    for (const effect of tr.effects) if (effect.is(setLook)) return decorations(effect.value, tr.state.doc)
    return set.map(tr.changes)
  },
  provide: field => EditorView.decorations.from(field),
})

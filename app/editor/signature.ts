/** The function whose brackets the caret stands in: its arguments, the one being written marked. */
import { StateEffect, StateField, type EditorState, type Extension } from '@codemirror/state'
import { EditorView, showTooltip, type Tooltip } from '@codemirror/view'
import { signatureAt, type Signature } from '~~/core/formula/offers.ts'

function drawn({ name, parameters, at }: Signature): HTMLElement {
  const box = document.createElement('div')
  box.className = 'tide-signature'
  box.append(`${name}(`)
  parameters.forEach((p, i) => {
    if (i > 0) box.append(', ')
    const span = document.createElement(i === at ? 'strong' : 'span')
    span.textContent = p.name
    box.append(span)
  })
  box.append(')')
  const now = parameters[at]
  if (now) {
    const says = document.createElement('div')
    says.className = 'tide-signature-says'
    says.textContent = `${now.name}: ${now.description}`
    box.append(says)
  }
  return box
}

function tooltips(state: EditorState): readonly Tooltip[] {
  const { head, empty } = state.selection.main
  const found = empty ? signatureAt(state.sliceDoc(0, head)) : null
  if (!found) return []
  return [{ pos: found.from, above: true, strictSide: true, create: () => ({ dom: drawn(found) }) }]
}

const focused = StateEffect.define<boolean>()
const hint = StateField.define<{ readonly focus: boolean; readonly shown: readonly Tooltip[] }>({
  create: () => ({ focus: false, shown: [] }),
  update: (old, tr) => {
    const focus = tr.effects.reduce((is, e) => (e.is(focused) ? e.value : is), old.focus)
    if (focus === old.focus && !tr.docChanged && !tr.selection) return old
    return { focus, shown: focus ? tooltips(tr.state) : [] }
  },
  provide: field => showTooltip.computeN([field], state => state.field(field).shown),
})

/** Shown while the field has the focus; it moves with the caret, and is gone with the focus, so that it covers nothing else. */
export const signatureHint: Extension = [hint, EditorView.focusChangeEffect.of((_, focus) => focused.of(focus))]

/** The function whose brackets the caret stands in: its arguments, the one being written marked. */
import { StateField, type EditorState, type Extension } from '@codemirror/state'
import { showTooltip, type Tooltip } from '@codemirror/view'
import { signatureAt, type Signature } from '~~/core/formula/offers.ts'

function drawn({ name, takes, at }: Signature): HTMLElement {
  const box = document.createElement('div')
  box.className = 'tide-signature'
  box.append(`${name}(`)
  takes.forEach((p, i) => {
    if (i > 0) box.append(', ')
    const span = document.createElement(i === at ? 'strong' : 'span')
    span.textContent = p.name
    box.append(span)
  })
  box.append(')')
  const now = takes[at]
  if (now) {
    const says = document.createElement('div')
    says.className = 'tide-signature-says'
    says.textContent = `${now.name}: ${now.says}`
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

/** Shown while the field has the caret; it moves with it. */
export const signature: Extension = StateField.define<readonly Tooltip[]>({
  create: () => [],
  update: (old, tr) => (tr.docChanged || tr.selection ? tooltips(tr.state) : old),
  provide: field => showTooltip.computeN([field], state => state.field(field)),
})

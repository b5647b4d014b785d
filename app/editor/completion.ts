/** Completion in the formula field, from the tables of the core. */
import {
  acceptCompletion,
  autocompletion,
  completionStatus,
  moveCompletionSelection,
  selectedCompletion,
  type Completion,
  type CompletionContext,
  type CompletionResult,
} from '@codemirror/autocomplete'
import type { Extension } from '@codemirror/state'
import { keymap, type EditorView } from '@codemirror/view'
import { easePath, easePicture } from './ease-path.ts'
import { signatureHint } from './signature.ts'
import { offersAt } from '~~/core/formula/offers.ts'
import type { Names, Target } from '~~/core/formula/scope.ts'

/** Tab takes the offer that is chosen, else the first. */
function take(view: EditorView): boolean {
  if (completionStatus(view.state) !== 'active') return false
  if (!selectedCompletion(view.state)) moveCompletionSelection(true)(view)
  return acceptCompletion(view)
}

/** Easings are shown by their pictures. */
const PICTURES = {
  render: (c: Completion) => (c.type === 'easing' && easePath(c.label) !== '' ? easePicture(c.label) : null),
  position: 10,
}

/** `where` tells what names mean when it is asked. */
export function completion(where: () => { names: Names; target: Target } | null): Extension {
  const source = (context: CompletionContext): CompletionResult | null => {
    const place = where()
    const before = context.state.sliceDoc(0, context.pos)
    const found = place && offersAt(before, place.names, place.target)
    if (!found || (!context.explicit && found.from === context.pos && !before.endsWith('.'))) return null
    return {
      from: found.from,
      options: found.offers.map(o => ({
        label: o.text,
        type: o.type,
        detail: o.type,
        info: o.says,
        // What belongs to the call being written comes before everything else.
        boost: o.type === 'argument' || o.type === 'easing' ? 99 : 0,
      })),
      validFor: /^[\p{L}\p{N}_%]*$/u,
    }
  }
  // Nothing is chosen until the arrow keys or Tab choose it: Enter lets the formula run.
  return [
    autocompletion({ override: [source], icons: false, selectOnOpen: false, addToOptions: [PICTURES] }),
    keymap.of([{ key: 'Tab', run: take }]),
    signatureHint,
  ]
}

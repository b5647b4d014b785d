/** Completion in the formula field, from the tables of the core. */
import {
  autocompletion,
  completionKeymap,
  type CompletionContext,
  type CompletionResult,
} from '@codemirror/autocomplete'
import { keymap } from '@codemirror/view'
import type { Extension } from '@codemirror/state'
import { offersAt } from '~~/core/formula/offers.ts'
import type { Names, Target } from '~~/core/formula/scope.ts'

/** `where` tells what names mean when it is asked. */
export function completion(where: () => { names: Names; target: Target } | null): Extension {
  const source = (context: CompletionContext): CompletionResult | null => {
    const place = where()
    const before = context.state.sliceDoc(0, context.pos)
    const found = place && offersAt(before, place.names, place.target)
    if (!found || (!context.explicit && found.from === context.pos && !before.endsWith('.'))) return null
    return {
      from: found.from,
      options: found.offers.map(o => ({ label: o.text, type: o.type, detail: o.type, info: o.says })),
      validFor: /^[\p{L}\p{N}_%]*$/u,
    }
  }
  return [autocompletion({ override: [source], icons: false, closeOnBlur: true }), keymap.of(completionKeymap)]
}

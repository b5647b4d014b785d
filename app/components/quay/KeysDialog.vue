<script setup lang="ts">
/** All keys of the quay. */
import { Dialog, DialogPanel, DialogTitle } from '@headlessui/vue'

const emit = defineEmits<{ close: [] }>()
const KEYS: readonly (readonly [string, string])[] = [
  ['Space', 'play and stop'],
  ['/', 'find a part, a property or a command'],
  ['0', 'back to time 0'],
  [', .', 'one frame back, on'],
  ['Shift , .', 'one second back, on'],
  ['↑ ↓', 'the entry before, after'],
  ['Enter', 'into the formula in hand; there: let it run'],
  ['Esc', 'out of the formula; what was typed goes back'],
  ['Alt B', 'leave out the term at the caret, or bring it back'],
  ['Alt D', 'make a dial of the number at the caret'],
  ['Alt Enter', 'accept the first fix of a formula'],
  ['Alt ↑ ↓', 'step the number at the caret, Shift coarser'],
  ['Ctrl C V', 'copy the formula in hand; paste it on the chosen part'],
  ['Ctrl Z', 'undo'],
  ['Ctrl Shift Z', 'redo'],
  ['A', 'the chosen part alone on the stage, all again'],
  ['C', 'a mark of the cue in hand here, also while it plays'],
  ['K', 'a hand key of the property in hand here'],
  ['[ ]', 'the marked stretch begins, ends here'],
  ['P', 'patterns: put one on, save one'],
  ['T Y', 'keep a take of the formula in hand; the take before'],
  ['D', 'the next page of the desk'],
  ['F', 'in the scope: all of it in sight again'],
  ['G', 'in the scope: the curve before the change on, off'],
  ['← ↑ → ↓', 'on the stage: move what is chosen by 1 px, with Shift by 10; nothing chosen: the view'],
  ['Enter Esc', 'on the stage: into a group, out of it'],
  ['Ctrl A D G', 'on the stage: choose all; double, group what is chosen'],
  ['Ctrl C V', 'on the stage: copy what is chosen with all that belongs to it; paste it, also in another piece'],
  ['Del', 'on the stage: take away what is chosen'],
  ['+ − F', 'on the stage: nearer, further, all of it again'],
  ['Alt ← ↑ → ↓', 'on the stage of a piece in depth: look round it; Home: straight ahead'],
  ['F1', 'the manual beside the piece'],
  ['?', 'this list'],
]
</script>

<template>
  <Dialog :open="true" class="relative z-50" @close="emit('close')">
    <div class="fixed inset-0 grid place-items-center bg-[rgb(10_25_30/0.25)] p-4">
      <DialogPanel class="panel max-h-[92vh] w-[480px] overflow-y-auto p-4">
        <DialogTitle class="mb-3 text-[15px] font-semibold">Keys</DialogTitle>
        <dl class="grid grid-cols-[120px_1fr] gap-y-[6px]">
          <template v-for="[key, says] in KEYS" :key="key"
            ><dt class="tabular">{{ key }}</dt>
            <dd>{{ says }}</dd></template
          >
        </dl>
        <div class="mt-4 text-right"><button class="button" type="button" @click="emit('close')">Close</button></div>
      </DialogPanel>
    </div>
  </Dialog>
</template>

<script setup lang="ts">
/** Keyboard shortcuts of the quay. */

const emit = defineEmits<{ close: [] }>()
const KEYS: readonly (readonly [string, string])[] = [
  ['Space', 'play and pause'],
  ['/', 'find a part, property or command'],
  ['0', 'back to time 0'],
  [', .', 'one frame back, forward'],
  ['Shift , .', 'one second back, forward'],
  ['↑ ↓', 'previous entry, next entry'],
  ['Enter', 'edit the selected formula; in it: run it'],
  ['Esc', 'leave the formula and revert what was typed'],
  ['Alt B', 'bypass the term at the caret, or restore it'],
  ['Alt D', 'make a dial from the number at the caret'],
  ['Alt Enter', 'accept the first fix of a formula'],
  ['Alt ↑ ↓', 'step the number at the caret, Shift coarser'],
  ['Ctrl C V', 'copy the selected formula; paste it on the selected part'],
  ['Ctrl Z', 'undo'],
  ['Ctrl Shift Z', 'redo'],
  ['A', 'solo the selected part, or show everything again'],
  ['C', 'mark the selected cue here, also while playing'],
  ['K', 'set a keyframe of the selected property here'],
  ['[ ]', 'start or end the marked stretch here'],
  ['P', 'patterns: put one on, save one'],
  ['T Y', 'keep a take of the selected formula; previous take'],
  ['D', 'the next page of the desk'],
  ['F', 'in the scope: fit everything'],
  ['G', 'in the scope: show or hide the curve before the change'],
  ['← ↑ → ↓', 'on the stage: move the selection by 1 px, with Shift by 10; with nothing selected, pan the view'],
  ['Enter Esc', 'on the stage: enter a group, leave it'],
  ['Ctrl A D G', 'on the stage: select all; duplicate; group'],
  ['Ctrl C V', 'on the stage: copy the selection with everything it needs; paste it, also in another piece'],
  ['Del', 'on the stage: delete the selection'],
  ['+ − F', 'on the stage: zoom in, zoom out, fit'],
  ['Alt ← ↑ → ↓', 'on the stage of a piece in depth: look around; Home: reset the view'],
  ['F1', 'the manual beside the piece'],
  ['?', 'this list'],
]
</script>

<template>
  <DialogFrame title="Keyboard shortcuts" :wide="480" @close="emit('close')">
    <div class="flex min-h-0 flex-1 flex-col overflow-y-auto px-5 py-4">
      <dl class="grid grid-cols-[120px_1fr] gap-y-[6px]">
        <template v-for="[key, says] in KEYS" :key="key"
          ><dt class="tabular">{{ key }}</dt>
          <dd>{{ says }}</dd></template
        >
      </dl>
    </div>
    <template #foot><button class="button" type="button" @click="emit('close')">Close</button></template>
  </DialogFrame>
</template>

<script setup lang="ts">
/** The manual beside the quay: found by words, and its examples put into the formula in hand by one press. */
import { ExternalLink, X } from '@lucide/vue'
import { useSelection } from '~/stores/selection.ts'
import { usePiece } from '~/stores/piece.ts'
import { useTuning } from '~/commands/tuning.ts'

const emit = defineEmits<{ close: [] }>()
const store = usePiece()
const hand = useSelection()
const tuning = useTuning()

/** Without a formula in hand it is said how to take one. */
function insert(text: string): void {
  if (hand.writing) hand.writing.insert(text)
  else replace(text)
}
function replace(text: string): void {
  if (hand.drive) tuning.commit(hand.drive, text)
  else store.say('Select an entry of the tide table first: the example goes into its formula.')
}
provideExamples(() => [
  { says: 'Insert', title: 'At the caret of the selected formula', do: insert },
  { says: 'Use instead', title: 'Replaces the selected formula; undo restores it', do: replace },
])
</script>

<template>
  <aside
    class="absolute inset-y-0 right-0 z-20 flex w-[460px] flex-col border-l border-rule bg-paper"
    aria-label="Manual"
    @keydown.esc.stop="emit('close')"
  >
    <header class="flex shrink-0 items-start gap-2 border-b border-rule bg-sheet px-4 py-2">
      <ManualSearch class="max-h-[50vh] flex-1 overflow-y-auto" />
      <NuxtLink
        to="/manual"
        target="_blank"
        class="button button-plain w-7 !px-0"
        aria-label="Open the manual in its own tab"
        data-tip="Open in its own tab"
        ><ExternalLink :size="15"
      /></NuxtLink>
      <IconButton label="Close the manual" @click="emit('close')"><X :size="16" /></IconButton>
    </header>
    <div class="min-h-0 flex-1 overflow-y-auto px-4 py-4" tabindex="0" aria-label="Text of the manual">
      <ManualText />
    </div>
  </aside>
</template>

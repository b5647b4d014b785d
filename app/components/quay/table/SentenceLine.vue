<script setup lang="ts">
/** A sentence about a clock, a cue or a curve, whose numbers and choices are handles. */
import { sentenceOf, type TimedIn } from '~~/core/insight/sentence.ts'
import type { SentencePart } from '~~/core/insight/sentence-part.ts'
import { useOpenPiece } from '~/stores/open-piece.ts'

const props = defineProps<{ collection: TimedIn; id: string }>()
const store = useOpenPiece()
/** Read anew only when it, or what it may name, has changed: not with every number elsewhere. */
let kept: { of: readonly unknown[]; words: SentencePart[] } | null = null
const words = computed(() => {
  const { clocks, cues, curves, dials } = store.piece
  const of = [clocks, cues, curves, dials, props.id]
  if (kept && kept.of.every((o, i) => o === of[i])) return kept.words
  const now = () => ({ at: store.player.now(), keep: store.noJump() })
  kept = { of, words: sentenceOf(store.piece, props.collection, props.id, now) }
  return kept.words
})
</script>

<template>
  <p class="flex flex-wrap items-baseline gap-x-[6px] gap-y-1 px-3 pb-[6px]" data-sentence>
    <template v-for="(w, i) in words" :key="i">
      <SentenceNumber v-if="w.is === 'number'" :word="w" />
      <SelectBox
        v-else-if="w.is === 'choice'"
        class="max-w-[180px] text-ink"
        inline
        :label="w.label"
        :model-value="w.value"
        :of="w.of"
        @update:model-value="store.act(w.set($event))"
      />
      <span v-else class="text-faded">{{ w.says }}</span>
    </template>
  </p>
</template>

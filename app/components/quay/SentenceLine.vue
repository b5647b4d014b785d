<script setup lang="ts">
/** A sentence about a clock, a cue or a curve, whose numbers and choices are handles. */
import { sentenceOf, type TimedIn } from '~~/core/insight/sentence.ts'
import { usePiece } from '~/stores/piece.ts'

const props = defineProps<{ collection: TimedIn; id: string }>()
const store = usePiece()
const words = computed(() =>
  sentenceOf(store.piece!, props.collection, props.id, () => ({ at: store.player!.now(), keep: store.noJump() })),
)
</script>

<template>
  <p class="flex flex-wrap items-baseline gap-x-[6px] gap-y-1 px-3 pb-[6px]" data-sentence>
    <template v-for="(w, i) in words" :key="i">
      <SentenceNumber v-if="w.is === 'number'" :word="w" />
      <select
        v-else-if="w.is === 'choice'"
        class="max-w-[180px] rounded-sm border-b border-dotted border-faded bg-transparent text-ink hover:border-ink"
        :aria-label="w.label"
        :value="w.value"
        @change="store.act(w.set(($event.target as HTMLSelectElement).value))"
      >
        <option v-for="o in w.of" :key="o.value" :value="o.value">{{ o.says }}</option>
      </select>
      <span v-else class="text-faded">{{ w.says }}</span>
    </template>
  </p>
</template>

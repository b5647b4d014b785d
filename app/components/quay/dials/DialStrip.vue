<script setup lang="ts">
/** The dials: the few numbers that matter, read by any formula. */
import { Plus } from '@lucide/vue'
import { useOpenPiece } from '~/stores/open-piece.ts'

const store = useOpenPiece()
/** Whether hidden dials are shown too. */
const all = ref(false)
const dials = computed(() =>
  Object.entries(store.piece.dials)
    .filter(([, d]) => all.value || !d.hidden)
    .sort(([, a], [, b]) => a.order - b.order),
)
/** Signals whose values are read here. */
const readOuts = computed(() =>
  Object.entries(store.piece.signals)
    .filter(([, s]) => s.readOut)
    .sort(([, a], [, b]) => a.order - b.order)
    .map(([id]) => id),
)
const making = ref(false)
const hidden = computed(() => Object.values(store.piece.dials).filter(d => d.hidden).length)
</script>

<template>
  <section class="flex shrink-0 items-start gap-4 border-b border-rule bg-sheet px-4 py-2" aria-label="Dials">
    <div
      v-if="dials.length + readOuts.length > 0"
      class="grid min-w-0 flex-1 grid-cols-[repeat(auto-fill,minmax(128px,1fr))] gap-x-5 gap-y-2"
    >
      <DialKnob v-for="[id, dial] in dials" :key="id" :id="id" :dial="dial" />
      <ReadOut v-for="id in readOuts" :key="id" :signal="id" />
    </div>
    <button
      class="flex shrink-0 items-center gap-1 text-faded hover:text-ink"
      type="button"
      data-tip="New dial: a number that many formulas can read"
      @click="making = true"
    >
      <Plus :size="14" />{{ dials.length === 0 ? 'New dial: a number that many formulas can read' : 'Dial' }}
    </button>
    <button
      v-if="hidden > 0"
      class="shrink-0 text-faded hover:text-ink"
      type="button"
      :aria-pressed="all"
      @click="all = !all"
    >
      {{ all ? 'Hide' : `${hidden} hidden` }}
    </button>
    <LazyDialForm v-if="making" @close="making = false" />
  </section>
</template>

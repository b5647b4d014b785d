<script setup lang="ts">
/** What the values of the piece cost a frame on this machine, and which of them most of it. */
import { sourceName } from '~~/core/acts/sources.ts'
import { printNumber } from '~~/core/units/units.ts'
import { useListing } from '~/stores/listing.ts'
import { usePiece } from '~/stores/piece.ts'
import { useVerdicts } from '~/stores/verdicts.ts'

const store = usePiece()
const listing = useListing()
const verdicts = useVerdicts()

/** Driven values that are named at most, and the milliseconds from which on they are. */
const MOST = 5
const LEAST = 0.1
const told = (ms: number): string => (ms < 0.1 ? 'less than 0.1 ms' : `about ${printNumber(ms, ms < 10 ? 1 : 0)} ms`)
const frame = computed(() => (1000 * store.piece!.frameRate.d) / store.piece!.frameRate.n)
const most = computed(() =>
  [...(verdicts.costs?.each ?? [])]
    .filter(([key, ms]) => ms >= LEAST && store.program?.slots.has(key))
    .sort(([, a], [, b]) => b - a)
    .slice(0, MOST),
)
</script>

<template>
  <FoldSection page="piece" title="Cost per frame" data-costs>
    <p v-if="!verdicts.costs" class="text-[12px] text-faded">measuring …</p>
    <template v-else>
      <p class="text-[12px]">
        The values take {{ told(verdicts.costs.all) }} of the {{ printNumber(frame, 1) }} ms available per frame,
        measured on this machine.
      </p>
      <ul v-if="most.length > 0" class="w-full text-[12px]">
        <li v-for="[key, ms] in most" :key="key" class="border-b border-rule py-1">
          <span class="flex items-center gap-2">
            <button
              class="min-w-0 truncate text-left hover:underline"
              type="button"
              data-tip="Show in the tide table"
              @click="listing.reveal(key)"
            >
              {{ sourceName(store.piece!, key) }}
            </button>
            <span class="tabular ml-auto shrink-0">{{ told(ms) }}</span>
          </span>
          <span v-if="verdicts.costs.lighter.has(key)" class="block text-faded">{{
            verdicts.costs.lighter.get(key)
          }}</span>
        </li>
      </ul>
    </template>
  </FoldSection>
</template>

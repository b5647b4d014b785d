<script setup lang="ts">
/** The tide table: everything that runs in time, what is in common first, then part by part. */
import { Search } from '@lucide/vue'
import { defaultRangeExtractor, useVirtualizer, type Range } from '@tanstack/vue-virtual'
import { FILTERS, timedOf, useListing } from '~/stores/listing.ts'
import { offerTarget } from '~/commands/targets.ts'
import { useSelection } from '~/stores/selection.ts'
import { useOpenPiece } from '~/stores/open-piece.ts'
import { focusFormula } from '~/editor/focus.ts'
import TideEntry from './TideEntry.vue'

const store = useOpenPiece()
const hand = useSelection()
const listing = useListing()
const SAYS = {
  all: 'all',
  'in hand': 'selected, and what it reads',
  open: 'not looping',
  broken: 'broken promise',
  wrong: 'with an error',
  off: 'turned off',
} as const
const busy = computed(() => Object.keys(store.piece.drives).length > 0 || listing.narrowed)

/** Into what is written on the entry in hand: its formula, or the first handle of its sentence. */
function write(): void {
  if (!hand.drive) return
  if (timedOf(hand.drive))
    document
      .querySelector<HTMLElement>(
        `[data-timed="${hand.drive}"] [data-sentence] [tabindex="0"], [data-timed="${hand.drive}"] select`,
      )
      ?.focus()
  else focusFormula(hand.drive)
}
offerTarget('table', { write })

/** Lines beyond the edge that are on the page all the same, most of them bare. */
const AHEAD = 60
const roll = useTemplateRef('roll')
const inHand = computed(() => listing.rows.findIndex(r => r.id === hand.drive))
const virtual = useVirtualizer(
  computed(() => ({
    count: listing.rows.length,
    getScrollElement: () => roll.value,
    getItemKey: (k: number) => listing.rows[k]?.id ?? k,
    estimateSize: (k: number) => ('head' in (listing.rows[k] ?? {}) ? 34 : 102),
    overscan: AHEAD,
    // What is in hand stays on the page, wherever it is.
    rangeExtractor: (range: Range) => {
      const seen = defaultRangeExtractor(range)
      return inHand.value < 0 || seen.includes(inHand.value) ? seen : [...seen, inHand.value].sort((a, b) => a - b)
    },
  })),
)
const lines = computed(() => virtual.value.getVirtualItems())
const below = computed(() => virtual.value.getTotalSize() - (lines.value.at(-1)?.end ?? 0))
const measure = (e: unknown) => virtual.value.measureElement(e as Element | null)
/** The element of an entry, if it is rendered. */
const entryOf = (key: string): Element | null =>
  document.querySelector(timedOf(key) ? `[data-timed="${key}"]` : `[data-drive="${key}"]`)
watch(
  () => listing.sought,
  sought => {
    if (!sought) return
    const there = entryOf(sought.key)
    const row = there ? -1 : listing.rows.findIndex(r => r.id === sought.key)
    if (there) there.scrollIntoView({ block: 'nearest' })
    else if (row >= 0) virtual.value.scrollToIndex(row, { align: 'center' })
  },
  { flush: 'post' },
)
</script>

<template>
  <section class="flex min-h-0 flex-1 flex-col" aria-label="Tide table">
    <div v-if="busy" class="flex shrink-0 items-center gap-2 px-3 pt-2">
      <label class="field flex min-w-0 flex-1 items-center gap-2">
        <Search :size="13" class="shrink-0 text-faded" aria-hidden="true" />
        <input
          v-model="listing.search"
          class="w-full min-w-0 bg-transparent outline-none"
          type="search"
          aria-label="Search the tide table"
          placeholder="Search names and formulas"
        />
      </label>
      <SelectBox
        v-model="listing.filter"
        class="w-[132px] shrink-0"
        label="Entries to show"
        :of="FILTERS.map(f => ({ value: f, says: SAYS[f] }))"
      />
    </div>
    <div ref="roll" class="min-h-0 flex-1 overflow-y-auto px-3 pt-2 pb-6 [overflow-anchor:none]">
      <div
        v-for="(line, k) in lines"
        :key="String(line.key)"
        :ref="measure"
        :data-index="line.index"
        :style="{ marginTop: `${line.start - (lines[k - 1]?.end ?? 0)}px` }"
      >
        <template v-for="row in [listing.rows[line.index]!]" :key="row.id">
          <div v-if="'head' in row" :class="{ 'pt-2': line.index > 0 }">
            <CommonHeader v-if="row.head.part === null" :count="row.head.entries.length" />
            <PartHeader v-else :part="row.head.part" :count="row.head.entries.length" />
          </div>
          <MovedBy v-else-if="'nothing' in row" :part="row.nothing" />
          <div v-else class="pb-2">
            <TimedEntry v-if="timedOf(row.entry)" v-bind="timedOf(row.entry)!" />
            <TideEntry v-else :drive="row.entry" />
          </div>
        </template>
      </div>
      <div :style="{ height: `${below}px` }" aria-hidden="true" />
      <EmptyNote v-if="listing.narrowed && listing.groups.length === 0" role="status">
        No results.
        <template #act>
          <button
            class="link"
            type="button"
            @click="
              () => {
                listing.search = ''
                listing.filter = 'all'
              }
            "
          >
            Show all again
          </button>
        </template>
      </EmptyNote>
      <slot />
    </div>
  </section>
</template>

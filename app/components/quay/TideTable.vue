<script setup lang="ts">
/** The tide table: everything that runs in time, what is in common first, then part by part. */
import { Search } from '@lucide/vue'
import { FILTERS, timedOf, useListing } from '~/stores/listing.ts'
import { useHand } from '~/stores/hand.ts'
import { usePiece } from '~/stores/piece.ts'
import { focusFormula } from '~/editor/focus.ts'
import TideEntry from './TideEntry.vue'

const store = usePiece()
const hand = useHand()
const listing = useListing()
const SAYS = {
  all: 'all',
  'in hand': 'in hand, and what it reads',
  open: 'not closing',
  broken: 'broken promise',
  wrong: 'with an error',
  off: 'switched off',
} as const
const busy = computed(() => Object.keys(store.piece!.drives).length > 0 || listing.narrowed)

/** The entry before or after the one in hand. */
function go(by: 1 | -1): void {
  const { flat } = listing
  const at = hand.drive ? flat.indexOf(hand.drive) : by > 0 ? -1 : flat.length
  const key = flat[Math.min(flat.length - 1, Math.max(0, at + by))]
  if (key) listing.reveal(key)
}

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
defineExpose({ go, write })
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
      <select v-model="listing.filter" class="field shrink-0" aria-label="What is listed">
        <option v-for="f in FILTERS" :key="f" :value="f">{{ SAYS[f] }}</option>
      </select>
    </div>
    <div class="min-h-0 flex-1 overflow-y-auto px-3 pt-2 pb-6">
      <div v-for="g in listing.groups" :key="g.part ?? ''" class="mb-4">
        <CommonHeader v-if="g.part === null" :count="g.entries.length" />
        <PartHeader v-else :part="g.part" :count="g.entries.length" />
        <template v-if="!listing.rolled.has(g.part)">
          <p
            v-if="g.part !== null && g.entries.length === 0"
            class="rounded-md border border-dashed border-rule px-3 py-3 text-faded"
          >
            Nothing of it moves yet. <span class="text-ink">Drive…</span> gives a property a function of time.
          </p>
          <div class="flex flex-col gap-2">
            <template v-for="key in g.entries" :key="key">
              <TimedEntry v-if="timedOf(key)" v-bind="timedOf(key)!" />
              <TideEntry v-else :drive="key" />
            </template>
          </div>
        </template>
      </div>
      <p v-if="listing.narrowed && listing.groups.length === 0" class="px-1 py-2 text-faded" role="status">
        Nothing fits.
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
      </p>
      <slot />
    </div>
  </section>
</template>

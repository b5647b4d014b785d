<script setup lang="ts">
/** Links as a pin board: what drives stands above, what is driven at the side; where they cross, the ratio. */
import { Search } from '@lucide/vue'
import { driverName, pinSays } from '~~/core/insight/changing-links.ts'
import { pinsOf, type Pin } from '~~/core/insight/pins.ts'
import { useSelection } from '~/stores/selection.ts'
import { dropped, mayDrop } from '~/editor/carry.ts'
import { useLinking } from '~/commands/linking.ts'
import { useListing } from '~/stores/listing.ts'
import { useOpenPiece } from '~/stores/open-piece.ts'

const store = useOpenPiece()
const hand = useSelection()
const listing = useListing()
const linking = useLinking()
const search = ref('')
const ofHand = ref(false)
const chosen = ref<{ driver: string; driven: string } | null>(null)
const chaining = ref(false)
const linkingNew = ref(false)
/** What stands on the board at most, either way. */
const MOST_ACROSS = 16
const MOST_DOWN = 60

const pins = computed(() => pinsOf(store.program))
const name = (key: string) => driverName(store.piece, key)
const inHand = computed(() => (hand.drive && !hand.drive.includes('/') ? hand.drive : null))
const fits = (p: Pin): boolean => {
  if (ofHand.value && inHand.value && p.driver !== inHand.value && p.driven !== inHand.value) return false
  const words = search.value.trim().toLowerCase()
  return words === '' || `${name(p.driver)} ${name(p.driven)}`.toLowerCase().includes(words)
}
const shown = computed(() => pins.value.filter(fits))
const unique = (keys: readonly string[]) => [...new Set(keys)]
const across = computed(() => {
  const keys = unique(shown.value.map(p => p.driver))
  const held = inHand.value && !keys.includes(inHand.value) ? [inHand.value] : []
  return [...held, ...keys].slice(0, MOST_ACROSS)
})
const down = computed(() => {
  const keys = unique(shown.value.map(p => p.driven))
  const held = inHand.value && !keys.includes(inHand.value) ? [inHand.value] : []
  return [...held, ...keys].slice(0, MOST_DOWN)
})
const left = computed(
  () => shown.value.filter(p => !across.value.includes(p.driver) || !down.value.includes(p.driven)).length,
)
const byPlace = computed(() => new Map(pins.value.map(p => [`${p.driver} ${p.driven}`, p])))
const pinAt = (driver: string, driven: string) => byPlace.value.get(`${driver} ${driven}`)
const held = computed(() => chosen.value && pinAt(chosen.value.driver, chosen.value.driven))
const both = computed(() => pins.value.filter(p => p.tie !== null).length)

function press(driver: string, driven: string): void {
  if (pinAt(driver, driven) || linking.join(driver, driven)) chosen.value = { driver, driven }
}
function drop(e: DragEvent, driven: string): void {
  const driver = dropped(e)
  if (driver && driver !== driven) press(driver, driven)
}
</script>

<template>
  <div class="flex min-h-0 flex-1 flex-col" data-links>
    <div class="flex shrink-0 flex-wrap items-center gap-2 px-4 pt-2">
      <button
        class="chip"
        :class="{ 'chip-on': !ofHand }"
        type="button"
        :aria-pressed="!ofHand"
        @click="ofHand = false"
      >
        all {{ pins.length }}
      </button>
      <button
        class="chip max-w-[220px] truncate"
        :class="{ 'chip-on': ofHand }"
        type="button"
        :disabled="!inHand"
        :aria-pressed="ofHand"
        @click="ofHand = true"
      >
        of {{ inHand ? name(inHand) : 'the selection' }}
      </button>
      <label class="field flex items-center gap-2">
        <Search :size="13" class="text-faded" aria-hidden="true" />
        <input
          v-model="search"
          class="w-28 bg-transparent outline-none"
          type="search"
          aria-label="Search links"
          placeholder="Search links"
        />
      </label>
      <button
        class="chip"
        :class="{ 'chip-on': linkingNew }"
        type="button"
        :aria-pressed="linkingNew"
        @click="linkingNew = !linkingNew"
      >
        Link…
      </button>
      <button class="chip" type="button" @click="chaining = true">Chain…</button>
      <span class="ml-auto text-[12px] text-faded" data-count
        >{{ pins.length }} {{ pins.length === 1 ? 'link' : 'links' }}{{ both > 0 ? `, ${both} two-way` : '' }}</span
      >
    </div>
    <NewLink v-if="linkingNew || pins.length === 0" @linked="((chosen = $event), (linkingNew = false))" />
    <EmptyNote v-if="across.length === 0" title="No links yet">
      Link two properties above, or select an entry of the tide table: it appears here. Press where its row crosses the
      other’s column to link them.
    </EmptyNote>
    <div v-else class="min-h-0 flex-1 overflow-auto px-4 pt-2 pb-2">
      <table class="border-separate border-spacing-0">
        <thead>
          <tr>
            <th class="sticky top-0 left-0 z-20 min-w-[150px] bg-sheet text-left text-[12px] font-normal text-faded">
              columns drive rows
            </th>
            <th
              v-for="d in across"
              :key="d"
              scope="col"
              class="sticky top-0 z-10 max-w-[132px] min-w-[56px] bg-sheet px-2 py-1 align-bottom text-[12px] leading-4"
              :class="d === inHand ? 'text-sea' : ''"
              :data-tip="name(d)"
            >
              <button
                v-if="!d.includes('/')"
                class="max-w-full break-words hover:underline"
                type="button"
                @click="listing.reveal(d)"
              >
                {{ name(d) }}
              </button>
              <template v-else>{{ name(d) }}</template>
            </th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="r in down" :key="r">
            <th
              scope="row"
              class="sticky left-0 z-10 max-w-[170px] truncate bg-sheet py-[2px] pr-2 text-left font-medium"
              :class="r === inHand ? 'text-sea' : ''"
              :data-tip="`${name(r)}: drop an entry here to make it follow that`"
              @dragover="mayDrop"
              @drop="drop($event, r)"
            >
              <button class="max-w-full truncate hover:underline" type="button" @click="listing.reveal(r)">
                {{ name(r) }}
              </button>
            </th>
            <td v-for="d in across" :key="d" class="border-l border-dotted border-rule px-1 text-center">
              <button
                v-if="pinAt(d, r)"
                class="tabular h-6 min-w-[56px] rounded-full border px-2 text-[12px] whitespace-nowrap"
                :class="[
                  held && held.driver === d && held.driven === r
                    ? 'border-ink bg-band text-ink'
                    : 'border-brass text-brass',
                ]"
                type="button"
                :aria-label="`${name(d)} drives ${name(r)}, ${pinSays(pinAt(d, r)!)}`"
                @click="press(d, r)"
              >
                {{ pinSays(pinAt(d, r)!) }}
              </button>
              <button
                v-else-if="d !== r"
                class="h-6 w-[56px] rounded-full text-transparent hover:border hover:border-dashed hover:border-faded hover:text-faded focus-visible:text-faded"
                type="button"
                :aria-label="`Link ${name(r)} to ${name(d)}`"
                @click="press(d, r)"
              >
                link
              </button>
            </td>
          </tr>
        </tbody>
      </table>
      <p v-if="left > 0" class="py-2 text-[12px] text-faded">{{ left }} more. Search to narrow the list.</p>
    </div>
    <LinkPin v-if="held" :pin="held" @gone="chosen = null" @turned="chosen = $event" />
    <LazyChainDialog v-if="chaining" @close="chaining = false" />
  </div>
</template>

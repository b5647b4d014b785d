<script setup lang="ts">
/** Handing over: which dials, under which words and locks, what may be taken away, until when; and what was handed over before. */
import { ArrowUp } from '@lucide/vue'
import { FORMATS, type ExportFormat } from '~~/core/formats/export/formats.ts'
import type { Handover } from '~~/core/piece/api.ts'
import { lendable, limitToLent, type DialLoan } from '~~/core/piece/lent.ts'
import { useHandingOver } from '~/stores/handing-over.ts'
import { useOpenPiece } from '~/stores/open-piece.ts'

const emit = defineEmits<{ close: [] }>()
const store = useOpenPiece()
const handing = useHandingOver()

type Row = { -readonly [K in keyof DialLoan]: DialLoan[K] } & { on: boolean }
const rows = ref<Row[]>(lendable(store.piece).map(l => ({ ...l, on: !store.piece.dials[l.dial]!.hidden })))
const TAKEN = ['webm', 'mp4', 'gif', 'png', 'svg', 'moving', 'page', 'piece'] as const satisfies readonly ExportFormat[]
const formats = ref<ExportFormat[]>(['webm', 'gif', 'png'])
const until = ref('')

function up(k: number): void {
  const [row] = rows.value.splice(k, 1)
  rows.value.splice(k - 1, 0, row!)
}
function lock(row: Row, end: 'low' | 'high', typed: number): void {
  const dial = store.piece.dials[row.dial]!
  row[end] = limitToLent(dial, dial, typed) ?? dial[end]
}
const problem = computed(() => {
  const wrong = rows.value.find(r => r.on && (!(r.low < r.high) || r.says.trim() === ''))
  if (wrong)
    return wrong.says.trim() === ''
      ? 'Every dial needs a label.'
      : `${wrong.says}: the lowest value must be below the highest.`
  return until.value !== '' && new Date(`${until.value}T23:59:59`).getTime() <= Date.now() ? 'That day has passed.' : ''
})

onMounted(() => handing.load())
onBeforeUnmount(() => handing.forget())
const make = () =>
  handing.make({
    lent: rows.value.filter(r => r.on).map(({ on: _, says, ...l }) => ({ ...l, says: says.trim() })),
    formats: formats.value,
    until: until.value === '' ? null : new Date(`${until.value}T23:59:59`).toISOString(),
  })
const state = (h: Handover) =>
  h.withdrawn ? 'revoked' : h.until && new Date(h.until).getTime() <= Date.now() ? 'over' : 'open'
const day = (iso: string) =>
  new Date(iso).toLocaleDateString('en-GB', { day: 'numeric', month: 'short', year: 'numeric' })
</script>

<template>
  <DialogFrame :title="`Hand over ${store.piece.title}`" :wide="720" @close="emit('close')">
    <div class="min-h-0 flex-1 overflow-y-auto px-5 py-4">
      <p class="mb-3 text-faded">
        A page with the stage and these dials. Whatever people change there is kept with the link and never changes your
        piece.
      </p>
      <table v-if="rows.length > 0" class="w-full [&_td]:py-1">
        <thead class="text-left text-faded">
          <tr>
            <th class="font-normal">Dial</th>
            <th class="font-normal">Label</th>
            <th class="w-24 font-normal">from</th>
            <th class="w-24 font-normal">to</th>
            <th class="w-8"><span class="sr-only">Order</span></th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="(row, k) in rows" :key="row.dial">
            <td>
              <CheckBox v-model="row.on">{{ store.piece.dials[row.dial]?.name }}</CheckBox>
            </td>
            <td>
              <input
                v-model="row.says"
                class="field w-full"
                maxlength="60"
                :disabled="!row.on"
                :aria-label="`Label of ${store.piece.dials[row.dial]?.name}`"
              />
            </td>
            <td v-for="end in ['low', 'high'] as const" :key="end" class="pl-2">
              <QuantityInput
                class="field tabular w-20"
                :readonly="!row.on"
                :value="row[end]"
                :unit="store.piece.dials[row.dial]!.unit"
                :low="store.piece.dials[row.dial]!.low"
                :high="store.piece.dials[row.dial]!.high"
                :label="`${row.says}, ${end === 'low' ? 'lowest' : 'highest'}`"
                @set="lock(row, end, $event)"
              />
            </td>
            <td>
              <button
                v-if="k > 0"
                class="p-1 text-faded hover:text-ink"
                type="button"
                :aria-label="`${row.says} up`"
                @click="up(k)"
              >
                <ArrowUp :size="14" />
              </button>
            </td>
          </tr>
        </tbody>
      </table>
      <p v-else class="text-faded">This piece has no unlocked dials: the page will only show the stage.</p>
      <fieldset class="mt-4 flex flex-wrap items-center gap-x-4 gap-y-1">
        <legend class="float-left mr-4 text-faded">Downloads allowed</legend>
        <CheckBox
          v-for="as in TAKEN"
          :key="as"
          :model-value="formats.includes(as)"
          @update:model-value="formats = $event ? [...formats, as] : formats.filter(f => f !== as)"
          >{{ as === 'moving' ? 'moving SVG' : FORMATS[as].name }}</CheckBox
        >
      </fieldset>
      <div class="mt-4 flex items-center gap-2">
        <span class="text-faded">Expires at the end of</span><DateField v-model="until" label="Until" />
        <span v-if="until === ''" class="text-faded">(until you revoke it)</span>
      </div>
      <p v-if="problem" class="mt-3 text-coral" role="alert">{{ problem }}</p>
      <p v-if="handing.wrong" class="mt-3 text-coral" role="alert">{{ handing.wrong }}</p>
      <div v-if="handing.link" class="mt-4 rounded-md border border-sea p-3" role="status">
        <p class="mb-2">Copy the link now: it isn’t shown again. Anyone who has it can open the page.</p>
        <div class="flex gap-2">
          <input
            class="field tabular min-w-0 flex-1"
            readonly
            aria-label="The link"
            :value="handing.link"
            @focus="($event.target as HTMLInputElement).select()"
          />
          <button class="button" type="button" @click="handing.copy()">
            {{ handing.copied ? 'Copied' : 'Copy' }}
          </button>
        </div>
      </div>
      <section v-if="handing.all.length > 0" class="mt-5 border-t border-rule pt-3" aria-label="Shared links">
        <h3 class="mb-1 font-semibold">Shared links</h3>
        <ul>
          <li v-for="h in handing.all" :key="h.id" class="flex items-baseline gap-3 py-1" :data-handover="h.id">
            <span>{{ day(h.made) }}</span>
            <span class="text-faded"
              >{{ state(h) }}{{ h.until && state(h) === 'open' ? ` until ${day(h.until)}` : '' }}</span
            >
            <span class="tabular min-w-0 flex-1 truncate">{{ handing.said(h) }}</span>
            <button v-if="handing.said(h)" class="link" type="button" @click="handing.takeOver(h)">
              Apply to my piece
            </button>
            <button v-if="state(h) === 'open'" class="link" type="button" @click="handing.withdraw(h)">Revoke</button>
          </li>
        </ul>
      </section>
    </div>
    <template #foot>
      <button class="button" type="button" @click="emit('close')">Close</button>
      <button class="button button-strong" type="button" :disabled="problem !== '' || handing.busy" @click="make">
        Create link
      </button>
    </template>
  </DialogFrame>
</template>

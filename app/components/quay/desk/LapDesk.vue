<script setup lang="ts">
/** The lap: how long it is, what closes and what does not, and what would close it. */
import { sourceName } from '~~/core/acts/sources.ts'
import { documentFraction, framesOf } from '~~/core/acts/settings.ts'
import { change } from '~~/core/formula/problem.ts'
import { laterText, loopText } from '~~/core/insight/loop-count.ts'
import type { Closing } from '~~/core/insight/closings.ts'
import { toNumber } from '~~/core/time/rational.ts'
import { printNumber } from '~~/core/units/units.ts'
import { useListing } from '~/stores/listing.ts'
import { usePiece } from '~/stores/piece.ts'
import { useTuning } from '~/commands/tuning.ts'
import { useVerdicts } from '~/stores/verdicts.ts'

const store = usePiece()
const tuning = useTuning()
const listing = useListing()
const verdicts = useVerdicts()

const seconds = computed(() => store.piece!.lap.length.n / store.piece!.lap.length.d)
const rate = computed(() => store.piece!.frameRate.n / store.piece!.frameRate.d)
const frames = computed(() => framesOf(store.piece!.lap.length, store.piece!.frameRate))
/** The length that is being typed: how many frames it has is told before it is made so. */
const typed = ref<number | null>(null)
const wantedFrames = computed(() => {
  const wanted = typed.value === null ? null : documentFraction(typed.value)
  return wanted && framesOf(wanted, store.piece!.frameRate)
})
/** Whether the start moves with the length, so that the lap is as far along as it was. */
const keep = ref(false)

function setLap(length: number): void {
  typed.value = null
  const wanted = documentFraction(length)
  if (!wanted) store.say('A lap must be longer than 0 seconds. The old length is kept.')
  else tuning.lap(wanted.n, wanted.d, keep.value)
}

const RANK = { no: 0, unproven: 1, later: 2, symmetry: 3, yes: 4 } as const
const TONE = {
  no: 'text-coral',
  unproven: 'text-brass',
  later: 'text-sea',
  symmetry: 'text-kelp',
  yes: 'text-kelp',
} as const
/** Those that do not close come first, in the order of the table. */
const rows = computed(() =>
  verdicts.running
    .map(key => ({ key, name: sourceName(store.piece!, key), report: verdicts.known(key)!.report }))
    .sort((a, b) => RANK[a.report.closure.verdict] - RANK[b.report.closure.verdict]),
)
/** Rows that are shown before more are asked for. */
const SHOWN = 60
const all = ref(false)
const shown = computed(() => (all.value ? rows.value : rows.value.slice(0, SHOWN)))
const open = computed(() =>
  rows.value.filter(r => r.report.closure.verdict === 'no' || r.report.closure.verdict === 'unproven'),
)

/** What would close a drive, each tried before it is offered; looked for in the worker. */
const proposals = shallowRef<ReadonlyMap<string, readonly Closing[]>>(new Map())
let looking = 0
watch(
  () => [open.value.map(r => r.key).join(), store.program] as const,
  async () => {
    const mine = ++looking
    const found = new Map<string, readonly Closing[]>()
    for (const { key } of open.value.slice(0, SHOWN)) {
      const fixes = await store.ask(key, 'closing')
      if (mine !== looking) return
      found.set(key, fixes ?? [])
      proposals.value = new Map(found)
    }
  },
  { immediate: true },
)
/** The shortest lap in which everything that repeats loops. */
const shortest = shallowRef<number | null>(null)
watch(
  () => store.program,
  async () => {
    const first = Object.keys(store.piece?.drives ?? {})[0]
    const found = first === undefined ? null : await store.ask(first, 'shortest')
    shortest.value = found && toNumber(found)
  },
  { immediate: true },
)
onBeforeUnmount(() => looking++)

/** Proposals of a drive that stand beside it; more of them in a list. */
const CHIPS = 3
function takeNth(key: string, nth: number): void {
  take(key, proposals.value.get(key)![nth]!)
}
function take(key: string, closing: Closing): void {
  if ('op' in closing) store.act(closing.op)
  else tuning.commit(key, change(store.piece!.drives[key]!.text, closing.changes))
  listing.reveal(key)
}
</script>

<template>
  <div class="min-h-0 flex-1 overflow-y-auto px-4 pb-4" data-lap>
    <form class="flex flex-wrap items-center gap-x-3 gap-y-1 border-b border-rule py-2" @submit.prevent>
      <OurWord word="lap">Lap</OurWord>
      <label class="flex items-center gap-2"
        >Length
        <QuantityInput
          class="field tabular w-20"
          label="Length of the lap, seconds"
          :value="seconds"
          unit="s"
          @typing="typed = $event"
          @set="setLap"
      /></label>
      <label class="flex items-center gap-2" data-tip="When lap 0 starts, on a whole frame; exports start there"
        >Start
        <QuantityInput
          class="field tabular w-20"
          label="Start of the lap, seconds"
          :value="store.piece!.lap.start"
          unit="s"
          @set="tuning.lapStart($event)"
      /></label>
      <TickField
        label="Keep lap position"
        data-tip="Changing the length moves the start, so that the position in the lap stays the same"
        :value="keep"
        @set="keep = $event"
      />
      <span class="tabular text-[12px] text-faded" data-frames
        >{{ wantedFrames ?? frames }} frames at {{ printNumber(rate, 3) }} fps, 0 …
        {{ (wantedFrames ?? frames) - 1 }}</span
      >
      <span class="ml-auto" :class="verdicts.count.open + verdicts.count.later === 0 ? 'text-kelp' : ''" data-closing
        ><template v-if="verdicts.all || verdicts.count.all > 0"
          ><OurWord word="closes">{{ loopText(verdicts.count) }}</OurWord
          ><span v-if="verdicts.count.later > 0" class="text-sea" data-later>, {{ laterText(verdicts.count) }}</span
          ><span v-if="verdicts.busy" class="text-faded">, </span></template
        ><span v-if="verdicts.busy" class="text-faded" data-asking>checking …</span></span
      >
      <button
        v-if="shortest !== null && Math.abs(shortest - seconds) > 1e-9"
        class="chip"
        type="button"
        data-tip="The shortest lap in which everything that repeats loops"
        @click="setLap(Number(shortest.toFixed(6)))"
      >
        everything that repeats would loop in {{ printNumber(shortest, 4) }} s
      </button>
    </form>
    <table class="w-full">
      <tbody>
        <tr v-for="r in shown" :key="r.key" class="border-b border-rule" :data-closing-of="r.name">
          <td class="max-w-[190px] truncate py-[5px] pr-3 font-medium">
            <button class="hover:underline" type="button" @click="listing.reveal(r.key)">{{ r.name }}</button>
          </td>
          <td class="pr-3 whitespace-nowrap" :class="TONE[r.report.closure.verdict]">{{ r.report.closes }}</td>
          <td class="pr-3 text-[12px] text-faded">{{ r.report.period }}</td>
          <td class="py-[3px] text-right">
            <button
              v-for="f in (proposals.get(r.key) ?? []).slice(0, CHIPS)"
              :key="f.label"
              class="tabular ml-1 rounded-sm border border-rule px-2 py-[1px] text-[12px] hover:border-faded"
              type="button"
              data-proposal
              @click="take(r.key, f)"
            >
              {{ f.label }}
            </button>
            <SelectBox
              v-if="(proposals.get(r.key) ?? []).length > CHIPS"
              class="ml-1 text-[12px]"
              :label="`More numbers that make ${r.name} loop`"
              :none="`${proposals.get(r.key)!.length - CHIPS} more`"
              :model-value="-1"
              :of="
                proposals
                  .get(r.key)!
                  .slice(CHIPS)
                  .map((f, k) => ({ value: CHIPS + k, says: f.label }))
              "
              @update:model-value="takeNth(r.key, $event)"
            />
          </td>
        </tr>
      </tbody>
    </table>
    <button v-if="shown.length < rows.length" class="link mt-2" type="button" @click="all = true">
      Show all {{ rows.length }} drives
    </button>
    <template v-if="rows.length > 0">
      <SeamLook />
      <LeavingParts />
      <TouchingParts />
    </template>
    <p v-if="rows.length === 0" class="py-3 text-faded">
      A lap is how long the loop is. As soon as something moves, this page says whether it loops.
    </p>
  </div>
</template>

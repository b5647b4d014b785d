<script setup lang="ts">
/** Export: what is wanted at the left, how at the right; what will come out is said before, and what it became after. */
import { formatOf, formatsOf, EXPORT_KINDS, type ExportKind } from '~~/core/formats/export/formats.ts'
import { exportPlan, exportSettings, type ExportSettings } from '~~/core/formats/export/export-plan.ts'
import type { LoopCount } from '~~/core/insight/loop-count.ts'
import { lendable } from '~~/core/piece/lent.ts'
import type { Piece } from '~~/core/piece/schema.ts'
import { bytesText } from '~~/core/units/bytes.ts'
import { sourceName } from '~~/core/acts/sources.ts'
import { useGivingOut } from '~/stores/giving-out.ts'
import { useSelection } from '~/stores/selection.ts'
import { useListing } from '~/stores/listing.ts'
import { useVerdicts } from '~/stores/verdicts.ts'

const props = defineProps<{
  piece: Piece
  id: string
  /** The moment that is shown, seconds. */
  at: number
  /** How many drives loop; null where that is not known. */
  looping: LoopCount | null
  /** Whether it is the piece that is open, whose values may go to a device. */
  live?: boolean
}>()
const emit = defineEmits<{ close: [] }>()
const giving = useGivingOut()
const hand = useSelection()
const listing = useListing()
const verdicts = useVerdicts()

const kind = ref<ExportKind | 'Device'>('Film')
const wanted = reactive<{ -readonly [K in keyof ExportSettings]: ExportSettings[K] }>({
  ...exportSettings(props.piece, 'webm'),
  at: props.at,
  lent: lendable(props.piece).filter(l => !props.piece.dials[l.dial]!.hidden),
})
const plan = computed(() => exportPlan(props.piece, wanted))

function choose(of: ExportKind): void {
  kind.value = of
  wanted.as = formatsOf(of)[0]!
}
watch(
  () => wanted.as,
  as => (wanted.seeThrough &&= formatOf(as).clear === true),
)

onMounted(() => giving.look(props.id))
const begin = () => giving.begin(props.piece, { ...wanted }, props.id)
function again(): void {
  Object.assign(wanted, giving.unfinished)
  kind.value = formatOf(wanted.as).kind
  begin()
}

const left = computed(() => {
  const p = giving.progress
  if (!p || p.done < 3) return ''
  const rest = ((performance.now() - p.began) / p.done) * (p.of - p.done)
  return ` · about ${Math.max(1, Math.round(rest / 1000))} s`
})

/** Those that do not loop, by their names: of the piece that is open, whose entries can be gone to. */
const open = computed(() => (props.live ? verdicts.open.map(key => ({ key, says: sourceName(props.piece, key) })) : []))
function go(key: string): void {
  leave()
  hand.desk = 'lap'
  listing.reveal(key)
}

function leave(): void {
  giving.stop()
  giving.forget()
  emit('close')
}
</script>

<template>
  <DialogFrame :title="`Export ${piece.title}`" :wide="900" :high="610" @close="leave">
    <div class="grid min-h-0 flex-1 grid-cols-[270px_1fr]">
      <div
        class="flex flex-col gap-1 overflow-y-auto border-r border-rule p-2"
        role="group"
        aria-label="What to export"
      >
        <button
          v-for="k in EXPORT_KINDS"
          :key="k.kind"
          class="rounded-sm border-l-[3px] px-2 py-2 text-left"
          :class="k.kind === kind ? 'border-sea bg-band' : 'border-transparent hover:bg-paper'"
          type="button"
          :aria-pressed="k.kind === kind"
          @click="choose(k.kind)"
        >
          <span class="block font-semibold">{{ k.kind }}</span>
          <span class="text-faded">{{ k.says }}</span>
        </button>
        <button
          v-if="live"
          class="rounded-sm border-l-[3px] px-2 py-2 text-left"
          :class="kind === 'Device' ? 'border-sea bg-band' : 'border-transparent hover:bg-paper'"
          type="button"
          :aria-pressed="kind === 'Device'"
          @click="kind = 'Device'"
        >
          <span class="block font-semibold">Device</span>
          <span class="text-faded">live values, OSC over UDP</span>
        </button>
      </div>
      <div v-if="kind === 'Device'" class="flex min-w-0 flex-col gap-3 overflow-y-auto px-5 py-4">
        <LazyExportDevice />
      </div>
      <div v-else class="flex min-w-0 flex-col gap-3 overflow-y-auto px-5 py-4">
        <p
          v-if="giving.unfinished"
          class="flex items-center gap-3 rounded-md border border-rule px-3 py-2"
          role="status"
        >
          {{ formatOf(giving.unfinished.as).name }} was started here but not finished.
          <button class="link ml-auto" type="button" @click="again">Restart export</button>
          <button class="text-faded hover:text-ink" type="button" @click="giving.drop(id)">Discard</button>
        </p>
        <ExportOptions v-model="wanted" :piece="piece" :kind="kind" :plan="plan" />
        <ExportNotes
          :piece="piece"
          :wanted="wanted"
          :plan="plan"
          :looping="looping"
          :names="live ? open : []"
          @lap="lap => (wanted.firstLap = lap)"
          @go="go"
        />
        <ExportPreview :piece="piece" :wanted="wanted" :plan="plan" :busy="giving.progress !== null" />
        <div v-if="giving.progress" class="flex items-center gap-3">
          <ProgressBar class="flex-1" label="Export" :done="giving.progress.done" :of="giving.progress.of" />
          <span class="tabular" role="status"
            >frame {{ giving.progress.done }} of {{ giving.progress.of }}{{ left }}</span
          >
        </div>
        <p v-if="giving.wrong" class="text-coral" role="alert">{{ giving.wrong }}</p>
        <p v-if="giving.file" role="status">
          {{ giving.file.name }} is ready, {{ bytesText(giving.file.bytes) }}.
          <a class="link" :href="giving.file.url" :download="giving.file.name">Download</a>
        </p>
      </div>
    </div>
    <template #foot>
      <button v-if="giving.progress" class="button" type="button" @click="giving.stop">Cancel</button>
      <button v-else class="button" type="button" @click="leave">Close</button>
      <button
        v-if="kind !== 'Device'"
        class="button button-strong"
        type="button"
        :disabled="plan.problem !== null || giving.progress !== null"
        @click="begin"
      >
        Export
      </button>
    </template>
  </DialogFrame>
</template>

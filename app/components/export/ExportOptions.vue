<script setup lang="ts">
/** How something is exported: as what, how much of it, how large; only what the format asks for. */
import { formatOf, formatsOf, FORMATS, type ExportKind } from '~~/core/formats/export/formats.ts'
import type { ExportPlan, ExportSettings } from '~~/core/formats/export/export-plan.ts'
import { SAMPLE_RATES } from '~~/core/formats/sound/wav.ts'
import { instancesOf } from '~~/core/engine/instances.ts'
import { driveLabel } from '~~/core/formula/labels.ts'
import { lendable } from '~~/core/piece/lent.ts'
import type { Piece } from '~~/core/piece/schema.ts'

const props = defineProps<{ piece: Piece; kind: ExportKind; plan: ExportPlan }>()
const wanted = defineModel<{ -readonly [K in keyof ExportSettings]: ExportSettings[K] }>({ required: true })

const format = computed(() => formatOf(wanted.value.as))
const formats = computed(() => formatsOf(props.kind).map(as => ({ says: FORMATS[as].name, value: as })))
const SPANS = [
  { says: '1 lap', value: 'lap' },
  { says: 'the stretch', value: 'stretch' },
  { says: 'from … to', value: 'between' },
] as const
type Span = 'lap' | 'laps' | 'stretch' | 'between'
const span = computed<Span>({
  get: () => {
    const { laps, between } = wanted.value
    return laps === 1 ? 'lap' : laps !== null ? 'laps' : between ? 'between' : 'stretch'
  },
  set(to) {
    wanted.value.laps = to === 'lap' ? 1 : null
    wanted.value.between = to === 'between' ? [0, props.piece.stretch?.to ?? 2] : null
  },
})
function bound(k: 0 | 1, seconds: number): void {
  const [from, to] = wanted.value.between ?? [0, 0]
  wanted.value.between = k === 0 ? [seconds, to] : [from, seconds]
}

const sizes = computed(() =>
  ([0.5, 1, 2] as const).map(by => ({
    says: by === 0.5 ? '½' : String(by),
    label: `${by} times the stage`,
    value: props.piece.stage.width * by,
  })),
)
const grounds = computed(() => [
  { says: 'as on the stage', value: false },
  {
    says: 'transparent',
    value: true,
    ...(!format.value.clear && { not: `${format.value.name} has no transparent background` }),
  },
])
const BLURS = [
  { says: 'none', value: 1 },
  { says: '8 samples per frame', value: 8 },
] as const

const CONTROLS = [
  { says: 'none', value: 'none' },
  { says: 'play', value: 'play' },
  { says: 'play and dials', value: 'dials' },
] as const

const heard = computed(() =>
  [...Object.keys(props.piece.drives), ...Object.keys(props.piece.signals)]
    .map(key => ({ key, says: driveLabel(props.piece, key) }))
    .sort((a, b) => a.says.localeCompare(b.says)),
)
const copies = computed(() => {
  const part = props.piece.drives[wanted.value.drive]?.part
  return part === undefined ? 1 : instancesOf(props.piece, part).count
})
const rates = SAMPLE_RATES.map(value => ({ says: `${value / 1000} kHz`, value }))

const dials = computed(() => lendable(props.piece))
const isLent = (dial: string) => wanted.value.lent.some(l => l.dial === dial)
function lend(dial: string, on: boolean): void {
  const { lent } = wanted.value
  wanted.value.lent = dials.value.filter(l => (l.dial === dial ? on : lent.some(x => x.dial === l.dial)))
}
</script>

<template>
  <ChipRow v-if="!format.timeless" v-model="span" says="What" :of="SPANS">
    <label class="flex items-center gap-1"
      ><QuantityInput
        class="field tabular w-14"
        label="Laps"
        :value="wanted.laps"
        :low="1"
        :high="1000"
        whole
        @set="wanted.laps = $event"
      />laps</label
    >
    <label v-if="wanted.laps !== null" class="flex items-center gap-1"
      >from lap<QuantityInput
        class="field tabular w-14"
        label="First lap"
        data-tip="First lap, counted from 0"
        :value="wanted.firstLap"
        :low="0"
        :high="100000"
        whole
        @set="wanted.firstLap = $event"
    /></label>
    <span v-if="wanted.between" class="flex items-center gap-1">
      <QuantityInput
        v-for="(at, k) in wanted.between"
        :key="k"
        class="field tabular w-16"
        :label="k === 0 ? 'From, seconds' : 'To, seconds'"
        :value="at"
        unit="s"
        @set="bound(k as 0 | 1, $event)"
      />
    </span>
  </ChipRow>
  <ChipRow v-model="wanted.as" says="As" :of="formats" />
  <template v-if="format.drawn">
    <ChipRow v-model="wanted.width" says="Size" :of="sizes">
      <template #before
        ><span class="tabular">{{ plan.width }} × {{ plan.height }}</span></template
      >
      <QuantityInput
        class="field tabular w-20"
        label="Pixels wide"
        :value="wanted.width"
        unit="px"
        :low="16"
        :high="8192"
        whole
        @set="wanted.width = $event"
      />
    </ChipRow>
  </template>
  <ChipRow v-if="format.drawn || format.clear" v-model="wanted.seeThrough" says="Background" :of="grounds" />
  <ChipRow v-if="format.drawn" v-model="wanted.blur" says="Blur" :of="BLURS" />
  <template v-if="wanted.as === 'wav'">
    <div class="flex items-center gap-2" role="group" aria-label="Of">
      <span class="w-16 text-faded">Of</span>
      <ComboBox
        v-model="wanted.drive"
        class="min-w-0 flex-1"
        label="Drive or signal"
        :of="heard.map(it => ({ value: it.key, says: it.says }))"
      />
      <template v-if="copies > 1">
        copy
        <QuantityInput
          class="field tabular w-20"
          label="Copy"
          :value="wanted.copy + 1"
          :low="1"
          :high="copies"
          whole
          @set="wanted.copy = $event - 1"
        />
        <span class="text-faded">of {{ copies.toLocaleString('en') }}</span>
      </template>
    </div>
    <ChipRow v-model="wanted.sampleRate" says="Rate" :of="rates" />
  </template>
  <ChipRow v-if="kind === 'Live page'" v-model="wanted.controls" says="Controls" :of="CONTROLS" />
  <div
    v-if="kind === 'Live page' && wanted.controls === 'dials' && dials.length > 0"
    class="flex gap-2"
    role="group"
    aria-label="Dials"
  >
    <span class="w-16 shrink-0 text-faded">Dials</span>
    <span class="flex flex-wrap gap-x-4 gap-y-1">
      <CheckBox
        v-for="it in dials"
        :key="it.dial"
        :model-value="isLent(it.dial)"
        @update:model-value="lend(it.dial, $event)"
        >{{ it.says }}</CheckBox
      >
    </span>
  </div>
</template>

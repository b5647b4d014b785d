<script setup lang="ts">
/** What stands once in a piece: its stage, its frames, its eye, its chance, its kept states. */
import { fractionOf, framesOf, setEye, setFrameRate, setSeed, setStage, settleAll } from '~~/core/acts/settings.ts'
import { printNumber } from '~~/core/units/units.ts'
import { useHand } from '~/stores/hand.ts'
import { usePiece } from '~/stores/piece.ts'

const store = usePiece()
const hand = useHand()
const piece = computed(() => store.piece!)
const SIZES = [
  [1280, 720],
  [1920, 1080],
  [1080, 1080],
  [1080, 1920],
  [3840, 2160],
] as const
const RATES = [12, 24, 25, 30, 50, 60] as const
const rate = computed(() => piece.value.frameRate.n / piece.value.frameRate.d)
const frames = computed(() => framesOf(piece.value.lap.length, piece.value.frameRate))
const size = computed(() => `${piece.value.stage.width} ${piece.value.stage.height}`)
/** Seconds that tuning has moved paces along, over all of them. */
const gathered = computed(() => Object.values(piece.value.slips).filter(s => s !== 0).length)

function setSize(e: Event): void {
  const [width, height] = (e.target as HTMLSelectElement).value.split(' ').map(Number)
  if (width && height) store.act(setStage(piece.value, { width, height }))
}
function setRate(value: number): void {
  const fraction = fractionOf(value)
  if (!fraction) return
  const before = frames.value
  store.act(setFrameRate(fraction))
  store.notice = {
    says: `${printNumber(rate.value, 3)} fps: a lap now has ${frames.value} frames instead of ${before}. Speeds stay the same.`,
    act: { says: 'Undo', do: store.undo },
  }
}
const ground = (change: Partial<typeof piece.value.stage.background>) =>
  store.act(setStage(piece.value, { background: { ...piece.value.stage.background, ...change } }))
</script>

<template>
  <div
    class="grid min-h-0 flex-1 grid-cols-[repeat(auto-fill,minmax(220px,1fr))] content-start gap-x-8 gap-y-4 overflow-y-auto px-4 py-3"
    data-piece
  >
    <fieldset class="flex flex-col gap-2">
      <legend class="mb-1 font-semibold">Stage</legend>
      <label class="flex items-center gap-2"
        ><span class="flex-1">Size</span>
        <select class="field tabular" aria-label="Size of the stage" :value="size" @change="setSize">
          <option v-for="[w, h] in SIZES" :key="`${w} ${h}`" :value="`${w} ${h}`">{{ w }} × {{ h }}</option>
          <option v-if="!SIZES.some(([w, h]) => `${w} ${h}` === size)" :value="size">custom</option>
        </select></label
      >
      <NumberField
        label="Width"
        :value="piece.stage.width"
        unit="px"
        :low="16"
        :high="8192"
        whole
        @set="store.act(setStage(piece, { width: $event }))"
      />
      <NumberField
        label="Height"
        :value="piece.stage.height"
        unit="px"
        :low="16"
        :high="8192"
        whole
        @set="store.act(setStage(piece, { height: $event }))"
      />
    </fieldset>
    <GuideFields />
    <fieldset class="flex flex-col gap-2">
      <legend class="mb-1 flex items-center gap-2 font-semibold">
        Background
        <span
          class="inline-block h-3 w-6 rounded-sm border border-rule"
          :style="{
            background: `oklch(${piece.stage.background.lightness} ${piece.stage.background.chroma} ${piece.stage.background.hue})`,
          }"
        />
      </legend>
      <NumberField
        label="Background lightness"
        :value="Number((piece.stage.background.lightness * 100).toFixed(2))"
        unit="%"
        :low="0"
        :high="100"
        @set="ground({ lightness: $event / 100 })"
      />
      <NumberField
        label="Background chroma"
        :value="Number((piece.stage.background.chroma * 100).toFixed(2))"
        unit="%"
        :low="0"
        :high="40"
        @set="ground({ chroma: $event / 100 })"
      />
      <NumberField
        label="Background hue"
        :value="piece.stage.background.hue"
        unit="deg"
        :low="-360"
        :high="720"
        @set="ground({ hue: $event })"
      />
    </fieldset>
    <fieldset class="flex flex-col gap-2">
      <legend class="mb-1 font-semibold">Frames</legend>
      <label class="flex items-center gap-2"
        ><span class="flex-1">Frame rate</span>
        <select
          class="field tabular"
          aria-label="Frame rate"
          :value="rate"
          @change="setRate(Number(($event.target as HTMLSelectElement).value))"
        >
          <option v-for="r in RATES" :key="r" :value="r">{{ r }}</option>
          <option v-if="!(RATES as readonly number[]).includes(rate)" :value="rate">{{ printNumber(rate, 3) }}</option>
        </select></label
      >
      <NumberField label="Custom frame rate" :value="rate" :low="0.001" :high="1000" @set="setRate" />
      <p class="tabular text-[12px] text-faded" data-frames>A lap has {{ frames }} frames, 0 … {{ frames - 1 }}.</p>
    </fieldset>
    <fieldset class="flex flex-col gap-2">
      <legend class="mb-1 font-semibold">Camera and seed</legend>
      <TickField
        label="In depth"
        :value="piece.camera !== null"
        @set="store.act(setEye(piece, $event ? 1200 : null))"
      />
      <NumberField
        v-if="piece.camera"
        label="Camera distance"
        :value="piece.camera.distance"
        unit="px"
        :low="1"
        @set="store.act(setEye(piece, $event))"
      />
      <ChoiceField
        v-if="piece.camera"
        label="lines"
        name="Lines in depth"
        :value="piece.camera.lines ?? 'space'"
        :choices="{ space: 'grow as they come near', screen: 'as wide everywhere' }"
        @choose="store.act(setEye(piece, piece.camera.distance, $event as 'space' | 'screen'))"
      />
      <NumberField
        label="Seed of new drives"
        :value="piece.seed"
        :low="0"
        :high="4294967295"
        whole
        @set="store.act(setSeed($event))"
      />
    </fieldset>
    <fieldset class="flex flex-col items-start gap-2">
      <legend class="mb-1 font-semibold">Saved</legend>
      <button class="button" type="button" @click="hand.dialog = 'versions'">Version history…</button>
      <button class="button" type="button" :disabled="gathered === 0" @click="store.act(settleAll(piece))">
        Reset tuning offsets
      </button>
      <p class="text-[12px] text-faded">
        {{
          gathered === 0
            ? 'Nothing is offset by tuning.'
            : `Tuning dials while playing has offset ${gathered} ${gathered === 1 ? 'pace' : 'paces'}.`
        }}
      </p>
    </fieldset>
    <FrameCosts />
  </div>
</template>

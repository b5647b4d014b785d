<script setup lang="ts">
/** What stands once in a piece: its stage, its frames, its eye, its chance, its kept states. */
import {
  documentFraction,
  framesOf,
  setEye,
  setFrameRate,
  setSeed,
  setStage,
  settleAll,
} from '~~/core/acts/settings.ts'
import type { Oklch } from '~~/core/rig/colour-text.ts'
import { posterOf } from '~~/core/piece/poster.ts'
import { toNumber } from '~~/core/time/rational.ts'
import { printNumber } from '~~/core/units/units.ts'
import type { Choice } from '~/components/controls/choices.ts'
import { useSelection } from '~/stores/selection.ts'
import { useOpenPiece } from '~/stores/open-piece.ts'

const store = useOpenPiece()
const hand = useSelection()
const piece = computed(() => store.piece)
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

/** The usual ones, and what it is where that is none of them. */
const sizes = computed<Choice[]>(() => {
  const usual = SIZES.map(([w, h]) => ({ value: `${w} ${h}`, says: `${w} × ${h}` }))
  return usual.some(c => c.value === size.value) ? usual : [...usual, { value: size.value, says: 'custom' }]
})
const rates = computed<Choice[]>(() => {
  const usual = RATES.map(r => ({ value: String(r), says: `${r} fps` }))
  const custom = { value: String(rate.value), says: `${printNumber(rate.value, 3)} fps` }
  return usual.some(c => c.value === custom.value) ? usual : [...usual, custom]
})

function setSize(value: string): void {
  const [width, height] = value.split(' ').map(Number)
  if (width && height) store.act(setStage(piece.value, { width, height }))
}
/** The moment that is shown stands for the piece. */
function poster(): void {
  const { seconds } = store.player.now()
  store.act(setStage(piece.value, { poster: Number(seconds.toFixed(4)) }))
  store.sayWithUndo(`The card now shows ${printNumber(seconds, 2)} s.`)
}
function setRate(value: number): void {
  const fraction = documentFraction(value)
  if (!fraction) return
  const before = frames.value
  store.act(setFrameRate(fraction))
  store.sayWithUndo(
    `${printNumber(rate.value, 3)} fps: a lap now has ${frames.value} frames instead of ${before}. Speeds stay the same.`,
  )
}
function ground({ lightness, ...rest }: Partial<Oklch>): void {
  const background = {
    ...piece.value.stage.background,
    ...(lightness !== undefined && { lightness: lightness / 100 }),
    ...rest,
  }
  store.act(setStage(piece.value, { background }))
}
</script>

<template>
  <div class="min-h-0 flex-1 overflow-y-auto px-4 py-2" data-piece>
    <SectionLanes>
      <FoldSection page="piece" title="Stage">
        <ChoiceField label="Size" name="Size of the stage" :value="size" :choices="sizes" @choose="setSize" />
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
        <ColourPicker
          name="Background"
          label="Background"
          :value="{
            lightness: piece.stage.background.lightness * 100,
            chroma: piece.stage.background.chroma,
            hue: piece.stage.background.hue,
          }"
          @set="ground"
          @take="store.beginGesture()"
          @release="store.endGesture()"
        />
      </FoldSection>
      <GuideFields />
      <FoldSection page="piece" title="Card">
        <NumberField
          label="Poster frame"
          data-tip="The moment shown on the piece’s card in the Harbour"
          :value="toNumber(posterOf(piece))"
          unit="s"
          :stride="0.1"
          @set="store.act(setStage(piece, { poster: $event }))"
        />
        <button class="button my-1 self-start" type="button" @click="poster">Use this moment</button>
      </FoldSection>
      <FoldSection page="piece" title="Frames">
        <ChoiceField label="Frame rate" :value="String(rate)" :choices="rates" @choose="setRate(Number($event))" />
        <NumberField label="Custom frame rate" :value="rate" :low="0.001" :high="1000" @set="setRate" />
        <p class="tabular text-[12px] text-faded" data-frames>A lap has {{ frames }} frames, 0 … {{ frames - 1 }}.</p>
      </FoldSection>
      <FoldSection page="piece" title="Camera and seed">
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
          :choices="{ space: 'wider when nearer', screen: 'same width everywhere' }"
          @choose="store.act(setEye(piece, piece.camera.distance, $event))"
        />
        <NumberField
          label="Seed of new drives"
          :value="piece.seed"
          :low="0"
          :high="4294967295"
          whole
          @set="store.act(setSeed($event))"
        />
      </FoldSection>
      <FoldSection page="piece" title="Saved">
        <button class="button my-1 self-start" type="button" @click="hand.dialog = 'versions'">Version history…</button>
        <button
          class="button mb-1 self-start"
          type="button"
          :disabled="gathered === 0"
          @click="store.act(settleAll(piece))"
        >
          Reset tuning offsets
        </button>
        <p class="text-[12px] text-faded">
          {{
            gathered === 0
              ? 'Nothing is offset by tuning.'
              : `Tuning dials while playing has offset ${gathered} ${gathered === 1 ? 'pace' : 'paces'}.`
          }}
        </p>
      </FoldSection>
      <FrameCosts />
    </SectionLanes>
  </div>
</template>

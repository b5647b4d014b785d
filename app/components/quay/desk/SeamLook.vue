<script setup lang="ts">
/** Loop seam of the lap: its last and its first frame side by side, and playing to and fro over it. */
import { momentOfSeconds } from '~~/core/time/moment.ts'
import { fromNumber, minus, over, plus, rational, toNumber } from '~~/core/time/rational.ts'
import { printNumber } from '~~/core/units/units.ts'
import { StageRenderer } from '~/stage/renderer.ts'
import { useOpenPiece } from '~/stores/open-piece.ts'

const store = useOpenPiece()
const canvases = useTemplateRef<HTMLCanvasElement[]>('canvases')
/** Width of each picture, px. */
const WIDTH = 236
const height = computed(() => Math.round((WIDTH * store.piece.stage.height) / store.piece.stage.width))
/** The last frame that goes out, and the first. */
const ends = computed(() => {
  const { frameRate, lapLength } = store.program.measures
  const start = fromNumber(store.piece.lap.start)
  const last = minus(plus(start, lapLength), over(rational(1), frameRate))
  return [
    { says: 'last frame', at: last },
    { says: 'first frame', at: start },
  ] as const
})
const seam = computed(() => store.piece.lap.start + toNumber(store.program.measures.lapLength))
const across = ref(false)
const renderers: StageRenderer[] = []

function draw(): void {
  const program = store.program
  const ratio = devicePixelRatio || 1
  ends.value.forEach(({ at }, k) => {
    const moment = momentOfSeconds(at, program.measures.frameRate)
    const values = program.moment(moment, new Float64Array(program.size))
    renderers[k]!.resize(Math.round(WIDTH * ratio), Math.round(height.value * ratio))
    renderers[k]!.draw({ program, moment, values })
  })
}
let unlisten = () => {}
onMounted(() => {
  try {
    for (const canvas of canvases.value!) renderers.push(new StageRenderer(canvas, draw))
    draw()
  } catch {
    // Without WebGL the stage says so.
  }
  unlisten = store.player.changed(() => (across.value = store.player.between !== null))
})
watch(
  () => [store.program, ends.value],
  () => renderers.length === 2 && draw(),
)
onBeforeUnmount(() => {
  unlisten()
  renderers.forEach(r => r.dispose())
})

function play(): void {
  const player = store.player
  if (across.value) player.play(false)
  else {
    player.setPace(Math.abs(player.pace))
    player.toAndFro(seam.value - 1, seam.value + 1)
  }
}
</script>

<template>
  <section class="mt-3" aria-label="Loop seam">
    <p class="flex items-center gap-3">
      <span class="font-semibold">Loop seam</span>
      <button
        class="chip"
        :class="{ 'chip-on': across }"
        type="button"
        :aria-pressed="across"
        :data-tip="`Back and forth over ${printNumber(seam, 2)} s`"
        @click="play"
      >
        Play across the seam
      </button>
    </p>
    <div class="mt-1 flex gap-3">
      <figure v-for="e in ends" :key="e.says">
        <canvas
          ref="canvases"
          class="block rounded-sm outline outline-rule"
          :style="{ width: `${WIDTH}px`, height: `${height}px` }"
          role="img"
          :aria-label="`The ${e.says} of the lap`"
        />
        <figcaption class="tabular text-[12px] text-faded">
          {{ e.says }}, {{ printNumber(toNumber(e.at), 3) }} s
        </figcaption>
      </figure>
    </div>
  </section>
</template>

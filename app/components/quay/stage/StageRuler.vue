<script setup lang="ts">
/** A ruler along the stage, in stage px from its middle: pulled from it, a guide comes out. */
import type { GuideAxis } from '~~/core/acts/guides.ts'
import { STAGE_RULER } from '~/stage/fitting.ts'
import type { Lens, Size } from '~/stage/view.ts'

const props = defineProps<{
  axis: GuideAxis
  lens: Lens
  size: Size
  /** Where the pointer is, page pixels along it; null where it is not over the stage. */
  pointer: number | null
}>()
const emit = defineEmits<{ pull: [e: PointerEvent] }>()
const canvas = useTemplateRef('canvas')
const palette = usePalette(() => draw())
const long = computed(() => (props.axis === 'x' ? props.size.width : props.size.height))
/** Page pixels between ticks that have a number, at least. */
const APART = 56

function draw(): void {
  const c = canvas.value?.getContext('2d')
  if (!c) return
  const across = props.axis === 'x'
  const ratio = devicePixelRatio || 1
  const [w, h] = across ? [long.value, STAGE_RULER] : [STAGE_RULER, long.value]
  canvas.value!.width = w * ratio
  canvas.value!.height = h * ratio
  c.setTransform(ratio, 0, 0, ratio, 0, 0)
  c.fillStyle = palette.band
  c.fillRect(0, 0, w, h)
  const { scale, toStage, toScreen } = props.lens
  let step = 10 ** Math.floor(Math.log10(APART / scale))
  step *= [1, 2, 5, 10].find(k => k * step * scale >= APART)!
  const ends = [toStage(0, 0), toStage(w, h)].map(p => p[across ? 0 : 1]).sort((a, b) => a - b)
  c.strokeStyle = palette.faded
  c.fillStyle = palette.faded
  c.font = '10px "Spline Sans Mono", monospace'
  c.textBaseline = 'top'
  c.lineWidth = 1
  const tick = (at: number, from: number) => {
    if (across) {
      c.moveTo(at, from)
      c.lineTo(at, STAGE_RULER)
    } else {
      c.moveTo(from, at)
      c.lineTo(STAGE_RULER, at)
    }
  }
  c.beginPath()
  const fine = step / 10
  for (let k = Math.ceil(ends[0]! / fine); k * fine <= ends[1]!; k++) {
    const at = Math.floor(toScreen(k * fine, k * fine)[across ? 0 : 1]) + 0.5
    const much = k % 10 === 0 ? STAGE_RULER : k % 5 === 0 ? 6 : 3
    tick(at, STAGE_RULER - much)
    if (k % 10 !== 0) continue
    const says = String(Math.round(k * fine * 100) / 100).replace('-', '−')
    c.save()
    if (across) c.translate(at + 3, 3)
    else {
      c.translate(3, at - 3)
      c.rotate(-Math.PI / 2)
    }
    c.fillText(says, 0, 0)
    c.restore()
  }
  c.stroke()
  if (props.pointer === null) return
  const at = Math.floor(props.pointer) + 0.5
  c.strokeStyle = palette.coral
  c.beginPath()
  tick(at, 0)
  c.stroke()
}
onMounted(draw)
watch(() => [props.lens, props.size, props.pointer], draw)
</script>

<template>
  <canvas
    ref="canvas"
    class="absolute touch-none"
    :class="axis === 'x' ? 'bottom-full left-0 cursor-row-resize' : 'top-0 right-full cursor-col-resize'"
    :style="
      axis === 'x'
        ? { width: `${long}px`, height: `${STAGE_RULER}px` }
        : { width: `${STAGE_RULER}px`, height: `${long}px` }
    "
    :data-ruler="axis"
    aria-hidden="true"
    :data-tip="axis === 'x' ? 'Drag down for a horizontal guide' : 'Drag right for a vertical guide'"
    @pointerdown.prevent="emit('pull', $event)"
  />
</template>

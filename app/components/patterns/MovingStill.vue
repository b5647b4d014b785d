<script setup lang="ts">
/** A piece as a small picture that moves while it is pointed at, or has the keys. */
import { momentsOf } from '~/running/still.ts'
import type { Runner } from '~/running/runner.ts'
import { posterOf } from '~~/core/piece/poster.ts'
import { toNumber } from '~~/core/time/rational.ts'
import type { Piece } from '~~/core/piece/schema.ts'

const props = defineProps<{
  /** The piece, or where it is to be had when it is pointed at. */
  piece: Piece | (() => Promise<Piece | null>)
  /** What is shown at rest; drawn here where it is not said. */
  src?: string
  moving: boolean
}>()
const still = ref(props.src ?? '')
const canvas = useTemplateRef('canvas')
const shown = ref(false)
let runner: Runner | null = null

watchEffect(async () => {
  if (props.src !== undefined) still.value = props.src
  else if (typeof props.piece !== 'function') still.value = await momentsOf(props.piece)
})

async function begin(): Promise<void> {
  const [piece, made] = await Promise.all([
    typeof props.piece === 'function' ? props.piece() : props.piece,
    import('~/running/runner.ts'),
  ])
  if (!piece || !props.moving || runner) return
  shown.value = true
  await nextTick()
  try {
    runner = new made.Runner(canvas.value!, piece, [])
    runner.seek(toNumber(posterOf(piece)))
    runner.player.play(true)
  } catch {
    shown.value = false
  }
}
function end(): void {
  runner?.dispose()
  runner = null
  shown.value = false
}
watch(
  () => props.moving,
  on => (on && !matchMedia('(prefers-reduced-motion: reduce)').matches ? void begin() : end()),
)
onBeforeUnmount(end)
</script>

<template>
  <span class="relative block aspect-video w-full overflow-hidden bg-band">
    <img v-if="still" :src="still" alt="" class="block h-full w-full object-cover" loading="lazy" />
    <canvas v-if="shown" ref="canvas" class="absolute inset-0 h-full w-full" data-moving />
  </span>
</template>

<script setup lang="ts">
/** The piece as it would be with a take of a drive in its place, at the same moment as the stage beside it. */
import { rewrite } from '~~/core/engine/rewrite.ts'
import { StageRenderer } from '~/stage/renderer.ts'
import { useOpenPiece } from '~/stores/open-piece.ts'

const props = defineProps<{ drive: string; name: string; text: string }>()
const store = useOpenPiece()
const room = useTemplateRef('room')
const canvas = useTemplateRef('canvas')
const size = ref({ width: 0, height: 0 })
const program = computed(() => rewrite(store.program, props.drive, props.text, store.player.now(), false).program)
const stops: (() => void)[] = []
onMounted(() => {
  let renderer: StageRenderer
  try {
    renderer = new StageRenderer(canvas.value!, () => store.refresh())
  } catch {
    // Without WebGL the stage itself says so.
    return
  }
  let values = new Float64Array(0)
  const fit = new ResizeObserver(([entry]) => {
    const { width, height } = entry!.contentRect
    const { stage } = store.piece
    const scale = Math.min(width / stage.width, height / stage.height)
    size.value = { width: Math.floor(stage.width * scale), height: Math.floor(stage.height * scale) }
    const ratio = devicePixelRatio || 1
    renderer.resize(Math.round(size.value.width * ratio), Math.round(size.value.height * ratio))
    store.refresh()
  })
  fit.observe(room.value!)
  stops.push(
    () => fit.disconnect(),
    () => renderer.dispose(),
    store.player.watch(snapshot => {
      const other = program.value
      if (values.length !== other.size) values = new Float64Array(other.size)
      renderer.draw({ ...snapshot, program: other, values: other.moment(snapshot.moment, values) })
    }),
  )
})
watch(program, () => store.refresh())
onBeforeUnmount(() => stops.forEach(stop => stop()))
</script>

<template>
  <figure class="relative min-w-0 flex-1">
    <div ref="room" class="grid h-full place-items-center">
      <canvas
        ref="canvas"
        class="rounded-sm outline outline-rule"
        :style="{ width: `${size.width}px`, height: `${size.height}px` }"
        role="img"
        :aria-label="`The piece with ${name}`"
      />
    </div>
    <figcaption class="panel absolute top-1 left-1 max-w-full truncate px-2 text-[12px] text-faded" :data-tip="text">
      {{ name }}
    </figcaption>
  </figure>
</template>

<script setup lang="ts">
/** What will come out: its first and its last frame one over the other, and about how large the file will be. */
import { formatOf } from '~~/core/formats/export/formats.ts'
import type { ExportPlan, ExportSettings } from '~~/core/formats/export/export-plan.ts'
import type { Piece } from '~~/core/piece/schema.ts'
import { bytesText } from '~~/core/units/bytes.ts'
import type { Tried } from '~/export/export.worker.ts'
import { hired } from '~/export/hired.ts'
import { ASSETS } from '~/stage/pictures.ts'

const props = defineProps<{ piece: Piece; wanted: ExportSettings; plan: ExportPlan; busy: boolean }>()
/** Milliseconds of rest after a change before it is tried out. */
const REST = 350
const [first, last] = [useTemplateRef('first'), useTemplateRef('last')]
const bytes = ref<number | null>(null)
const state = ref<'trying' | 'there' | 'none'>('trying')
/** Numbers and whole pieces are no pictures. */
const pictured = computed(() => !['Numbers', 'Piece'].includes(formatOf(props.wanted.as).kind))
const moving = computed(() => formatOf(props.wanted.as).timeless !== true)
let worker: Worker | null = null
let timer: ReturnType<typeof setTimeout> | undefined
/** What was tried last, to its end. */
let tried: { piece: Piece; wanted: string } | null = null

const put = (canvas: HTMLCanvasElement | null, picture: ImageBitmap) => {
  if (!canvas) return
  canvas.width = picture.width
  canvas.height = picture.height
  canvas.getContext('2d')!.drawImage(picture, 0, 0)
  picture.close()
}
function stop(): void {
  clearTimeout(timer)
  worker?.terminate()
  worker = null
}
function begin(): void {
  stop()
  if (!pictured.value || props.plan.problem !== null) {
    tried = null
    return void (state.value = 'none')
  }
  // While something is exported, what stands here stays as it is: the link to the file stands below it and must not move under the hand.
  const now = { piece: props.piece, wanted: JSON.stringify(props.wanted) }
  if (tried?.piece === now.piece && tried.wanted === now.wanted) return
  tried = null
  state.value = 'trying'
  bytes.value = null
  if (props.busy) return
  worker = hired(
    data => {
      tried = now
      if (data.is === 'tried') {
        put(first.value, data.first)
        put(last.value, data.last)
        bytes.value = data.bytes
      }
      state.value = data.is === 'tried' ? 'there' : 'none'
      stop()
    },
    () => (state.value = 'none'),
  )
  const { piece, wanted } = JSON.parse(JSON.stringify({ piece: props.piece, wanted: props.wanted })) as Tried
  worker.postMessage({ piece, wanted, assets: ASSETS, trial: true } satisfies Tried)
}
watch(
  [() => JSON.stringify(props.wanted), () => props.busy, () => props.piece],
  () => {
    stop()
    timer = setTimeout(begin, REST)
  },
  { immediate: true },
)
onBeforeUnmount(stop)
</script>

<template>
  <figure v-show="state !== 'none'" class="flex items-start gap-4" data-preview :data-state="state">
    <div
      class="relative w-[240px] shrink-0 overflow-hidden rounded-sm bg-band outline outline-rule"
      :style="{ aspectRatio: `${plan.width} / ${plan.height}` }"
    >
      <canvas ref="first" class="absolute inset-0 h-full w-full" aria-hidden="true" />
      <canvas
        ref="last"
        class="absolute inset-0 h-full w-full opacity-50"
        :class="{ hidden: !moving }"
        aria-hidden="true"
      />
    </div>
    <figcaption class="min-w-0 flex-1 text-[12px] text-faded">
      <template v-if="state === 'trying'">Drawing a preview …</template>
      <template v-else>
        <p v-if="moving">
          Frame 0 with frame {{ plan.frames - 1 }} over it. What you see twice has moved between the last frame and the
          first.
        </p>
        <p v-if="bytes !== null" class="mt-1 text-ink" data-about>About {{ bytesText(bytes) }}.</p>
      </template>
    </figcaption>
  </figure>
</template>

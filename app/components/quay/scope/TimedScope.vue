<script setup lang="ts">
/** A clock, cue or curve in hand, large. */
import type { TimedIn } from '~~/core/insight/sentence.ts'
import { TimedStrip } from '~/player/timed-strip.ts'
import { useOpenPiece } from '~/stores/open-piece.ts'

const props = defineProps<{ collection: TimedIn; id: string }>()
const store = useOpenPiece()
const canvas = useTemplateRef('canvas')
const there = computed(() => store.piece[props.collection][props.id] !== undefined)
let stop = () => {}
const palette = usePalette(() => store.refresh())
onMounted(() => {
  if (!canvas.value) return
  const strip = new TimedStrip(canvas.value, props.collection, props.id, palette, () => store.refresh())
  const unwatch = store.player.watch(s => strip.draw(s))
  stop = () => {
    strip.stop()
    unwatch()
  }
})
onBeforeUnmount(() => stop())
</script>

<template>
  <LazyCurveScope v-if="there && collection === 'curves'" :id="id" />
  <div v-else-if="there" class="flex min-h-0 flex-1 flex-col gap-2 py-2">
    <canvas ref="canvas" class="min-h-0 w-full flex-1" aria-hidden="true" />
    <SentenceLine :collection="collection" :id="id" />
    <p v-if="collection === 'cues'" class="px-3 text-[12px] text-faded">
      C puts a mark at the current moment, also while playing. Drag marks on the tape above; Alt-drag duplicates them.
    </p>
  </div>
</template>

<script setup lang="ts">
/** A clock, a cue or a drawn curve as a strip, with its sentence under it. */
import type { TimedIn } from '~~/core/insight/sentence.ts'
import { TimedStrip } from '~/player/timed-strip.ts'
import { RotateCcw } from '@lucide/vue'
import { writeText } from '~/player/write-text.ts'
import { useTiming } from '~/commands/timing.ts'
import { useSelection } from '~/stores/selection.ts'
import { useOpenPiece } from '~/stores/open-piece.ts'

const props = defineProps<{ collection: TimedIn; id: string }>()
const store = useOpenPiece()
const hand = useSelection()
const timing = useTiming()
const canvas = useTemplateRef('canvas')
const readout = useTemplateRef('readout')
const KIND = { clocks: 'clock', cues: 'cue', curves: 'drawn curve' } as const
const place = computed(() => `${props.collection}/${props.id}`)
const entry = computed(() => store.piece[props.collection][props.id])
const chosen = computed(() => hand.drive === place.value)
let stop = () => {}
const palette = usePalette(() => store.refresh())

onMounted(() => {
  const strip = new TimedStrip(canvas.value!, props.collection, props.id, palette, () => store.refresh())
  const unwatch = store.player.watch(snapshot => {
    const text = strip.draw(snapshot)
    writeText(readout.value, text)
  })
  stop = () => {
    strip.stop()
    unwatch()
  }
})
onBeforeUnmount(() => stop())
</script>

<template>
  <article
    v-if="entry"
    class="entry relative rounded-md border bg-sheet"
    :class="chosen ? 'border-sea' : 'border-rule'"
    :data-timed="place"
    :aria-label="entry.name"
    @pointerdown="hand.take(place)"
  >
    <span v-if="chosen" class="absolute inset-y-[-1px] left-[-1px] w-[4px] rounded-l-md bg-sea" aria-hidden="true" />
    <header class="flex min-h-[26px] items-center gap-x-2 pr-1 pl-3">
      <span class="w-[104px] shrink-0 truncate font-medium" :data-tip="entry.name">{{ entry.name }}</span>
      <span ref="readout" class="tabular w-[76px] shrink-0 text-right whitespace-pre" data-readout />
      <span class="ml-2 text-[12px] text-faded">{{ KIND[collection] }}</span>
      <button
        v-if="collection === 'clocks'"
        class="link ml-auto flex items-center gap-1 text-[12px]"
        type="button"
        data-tip="Restart it now"
        @click="timing.restart(id)"
      >
        <RotateCcw :size="12" />restart
      </button>
      <span :class="{ 'ml-auto': collection !== 'clocks' }"><NamedMenu :collection="collection" :id="id" /></span>
    </header>
    <canvas
      ref="canvas"
      class="block h-[34px] w-full cursor-pointer"
      data-tip="Show in the scope"
      aria-hidden="true"
      @click="hand.desk = 'scope'"
    />
    <SentenceLine :collection="collection" :id="id" />
  </article>
</template>

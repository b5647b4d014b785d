<script setup lang="ts">
/** An example of the manual, running: its curve on gauge paper, with the nib going along it. */
import { running, type Example } from '~~/core/manual/manual.ts'
import { Strip } from '~/player/strip.ts'
import { momentOfTicks, TICKS } from '~~/core/time/moment.ts'
import { toNumber } from '~~/core/time/rational.ts'

const props = defineProps<{ example: Example }>()
const canvas = useTemplateRef('canvas')
const palette = usePalette(() => {})
const uses = useExamples()
let request = 0

onMounted(() => {
  const made = running(props.example)
  if (!made) return
  const { program, key } = made
  let drawn = false
  const strip = new Strip(canvas.value!, key, palette, () => (drawn = false))
  const values = new Float64Array(program.size)
  let seen = false
  const sight = new IntersectionObserver(([e]) => (seen = e!.isIntersecting))
  sight.observe(canvas.value!)
  const began = performance.now()
  const still = matchMedia('(prefers-reduced-motion: reduce)').matches
  const step = (now: number): void => {
    request = requestAnimationFrame(step)
    if (!seen || (still && drawn)) return
    const ticks = still ? 0 : Math.round(((now - began) / 1000) * toNumber(program.measures.frameRate) * TICKS)
    strip.draw({ program, moment: momentOfTicks(ticks, program.measures.frameRate), values, playing: true })
    drawn = true
  }
  request = requestAnimationFrame(step)
  onScopeDispose(() => {
    sight.disconnect()
    strip.stop()
  })
})
onBeforeUnmount(() => cancelAnimationFrame(request))
</script>

<template>
  <figure class="my-2 overflow-hidden rounded-md border border-rule bg-sheet">
    <canvas ref="canvas" class="block h-11 w-full" aria-hidden="true" />
    <figcaption class="flex items-baseline gap-3 border-t border-rule px-3 py-1">
      <span class="tabular min-w-0 flex-1 text-[12.5px]">{{ example.text }}</span>
      <button
        v-for="u in uses()"
        :key="u.says"
        class="link shrink-0"
        type="button"
        :data-tip="u.title"
        :aria-label="`${u.says}: ${example.text}`"
        @mousedown.prevent
        @click="u.do(example.text)"
      >
        {{ u.says }}
      </button>
    </figcaption>
  </figure>
</template>

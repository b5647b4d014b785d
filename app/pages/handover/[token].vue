<script setup lang="ts">
/** A hand-over: the stage, the dials that were chosen, what may be taken away; nothing else. */
import { Pause, Play } from '@lucide/vue'
import { FORMATS, type ExportFormat } from '~~/core/formats/export/formats.ts'
import { exportSettings } from '~~/core/formats/export/export-plan.ts'
import { Runner } from '~/running/runner.ts'
import { picturesFrom } from '~/stage/pictures.ts'
import { useGivingOut } from '~/stores/giving-out.ts'
import { useReceiving } from '~/services/receiving.ts'

const token = String(useRoute().params.token)
const it = useReceiving(token)
const { received, trouble, values, keeping } = it
const giving = useGivingOut()
const canvas = useTemplateRef('canvas')
const failed = ref('')
const playing = ref(false)
let runner: Runner | null = null
const assets = `/api/handover/${token}/assets`

onMounted(async () => {
  await it.load()
  if (!received.value) return
  await nextTick()
  try {
    runner = new Runner(canvas.value!, it.asTuned(), received.value.lent, picturesFrom(assets))
  } catch {
    failed.value = 'This browser has no WebGL 2, so the stage can’t be drawn.'
    return
  }
  it.take(runner)
  runner.player.changed(() => (playing.value = runner!.player.playing))
  const still = matchMedia('(prefers-reduced-motion: reduce)')
  runner.player.play(!still.matches)
  Object.assign(window, {
    openTide: {
      values: (property: string, seconds: number) => runner!.values(property, seconds),
      seek: (s: number) => runner!.seek(s),
    },
  })
})
onBeforeUnmount(() => runner?.dispose())
useHead({
  title: computed(() => received.value?.document.title ?? 'Open Tide'),
  meta: [{ name: 'robots', content: 'noindex' }],
})

const stage = computed(() => received.value!.document.stage)
const formats = computed(() => (received.value?.formats ?? []) as ExportFormat[])
function take(as: ExportFormat): void {
  const piece = runner!.current()
  const wanted = { ...exportSettings(piece, as), at: runner!.player.now().seconds, lent: received.value!.lent }
  giving.begin(piece, wanted, `handover-${token.slice(0, 6)}`, assets)
}
</script>

<template>
  <main class="mx-auto flex min-h-full max-w-[1100px] flex-col">
    <p v-if="trouble && !received" class="m-auto max-w-[420px] p-6 text-center text-[15px]" role="alert">
      {{ trouble }}
    </p>
    <p v-else-if="!received" class="m-auto p-6 text-faded">Opening …</p>
    <template v-else>
      <h1 class="px-4 py-3 text-[17px] font-semibold">{{ received.document.title }}</h1>
      <p v-if="failed" class="px-4 py-2 text-coral" role="alert">{{ failed }}</p>
      <canvas
        ref="canvas"
        class="block w-full"
        data-stage
        role="img"
        :aria-label="received.document.title"
        :style="{ aspectRatio: `${stage.width} / ${stage.height}` }"
      />
      <div class="flex items-center gap-2 px-4 py-3">
        <button class="button h-10 min-w-[92px] text-[15px]" type="button" @click="runner?.player.play(!playing)">
          <component :is="playing ? Pause : Play" :size="16" />{{ playing ? 'Pause' : 'Play' }}
        </button>
        <button class="button h-10 text-[15px]" type="button" @click="it.back()">Back to how it was</button>
        <span class="ml-auto text-faded" role="status">{{
          keeping === 'kept' ? '' : keeping === 'keeping' ? 'saving …' : 'not saved'
        }}</span>
      </div>
      <p v-if="keeping === 'failed'" class="px-4 pb-2 text-coral" role="alert">
        {{ trouble }} <button class="link" type="button" @click="it.keep()">Try again</button>
      </p>
      <section
        v-if="received.lent.length > 0"
        class="grid grid-cols-1 gap-x-8 px-4 pb-4 sm:grid-cols-2 lg:grid-cols-3"
        aria-label="Dials"
      >
        <LentDial
          v-for="lent in received.lent"
          :key="lent.dial"
          :lent="lent"
          :dial="received.document.dials[lent.dial]!"
          :value="values[lent.dial]!"
          @turn="it.turn(lent.dial, $event)"
        />
      </section>
      <section v-if="formats.length > 0" class="border-t border-rule px-4 py-3" aria-label="Downloads">
        <div class="flex flex-wrap items-center gap-2">
          <span class="text-faded">Download</span>
          <button
            v-for="as in formats"
            :key="as"
            class="button h-9"
            type="button"
            :disabled="giving.progress !== null"
            @click="take(as)"
          >
            {{ FORMATS[as].name }}
          </button>
          <button v-if="giving.progress" class="button h-9" type="button" @click="giving.stop">Cancel</button>
        </div>
        <p v-if="giving.progress" class="tabular mt-2" role="status">
          frame {{ giving.progress.done }} of {{ giving.progress.of }}
        </p>
        <p v-if="giving.wrong" class="mt-2 text-coral" role="alert">{{ giving.wrong }}</p>
        <p v-if="giving.file" class="mt-2" role="status">
          {{ giving.file.name }} is ready.
          <a class="link" :href="giving.file.url" :download="giving.file.name">Download</a>
        </p>
      </section>
    </template>
  </main>
</template>

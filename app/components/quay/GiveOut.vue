<script setup lang="ts">
/** Give out: films, numbers and stills of the piece; what will come out is said before, and what it became after. */
import { Dialog, DialogPanel, DialogTitle } from '@headlessui/vue'
import { planOf, type Given, type Wanted } from '~~/core/formats/give/plan.ts'
import { toNumber } from '~~/core/time/rational.ts'
import { printNumber } from '~~/core/units/units.ts'
import { useGivingOut } from '~/stores/giving-out.ts'
import { usePiece } from '~/stores/piece.ts'
import { useVerdicts } from '~/stores/verdicts.ts'

const emit = defineEmits<{ close: [] }>()
const store = usePiece()
const verdicts = useVerdicts()
const giving = useGivingOut()

const KINDS = [
  { name: 'Film', says: 'WebM, MP4, GIF, numbered PNGs', as: ['webm', 'mp4', 'gif', 'zip'] },
  { name: 'Numbers', says: 'CSV and JSON of every drive', as: ['csv', 'json'] },
  { name: 'Still', says: 'PNG or SVG of this moment', as: ['png', 'svg'] },
] as const satisfies readonly { name: string; says: string; as: readonly Given[] }[]
const NAMES: Record<Given, string> = {
  webm: 'WebM',
  mp4: 'MP4',
  gif: 'GIF',
  zip: 'PNGs',
  csv: 'CSV',
  json: 'JSON',
  png: 'PNG',
  svg: 'SVG',
}
const SIZES = [
  ['½', 0.5],
  ['1', 1],
  ['2', 2],
] as const

const kind = shallowRef<(typeof KINDS)[number]>(KINDS[0])
const wanted = reactive<{ -readonly [K in keyof Wanted]: Wanted[K] }>({
  as: 'webm',
  laps: 1,
  width: store.piece!.stage.width,
  seeThrough: false,
  blur: 1,
  at: store.player!.now().seconds,
})
const plan = computed(() => planOf(store.piece!, wanted))
const drawn = computed(() => wanted.as !== 'csv' && wanted.as !== 'json' && wanted.as !== 'svg')
const mayBeClear = computed(() => wanted.as === 'png' || wanted.as === 'zip' || wanted.as === 'gif')
const open = computed(() => verdicts.running.length - verdicts.closing)

function choose(of: (typeof KINDS)[number]): void {
  kind.value = of
  wanted.as = of.as[0]
}
watch(mayBeClear, may => (wanted.seeThrough &&= may))

const seconds = computed(() => plan.value.frames / toNumber(plan.value.rate))
const left = computed(() => {
  const p = giving.progress
  if (!p || p.done < 3) return ''
  const rest = ((performance.now() - p.began) / p.done) * (p.of - p.done)
  return ` · about ${Math.max(1, Math.round(rest / 1000))} s`
})
const size = (bytes: number) =>
  bytes < 1e6 ? `${Math.max(1, Math.round(bytes / 1000))} kB` : `${printNumber(bytes / 1e6, 1)} MB`

function leave(): void {
  giving.stop()
  giving.forget()
  emit('close')
}
</script>

<template>
  <Dialog :open="true" class="relative z-50" @close="leave">
    <div class="fixed inset-0 grid place-items-center bg-[rgb(10_25_30/0.35)] p-4">
      <DialogPanel class="panel flex h-[560px] max-h-[92vh] w-[900px] max-w-full flex-col">
        <DialogTitle class="border-b border-rule px-5 py-3 text-[15px] font-semibold"
          >Give out {{ store.piece!.title }}</DialogTitle
        >
        <div class="grid min-h-0 flex-1 grid-cols-[270px_1fr]">
          <div class="flex flex-col gap-1 border-r border-rule p-2" role="group" aria-label="What is given out">
            <button
              v-for="k in KINDS"
              :key="k.name"
              class="rounded-sm border-l-[3px] px-2 py-2 text-left"
              :class="k === kind ? 'border-sea bg-band' : 'border-transparent hover:bg-paper'"
              type="button"
              :aria-pressed="k === kind"
              @click="choose(k)"
            >
              <span class="block font-semibold">{{ k.name }}</span>
              <span class="text-faded">{{ k.says }}</span>
            </button>
          </div>
          <div class="flex min-w-0 flex-col gap-3 overflow-y-auto px-5 py-4">
            <div v-if="kind.name !== 'Still'" class="flex items-center gap-2" role="group" aria-label="What">
              <span class="w-16 text-faded">What</span>
              <button
                class="chip"
                type="button"
                :class="{ 'chip-on': wanted.laps === 1 }"
                :aria-pressed="wanted.laps === 1"
                @click="wanted.laps = 1"
              >
                1 lap
              </button>
              <label class="flex items-center gap-1"
                ><input
                  class="field tabular w-14 text-right"
                  type="number"
                  min="1"
                  max="1000"
                  aria-label="Laps"
                  :value="wanted.laps ?? ''"
                  @change="
                    wanted.laps = Math.max(1, Math.round(Number(($event.target as HTMLInputElement).value)) || 1)
                  "
                />laps</label
              >
              <button
                class="chip"
                type="button"
                :class="{ 'chip-on': wanted.laps === null }"
                :aria-pressed="wanted.laps === null"
                @click="wanted.laps = null"
              >
                the stretch
              </button>
            </div>
            <div class="flex items-center gap-2" role="group" aria-label="As">
              <span class="w-16 text-faded">As</span>
              <button
                v-for="as in kind.as"
                :key="as"
                class="chip"
                type="button"
                :class="{ 'chip-on': wanted.as === as }"
                :aria-pressed="wanted.as === as"
                @click="wanted.as = as"
              >
                {{ NAMES[as] }}
              </button>
            </div>
            <template v-if="drawn">
              <div class="flex items-center gap-2" role="group" aria-label="Size">
                <span class="w-16 text-faded">Size</span>
                <span class="field tabular">{{ plan.width }} × {{ plan.height }}</span>
                <button
                  v-for="[says, by] in SIZES"
                  :key="says"
                  class="chip"
                  type="button"
                  :aria-label="`${by} times the stage`"
                  :class="{ 'chip-on': wanted.width === store.piece!.stage.width * by }"
                  :aria-pressed="wanted.width === store.piece!.stage.width * by"
                  @click="wanted.width = store.piece!.stage.width * by"
                >
                  {{ says }}
                </button>
                <input
                  v-model.number="wanted.width"
                  class="field tabular w-20 text-right"
                  type="number"
                  min="16"
                  max="8192"
                  aria-label="Px across"
                />
              </div>
              <div class="flex items-center gap-2" role="group" aria-label="Ground">
                <span class="w-16 text-faded">Ground</span>
                <button
                  class="chip"
                  type="button"
                  :class="{ 'chip-on': !wanted.seeThrough }"
                  :aria-pressed="!wanted.seeThrough"
                  @click="wanted.seeThrough = false"
                >
                  as on the stage
                </button>
                <button
                  class="chip"
                  type="button"
                  :disabled="!mayBeClear"
                  :title="mayBeClear ? '' : `${NAMES[wanted.as]} holds no see-through ground`"
                  :class="{ 'chip-on': wanted.seeThrough }"
                  :aria-pressed="wanted.seeThrough"
                  @click="wanted.seeThrough = true"
                >
                  see-through
                </button>
              </div>
              <div class="flex items-center gap-2" role="group" aria-label="Blur">
                <span class="w-16 text-faded">Blur</span>
                <button
                  class="chip"
                  type="button"
                  :class="{ 'chip-on': wanted.blur === 1 }"
                  :aria-pressed="wanted.blur === 1"
                  @click="wanted.blur = 1"
                >
                  none
                </button>
                <button
                  class="chip"
                  type="button"
                  :class="{ 'chip-on': wanted.blur === 8 }"
                  :aria-pressed="wanted.blur === 8"
                  @click="wanted.blur = 8"
                >
                  8 moments a frame
                </button>
              </div>
            </template>
            <div class="border-t border-rule pt-3" data-plan>
              <p v-if="plan.problem" class="text-coral" role="alert">{{ plan.problem }}</p>
              <p v-else-if="kind.name === 'Still'" class="text-faded">
                The moment {{ printNumber(wanted.at, 3) }} s, as it stands.
              </p>
              <template v-else>
                <p>
                  <span v-if="open === 0" class="font-semibold text-kelp"
                    >{{
                      verdicts.running.length === 0
                        ? 'Nothing moves.'
                        : `All ${verdicts.running.length} drives close at the lap.`
                    }}
                  </span>
                  <span v-else class="font-semibold text-coral"
                    >{{ open }} of {{ verdicts.running.length }} drives do not close at the lap.
                  </span>
                  <span class="ml-1 text-faded"
                    >{{ plan.frames }} frames, 0 … {{ plan.frames - 1 }}, {{ printNumber(seconds, 3) }} s.</span
                  >
                </p>
                <p v-if="wanted.as === 'gif'" class="mt-1 text-[12px] text-faded">
                  256 colours a frame, and times in hundredths of a second: each frame lasts as near to its time as that
                  allows.
                </p>
              </template>
            </div>
            <div v-if="giving.progress" class="flex items-center gap-3">
              <progress class="h-[6px] flex-1 accent-sea" :value="giving.progress.done" :max="giving.progress.of" />
              <span class="tabular" role="status"
                >frame {{ giving.progress.done }} of {{ giving.progress.of }}{{ left }}</span
              >
            </div>
            <p v-if="giving.wrong" class="text-coral" role="alert">{{ giving.wrong }}</p>
            <p v-if="giving.file" role="status">
              {{ giving.file.name }} is made, {{ size(giving.file.bytes) }}.
              <a class="link" :href="giving.file.url" :download="giving.file.name">Take it away</a>
            </p>
          </div>
        </div>
        <div class="flex items-center justify-end gap-2 border-t border-rule px-5 py-3">
          <button v-if="giving.progress" class="button" type="button" @click="giving.stop">Stop</button>
          <button v-else class="button" type="button" @click="leave">Close</button>
          <button
            class="button button-strong"
            type="button"
            :disabled="plan.problem !== null || giving.progress !== null"
            @click="giving.begin(wanted)"
          >
            Give out
          </button>
        </div>
      </DialogPanel>
    </div>
  </Dialog>
</template>

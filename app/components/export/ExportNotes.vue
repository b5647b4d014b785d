<script setup lang="ts">
/** What will come out: frames and seconds, whether it closes, what the format cannot carry, by name. */
import { formatOf } from '~~/core/formats/export/formats.ts'
import { lossesOf } from '~~/core/formats/export/losses.ts'
import type { ExportPlan, ExportSettings } from '~~/core/formats/export/export-plan.ts'
import { firstLoopingLap, laterText, type LoopCount } from '~~/core/insight/loop-count.ts'
import { measuresOf } from '~~/core/engine/time-words.ts'
import { samplesOf } from '~~/core/formats/sound/wav.ts'
import type { Piece } from '~~/core/piece/schema.ts'
import { toNumber } from '~~/core/time/rational.ts'
import { printNumber } from '~~/core/units/units.ts'

const props = defineProps<{
  piece: Piece
  wanted: ExportSettings
  plan: ExportPlan
  looping: LoopCount | null
  /** Those that do not loop, by key, where they can be gone to. */
  names: readonly { readonly key: string; readonly says: string }[]
}>()
const format = computed(() => formatOf(props.wanted.as))
const seconds = computed(() => toNumber(props.plan.span))
const losses = computed(() => lossesOf(props.piece, props.wanted.as))
const emit = defineEmits<{ lap: [number]; go: [key: string] }>()
/** The first lap that loops as a whole, where it is not the one that is chosen. */
const first = computed(() => {
  if (!props.looping || props.wanted.laps === null) return 0
  const lap = firstLoopingLap(props.piece, props.looping, measuresOf(props.piece))
  return lap > props.wanted.firstLap ? lap : 0
})
/** Those that do not loop in what is exported. */
const open = computed(() => (props.looping?.open ?? 0) + (first.value > 0 ? props.looping!.later : 0))
const sentence = (text: string) => `${text}.`
/** Names that are told at once. */
const MOST = 6
</script>

<template>
  <div class="border-t border-rule pt-3" data-plan>
    <p v-if="plan.problem" class="text-coral" role="alert">{{ plan.problem }}</p>
    <p v-else-if="format.kind === 'Still'" class="text-faded">
      The moment {{ printNumber(wanted.at, 3) }} s as a drawing.
    </p>
    <p v-else-if="format.kind === 'Live page'" class="text-faded">
      Runs forever, exactly, without a server or any network access.
      {{
        wanted.as === 'module'
          ? 'The module exports mount(element), which returns play, seek and dial.'
          : 'Starts paused for people who prefer reduced motion.'
      }}
    </p>
    <p v-else-if="format.kind === 'Piece'" class="text-faded">
      All parts, formulas, dials and pictures, ready to import into any Open Tide.
    </p>
    <template v-else>
      <p>
        <template v-if="looping && wanted.as !== 'wav'">
          <span v-if="open === 0" class="font-semibold text-kelp"
            >{{
              looping.all === 0
                ? 'Nothing moves yet.'
                : looping.all === 1
                  ? 'The drive loops.'
                  : `All ${looping.all} drives loop.`
            }}
          </span>
          <span v-else class="font-semibold text-coral"
            >{{ open }} of {{ looping.all }} {{ looping.all === 1 ? 'drive doesn’t' : 'drives don’t' }} loop here. </span
          >{{ ' ' }}
          <template v-if="first > 0">
            <span class="text-sea">{{ sentence(laterText(looping)) }}</span>
            {{ ' '
            }}<button class="link ml-1" type="button" @click="emit('lap', first)">Export from lap {{ first }}</button
            >{{ ' ' }}
          </template>
        </template>
        <span v-if="wanted.as === 'wav'" class="text-faded"
          >{{ samplesOf({ span: plan.span, rate: wanted.sampleRate }) }} samples of 24 bits,
          {{ printNumber(seconds, 3) }} s. The lowest value becomes −1, the highest 1; both are noted in the file.</span
        >
        <span v-else class="ml-1 text-faded"
          >{{ plan.frames }} frames, 0 … {{ plan.frames - 1 }}, {{ printNumber(seconds, 3) }} s.</span
        >
      </p>
      <p v-if="wanted.as !== 'wav' && open > 0 && names.length > 0" class="mt-1" data-open>
        <button
          v-for="it in names.slice(0, MOST)"
          :key="it.key"
          class="link mr-3"
          type="button"
          data-tip="Close this and go to it"
          @click="emit('go', it.key)"
        >
          {{ it.says }}</button><span v-if="names.length > MOST" class="text-faded"
          >and {{ names.length - MOST }} more</span
        >
      </p>
      <p v-if="wanted.as === 'gif'" class="mt-1 text-[12px] text-faded">
        256 colours per frame. GIF keeps time in hundredths of a second, so each frame lasts as close to its time as
        that allows.
      </p>
      <ul v-if="losses.length > 0" class="mt-2 text-[12px] text-faded" aria-label="Not included">
        <li v-for="says in losses.slice(0, MOST)" :key="says">{{ says }}</li>
        <li v-if="losses.length > MOST">… and {{ losses.length - MOST }} more.</li>
      </ul>
    </template>
  </div>
</template>

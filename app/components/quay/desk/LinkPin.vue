<script setup lang="ts">
/** The link that was pressed: its ratio, what is added, how much later, round, both ways, cut. */
import { ArrowRight } from '@lucide/vue'
import { setTie } from '~~/core/acts/ties.ts'
import { bothWays, cutLink, driverName, pinText, reverseLink, type Linked } from '~~/core/insight/changing-links.ts'
import type { Pin } from '~~/core/insight/pins.ts'
import { propertyOf } from '~~/core/insight/report.ts'
import { useOpenPiece } from '~/stores/open-piece.ts'
import { useSmoothing } from '~/commands/smoothing.ts'
import { useTuning } from '~/commands/tuning.ts'

const props = defineProps<{ pin: Pin }>()
const emit = defineEmits<{ gone: []; turned: [to: { driver: string; driven: string }] }>()
const store = useOpenPiece()
const tuning = useTuning()
const smoothing = useSmoothing()
const unit = computed(() => propertyOf(store.program, props.pin.driven).unit)
const name = (key: string) => driverName(store.piece, key)

function set(change: Parameters<typeof pinText>[2]): void {
  const { tie } = props.pin
  if (tie !== null) {
    const old = store.piece.ties[tie]!
    const value = { ...old, ratio: change.ratio ?? old.ratio, offset: change.offset ?? old.offset }
    if (value.ratio === 0) store.say('A two-way link can’t have a ratio of 0.')
    else smoothing.told(setTie(store.piece, tie, value))
    return
  }
  const text = pinText(store.program, props.pin, change)
  if (text !== null) tuning.exactly(props.pin.driven, text)
}
function done(made: Linked, then: () => void): void {
  if ('says' in made) {
    store.say(made.says)
    return
  }
  smoothing.told(made.op)
  then()
}
const turn = () =>
  done(reverseLink(store.program, props.pin), () =>
    emit('turned', { driver: props.pin.driven, driven: props.pin.driver }),
  )
function cutIt(): void {
  smoothing.takeAway(
    cutLink(store.program, props.pin),
    `${name(props.pin.driven)} no longer follows ${name(props.pin.driver)}.`,
  )
  emit('gone')
}
</script>

<template>
  <div
    class="flex shrink-0 flex-wrap items-center gap-x-3 gap-y-1 border-t border-rule px-4 py-2"
    role="group"
    aria-label="The link"
  >
    <strong class="flex min-w-0 items-center gap-1 font-semibold">
      <span class="truncate">{{ name(pin.driver) }}</span><ArrowRight :size="14" aria-label="drives" /><span
        class="truncate"
        >{{ name(pin.driven) }}</span
      >
    </strong>
    <span class="ml-auto flex gap-2">
      <button class="button" type="button" @click="turn">Reverse link</button>
      <button
        class="button"
        type="button"
        :aria-pressed="pin.tie !== null"
        @click="done(bothWays(store.program, pin), () => {})"
      >
        {{ pin.tie === null ? 'Two-way' : 'One-way' }}
      </button>
      <button class="button text-coral" type="button" @click="cutIt">Unlink</button>
    </span>
    <div class="flex basis-full flex-wrap items-center gap-x-4 gap-y-1">
      <NumberField
        v-if="pin.ratio !== null"
        label="Ratio"
        :value="pin.ratio"
        :stride="0.05"
        @set="set({ ratio: $event })"
      />
      <NumberField
        v-if="pin.offset !== null"
        label="Offset"
        :value="pin.offset"
        :unit="unit"
        @set="set({ offset: $event })"
      />
      <NumberField
        v-if="pin.ratio !== null && pin.tie === null"
        label="Delay"
        :value="pin.lag"
        unit="s"
        :stride="0.05"
        :low="0"
        @set="set({ lag: $event })"
      />
      <span v-if="pin.ratio === null" class="text-faded"
        >This link is part of the formula: change its numbers there.</span
      >
    </div>
  </div>
</template>

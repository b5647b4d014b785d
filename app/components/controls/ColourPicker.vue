<script setup lang="ts">
/** A colour: a swatch that opens three sliders, each over all that it may be, and a field for a colour as the web writes it. */
import { Popover, PopoverButton, PopoverPanel } from '@headlessui/vue'
import { hexOf, oklchOf, type Oklch } from '~~/core/rig/colour-text.ts'
import { vFloat } from './floating.ts'

const props = defineProps<{
  /** What it colours. */
  name: string
  label?: string
  value: Oklch
  /** Sides that are left to formulas. */
  driven?: readonly (keyof Oklch)[]
}>()
const emit = defineEmits<{ set: [change: Partial<Oklch>]; take: []; release: [] }>()

/** Each with where its slider ends, how fine it is, and how many of its digits are shown. */
const SIDES = [
  ['lightness', 0, 100, 1, 1],
  ['chroma', 0, 0.4, 0.005, 3],
  ['hue', 0, 360, 1, 1],
] as const
type Side = (typeof SIDES)[number]

const root = useTemplateRef('root')
const wrong = ref(false)
const css = (given: Partial<Oklch>): string => {
  const { lightness, chroma, hue } = { ...props.value, ...given }
  return `oklch(${lightness}% ${chroma} ${hue})`
}
/** What the slider of a side goes over, with the other two as they are. */
const track = ([side, low, high]: Side): string => {
  const stops = Array.from({ length: 13 }, (_, k) => css({ [side]: low + ((high - low) * k) / 12 }))
  return `linear-gradient(to right, ${stops.join(', ')})`
}
const isDriven = (side: keyof Oklch) => props.driven?.includes(side) ?? false

let pulling = false
function pull(side: keyof Oklch, to: number): void {
  if (!pulling) emit('take')
  pulling = true
  emit('set', { [side]: to })
}
function end(): void {
  if (pulling) emit('release')
  pulling = false
}
onBeforeUnmount(end)

function write(e: Event): void {
  const field = e.target as HTMLInputElement
  const read = oklchOf(field.value)
  wrong.value = read === null
  // What is left after Enter tells once more what it told.
  if (!read || hexOf(read) === hexOf(props.value)) return
  const open = SIDES.map(([side]) => side).filter(side => !isDriven(side))
  emit('take')
  emit('set', Object.fromEntries(open.map(side => [side, read[side]])))
  emit('release')
  void nextTick(() => (field.value = hexOf(props.value)))
}
</script>

<template>
  <Popover>
    <span ref="root" class="block">
      <PopoverButton class="flex w-full items-center gap-2 text-left hover:text-sea" :aria-label="`${name}, colour`">
        <span class="flex-1">{{ label ?? 'colour' }}</span>
        <span class="h-[18px] w-[86px] rounded-sm border border-rule" :style="{ background: css({}) }" data-swatch />
      </PopoverButton>
    </span>
    <PopoverPanel v-float="{ by: root, at: 'bottom-end' }" class="panel flex w-[230px] flex-col gap-2 p-3">
      <label v-for="side in SIDES" :key="side[0]" class="block">
        <span class="flex text-[12px] text-faded"
          ><span class="flex-1">{{ side[0] }}</span>
          <span v-if="isDriven(side[0])">driven by its formula</span>
          <span v-else class="tabular">{{ Number(value[side[0]].toFixed(side[4])) }}</span></span
        >
        <SliderBar
          :label="`${name} ${side[0]}`"
          :low="side[1]"
          :high="side[2]"
          :step="side[3]"
          :track="track(side)"
          :disabled="isDriven(side[0])"
          :model-value="value[side[0]]"
          @update:model-value="pull(side[0], $event)"
          @done="end"
        />
      </label>
      <label class="flex items-center gap-2 text-[12px] text-faded"
        ><span class="flex-1">hex or CSS</span>
        <input
          class="field tabular w-[104px] text-ink"
          :class="{ '!border-coral': wrong }"
          :aria-label="`${name} as hex or CSS`"
          :aria-invalid="wrong"
          maxlength="60"
          spellcheck="false"
          :value="hexOf(value)"
          @change="write"
          @keydown.enter.prevent="write"
      /></label>
      <p v-if="wrong" class="text-[12px] text-coral" role="alert">
        That isn’t a colour. Type one such as #c98f2c, teal or oklch(70% 0.12 80).
      </p>
    </PopoverPanel>
  </Popover>
</template>

<script setup lang="ts">
/** A colour by three sliders, each over all that it may be: lightness, chroma, hue. What is driven is left to its formula. */
import { Popover, PopoverButton, PopoverPanel } from '@headlessui/vue'
import { initialOf, propertyNamed, type Property } from '~~/core/piece/properties.ts'
import { propertyKey } from '~~/core/piece/schema.ts'
import { usePiece } from '~/stores/piece.ts'

const props = defineProps<{ id: string; of: 'fill' | 'gradient' | 'stroke' }>()
const emit = defineEmits<{ set: [property: Property, value: number] }>()
const store = usePiece()

/** Each with where its slider ends, and how fine it is. */
const SIDES = [
  ['Lightness', 0, 100, 1],
  ['Chroma', 0, 0.4, 0.005],
  ['Hue', 0, 360, 1],
] as const
type Side = (typeof SIDES)[number][0]

const property = (side: Side): Property => propertyNamed(`${props.of}${side}`)!
const driven = (side: Side) => store.piece!.drives[propertyKey(props.id, property(side).name)] !== undefined
const value = (side: Side): number => {
  const p = property(side)
  const { bases, parts } = store.piece!
  return bases[propertyKey(props.id, p.name)]?.value ?? initialOf(p, parts[props.id]!.shape.type)
}
const shown = computed(() => ({ Lightness: value('Lightness'), Chroma: value('Chroma'), Hue: value('Hue') }))
const css = (given: Partial<Record<Side, number>>): string => {
  const { Lightness, Chroma, Hue } = { ...shown.value, ...given }
  return `oklch(${Lightness}% ${Chroma} ${Hue})`
}
/** What the slider of a side goes over, with the other two as they are. */
const range = ([side, low, high]: (typeof SIDES)[number]): string => {
  const stops = Array.from({ length: 13 }, (_, k) => css({ [side]: low + ((high - low) * k) / 12 }))
  return `linear-gradient(to right, ${stops.join(', ')})`
}
const NAMES = { fill: 'Fill', gradient: 'Far end of the gradient', stroke: 'Line' } as const

let pulling = false
function pull(side: Side, e: Event): void {
  if (!pulling) store.beginGesture()
  pulling = true
  emit('set', property(side), Number((e.target as HTMLInputElement).value))
}
function end(): void {
  if (pulling) store.endGesture()
  pulling = false
}
onBeforeUnmount(end)
</script>

<template>
  <Popover class="relative">
    <PopoverButton class="flex w-full items-center gap-2 text-left hover:text-sea" :aria-label="`${NAMES[of]}, colour`">
      <span class="flex-1">colour</span>
      <span class="h-[18px] w-[86px] rounded-sm border border-rule" :style="{ background: css({}) }" data-swatch />
    </PopoverButton>
    <PopoverPanel class="panel absolute right-0 z-30 mt-1 flex w-[230px] flex-col gap-2 p-3">
      <label v-for="side in SIDES" :key="side[0]" class="block">
        <span class="flex text-[12px] text-faded"
          ><span class="flex-1">{{ side[0].toLowerCase() }}</span>
          <span v-if="driven(side[0])">its formula</span>
          <span v-else class="tabular">{{ Number(shown[side[0]].toFixed(3)) }}</span></span
        >
        <input
          class="colour-range w-full"
          type="range"
          :min="side[1]"
          :max="side[2]"
          :step="side[3]"
          :value="shown[side[0]]"
          :disabled="driven(side[0])"
          :aria-label="`${NAMES[of]} ${side[0].toLowerCase()}`"
          :style="{ background: range(side) }"
          @input="pull(side[0], $event)"
          @change="end"
        />
      </label>
    </PopoverPanel>
  </Popover>
</template>

<style scoped>
.colour-range {
  height: 14px;
  appearance: none;
  border-radius: 3px;
  outline-offset: 2px;
}
.colour-range::-webkit-slider-thumb {
  width: 8px;
  height: 20px;
  appearance: none;
  background: var(--color-sheet);
  border: 2px solid var(--color-ink);
  border-radius: 3px;
}
.colour-range::-moz-range-thumb {
  width: 5px;
  height: 16px;
  background: var(--color-sheet);
  border: 2px solid var(--color-ink);
  border-radius: 3px;
}
.colour-range:disabled {
  opacity: 0.4;
}
</style>

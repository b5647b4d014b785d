<script setup lang="ts">
/** The colour of a part's fill, gradient or stroke. What is driven is left to its formula. */
import { propertyKey } from '~~/core/piece/drive-key.ts'
import { initialOf, propertyNamed, type Property } from '~~/core/piece/properties.ts'
import type { Oklch } from '~~/core/rig/colour-text.ts'
import { useOpenPiece } from '~/stores/open-piece.ts'

const props = defineProps<{ id: string; of: 'fill' | 'gradient' | 'stroke' }>()
const emit = defineEmits<{ set: [property: Property, value: number] }>()
const store = useOpenPiece()
const SIDES = ['lightness', 'chroma', 'hue'] as const
const NAMES = { fill: 'Fill', gradient: 'Far end of the gradient', stroke: 'Line' } as const

const property = (side: keyof Oklch): Property => propertyNamed(props.of + side)!
const value = (side: keyof Oklch): number => {
  const p = property(side)
  const { bases, parts } = store.piece
  return bases[propertyKey(props.id, p.name)]?.value ?? initialOf(p, parts[props.id]!.shape.type)
}
const colour = computed<Oklch>(() => ({ lightness: value('lightness'), chroma: value('chroma'), hue: value('hue') }))
const driven = computed(() =>
  SIDES.filter(side => store.piece.drives[propertyKey(props.id, property(side).name)] !== undefined),
)
function set(change: Partial<Oklch>): void {
  for (const side of SIDES) if (change[side] !== undefined) emit('set', property(side), change[side])
}
</script>

<template>
  <ColourPicker
    :name="NAMES[of]"
    :value="colour"
    :driven="driven"
    @set="set"
    @take="store.beginGesture()"
    @release="store.endGesture()"
  />
</template>

<script setup lang="ts">
/** A property of the part in hand: its value, set or keyed, and the way to its formula. */
import { propertyKey } from '~~/core/piece/drive-key.ts'
import { Waves } from '@lucide/vue'
import { propertyLabel } from '~~/core/piece/property-labels.ts'
import type { Property } from '~~/core/piece/properties.ts'
import { useOpenPiece } from '~/stores/open-piece.ts'

const props = defineProps<{
  id: string
  property: Property
  value: number
  /** Under a heading that does not tell what it belongs to. */
  whole?: boolean
}>()
const emit = defineEmits<{ set: [property: Property, value: number]; drive: [property: Property] }>()
const store = useOpenPiece()
const key = computed(() => propertyKey(props.id, props.property.name))
const driven = computed(() => store.piece.drives[key.value] !== undefined)
const keyed = computed(() => store.piece.bases[key.value]?.keys !== undefined)
const label = computed(() => propertyLabel(props.property.name, props.whole))
</script>

<template>
  <NumberField
    :label="property.name"
    :data-tip="
      keyed
        ? `${property.description} It has keyframes: this is its value now, and typing sets a keyframe here.`
        : property.description
    "
    :data-row="property.name"
    :again="keyed"
    :value="value"
    :unit="property.unit"
    :stride="property.stride / 20"
    :low="property.range?.[0]"
    :high="property.range?.[1]"
    @set="emit('set', property, $event)"
  >
    <button
      class="flex min-w-0 flex-1 items-baseline gap-[5px] text-left hover:text-sea"
      :class="{ 'font-medium text-sea': driven }"
      type="button"
      :aria-label="driven ? `${property.name} has a formula: go to it` : `Write a formula for ${property.name}`"
      @click.prevent="emit('drive', property)"
    >
      <Waves v-if="driven" :size="12" class="shrink-0 self-center" aria-hidden="true" />
      <FieldLabel :label="label" :property="property.name" />
    </button>
  </NumberField>
</template>

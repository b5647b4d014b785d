<script setup lang="ts">
/** A number with its unit and its name: typed, dragged sideways, or stepped with the arrow keys. */
defineProps<{
  label: string
  /** The property's own name, where formulas know it by another. */
  property?: string
  value: number
  unit?: string
  stride?: number
  low?: number
  high?: number
  whole?: boolean
  /** Setting it to what it is already counts too. */
  again?: boolean
}>()
const emit = defineEmits<{ set: [value: number] }>()
</script>

<template>
  <label class="flex min-w-0 items-center gap-2">
    <slot><FieldLabel :label="label" :property="property" /></slot>
    <QuantityInput
      class="field tabular w-[86px] shrink-0"
      :label="label"
      :value="value"
      :unit="unit"
      :stride="stride"
      :low="low"
      :high="high"
      :whole="whole"
      :again="again"
      @set="emit('set', $event)"
    />
  </label>
</template>

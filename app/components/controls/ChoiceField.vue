<script setup lang="ts" generic="T extends string">
/** One of a few words, chosen from a list: a label and the list beside it. */
import { choicesOf, type Choice } from './choices.ts'

const props = defineProps<{
  label: string
  /** The name for screen readers, where the label alone does not tell. */
  name?: string
  /** The property's own name, where formulas know it by another. */
  property?: string
  value: T
  /** What can be chosen: words by value, or choices. */
  choices: Readonly<Partial<Record<T, string>>> | readonly Choice<T>[]
}>()
const emit = defineEmits<{ choose: [value: T] }>()
const of = computed<readonly Choice<T>[]>(() =>
  Array.isArray(props.choices) ? props.choices : choicesOf(props.choices as Record<T, string>),
)
</script>

<template>
  <div class="flex items-center gap-2">
    <FieldLabel :label="label" :property="property" />
    <SelectBox
      class="w-[124px] shrink-0"
      :label="name ?? label"
      :of="of"
      :model-value="value"
      @update:model-value="emit('choose', $event)"
    />
  </div>
</template>

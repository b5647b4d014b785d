<script setup lang="ts">
/** One of a few words, chosen from a list: a label and the list beside it. */
defineProps<{
  label: string
  /** The name for screen readers, where the label alone does not tell. */
  name?: string
  value: string
  /** What can be chosen, with its words. */
  choices: Readonly<Record<string, string>>
}>()
const emit = defineEmits<{ choose: [value: string] }>()
</script>

<template>
  <label class="flex items-center gap-2"
    ><span class="flex-1">{{ label }}</span>
    <select
      class="field w-[124px]"
      :aria-label="name ?? label"
      :value="value"
      @change="emit('choose', ($event.target as HTMLSelectElement).value)"
    >
      <option v-for="(says, key) in choices" :key="key" :value="key">{{ says }}</option>
    </select>
  </label>
</template>

<script setup lang="ts" generic="T">
/** One question with a few answers, each a chip; what has more to it stands beside them. */
defineProps<{
  says: string
  of: readonly { readonly says: string; readonly value: T; readonly label?: string; readonly not?: string }[]
}>()
const value = defineModel<T>({ required: true })
</script>

<template>
  <div class="flex flex-wrap items-center gap-2" role="group" :aria-label="says">
    <span class="w-[76px] shrink-0 text-faded">{{ says }}</span>
    <slot name="before" />
    <button
      v-for="it in of"
      :key="it.says"
      class="chip"
      type="button"
      :aria-label="it.label"
      :disabled="it.not !== undefined"
      :title="it.not ?? ''"
      :class="{ 'chip-on': it.value === value }"
      :aria-pressed="it.value === value"
      @click="value = it.value"
    >
      {{ it.says }}
    </button>
    <slot />
  </div>
</template>

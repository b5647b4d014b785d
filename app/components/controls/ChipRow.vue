<script setup lang="ts" generic="T">
/** One question with a few answers, each a chip, of which one is chosen; what has more to it stands beside them. */
import { RadioGroup, RadioGroupOption } from '@headlessui/vue'

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
    <RadioGroup
      :model-value="value as string"
      class="flex flex-wrap gap-2"
      :aria-label="says"
      @update:model-value="value = $event as T"
    >
      <RadioGroupOption
        v-for="it in of"
        :key="it.says"
        v-slot="{ checked }"
        :value="it.value as string"
        :disabled="it.not !== undefined"
        class="rounded-full focus-visible:outline-offset-2"
        :aria-label="it.label ?? it.says"
        :data-tip="it.not"
      >
        <span
          class="chip flex cursor-pointer items-center"
          :class="{ 'chip-on': checked, 'cursor-default opacity-50': it.not !== undefined }"
          >{{ it.says }}</span
        >
      </RadioGroupOption>
    </RadioGroup>
    <slot />
  </div>
</template>

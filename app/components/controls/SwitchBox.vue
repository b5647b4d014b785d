<script setup lang="ts">
/** On or off, at once. */
import { Switch } from '@headlessui/vue'

defineProps<{ label: string; disabled?: boolean; large?: boolean }>()
const value = defineModel<boolean>({ required: true })
</script>

<template>
  <Switch
    v-model="value"
    class="relative inline-block shrink-0 rounded-full border transition-colors disabled:opacity-50"
    :class="[large ? 'h-7 w-12' : 'h-4 w-7', value ? 'border-ink bg-ink' : 'border-faded bg-sheet']"
    :aria-label="label"
    :disabled="disabled"
  >
    <span
      class="absolute top-[2px] rounded-full transition-[left]"
      :class="[
        large ? 'h-[22px] w-[22px]' : 'h-[10px] w-[10px]',
        value ? `bg-sheet ${large ? 'left-[22px]' : 'left-[14px]'}` : 'left-[2px] bg-faded',
      ]"
      aria-hidden="true"
    />
  </Switch>
</template>

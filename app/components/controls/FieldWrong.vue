<script setup lang="ts">
/** What is wrong with what was typed, beside its field and over all else. */
import { vFloat } from './floating.ts'

defineProps<{ by: HTMLElement | null; says: string }>()
</script>

<template>
  <span
    v-float="{ by, at: 'bottom-end' }"
    class="w-[260px] rounded-sm border border-coral bg-sheet px-2 py-1 text-left font-sans text-[12px] leading-4 whitespace-normal text-coral"
    role="alert"
    >{{ says }}<slot
  /></span>
</template>

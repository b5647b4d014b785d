<script setup lang="ts">
/** Where nothing is yet: what belongs here, and the first step. */
defineProps<{ title?: string; framed?: boolean }>()
</script>

<template>
  <div
    class="flex flex-col items-center gap-1 px-6 text-center text-faded"
    :class="framed ? 'rounded-md border border-dashed border-rule py-16' : 'py-6'"
    data-empty
  >
    <p v-if="title" class="text-[15px] font-medium text-ink">{{ title }}</p>
    <p v-if="$slots.default" class="max-w-[60ch]"><slot /></p>
    <div v-if="$slots.act" class="mt-3 flex flex-wrap justify-center gap-2"><slot name="act" /></div>
  </div>
</template>

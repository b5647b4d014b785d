<script setup lang="ts">
/** How far something is, of how much. */
defineProps<{ done: number; of: number; label: string }>()
</script>

<template>
  <div
    class="h-[6px] overflow-hidden rounded-full bg-rule"
    role="progressbar"
    :aria-label="label"
    :aria-valuenow="done"
    :aria-valuemin="0"
    :aria-valuemax="of"
  >
    <div class="h-full bg-sea" :style="{ width: `${(100 * done) / (of || 1)}%` }" />
  </div>
</template>

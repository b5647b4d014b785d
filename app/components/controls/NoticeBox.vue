<script setup lang="ts">
/** Something to know, and what can be done about it: in a page, across its top, or over its foot. */
defineProps<{
  /** What it is about: news, something to mind, or a trouble that waits for an answer. */
  is?: 'news' | 'note' | 'trouble'
  place?: 'page' | 'top' | 'foot'
}>()
</script>

<template>
  <div
    class="flex flex-wrap items-center gap-x-4 gap-y-2 bg-sheet px-4 py-2"
    :class="[
      is === 'trouble' ? '!border-coral' : is === 'note' ? '!border-brass' : 'border-rule',
      place === 'top'
        ? 'shrink-0 border-b'
        : place === 'foot'
          ? 'panel fixed bottom-4 left-1/2 z-40 max-w-[min(640px,92vw)] -translate-x-1/2'
          : 'mb-4 rounded-md border',
    ]"
    :role="is === 'trouble' ? 'alert' : 'status'"
  >
    <div class="min-w-0" :class="{ 'flex-1': place !== 'foot' }"><slot /></div>
    <div v-if="$slots.act" class="flex shrink-0 items-center gap-3"><slot name="act" /></div>
  </div>
</template>

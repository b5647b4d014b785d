<script setup lang="ts">
/** A button that shows an icon alone; its name is said and shown on hover. */
defineProps<{ label: string; title?: string; small?: boolean }>()
</script>

<template>
  <button
    class="button button-plain shrink-0 !px-0"
    :class="small ? 'h-6 w-6' : 'w-7'"
    type="button"
    :aria-label="label"
    :title="title ?? label"
  >
    <slot />
  </button>
</template>

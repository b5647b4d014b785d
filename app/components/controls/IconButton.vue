<script setup lang="ts">
/** A button that shows an icon alone; its name is said, and shown as its tooltip where it has no other. */
defineProps<{ label: string; small?: boolean }>()
</script>

<template>
  <button
    class="button button-plain shrink-0 !px-0"
    :class="small ? 'h-6 w-6' : 'w-7'"
    type="button"
    :aria-label="label"
    :data-tip="label"
  >
    <slot />
  </button>
</template>

<script setup lang="ts">
/** The mark of Open Tide: three waves. */
</script>

<template>
  <svg
    viewBox="0 0 32 24"
    width="28"
    height="21"
    fill="none"
    stroke="currentColor"
    stroke-width="2"
    stroke-linecap="round"
    aria-hidden="true"
  >
    <path d="M2 6c4.5-4 9-4 14 0s9.500 4 14 0" />
    <path d="M2 12.500c4.500-4 9-4 14 0s9.500 4 14 0" opacity="0.65" />
    <path d="M2 19c4.500-4 9-4 14 0s9.500 4 14 0" opacity="0.4" />
  </svg>
</template>

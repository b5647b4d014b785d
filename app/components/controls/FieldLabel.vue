<script setup lang="ts">
/** What a field is, with the name that formulas have for it in small type where that is another. */
defineProps<{ label: string; property?: string }>()
</script>

<template>
  <span class="flex min-w-0 flex-1 items-baseline gap-[6px] overflow-hidden whitespace-nowrap"
    ><span class="max-w-full shrink-0 truncate">{{ label }}</span
    ><code
      v-if="property && property !== label"
      class="min-w-0 truncate font-mono text-[11px] font-normal text-faded"
      >{{ property }}</code
    ></span
  >
</template>

<script setup lang="ts">
/** Yes or no: a label and its box. */
defineProps<{ label: string; value: boolean }>()
const emit = defineEmits<{ set: [value: boolean] }>()
</script>

<template>
  <label class="flex items-center gap-2"
    ><span class="flex-1">{{ label }}</span
    ><input type="checkbox" :checked="value" @change="emit('set', ($event.target as HTMLInputElement).checked)"
  /></label>
</template>

<script setup lang="ts">
/** Yes or no: a label and its box at the far end. */
defineProps<{ label: string; value: boolean }>()
const emit = defineEmits<{ set: [value: boolean] }>()
</script>

<template>
  <CheckBox before :model-value="value" @update:model-value="emit('set', $event)">{{ label }}</CheckBox>
</template>

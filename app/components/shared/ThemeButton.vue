<script setup lang="ts">
import { Moon, Sun } from '@lucide/vue'

const { theme, turn } = useTheme()
const label = computed(() => (theme.value === 'day' ? 'Night watch' : 'Daylight'))
</script>

<template>
  <IconButton :label="label" @click="turn">
    <component :is="theme === 'day' ? Moon : Sun" :size="16" />
  </IconButton>
</template>

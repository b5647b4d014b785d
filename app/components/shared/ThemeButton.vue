<script setup lang="ts">
import { Moon, Sun } from '@lucide/vue'

const { theme, turn } = useTheme()
const label = computed(() => (theme.value === 'day' ? 'Night watch' : 'Daylight'))
</script>

<template>
  <button class="button button-plain w-7 !px-0" type="button" :aria-label="label" :title="label" @click="turn">
    <component :is="theme === 'day' ? Moon : Sun" :size="16" />
  </button>
</template>

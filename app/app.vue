<script setup lang="ts">
useTheme()
</script>

<template>
  <NuxtPage />
  <TipLayer />
</template>

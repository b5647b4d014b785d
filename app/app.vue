<script setup lang="ts">
useTheme()
</script>

<template>
  <NuxtPage />
</template>

<script setup lang="ts">
/** An address that is none. */
useHead({ title: 'Not here · Open Tide' })
</script>

<template>
  <main class="grid h-full place-items-center">
    <div class="text-center">
      <h1 class="mb-1 text-[15px] font-semibold">There is nothing at this address.</h1>
      <p class="mb-4 text-faded">It may have been mistyped, or what was here was moved.</p>
      <NuxtLink to="/" class="button">To the harbour</NuxtLink>
      <NuxtLink to="/manual" class="button ml-2">To the manual</NuxtLink>
    </div>
  </main>
</template>

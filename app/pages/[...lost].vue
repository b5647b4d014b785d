<script setup lang="ts">
/** An address that is none. */
useHead({ title: 'Page not found · Open Tide' })
</script>

<template>
  <main class="grid h-full place-items-center">
    <div class="text-center">
      <h1 class="mb-1 text-[15px] font-semibold">There’s no page at this address.</h1>
      <p class="mb-4 text-faded">The address may be mistyped, or the page was moved.</p>
      <NuxtLink to="/" class="button">Go to the harbour</NuxtLink>
      <NuxtLink to="/manual" class="button ml-2">Go to the manual</NuxtLink>
    </div>
  </main>
</template>

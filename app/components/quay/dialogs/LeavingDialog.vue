<script setup lang="ts">
/** Asked before a page is left on which something is not saved. */

const emit = defineEmits<{ answer: [go: boolean] }>()
</script>

<template>
  <DialogFrame title="Not saved yet" :wide="440" @close="emit('answer', false)">
    <div class="flex min-h-0 flex-1 flex-col overflow-y-auto px-5 py-4">
      <p>
        Your last changes aren’t saved on the server yet. They are kept in this browser and will be saved as soon as the
        server responds, here or when you open the piece again.
      </p>
    </div>
    <template #foot>
      <button class="button" type="button" @click="emit('answer', true)">Leave anyway</button>
      <button class="button button-strong" type="button" @click="emit('answer', false)">Stay</button>
    </template>
  </DialogFrame>
</template>

<script setup lang="ts">
/** Asked before a page is left on which something is not saved. */
import { Dialog, DialogPanel, DialogTitle } from '@headlessui/vue'

const emit = defineEmits<{ answer: [go: boolean] }>()
</script>

<template>
  <Dialog :open="true" class="relative z-50" @close="emit('answer', false)">
    <div class="fixed inset-0 grid place-items-center bg-[rgb(10_25_30/0.25)] p-4">
      <DialogPanel class="panel w-[440px] p-4">
        <DialogTitle class="mb-2 text-[15px] font-semibold">Not saved yet</DialogTitle>
        <p>
          Your last changes aren’t saved on the server yet. They are kept in this browser and will be saved as soon as
          the server responds, here or when you open the piece again.
        </p>
        <div class="mt-4 flex justify-end gap-2">
          <button class="button" type="button" @click="emit('answer', true)">Leave anyway</button>
          <button class="button button-strong" type="button" @click="emit('answer', false)">Stay</button>
        </div>
      </DialogPanel>
    </div>
  </Dialog>
</template>

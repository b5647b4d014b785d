<script setup lang="ts">
/** A dialog: its title, what it asks, and its buttons at the foot. */
import { Dialog, DialogPanel, DialogTitle } from '@headlessui/vue'

defineProps<{
  title: string
  /** Width in px, and height where it keeps one. */
  wide: number
  high?: number
  /** It is sent by its strong button and by Enter. */
  form?: boolean
}>()
const emit = defineEmits<{ close: []; submit: [] }>()
</script>

<template>
  <Dialog :open="true" class="relative z-50" @close="emit('close')">
    <div class="fixed inset-0 grid place-items-center bg-[rgb(10_25_30/0.35)] p-4">
      <DialogPanel
        :as="form ? 'form' : 'div'"
        class="panel flex max-h-[92vh] max-w-full flex-col"
        :style="{ width: `${wide}px`, height: high && `${high}px` }"
        @submit.prevent="emit('submit')"
      >
        <div class="flex items-center gap-4 border-b border-rule px-5 py-3">
          <DialogTitle class="text-[15px] font-semibold">{{ title }}</DialogTitle>
          <slot name="head" />
        </div>
        <slot />
        <div class="flex items-center justify-end gap-2 border-t border-rule px-5 py-3"><slot name="foot" /></div>
      </DialogPanel>
    </div>
  </Dialog>
</template>

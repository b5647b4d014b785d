<script setup lang="ts">
/** Another name for something of the piece; every formula that reads it is changed along. */
import { Dialog, DialogPanel, DialogTitle } from '@headlessui/vue'
import { readersOf, type NamedIn } from '~~/core/acts/named.ts'
import { nameProblem, rename } from '~~/core/acts/parts.ts'
import { usePiece } from '~/stores/piece.ts'

const props = defineProps<{ collection: NamedIn; id: string }>()
const emit = defineEmits<{ close: [] }>()
const store = usePiece()
const old = store.piece![props.collection][props.id]!.name
const readers = readersOf(store.piece!, props.collection, props.id)
const name = ref(old)
const problem = computed(() => nameProblem(store.piece!, name.value, `${props.collection}/${props.id}`))

function done(): void {
  if (problem.value) return
  if (name.value.trim() !== old) store.act(rename(store.piece!, props.collection, props.id, name.value))
  emit('close')
}
</script>

<template>
  <Dialog :open="true" class="relative z-50" @close="emit('close')">
    <div class="fixed inset-0 grid place-items-center bg-[rgb(10_25_30/0.25)] p-4">
      <DialogPanel as="form" class="panel w-[340px] p-4" @submit.prevent="done">
        <DialogTitle class="mb-2 text-[15px] font-semibold">Rename {{ old }}</DialogTitle>
        <input v-model="name" class="field w-full" maxlength="60" aria-label="New name" />
        <p class="mt-2 min-h-[18px]" :class="problem ? 'text-coral' : 'text-faded'" role="status">
          {{
            problem ??
            (readers.length > 0 ? `Also updated: ${readers.slice(0, 5).join(', ')}.` : 'Nothing uses it yet.')
          }}
        </p>
        <div class="mt-3 flex justify-end gap-2">
          <button class="button" type="button" @click="emit('close')">Cancel</button>
          <button class="button button-strong" type="submit" :disabled="!!problem">Rename</button>
        </div>
      </DialogPanel>
    </div>
  </Dialog>
</template>

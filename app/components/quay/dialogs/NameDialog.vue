<script setup lang="ts">
/** Another name for something of the piece; every formula that reads it is changed along. */
import { readerNames, type NamedIn } from '~~/core/acts/named-things.ts'
import { nameProblem, rename } from '~~/core/acts/parts.ts'
import { useOpenPiece } from '~/stores/open-piece.ts'

const props = defineProps<{ collection: NamedIn; id: string }>()
const emit = defineEmits<{ close: [] }>()
const store = useOpenPiece()
const old = store.piece[props.collection][props.id]!.name
const readers = readerNames(store.piece, props.collection, props.id)
const name = ref(old)
const problem = computed(() => nameProblem(store.piece, name.value, `${props.collection}/${props.id}`))

function done(): void {
  if (problem.value) return
  if (name.value.trim() !== old) store.act(rename(store.piece, props.collection, props.id, name.value))
  emit('close')
}
</script>

<template>
  <DialogFrame :title="`Rename ${old}`" :wide="340" form @close="emit('close')" @submit="done">
    <div class="flex min-h-0 flex-1 flex-col overflow-y-auto px-5 py-4">
      <input v-model="name" class="field w-full" maxlength="60" aria-label="New name" />
      <p class="mt-2 min-h-[18px]" :class="problem ? 'text-coral' : 'text-faded'" role="status">
        {{
          problem ?? (readers.length > 0 ? `Also updated: ${readers.slice(0, 5).join(', ')}.` : 'Nothing uses it yet.')
        }}
      </p>
    </div>
    <template #foot>
      <button class="button" type="button" @click="emit('close')">Cancel</button>
      <button class="button button-strong" type="submit" :disabled="!!problem">Rename</button>
    </template>
  </DialogFrame>
</template>

<script setup lang="ts">
/** What of the harbour is shown: by words, by folder, in which order; and what is done with several at once. */
import { Search } from '@lucide/vue'
import { useHarbour } from '~/stores/harbour.ts'
import { choicesOf, plainChoices } from '~/components/controls/choices.ts'

const harbour = useHarbour()
const moving = ref('')
const whole = computed(() => [
  { says: 'all', value: null },
  ...harbour.folders.map(f => ({ says: f, value: f as string | null })),
])
async function move(): Promise<void> {
  await harbour.move(harbour.chosen, moving.value.trim().slice(0, 60))
  moving.value = ''
  harbour.chosen = []
}
</script>

<template>
  <div class="mb-4 flex flex-wrap items-center gap-3">
    <label class="field flex h-8 w-60 items-center gap-2"
      ><Search :size="14" class="text-faded" /><input
        v-model="harbour.search"
        class="min-w-0 flex-1 bg-transparent focus:outline-none"
        type="search"
        placeholder="Find a piece"
        aria-label="Find a piece"
    /></label>
    <ChipRow v-if="harbour.folders.length > 0" v-model="harbour.folder" says="Folder" :of="whole" />
    <label class="ml-auto flex items-center gap-2 text-faded"
      >sorted by
      <SelectBox
        v-model="harbour.sorting"
        class="w-[124px]"
        label="Order"
        :of="choicesOf({ changed: 'last changed', title: 'title' })"
    /></label>
  </div>
  <form
    v-if="harbour.chosen.length > 0"
    class="panel mb-4 flex flex-wrap items-center gap-2 px-3 py-2"
    aria-label="Selected pieces"
    @submit.prevent="move"
  >
    <span class="mr-2 font-medium"
      >{{ harbour.chosen.length }} {{ harbour.chosen.length === 1 ? 'piece' : 'pieces' }} chosen</span
    >
    <ComboBox
      v-model="moving"
      class="w-44"
      open
      placeholder="Folder (empty for none)"
      label="Folder"
      :of="plainChoices(harbour.folders)"
    />
    <button class="button" type="submit">Move here</button>
    <button class="button" type="button" @click="harbour.copy(harbour.chosen)">Copy</button>
    <button class="button text-coral" type="button" @click="harbour.drop(harbour.chosen)">Delete</button>
    <button class="button ml-auto" type="button" @click="harbour.chosen = []">Deselect all</button>
  </form>
</template>

<script setup lang="ts">
/** When a change of pace keeps every value where it is: while playing, always, or never. */
import { Check, ChevronDown, Waves } from '@lucide/vue'
import { Listbox, ListboxButton, ListboxOption, ListboxOptions } from '@headlessui/vue'
import { usePiece, type Keeping } from '~/stores/piece.ts'

const store = usePiece()
const CHOICES: readonly { is: Keeping; says: string; more: string }[] = [
  { is: 'playing', says: 'while playing', more: 'While paused, a change is exactly what you typed.' },
  { is: 'always', says: 'always', more: 'Also while paused.' },
  { is: 'never', says: 'never', more: 'Values jump to where the new numbers put them.' },
]
const chosen = computed(() => CHOICES.find(c => c.is === store.keeping)!)
</script>

<template>
  <Listbox :model-value="store.keeping" as="div" class="relative" @update:model-value="store.setKeeping">
    <ListboxButton
      class="button"
      :class="store.keeping === 'never' ? 'text-faded' : ''"
      data-tip="Changing a pace keeps every value where it is and changes only where it goes next"
    >
      <Waves :size="15" :class="store.keeping === 'never' ? '' : 'text-kelp'" /><span
        ><span class="sr-only xl:not-sr-only">Smooth tuning: </span>{{ chosen.says }}</span
      ><ChevronDown :size="14" class="text-faded" />
    </ListboxButton>
    <ListboxOptions class="panel absolute right-0 z-40 mt-1 w-72 py-1 focus:outline-none">
      <ListboxOption v-for="c in CHOICES" :key="c.is" v-slot="{ active, selected }" :value="c.is" as="template">
        <li class="flex cursor-default items-start gap-2 px-3 py-[5px]" :class="{ 'bg-band': active }">
          <Check :size="14" class="mt-[2px] shrink-0" :class="selected ? 'text-kelp' : 'invisible'" />
          <span
            >Smooth tuning {{ c.says }}<span class="block text-[12px] text-faded">{{ c.more }}</span></span
          >
        </li>
      </ListboxOption>
    </ListboxOptions>
  </Listbox>
</template>

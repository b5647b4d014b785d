<script setup lang="ts">
/** The menu of what has a name in common: rename it, see who reads it, take it away. */
import { signalKey } from '~~/core/piece/drive-key.ts'
import { Gauge, MoreHorizontal, Pencil, Trash2 } from '@lucide/vue'
import { Menu, MenuButton, MenuItem, MenuItems } from '@headlessui/vue'
import { changeNamed, readerNames, removeNamed } from '~~/core/acts/named-things.ts'
import type { TimedIn } from '~~/core/insight/sentence.ts'
import { useSelection } from '~/stores/selection.ts'
import { useOpenPiece } from '~/stores/open-piece.ts'

const props = defineProps<{ collection: TimedIn | 'signals'; id: string }>()
const store = useOpenPiece()
const hand = useSelection()
const naming = ref(false)
const name = computed(() => store.piece[props.collection][props.id]?.name ?? '')
const MOST = 4

/** Looked for when the menu is opened. */
function readers(): string {
  const all = readerNames(store.piece, props.collection, props.id)
  if (all.length === 0) return 'Nothing uses it.'
  const more = all.length > MOST ? ` and ${all.length - MOST} more` : ''
  return `Read by ${all.slice(0, MOST).join(', ')}${more}.`
}
const shown = computed(() => props.collection === 'signals' && store.piece.signals[props.id]?.readOut === true)
function readHere(): void {
  store.act(changeNamed(store.piece, 'signals', props.id, { readOut: !shown.value }))
}
function remove(): void {
  const all = readerNames(store.piece, props.collection, props.id)
  const gone = name.value
  store.act(removeNamed(store.piece, props.collection, props.id))
  if (hand.drive === `${props.collection}/${props.id}` || hand.drive === signalKey(props.id)) hand.take(null)
  const rests =
    all.length === 0 ? 'Nothing used it.' : `${all.slice(0, MOST).join(', ')} use it and can’t run without it.`
  store.sayWithUndo(`${gone} was deleted. ${rests}`)
}
</script>

<template>
  <Menu v-slot="{ open }" as="div" class="relative">
    <MenuButton
      class="grid h-6 w-6 place-items-center rounded-sm text-faded hover:text-ink"
      :aria-label="`More for ${name}`"
      ><MoreHorizontal :size="15"
    /></MenuButton>
    <MenuItems class="panel absolute right-0 z-30 mt-1 w-56 py-1 focus:outline-none">
      <p v-if="open" class="px-3 py-1 text-[12px] text-faded" data-readers>{{ readers() }}</p>
      <MenuItem v-slot="{ active }"
        ><button class="menu-row" :class="{ 'bg-band': active }" type="button" @click="naming = true">
          <Pencil :size="14" />Rename everywhere…
        </button></MenuItem
      >
      <MenuItem v-if="collection === 'signals'" v-slot="{ active }"
        ><button class="menu-row" :class="{ 'bg-band': active }" type="button" @click="readHere">
          <Gauge :size="14" />{{ shown ? 'Hide from the row of dials' : 'Show among the dials' }}
        </button></MenuItem
      >
      <slot />
      <MenuItem v-slot="{ active }"
        ><button class="menu-row" :class="{ 'bg-band': active }" type="button" @click="remove">
          <Trash2 :size="14" />Delete
        </button></MenuItem
      >
    </MenuItems>
    <LazyNameDialog v-if="naming" :collection="collection" :id="id" @close="naming = false" />
  </Menu>
</template>

<script setup lang="ts">
/** What can be done with a driven property as a whole. */
import {
  Bookmark,
  MoreHorizontal,
  Power,
  Share2,
  ShieldCheck,
  SlidersHorizontal,
  Spline,
  Undo2,
  WrapText,
} from '@lucide/vue'
import { Menu, MenuButton, MenuItem, MenuItems } from '@headlessui/vue'
import { removeDrive, switchDrive } from '~~/core/acts/drives.ts'
import { easingsIn } from '~~/core/formula/easings.ts'
import { promisesOf, sourceName } from '~~/core/acts/sources.ts'
import { useOpenPiece } from '~/stores/open-piece.ts'
import { useCommandKeys } from '~/commands/keys.ts'
import { useSmoothing } from '~/commands/smoothing.ts'
import { useTakes } from '~/commands/takes.ts'

const props = defineProps<{ drive: string }>()
const emit = defineEmits<{ dial: []; ease: []; lay: []; give: []; promise: [] }>()
const store = useOpenPiece()
const smoothing = useSmoothing()
const takes = useTakes()
const { keysOf } = useCommandKeys()
const entry = computed(() => store.piece.drives[props.drive])
const name = computed(() => sourceName(store.piece, props.drive))
const rows = computed(() => {
  const { off, text } = entry.value!
  return [
    {
      is: Power,
      says: off ? 'Turn on' : 'Turn off',
      act: () => store.act(switchDrive(store.piece, props.drive, !off)),
    },
    { is: SlidersHorizontal, says: 'Make a dial from this number', act: () => emit('dial') },
    ...(easingsIn(text).length > 0 ? [{ is: Spline, says: 'Choose easing…', act: () => emit('ease') }] : []),
    { is: WrapText, says: text.includes('\n') ? 'Join lines' : 'Format', act: () => emit('lay') },
    { is: Share2, says: 'Apply to other properties…', act: () => emit('give') },
    {
      is: Bookmark,
      says: 'Keep a take',
      key: keysOf('Keep a take of the selected formula')[0],
      act: () => takes.keep(props.drive),
    },
    ...(promisesOf(entry.value).length < 4
      ? [{ is: ShieldCheck, says: 'Promise a limit…', act: () => emit('promise') }]
      : []),
    { is: Undo2, says: 'Remove formula', act: () => smoothing.takeAway(removeDrive(store.piece, props.drive)) },
  ]
})
</script>

<template>
  <Menu v-if="entry" as="div" class="relative ml-auto shrink-0">
    <MenuButton
      class="grid h-6 w-6 place-items-center rounded-sm text-faded hover:text-ink"
      :aria-label="`More for ${name}`"
      ><MoreHorizontal :size="15"
    /></MenuButton>
    <MenuItems class="panel absolute right-0 z-30 mt-1 w-64 py-1 focus:outline-none">
      <MenuItem v-for="row in rows" :key="row.says" v-slot="{ active }"
        ><button class="menu-row" :class="{ 'bg-band': active }" type="button" @click="row.act">
          <component :is="row.is" :size="14" />{{ row.says
          }}<kbd v-if="row.key" class="ml-auto font-sans text-faded">{{ row.key }}</kbd>
        </button></MenuItem
      >
    </MenuItems>
  </Menu>
</template>

<style>
@reference '~/assets/main.css';
.menu-row {
  @apply flex w-full items-center gap-2 px-3 py-[5px] text-left;
}
</style>

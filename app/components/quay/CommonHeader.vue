<script setup lang="ts">
/** The head of what is in common: signals, cues, clocks and curves, and how another is made. */
import { Menu, MenuButton, MenuItem, MenuItems } from '@headlessui/vue'
import { addSignal } from '~~/core/acts/drives.ts'
import { freeName } from '~~/core/acts/parts.ts'
import { addClock, addCue, addCurve } from '~~/core/acts/timing.ts'
import { focusFormula } from '~/editor/focus.ts'
import { useListing } from '~/stores/listing.ts'
import { usePiece } from '~/stores/piece.ts'

defineProps<{ count: number }>()
const store = usePiece()
const listing = useListing()

const KINDS = {
  signal: 'A named formula that others read',
  cue: 'Marks on time that gestures play on',
  clock: 'A time of its own: slower, to and fro, again',
  curve: 'Drawn point by point, to be played',
} as const

function make(kind: keyof typeof KINDS): void {
  const piece = store.piece!
  const name = freeName(piece, kind)
  if (kind === 'signal') {
    const { id, op } = addSignal(piece, name, 'sine(every: 4s)')
    store.act(op)
    listing.reveal(`~${id}`)
    nextTick(() => focusFormula(`~${id}`))
  } else if (kind === 'cue') {
    const { id, op } = addCue(piece, { name })
    store.act(op)
    listing.reveal(`cues/${id}`)
  } else if (kind === 'clock') {
    const { id, op } = addClock(piece, { name })
    store.act(op)
    listing.reveal(`clocks/${id}`)
  } else {
    const points = [
      { time: 0, value: 0, shape: 'smooth' as const },
      { time: 0.4, value: 1, shape: 'smooth' as const },
      { time: 1, value: 0, shape: 'smooth' as const },
    ]
    const { id, op } = addCurve(piece, { name, channels: { value: points } })
    store.act(op)
    listing.reveal(`curves/${id}`)
  }
}
</script>

<template>
  <div class="mb-[5px] flex h-[21px] items-baseline gap-2 px-1" data-head="common">
    <RollButton :part="null" name="In common" :count="count" />
    <span class="truncate text-faded">signals, cues, clocks, curves</span>
    <Menu as="div" class="relative ml-auto">
      <MenuButton class="link">New…</MenuButton>
      <MenuItems class="panel absolute right-0 z-30 mt-1 w-72 py-1 focus:outline-none">
        <MenuItem v-for="(says, kind) in KINDS" :key="kind" v-slot="{ active }">
          <button class="menu-row" :class="{ 'bg-band': active }" type="button" @click="make(kind)">
            <span class="w-12 font-medium">{{ kind }}</span><span class="text-[12px] text-faded">{{ says }}</span>
          </button>
        </MenuItem>
      </MenuItems>
    </Menu>
  </div>
</template>

<script setup lang="ts">
/** All parts, whether anything of them moves or not: chosen, hung on another, moved up and down. */
import { ArrowDown, ArrowUp, Eye, EyeOff, Lock, LockOpen } from '@lucide/vue'
import { hangOn, mayHangOn, moveAmong, moveBeside, partsListed } from '~~/core/acts/parenting.ts'
import { setPart, shapeName } from '~~/core/acts/parts.ts'
import { useSelection } from '~/stores/selection.ts'
import { useOpenPiece } from '~/stores/open-piece.ts'

const store = useOpenPiece()
const hand = useSelection()
/** Parts that are shown before more are asked for. */
const SHOWN = 200
const all = ref(false)
/** They stay the same parts while formulas are tuned: nothing of the list is made anew then. */
const parts = computed(() => store.piece.parts)
const listed = computed(() => partsListed({ parts: parts.value }))
const list = computed(() =>
  (all.value ? listed.value : listed.value.slice(0, SHOWN)).map(l => ({ ...l, part: parts.value[l.id]! })),
)
/** The part whose list of places is looked at: only its places are worked out. */
const looked = ref('')
const places = (id: string): string[] => {
  const { parent } = parts.value[id]!
  return looked.value === id ? mayHangOn(store.piece, id) : parent === null ? [] : [parent]
}
const name = (id: string) => parts.value[id]!.name

function move(id: string, by: 1 | -1): void {
  const op = moveAmong(store.piece, id, by)
  if (op) store.act(op)
  else store.say(`${name(id)} is already ${by > 0 ? 'above' : 'below'} everything beside it.`)
}

function hang(id: string, parent: string): void {
  store.act(hangOn(store.piece, id, parent || null))
  const where = parent ? `is now a child of ${name(parent)}` : 'no longer has a parent'
  store.sayWithUndo(`${name(id)} ${where}; its numbers count from there.`)
}

/** Where a part that is carried would come to: above a row, below it, or on it. */
const over = ref<{ id: string; at: 'above' | 'below' | 'on' } | null>(null)
let carried: string | null = null

const pickUp = (id: string) => void (carried = id)
function letFall(): void {
  carried = null
  over.value = null
}
function placeOf(e: DragEvent): 'above' | 'below' | 'on' {
  const { top, height } = (e.currentTarget as HTMLElement).getBoundingClientRect()
  const share = (e.clientY - top) / height
  return share < 0.3 ? 'above' : share > 0.7 ? 'below' : 'on'
}
function carryOver(e: DragEvent, id: string): void {
  if (carried === null) return
  e.preventDefault()
  over.value = { id, at: placeOf(e) }
}
function putDown(e: DragEvent, id: string): void {
  const [part, at] = [carried, placeOf(e)]
  letFall()
  if (part === null || part === id) return
  e.preventDefault()
  if (at === 'on' && mayHangOn(store.piece, part).includes(id)) return hang(part, id)
  const op = at === 'on' ? null : moveBeside(store.piece, part, id, at === 'above')
  if (op) store.act(op)
  else store.say(`${name(part)} can’t go there: ${name(id)} is its child.`)
}
</script>

<template>
  <ul v-if="list.length > 0" class="mt-4 border-t border-rule" aria-label="All parts">
    <li
      v-for="l in list"
      :key="l.id"
      class="flex items-center gap-3 border-b border-rule py-[3px]"
      :class="{
        'bg-band': over?.id === l.id && over.at === 'on',
        'shadow-[0_-2px_0_var(--sea)]': over?.id === l.id && over.at === 'above',
        'shadow-[0_2px_0_var(--sea)]': over?.id === l.id && over.at === 'below',
      }"
      draggable="true"
      @dragstart="pickUp(l.id)"
      @dragend="letFall"
      @dragover="carryOver($event, l.id)"
      @dragleave="over = null"
      @drop="putDown($event, l.id)"
    >
      <button
        class="min-w-0 truncate text-left hover:underline"
        type="button"
        :style="{ paddingLeft: `${Math.min(l.depth, 12) * 14}px` }"
        @click="hand.choose(l.id)"
      >
        {{ l.part.name }}
      </button>
      <span class="truncate text-faded">{{ shapeName(l.part.shape).toLowerCase() }}</span>
      <label class="ml-auto flex shrink-0 items-center gap-2 text-faded"
        >on
        <ComboBox
          class="w-[150px] text-ink"
          :label="`Parent of ${l.part.name}`"
          :model-value="l.part.parent ?? ''"
          :of="[
            { value: '', says: 'the stage' },
            ...[...places(l.id)].map(id => ({ value: String(id), says: String(name(id)) })),
          ]"
          @focusin="looked = l.id"
          @pointerdown="looked = l.id"
          @update:model-value="hang(l.id, $event)"
        />
      </label>
      <IconButton
        :label="`${l.part.hidden ? 'Show' : 'Hide'} ${l.part.name}`"
        :aria-pressed="l.part.hidden === true"
        :data-tip="
          l.part.hidden ? 'Hidden helper: it runs but isn’t shown. Show it' : 'Hide it: it keeps running as a helper'
        "
        @click="store.act(setPart(store.piece, l.id, { hidden: !l.part.hidden }))"
        small
      >
        <component :is="l.part.hidden ? EyeOff : Eye" :size="14" />
      </IconButton>
      <IconButton
        :label="`${l.part.locked ? 'Unlock' : 'Lock'} ${l.part.name}`"
        :aria-pressed="l.part.locked === true"
        data-tip="Lock it: it can’t be selected on the stage"
        @click="store.act(setPart(store.piece, l.id, { locked: !l.part.locked }))"
        small
      >
        <component :is="l.part.locked ? Lock : LockOpen" :size="14" />
      </IconButton>
      <IconButton :label="`Move ${l.part.name} up`" data-tip="Move up, towards the viewer" @click="move(l.id, 1)" small>
        <ArrowUp :size="14" />
      </IconButton>
      <IconButton
        :label="`Move ${l.part.name} down`"
        data-tip="Move down, away from the viewer"
        @click="move(l.id, -1)"
        small
      >
        <ArrowDown :size="14" />
      </IconButton>
    </li>
    <li v-if="list.length < listed.length" class="py-1">
      <button class="link" type="button" @click="all = true">Show all {{ listed.length }} parts</button>
    </li>
  </ul>
</template>

<script setup lang="ts">
/** Several parts that are chosen: lined up, spread, doubled, taken away. */
import {
  AlignCenterHorizontal,
  AlignCenterVertical,
  AlignEndHorizontal,
  AlignEndVertical,
  AlignHorizontalSpaceAround,
  AlignStartHorizontal,
  AlignStartVertical,
  AlignVerticalSpaceAround,
  Copy,
  Group,
  Shapes,
  Trash2,
} from '@lucide/vue'
import type { Side } from '~~/core/acts/aligning.ts'
import { useCommandKeys } from '~/commands/keys.ts'
import { useSelection } from '~/stores/selection.ts'
import { useOpenPiece } from '~/stores/open-piece.ts'
import { useSeveral } from '~/commands/several.ts'

const store = useOpenPiece()
const hand = useSelection()
const several = useSeveral()
const { withKeys } = useCommandKeys()
const WAYS: readonly { side: Side; says: string; icon: unknown }[] = [
  { side: 'left', says: 'Align left edges', icon: AlignStartVertical },
  { side: 'middle', says: 'Align horizontal centres', icon: AlignCenterVertical },
  { side: 'right', says: 'Align right edges', icon: AlignEndVertical },
  { side: 'top', says: 'Align tops', icon: AlignStartHorizontal },
  { side: 'centre', says: 'Align vertical centres', icon: AlignCenterHorizontal },
  { side: 'foot', says: 'Align bottoms', icon: AlignEndHorizontal },
  { side: 'across', says: 'Distribute horizontally', icon: AlignHorizontalSpaceAround },
  { side: 'upward', says: 'Distribute vertically', icon: AlignVerticalSpaceAround },
]
</script>

<template>
  <div class="min-h-0 flex-1 overflow-y-auto px-4 py-3" data-several>
    <div class="mb-3 flex flex-wrap items-center gap-2">
      <strong class="font-semibold">{{ hand.chosen.length }} parts</strong>
      <button
        class="button button-plain ml-auto"
        type="button"
        :data-tip="withKeys('Group', 'Group the selected parts')"
        @click="several.gather"
      >
        <Group :size="14" />Group
      </button>
      <button
        class="button button-plain"
        type="button"
        :data-tip="withKeys('Apply a pattern', 'Patterns')"
        @click="hand.patterns = true"
      >
        <Shapes :size="14" />Patterns…
      </button>
      <button class="button button-plain" type="button" @click="several.double"><Copy :size="14" />Duplicate</button>
      <button class="button button-plain text-coral" type="button" @click="several.remove">
        <Trash2 :size="14" />Delete
      </button>
    </div>
    <div class="mb-2 flex flex-wrap items-center gap-1" role="group" aria-label="Align">
      <IconButton v-for="w in WAYS" :key="w.side" :label="w.says" class="!border-rule" @click="several.align(w.side)">
        <component :is="w.icon" :size="15" />
      </IconButton>
    </div>
    <SharedFields />
    <ul class="flex flex-wrap gap-1" aria-label="Selected parts">
      <li v-for="id in hand.chosen" :key="id">
        <button class="chip" type="button" @click="hand.choose(id)">{{ store.piece.parts[id]?.name }}</button>
      </li>
    </ul>
  </div>
</template>

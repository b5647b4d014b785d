<script setup lang="ts">
/** The tide table: every driven property, grouped by part, in the order the parts were made. */
import { PROPERTIES } from '~~/core/piece/properties.ts'
import type { Part, Piece } from '~~/core/piece/schema.ts'
import { usePiece } from '~/stores/piece.ts'
import { useHand } from '~/stores/hand.ts'
import { focusFormula } from '~/editor/focus.ts'
import TideEntry from './TideEntry.vue'

const store = usePiece()
const hand = useHand()

interface Group {
  id: string
  part: Part
  drives: string[]
}

/** Within a part, in the order of the property table. */
const rank = (key: string) => PROPERTIES.findIndex(p => key.endsWith(`.${p.name}`))
const made = (id: string) => Number(id.replace(/\D/g, '')) || 0

/** The same list stays the same object, so that a changed number changes nothing here. */
let listed: { keys: string; parts: unknown; groups: Group[] } | null = null
const groups = computed<Group[]>(() => {
  const { parts, drives } = store.piece!
  const keys = `${Object.keys(drives).join()} ${hand.part}`
  if (listed?.keys === keys && listed.parts === parts) return listed.groups
  listed = { keys, parts, groups: grouped(parts, drives) }
  return listed.groups
})

function grouped(parts: Piece['parts'], drives: Piece['drives']): Group[] {
  const byPart = new Map<string, string[]>()
  for (const [key, drive] of Object.entries(drives)) {
    const of = byPart.get(drive.part)
    if (of) of.push(key)
    else byPart.set(drive.part, [key])
  }
  const shown = new Set(byPart.keys())
  // A chosen part stands here too, so that its first function is one step away.
  if (hand.part && parts[hand.part]) shown.add(hand.part)
  if (byPart.size === 0) Object.keys(parts).forEach(id => shown.add(id))
  const order = [...shown].filter(id => parts[id]).sort((a, b) => made(a) - made(b))
  return order.map(id => ({ id, part: parts[id]!, drives: (byPart.get(id) ?? []).sort((a, b) => rank(a) - rank(b)) }))
}

const flat = computed(() => groups.value.flatMap(g => g.drives))

/** The entry before or after the one in hand. */
function go(by: 1 | -1): void {
  const at = hand.drive ? flat.value.indexOf(hand.drive) : by > 0 ? -1 : flat.value.length
  const key = flat.value[Math.min(flat.value.length - 1, Math.max(0, at + by))]
  if (!key) return
  hand.take(key)
  nextTick(() => document.querySelector(`[data-drive="${key}"]`)?.scrollIntoView({ block: 'nearest' }))
}

function write(): void {
  if (hand.drive) focusFormula(hand.drive)
}
defineExpose({ go, write })
</script>

<template>
  <section class="min-h-0 flex-1 overflow-y-auto px-3 pt-3 pb-6" aria-label="Tide table">
    <div v-for="g in groups" :key="g.id" class="mb-4">
      <PartHeader :part="g.id" />
      <p v-if="g.drives.length === 0" class="rounded-md border border-dashed border-rule px-3 py-3 text-faded">
        Nothing of it moves yet. <span class="text-ink">Drive…</span> gives a property a function of time.
      </p>
      <div class="flex flex-col gap-2">
        <TideEntry v-for="key in g.drives" :key="key" :drive="key" />
      </div>
    </div>
    <slot />
  </section>
</template>

<script setup lang="ts">
/** Find anything: parts, formulas, what is in common, dials and commands, by a few letters of their names. */
import { Combobox, ComboboxInput, ComboboxOption, ComboboxOptions, Dialog, DialogPanel } from '@headlessui/vue'
import { Search } from '@lucide/vue'
import { isRuled, rule, RULED, type Ruled } from '~~/core/acts/guides.ts'
import { sourceName } from '~~/core/acts/sources.ts'
import { useClip } from '~/stores/clip.ts'
import { COMMON, useCommon } from '~/stores/common.ts'
import { DESK } from '~/stores/desk.ts'
import { useHand } from '~/stores/hand.ts'
import { useListing } from '~/stores/listing.ts'
import { usePiece } from '~/stores/piece.ts'
import { useTakes } from '~/stores/takes.ts'
import { useTiming } from '~/stores/timing.ts'

const emit = defineEmits<{ close: []; keys: []; manual: [] }>()
const store = usePiece()
const hand = useHand()
const listing = useListing()
const common = useCommon()
const timing = useTiming()
const takes = useTakes()
const clip = useClip()

interface Found {
  readonly name: string
  readonly kind: string
  /** More by which it is found. */
  readonly text?: string
  readonly key?: string
  readonly go: () => void
}
const words = ref('')
/** How many stand in the list. */
const MOST = 12

const commands: readonly Found[] = [
  { name: 'Play and stop', kind: 'command', key: 'Space', go: () => store.player!.play(!store.player!.playing) },
  { name: 'Back to time 0', kind: 'command', key: '0', go: () => store.player!.goto({ n: 0n, d: 1n }) },
  { name: 'Mark of a cue here', kind: 'command', key: 'C', go: timing.cueHere },
  { name: 'The stretch begins here', kind: 'command', key: '[', go: () => timing.endHere(true) },
  { name: 'The stretch ends here', kind: 'command', key: ']', go: () => timing.endHere(false) },
  {
    name: 'The chosen part alone, all again',
    kind: 'command',
    key: 'A',
    go: () => (hand.alone = hand.alone === null ? hand.part : null),
  },
  { name: 'Keep a take of the formula in hand', kind: 'command', key: 'T', go: () => takes.keep(hand.drive) },
  { name: 'The take before', kind: 'command', key: 'Y', go: () => takes.before(hand.drive) },
  { name: 'Copy the formula in hand', kind: 'command', key: 'Ctrl C', go: clip.copy },
  { name: 'Paste it on the chosen part', kind: 'command', key: 'Ctrl V', go: clip.paste },
  { name: 'Patterns', kind: 'command', key: 'P', text: 'put on, save as', go: () => (hand.patterns = true) },
  { name: 'Undo', kind: 'command', key: 'Ctrl Z', go: store.undo },
  { name: 'Redo', kind: 'command', key: 'Ctrl Shift Z', go: store.redo },
  { name: 'All keys', kind: 'command', key: '?', go: () => emit('keys') },
  { name: 'The manual beside the piece', kind: 'command', key: 'F1', go: () => emit('manual') },
  ...(Object.keys(RULED) as Ruled[]).map(what => ({
    name: RULED[what].split(':')[0]!,
    kind: 'command',
    text: 'ruled over the stage, on and off',
    go: () => store.act(rule(store.piece!, what, !isRuled(store.piece!, what))),
  })),
  ...DESK.map(p => ({ name: `Desk: ${p.says}`, kind: 'command', text: p.title, go: () => (hand.desk = p.is) })),
  ...(Object.keys(COMMON) as (keyof typeof COMMON)[]).map(kind => ({
    name: `New ${kind}`,
    kind: 'command',
    text: COMMON[kind],
    go: () => common.make(kind),
  })),
]

const all = computed<Found[]>(() => {
  const piece = store.piece!
  const part = (id: string) => () => {
    hand.choose(id)
    hand.desk = 'part'
  }
  const timed = (['cues', 'clocks', 'curves'] as const).flatMap(c =>
    Object.entries(piece[c]).map(([id, e]) => ({
      name: e.name,
      kind: c.slice(0, -1),
      go: () => listing.reveal(`${c}/${id}`),
    })),
  )
  return [
    ...Object.entries(piece.parts).map(([id, p]) => ({ name: p.name, kind: 'part', go: part(id) })),
    ...Object.entries(piece.drives).map(([key, d]) => ({
      name: sourceName(piece, key),
      kind: 'drive',
      text: d.text,
      go: () => listing.reveal(key),
    })),
    ...Object.entries(piece.signals).map(([id, s]) => ({
      name: s.name,
      kind: 'signal',
      text: s.text,
      go: () => listing.reveal(`~${id}`),
    })),
    ...timed,
    ...Object.values(piece.dials).map(d => ({
      name: d.name,
      kind: 'dial',
      go: () => document.querySelector<HTMLElement>(`[data-dial="${CSS.escape(d.name)}"] input[type=range]`)?.focus(),
    })),
    ...commands,
  ]
})
/** What begins with the words stands before what holds them, names before texts. */
const found = computed<Found[]>(() => {
  const wanted = words.value.trim().toLowerCase().split(/\s+/).filter(Boolean)
  if (wanted.length === 0) return commands.slice(0, MOST)
  const scored = all.value.flatMap(f => {
    const [name, text] = [f.name.toLowerCase(), `${f.name} ${f.kind} ${f.text ?? ''}`.toLowerCase()]
    if (!wanted.every(w => text.includes(w))) return []
    const score = name.startsWith(wanted[0]!) ? 0 : wanted.every(w => name.includes(w)) ? 1 : 2
    return [{ f, score }]
  })
  return scored
    .sort((a, b) => a.score - b.score)
    .map(s => s.f)
    .slice(0, MOST)
})

function go(f: Found | null): void {
  if (!f) return
  emit('close')
  nextTick(f.go)
}
</script>

<template>
  <Dialog :open="true" class="relative z-50" aria-label="Find anything" @close="emit('close')">
    <div class="fixed inset-0 flex justify-center bg-[rgb(10_25_30/0.25)] p-4 pt-16">
      <DialogPanel class="panel h-fit w-[480px] overflow-hidden" @keydown.esc.capture.stop.prevent="emit('close')">
        <Combobox :model-value="null" nullable @update:model-value="go">
          <label class="flex items-center gap-2 border-b border-rule px-3 py-2">
            <Search :size="15" class="text-faded" aria-hidden="true" />
            <ComboboxInput
              class="w-full bg-transparent text-[15px] outline-none"
              aria-label="Find a part, a property or a command"
              placeholder="A part, a property, a command"
              autocomplete="off"
              @change="words = $event.target.value"
            />
          </label>
          <ComboboxOptions static class="max-h-[60vh] overflow-y-auto py-1">
            <ComboboxOption
              v-for="(f, i) in found"
              :key="`${f.kind} ${f.name} ${i}`"
              v-slot="{ active }"
              :value="f"
              as="template"
            >
              <li class="flex cursor-pointer items-center gap-3 px-3 py-[5px]" :class="{ 'bg-band': active }">
                <span class="shrink-0">{{ f.name }}</span>
                <span v-if="f.text" class="tabular min-w-0 truncate text-[12px] text-faded">{{ f.text }}</span>
                <span class="ml-auto shrink-0 text-[12px] text-faded">{{ f.key ?? f.kind }}</span>
              </li>
            </ComboboxOption>
            <li v-if="found.length === 0" class="px-3 py-2 text-faded" role="status">Nothing is called so.</li>
          </ComboboxOptions>
        </Combobox>
      </DialogPanel>
    </div>
  </Dialog>
</template>

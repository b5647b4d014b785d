<script setup lang="ts">
/** Find anything: parts, formulas, signals, dials, commands, settings, functions and topics of the manual, by the words that people have for them. */
import { signalKey } from '~~/core/piece/drive-key.ts'
import { Combobox, ComboboxInput, ComboboxOption, ComboboxOptions, Dialog, DialogPanel } from '@headlessui/vue'
import { Search } from '@lucide/vue'
import { matching } from '~~/core/manual/matching.ts'
import { sourceName } from '~~/core/acts/sources.ts'
import { useSelection } from '~/stores/selection.ts'
import { useListing } from '~/stores/listing.ts'
import { useOpenPiece } from '~/stores/open-piece.ts'
import { useFinding, type Found } from './finding.ts'

/** `typed`: letters that were pressed before the field was there, and go on coming until it has the focus. */
const props = defineProps<{ typed: string }>()
const emit = defineEmits<{ close: [] }>()
const field = ref<{ $el: HTMLInputElement } | null>(null)
let taken = 0
function take(): void {
  const input = field.value?.$el
  if (!input || taken === props.typed.length) return
  input.value += props.typed.slice(taken)
  taken = props.typed.length
  input.dispatchEvent(new Event('input', { bubbles: true }))
}
onMounted(() => nextTick(take))
watch(() => props.typed, take)
const store = useOpenPiece()
const hand = useSelection()
const listing = useListing()
const { commands, known } = useFinding()
const words = ref('')
/** How many stand in the list. */
const MOST = 12

const all = computed<Found[]>(() => {
  const piece = store.piece
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
  const own: Found[] = [
    ...Object.entries(piece.parts).map(([id, p]) => ({ name: p.name, kind: 'part', go: part(id) })),
    ...Object.entries(piece.drives).map(([key, d]) => ({
      name: sourceName(piece, key),
      kind: 'drive',
      says: d.text,
      go: () => listing.reveal(key),
    })),
    ...Object.entries(piece.signals).map(([id, s]) => ({
      name: s.name,
      kind: 'signal',
      says: s.text,
      go: () => listing.reveal(signalKey(id)),
    })),
    ...timed,
    ...Object.values(piece.dials).map(d => ({
      name: d.name,
      kind: 'dial',
      go: () =>
        document
          .querySelector<HTMLElement>(
            `[data-dial="${CSS.escape(d.name)}"] :is(input, [role="combobox"], [role="switch"]):not([aria-label$=", value"])`,
          )
          ?.focus(),
    })),
  ]
  // A cue is found by the word cue as well.
  return [...own.map(f => ({ ...f, also: f.kind })), ...commands, ...known]
})
const found = computed<readonly Found[]>(() =>
  words.value.trim() === '' ? commands.slice(0, MOST) : matching(words.value, all.value, MOST),
)

function go(f: Found | null): void {
  if (!f) return
  emit('close')
  void nextTick(f.go)
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
              ref="field"
              class="w-full bg-transparent text-[15px] outline-none"
              aria-label="Find a part, property or command"
              placeholder="A part, property, command or setting"
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
                <span v-if="f.says" class="tabular min-w-0 truncate text-[12px] text-faded">{{ f.says }}</span>
                <span class="ml-auto shrink-0 text-[12px] text-faded">{{ f.key ?? f.kind }}</span>
              </li>
            </ComboboxOption>
            <li v-if="found.length === 0" class="px-3 py-2 text-faded" role="status">No results.</li>
          </ComboboxOptions>
        </Combobox>
      </DialogPanel>
    </div>
  </Dialog>
</template>

<script setup lang="ts">
/** The masthead: where one is, how the piece is saved, undo and redo. */
import { BookOpen, Handshake, Keyboard, Redo2, Search, Undo2 } from '@lucide/vue'
import { laterText, loopText } from '~~/core/insight/loop-count.ts'
import { printNumber } from '~~/core/units/units.ts'
import { useCommandKeys } from '~/commands/keys.ts'
import { useCommands } from '~/commands/run-command.ts'
import { useSelection } from '~/stores/selection.ts'
import { useOpenPiece } from '~/stores/open-piece.ts'
import { useVerdicts } from '~/stores/verdicts.ts'

const store = useOpenPiece()
const hand = useSelection()
const verdicts = useVerdicts()
const { runCommand } = useCommands()
const { keysOf, withKeys } = useCommandKeys()
const lap = computed(() => store.piece.lap.length.n / store.piece.lap.length.d)
/** The mark of the lap: a full ring where all loop, an empty one where some do later, else a diamond. */
const mark = computed(() =>
  verdicts.count.open > 0
    ? 'rotate-45 bg-brass'
    : verdicts.count.later > 0
      ? 'rounded-full border-2 border-sea'
      : 'rounded-full bg-kelp',
)
const named = computed(() => store.piece.title)
const renaming = ref(false)
const title = ref('')
const field = useTemplateRef('field')

async function begin(): Promise<void> {
  title.value = store.piece.title
  renaming.value = true
  await nextTick()
  field.value?.select()
}
function rename(): void {
  if (!renaming.value) return
  renaming.value = false
  const wanted = title.value.trim()
  if (wanted === '') store.say('A piece needs a title. The old one is kept.')
  else if (wanted !== store.piece.title)
    store.act({ undoLabel: `rename the piece ${wanted}`, puts: [{ set: 'title', value: wanted.slice(0, 120) }] })
}

const state = computed(() => {
  const s = store.saving
  if (s.is === 'saved') return { text: s.at ? 'saved just now' : 'saved', tone: 'text-faded' }
  if (s.is === 'failed') return { text: 'not saved', tone: 'text-coral' }
  if (s.is === 'gone') return { text: 'deleted elsewhere', tone: 'text-coral' }
  if (s.is === 'stale') return { text: 'changed elsewhere', tone: 'text-coral' }
  return { text: 'saving …', tone: 'text-faded' }
})
const last = computed(() => store.done.at(-1)?.op.undoLabel)
const next = computed(() => store.undone.at(-1)?.op.undoLabel)
</script>

<template>
  <header class="flex h-11 shrink-0 items-center gap-2 border-b border-rule bg-sheet px-4">
    <NuxtLink to="/" class="flex shrink-0 items-center gap-3 text-faded hover:text-ink" data-tip="Harbour: your pieces"
      ><TideMark class="text-sea" />Harbour</NuxtLink
    >
    <span class="text-faded" aria-hidden="true">/</span>
    <input
      v-if="renaming"
      ref="field"
      v-model="title"
      class="field w-60 text-[15px] font-semibold"
      maxlength="120"
      aria-label="Title of the piece"
      @keydown.enter="rename"
      @keydown.esc="renaming = false"
      @blur="rename"
    />
    <button
      v-else
      class="truncate rounded-sm px-1 text-[15px] font-semibold hover:bg-band"
      type="button"
      data-tip="Rename"
      @click="begin"
    >
      {{ named }}
    </button>
    <button
      class="button ml-2 w-8 shrink-0 !px-0"
      type="button"
      aria-label="Undo"
      :data-tip="last ? withKeys(`Undo: ${last}`, 'Undo') : 'Nothing to undo'"
      :disabled="!last"
      @click="store.undo()"
    >
      <Undo2 :size="15" />
    </button>
    <button
      class="button w-8 shrink-0 !px-0"
      type="button"
      aria-label="Redo"
      :data-tip="next ? withKeys(`Redo: ${next}`, 'Redo') : 'Nothing to redo'"
      :disabled="!next"
      @click="store.redo()"
    >
      <Redo2 :size="15" />
    </button>
    <!-- Its words change when a change is saved: there is room for the longest that comes by itself, and nothing moves that is being pressed. -->
    <button
      class="min-w-28 shrink-0 rounded-sm px-1 text-left whitespace-nowrap hover:bg-band"
      :class="state.tone"
      type="button"
      data-tip="Version history"
      @click="hand.dialog = 'versions'"
    >
      <span role="status" data-saving>{{ state.text }}</span>
    </button>
    <LazyVersionsDialog v-if="hand.dialog === 'versions'" @close="hand.dialog = null" />
    <button
      class="button ml-auto min-w-10 shrink-[1000] justify-start !font-normal text-faded"
      type="button"
      :data-tip="withKeys('Find a part, property or command', 'Find anything')"
      @click="runCommand('Find anything')"
    >
      <Search :size="14" /><span class="hidden truncate lg:inline">Find anything</span
      ><kbd class="tabular ml-1">{{ keysOf('Find anything')[0] }}</kbd>
    </button>
    <button
      class="button shrink-0"
      type="button"
      :data-tip="`The lap: what loops and what doesn’t. ${laterText(verdicts.count)}`.trim()"
      data-lap-state
      @click="hand.desk = 'lap'"
    >
      <span class="inline-block h-[9px] w-[9px]" :class="mark" aria-hidden="true" />
      Lap {{ printNumber(lap, 3) }} s
      <span class="hidden font-normal text-faded xl:inline">{{
        verdicts.all ? loopText(verdicts.count) : 'checking …'
      }}</span>
    </button>
    <button
      class="button button-strong shrink-0"
      type="button"
      data-tip="Export this piece as a film, page, drawing, 3D scene, numbers or file"
      @click="hand.dialog = 'export'"
    >
      Export
    </button>
    <button
      class="button shrink-0"
      type="button"
      aria-label="Hand over"
      data-tip="Hand over: a page with the stage and a few dials, for someone else"
      @click="hand.dialog = 'hand over'"
    >
      <Handshake :size="16" /><span class="hidden xl:inline">Hand over</span>
    </button>
    <LazyHandOver v-if="hand.dialog === 'hand over'" @close="hand.dialog = null" />
    <LazyExportDialog
      v-if="hand.dialog === 'export'"
      :id="store.id"
      :piece="store.piece"
      live
      :at="store.player.now().seconds"
      :looping="verdicts.count"
      @close="hand.dialog = null"
    />
    <div class="flex shrink-0 items-center gap-1">
      <KeepingChoice />
      <IconButton
        label="Manual"
        :data-tip="withKeys('The manual, beside the piece', 'Open or close the manual')"
        @click="hand.manual = !hand.manual"
      >
        <BookOpen :size="16" />
      </IconButton>
      <IconButton
        label="Keyboard shortcuts"
        :data-tip="withKeys('Keyboard shortcuts', 'Keyboard shortcuts')"
        @click="hand.dialog = 'keys'"
      >
        <Keyboard :size="16" />
      </IconButton>
      <ThemeButton />
    </div>
  </header>
</template>

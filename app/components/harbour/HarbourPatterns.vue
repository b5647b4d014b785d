<script setup lang="ts">
/** The patterns in the harbour: saved ones can be renamed, exported and deleted. */
import { Pencil, Share, Trash2 } from '@lucide/vue'
import { packPiece } from '~~/core/formats/piece-file/piece-file.ts'
import { readPiece } from '~~/core/piece/migrate.ts'
import { unzipSync } from 'fflate'
import type { Pattern } from '~~/core/piece/api.ts'
import { usePatterns } from '~/stores/patterns.ts'

const patterns = usePatterns()
const pointed = ref('')
const renaming = ref('')
const dropped = shallowRef<Pattern | null>(null)
onMounted(patterns.load)

function rename(p: Pattern, e: Event): void {
  const title = (e.target as HTMLInputElement).value.trim()
  if (renaming.value === '') return
  renaming.value = ''
  if (title !== '' && title !== p.document.title) void patterns.rename(p, title)
}
async function drop(p: Pattern): Promise<void> {
  await patterns.drop(p)
  dropped.value = p
}
async function bringBack(): Promise<void> {
  await patterns.keep(dropped.value!.document)
  dropped.value = null
}
function giveOut({ document: piece }: Pattern): void {
  const url = URL.createObjectURL(new Blob([packPiece({ piece, pictures: new Map() })], { type: 'application/zip' }))
  Object.assign(document.createElement('a'), {
    href: url,
    download: `${piece.title.replace(/[^\p{L}\p{N} _-]/gu, '')}.tide`,
  }).click()
  setTimeout(() => URL.revokeObjectURL(url), 10_000)
}
async function takeIn(e: Event): Promise<void> {
  const input = e.target as HTMLInputElement
  for (const file of input.files ?? []) {
    try {
      const text = new TextDecoder().decode(unzipSync(new Uint8Array(await file.arrayBuffer()))['piece.json'])
      const { piece, problem } = readPiece(JSON.parse(text))
      if (piece) await patterns.keep(piece)
      else patterns.wrong = `${file.name}: ${problem}`
    } catch {
      patterns.wrong = `${file.name} couldn’t be read: it isn’t an Open Tide pattern, or it’s damaged.`
    }
  }
  input.value = ''
}
</script>

<template>
  <section aria-label="Patterns">
    <div class="mb-3 flex items-end justify-between gap-4">
      <div>
        <h2 class="text-[17px] font-semibold">Patterns</h2>
        <p class="mt-1 text-faded">Motion to apply to your own parts: press P in the quay.</p>
      </div>
      <label class="button cursor-pointer focus-within:outline-2 focus-within:outline-sea"
        >Import…<input
          class="sr-only"
          type="file"
          accept=".tide"
          multiple
          aria-label="Import patterns"
          @change="takeIn"
      /></label>
    </div>
    <p v-if="patterns.wrong" class="mb-3 text-coral" role="alert">{{ patterns.wrong }}</p>
    <p v-if="dropped" class="mb-3 flex gap-3" role="status">
      {{ dropped.document.title }} was deleted.
      <button class="link" type="button" @click="bringBack">Restore</button>
    </p>
    <ul class="grid grid-cols-[repeat(auto-fill,minmax(176px,1fr))] gap-4" aria-label="All patterns">
      <li
        v-for="p in patterns.all"
        :key="p.id"
        class="overflow-hidden rounded-md border border-rule bg-sheet"
        @mouseenter="pointed = p.id"
        @mouseleave="pointed = ''"
      >
        <MovingStill :piece="p.document" :moving="pointed === p.id" />
        <div class="flex items-center gap-1 border-t border-rule px-2 py-1">
          <input
            v-if="renaming === p.id"
            class="field h-6 min-w-0 flex-1"
            maxlength="60"
            aria-label="Name of the pattern"
            :value="p.document.title"
            @keydown.enter="rename(p, $event)"
            @keydown.esc="renaming = ''"
            @blur="rename(p, $event)"
            @vue:mounted="$event.el.select()"
          />
          <span v-else class="min-w-0 flex-1 truncate">{{ p.document.title }}</span>
          <IconButton :label="`Export ${p.document.title}`" data-tip="Export" @click="giveOut(p)"
            ><Share :size="13"
          /></IconButton>
          <template v-if="!patterns.isShipped(p)">
            <IconButton :label="`Rename ${p.document.title}`" data-tip="Rename" @click="renaming = p.id"
              ><Pencil :size="13"
            /></IconButton>
            <IconButton :label="`Delete ${p.document.title}`" data-tip="Delete" @click="drop(p)"
              ><Trash2 :size="13"
            /></IconButton>
          </template>
        </div>
      </li>
    </ul>
  </section>
</template>

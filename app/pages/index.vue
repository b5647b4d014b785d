<script setup lang="ts">
/** The harbour: the pieces as cards, the patterns, and what was deleted lately. */
import { Plus } from '@lucide/vue'
import { Created, type PieceSummary } from '~~/core/piece/api.ts'
import type { Piece } from '~~/core/piece/schema.ts'
import { create } from '~/services/request.ts'
import { useHarbour } from '~/stores/harbour.ts'

const harbour = useHarbour()
const busy = ref(false)
const over = ref(false)
const PLACES = [
  { is: 'pieces', says: 'Pieces' },
  { is: 'patterns', says: 'Patterns' },
  { is: 'deleted', says: 'Recently deleted' },
] as const
const shown = ref<(typeof PLACES)[number]['is']>('pieces')
onMounted(harbour.load)
useHead({ title: 'Harbour · Open Tide' })

async function make(): Promise<void> {
  busy.value = true
  const answer = await create('/api/pieces', Created, { title: 'New piece' })
  busy.value = false
  if (answer.ok) await navigateTo(`/piece/${answer.value.id}`)
  else harbour.trouble = answer.says
}

const given = shallowRef<{ id: string; piece: Piece } | null>(null)
async function give({ id }: PieceSummary): Promise<void> {
  const piece = await harbour.documentOf(id)
  if (piece) given.value = { id, piece }
}

async function picked(e: Event): Promise<void> {
  const input = e.target as HTMLInputElement
  await harbour.takeIn([...(input.files ?? [])])
  input.value = ''
}
function drop(e: DragEvent): void {
  over.value = false
  const files = [...(e.dataTransfer?.files ?? [])]
  if (files.length > 0) void harbour.takeIn(files)
}
const day = (iso: string) => new Date(iso).toLocaleDateString('en-GB', { day: 'numeric', month: 'long' })
</script>

<template>
  <div
    class="min-h-full"
    :class="over ? 'bg-band' : ''"
    @dragover.prevent="over = true"
    @dragleave.self="over = false"
    @drop.prevent="drop"
  >
    <header class="flex h-11 items-center gap-3 border-b border-rule bg-sheet px-4">
      <TideMark class="text-sea" />
      <span class="text-[15px] font-semibold">Open Tide</span>
      <NuxtLink to="/manual" class="link ml-auto">Manual</NuxtLink>
      <ThemeButton />
    </header>
    <main class="mx-auto max-w-[1136px] px-6 py-8">
      <div class="mb-5 flex items-end gap-3">
        <div class="mr-auto">
          <h1 class="text-[22px] leading-7 font-semibold">Harbour</h1>
          <p class="mt-1 text-faded">Your pieces: motion driven by functions of time, looping forever.</p>
        </div>
        <label v-if="shown === 'pieces'" class="button cursor-pointer focus-within:outline-2 focus-within:outline-sea"
          >Import…<input
            class="sr-only"
            type="file"
            accept=".tide,.json"
            multiple
            aria-label="Import piece files"
            @change="picked"
        /></label>
        <button class="button button-strong" type="button" :disabled="busy" @click="make">
          <Plus :size="16" />New piece
        </button>
      </div>

      <NoticeBox v-if="harbour.trouble" is="trouble">
        <span class="text-coral">{{ harbour.trouble }}</span>
        <template #act><button class="link" type="button" @click="harbour.load">Try again</button></template>
      </NoticeBox>
      <NoticeBox v-for="piece in harbour.waiting" :key="piece.id">
        Changes to {{ piece.title }} are kept in this browser and not saved yet.
        <template #act
          ><NuxtLink class="link" :to="`/piece/${piece.id}`">Open the piece to save them</NuxtLink></template
        >
      </NoticeBox>
      <NoticeBox v-if="harbour.notice">
        {{ harbour.notice.says }}
        <template #act>
          <button v-if="harbour.notice.act" class="link" type="button" @click="harbour.notice.act.do">
            {{ harbour.notice.act.says }}
          </button>
          <button class="text-faded hover:text-ink" type="button" @click="harbour.notice = null">Dismiss</button>
        </template>
      </NoticeBox>

      <nav class="mb-4 flex gap-2" aria-label="Pieces to show">
        <button
          v-for="it in PLACES"
          :key="it.is"
          class="chip"
          type="button"
          :class="{ 'chip-on': shown === it.is }"
          :aria-pressed="shown === it.is"
          @click="shown = it.is"
        >
          {{ it.says }}
        </button>
      </nav>

      <p v-if="harbour.cards === null && !harbour.trouble" class="text-faded">Loading your pieces …</p>
      <EmptyNote v-else-if="harbour.cards?.length === 0 && shown === 'pieces'" title="No pieces yet" framed>
        Create a piece: draw a part, choose a property and give it a function of time.
        <template #act
          ><button class="button" type="button" @click="make"><Plus :size="16" />New piece</button></template
        >
      </EmptyNote>
      <template v-else-if="shown === 'pieces'">
        <HarbourBar />
        <EmptyNote v-if="harbour.shown.length === 0">No results.</EmptyNote>
        <ul class="grid grid-cols-[repeat(auto-fill,minmax(320px,1fr))] gap-6" aria-label="Pieces">
          <PieceCard v-for="card in harbour.shown" :key="card.id" :card="card" @give="give(card)" />
        </ul>
      </template>

      <LazyHarbourPatterns v-if="shown === 'patterns'" />
      <section v-if="shown === 'deleted'" aria-label="Recently deleted">
        <EmptyNote v-if="harbour.deleted.length === 0">Nothing was deleted in the last 30 days.</EmptyNote>
        <ul>
          <li v-for="card in harbour.deleted" :key="card.id" class="flex items-center gap-4 border-t border-rule py-2">
            <span class="min-w-0 truncate">{{ card.title }}</span>
            <span class="text-faded">{{ day(card.changed) }}; kept for 30 days</span>
            <button class="link ml-auto" type="button" @click="harbour.bringBack([card.id])">Restore</button>
          </li>
        </ul>
      </section>
    </main>
    <LazyExportDialog v-if="given" :id="given.id" :piece="given.piece" :at="0" :looping="null" @close="given = null" />
  </div>
</template>

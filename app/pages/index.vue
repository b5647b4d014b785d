<script setup lang="ts">
/** The harbour: the pieces as cards. */
import { Plus } from '@lucide/vue'
import type { Card } from '~~/core/piece/api.ts'
import { get, post, remove } from '~/stores/request.ts'
import { allUnsaved } from '~/stores/unsaved.ts'

const cards = ref<Card[] | null>(null)
const trouble = ref('')
const busy = ref(false)
const deleted = ref<Card | null>(null)

/** Pieces with changes that wait in this browser. */
const waiting = ref<{ id: string; title: string }[]>([])

async function load(): Promise<void> {
  waiting.value = (await allUnsaved()).map(([id, u]) => ({ id, title: u.document.title }))
  const answer = await get('/api/pieces')
  if (answer.ok) cards.value = answer.value as Card[]
  trouble.value = answer.ok ? '' : answer.says
}
onMounted(load)
useHead({ title: 'Harbour · Open Tide' })

async function make(): Promise<void> {
  busy.value = true
  const answer = await post('/api/pieces', { title: 'New piece' })
  busy.value = false
  if (answer.ok) await navigateTo(`/piece/${(answer.value as { id: string }).id}`)
  else trouble.value = answer.says
}

async function copy(card: Card): Promise<void> {
  const answer = await post('/api/pieces', { copyOf: card.id })
  if (!answer.ok) trouble.value = answer.says
  await load()
}

async function drop(card: Card): Promise<void> {
  const answer = await remove(`/api/pieces/${card.id}`)
  if (answer.ok) deleted.value = card
  else trouble.value = answer.says
  await load()
}

async function bringBack(): Promise<void> {
  const card = deleted.value
  deleted.value = null
  if (!card) return
  const answer = await post(`/api/pieces/${card.id}/restore`)
  if (!answer.ok) trouble.value = answer.says
  await load()
}
</script>

<template>
  <div class="min-h-full">
    <header class="flex h-11 items-center gap-3 border-b border-rule bg-sheet px-4">
      <TideMark class="text-sea" />
      <span class="text-[15px] font-semibold">Open Tide</span>
      <NuxtLink to="/manual" class="link ml-auto">Manual</NuxtLink>
      <ThemeButton />
    </header>
    <main class="mx-auto max-w-[1136px] px-6 py-8">
      <div class="mb-6 flex items-end justify-between gap-4">
        <div>
          <h1 class="text-[22px] leading-7 font-semibold">Harbour</h1>
          <p class="mt-1 text-faded">Your pieces. Each moves by functions of time and runs on for ever.</p>
        </div>
        <button class="button button-strong" type="button" :disabled="busy" @click="make">
          <Plus :size="16" />New piece
        </button>
      </div>

      <p
        v-if="trouble"
        role="alert"
        class="mb-4 flex items-center gap-3 rounded-md border border-coral bg-sheet px-3 py-2 text-coral"
      >
        {{ trouble }}
        <button class="link ml-auto" type="button" @click="load">Try again</button>
      </p>
      <p
        v-for="piece in waiting"
        :key="piece.id"
        role="status"
        class="mb-4 flex items-center gap-3 rounded-md border border-rule bg-sheet px-3 py-2"
      >
        Changes of {{ piece.title }} wait in this browser: they are not saved yet.
        <NuxtLink class="link ml-auto" :to="`/piece/${piece.id}`">Open it to save them</NuxtLink>
      </p>
      <p
        v-if="deleted"
        role="status"
        class="mb-4 flex items-center gap-3 rounded-md border border-rule bg-sheet px-3 py-2"
      >
        {{ deleted.title }} was deleted.
        <button class="link" type="button" @click="bringBack">Bring it back</button>
        <button class="ml-auto text-faded hover:text-ink" type="button" @click="deleted = null">Dismiss</button>
      </p>

      <p v-if="cards === null && !trouble" class="text-faded">Looking what lies in the harbour …</p>
      <div v-else-if="cards?.length === 0" class="rounded-md border border-dashed border-rule px-6 py-16 text-center">
        <p class="text-[15px] font-medium">The harbour is empty.</p>
        <p class="mt-1 mb-4 text-faded">Begin a piece: draw a part, choose a property, and give it a function.</p>
        <button class="button" type="button" @click="make"><Plus :size="16" />New piece</button>
      </div>
      <ul v-else class="grid grid-cols-[repeat(auto-fill,minmax(320px,1fr))] gap-6" aria-label="Pieces">
        <PieceCard
          v-for="card in cards"
          :key="card.id"
          :card="card"
          @copy="copy(card)"
          @drop="drop(card)"
          @renamed="load"
          @trouble="trouble = $event"
        />
      </ul>
    </main>
  </div>
</template>

<script setup lang="ts">
/** The kept states of the piece, those that were refused too: looked at, taken back, or made a piece of their own. */
import { array } from 'valibot'
import { Created, Document, Version, type Stored } from '~~/core/piece/api.ts'
import { readPiece } from '~~/core/piece/migrate.ts'
import { takeBack } from '~~/core/acts/versions.ts'
import { create, get } from '~/services/request.ts'
import { useOpenPiece } from '~/stores/open-piece.ts'

const store = useOpenPiece()
const emit = defineEmits<{ close: [] }>()
const versions = ref<Version[] | null>(null)
const trouble = ref('')

onMounted(async () => {
  await store.flush()
  const answer = await get(`/api/pieces/${store.id}/versions`, array(Version))
  if (answer.ok) versions.value = answer.value
  else trouble.value = answer.says
})

const when = (v: Version): string =>
  new Date(v.at).toLocaleString(undefined, { dateStyle: 'medium', timeStyle: 'medium' })

async function documentOf({ version }: Version): Promise<Stored['document'] | null> {
  const answer = await get(`/api/pieces/${store.id}/versions/${version}`, Document)
  if (!answer.ok) {
    trouble.value = answer.says
    return null
  }
  const { piece, problem } = readPiece(answer.value.document)
  if (!piece) trouble.value = problem
  return piece
}

async function back(v: Version): Promise<void> {
  const document = await documentOf(v)
  if (!document) return
  store.act(takeBack(store.piece, document, when(v)))
  store.sayWithUndo(`The piece is back to how it was on ${when(v)}.`)
  emit('close')
}

async function apart(v: Version): Promise<void> {
  const document = await documentOf(v)
  if (!document) return
  const answer = await create('/api/pieces', Created, { document })
  if (!answer.ok) trouble.value = answer.says
  else {
    emit('close')
    await navigateTo(`/piece/${answer.value.id}`)
  }
}
</script>

<template>
  <DialogFrame title="Version history" :wide="620" @close="emit('close')">
    <div class="flex min-h-0 flex-1 flex-col overflow-y-auto px-5 py-4">
      <p class="mb-3 text-faded">
        Everything from the last ten minutes, then one version a minute for an hour, one an hour for a day, and one a
        day.
      </p>
      <p v-if="trouble" class="mb-2 text-coral" role="alert">{{ trouble }}</p>
      <p v-if="!versions && !trouble" class="text-faded">Loading versions …</p>
      <ul class="min-h-0 flex-1 overflow-y-auto" tabindex="0" aria-label="Version history">
        <li
          v-for="(v, i) in versions ?? []"
          :key="v.version"
          class="flex items-center gap-3 border-b border-rule py-[6px] pr-2"
        >
          <span class="tabular">{{ when(v) }}</span>
          <span v-if="v.state === 'refused'" class="text-coral" data-tip="Saved from an older version of the piece"
            >conflicting copy</span
          >
          <span v-else-if="i === versions!.findIndex(x => x.state === 'saved')" class="text-faded">current</span>
          <button class="link ml-auto" type="button" @click="back(v)">Restore</button>
          <button class="link" type="button" @click="apart(v)">Open as new piece</button>
        </li>
      </ul>
    </div>
    <template #foot><button class="button" type="button" @click="emit('close')">Close</button></template>
  </DialogFrame>
</template>

<script setup lang="ts">
/** One piece in the harbour: its still picture, its title, and what can be done with it. */
import { Copy, Pencil, Trash2 } from '@lucide/vue'
import { useTimeAgo } from '@vueuse/core'
import type { Card } from '~~/core/piece/api.ts'
import { patch } from '~/stores/request.ts'

const props = defineProps<{ card: Card }>()
const emit = defineEmits<{ copy: []; drop: []; renamed: []; trouble: [says: string] }>()

const renaming = ref(false)
const title = ref('')
const field = useTemplateRef('field')
const ago = useTimeAgo(() => new Date(props.card.changed))

async function begin(): Promise<void> {
  title.value = props.card.title
  renaming.value = true
  await nextTick()
  field.value?.select()
}

async function rename(): Promise<void> {
  if (!renaming.value) return
  renaming.value = false
  const wanted = title.value.trim()
  if (wanted === props.card.title) return
  const answer = await patch(`/api/pieces/${props.card.id}`, { title: wanted })
  if (!answer.ok) emit('trouble', wanted === '' ? 'A piece needs a title; the old one stays.' : answer.says)
  emit('renamed')
}
</script>

<template>
  <li
    class="group overflow-hidden rounded-md border border-rule bg-sheet transition-colors hover:border-faded focus-within:border-faded"
  >
    <NuxtLink :to="`/piece/${card.id}`" class="block" :aria-label="`Open ${card.title}`">
      <img
        :src="`/api/pieces/${card.id}/still?r=${card.revision}`"
        alt=""
        class="block aspect-video w-full border-b border-rule bg-band object-cover"
        loading="lazy"
      />
    </NuxtLink>
    <div class="flex items-center gap-1 py-2 pr-2 pl-3">
      <div class="min-w-0 flex-1">
        <input
          v-if="renaming"
          ref="field"
          v-model="title"
          class="field -ml-2 w-full font-medium"
          maxlength="120"
          aria-label="Title"
          @keydown.enter="rename"
          @keydown.esc="renaming = false"
          @blur="rename"
        />
        <NuxtLink v-else :to="`/piece/${card.id}`" class="block truncate text-[14px] font-medium hover:underline">{{
          card.title
        }}</NuxtLink>
        <p class="text-[12px] text-faded">changed {{ ago }}</p>
      </div>
      <IconButton :label="`Rename ${card.title}`" title="Rename" @click="begin" class="text-faded hover:text-ink">
        <Pencil :size="15" />
      </IconButton>
      <IconButton :label="`Copy ${card.title}`" title="Copy" @click="emit('copy')" class="text-faded hover:text-ink">
        <Copy :size="15" />
      </IconButton>
      <IconButton
        :label="`Delete ${card.title}`"
        title="Delete"
        @click="emit('drop')"
        class="text-faded hover:text-coral"
      >
        <Trash2 :size="15" />
      </IconButton>
    </div>
  </li>
</template>

<script setup lang="ts">
/** One piece in the harbour: a picture that moves when pointed at, its title, and what can be done with it. */
import { Copy, Pencil, Share, Trash2 } from '@lucide/vue'
import { useTimeAgo } from '@vueuse/core'
import type { PieceSummary } from '~~/core/piece/api.ts'
import { useHarbour } from '~/stores/harbour.ts'
import { patch } from '~/services/request.ts'

const props = defineProps<{ card: PieceSummary }>()
const emit = defineEmits<{ give: [] }>()
const harbour = useHarbour()

const renaming = ref(false)
const title = ref('')
const field = useTemplateRef('field')
const ago = useTimeAgo(() => new Date(props.card.changed))
const pointed = ref(false)

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
  await harbour.load()
  if (!answer.ok) harbour.trouble = wanted === '' ? 'A piece needs a title. The old one is kept.' : answer.says
}
</script>

<template>
  <li
    class="group relative overflow-hidden rounded-md border border-rule bg-sheet transition-[border-color] hover:border-faded focus-within:border-faded"
    @mouseenter="pointed = true"
    @mouseleave="pointed = false"
  >
    <NuxtLink
      :to="`/piece/${card.id}`"
      class="block border-b border-rule"
      :aria-label="`Open ${card.title}`"
      @focus="pointed = true"
      @blur="pointed = false"
    >
      <MovingStill
        :piece="() => harbour.documentOf(card.id)"
        :src="`/api/pieces/${card.id}/still?r=${card.revision}`"
        :moving="pointed"
      />
    </NuxtLink>
    <CheckBox
      class="absolute top-2 left-2 opacity-0 group-hover:opacity-100 has-checked:opacity-100 has-focus-visible:opacity-100"
      large
      :label="`Choose ${card.title}`"
      :model-value="harbour.chosen.includes(card.id)"
      @update:model-value="harbour.choose(card.id, $event)"
    />
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
        <p class="truncate text-[12px] text-faded">
          changed {{ ago }}<template v-if="card.folder"> · {{ card.folder }}</template>
        </p>
      </div>
      <IconButton
        :label="`Export ${card.title}`"
        data-tip="Export"
        @click="emit('give')"
        class="text-faded hover:text-ink"
      >
        <Share :size="15" />
      </IconButton>
      <IconButton :label="`Rename ${card.title}`" data-tip="Rename" @click="begin" class="text-faded hover:text-ink">
        <Pencil :size="15" />
      </IconButton>
      <IconButton
        :label="`Copy ${card.title}`"
        data-tip="Copy"
        @click="harbour.copy([card.id])"
        class="text-faded hover:text-ink"
      >
        <Copy :size="15" />
      </IconButton>
      <IconButton
        :label="`Delete ${card.title}`"
        data-tip="Delete"
        @click="harbour.drop([card.id])"
        class="text-faded hover:text-coral"
      >
        <Trash2 :size="15" />
      </IconButton>
    </div>
  </li>
</template>

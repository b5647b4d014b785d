<script setup lang="ts">
/** A heading and what stands under it, folded away by a press; it stays as it was left, in this browser. */
import { ChevronDown } from '@lucide/vue'
import { useStorage } from '@vueuse/core'
import { storage } from '~/services/storage.ts'

const props = defineProps<{
  title: string
  /** Where several pages have sections of one name. */
  page: string
}>()
const folded = useStorage<string[]>('open-tide-folded', [], storage)
const key = computed(() => `${props.page}/${props.title}`)
const open = computed(() => !folded.value.includes(key.value))
const turn = () =>
  (folded.value = open.value ? [...folded.value, key.value] : folded.value.filter(k => k !== key.value))
</script>

<template>
  <section class="min-w-0" :data-section="title">
    <h3 class="mb-[2px] border-b border-rule">
      <button
        class="flex w-full items-center gap-1 text-left text-[12px] leading-5 font-medium text-faded hover:text-ink"
        type="button"
        :aria-expanded="open"
        @click="turn"
      >
        <ChevronDown :size="12" class="shrink-0 transition-transform" :class="{ '-rotate-90': !open }" />{{ title }}
      </button>
    </h3>
    <div v-show="open" class="flex flex-col"><slot /></div>
  </section>
</template>

<script setup lang="ts">
/** The head of a part's group in the tide table; its menu is there when it is near. */
import { LAYOUTS, shapeName } from '~~/core/acts/parts.ts'
import { useSelection } from '~/stores/selection.ts'
import { useOpenPiece } from '~/stores/open-piece.ts'

const props = defineProps<{ part: string; count: number }>()
const store = useOpenPiece()
const hand = useSelection()
const head = useTemplateRef('head')
const { near } = useNear(head)

const part = computed(() => store.piece.parts[props.part])
const note = computed(() => {
  const { shape, copies } = part.value!
  return copies ? `${copies.count.toLocaleString('en')} ${LAYOUTS[copies.layout]}` : shapeName(shape).toLowerCase()
})
</script>

<template>
  <div ref="head" :data-head="props.part" class="mb-[5px] flex h-[21px] items-baseline gap-2 px-1">
    <template v-if="part">
      <RollButton v-if="count > 0" :part="props.part" :name="part.name" :count="count" />
      <span v-else class="w-[14px] shrink-0" aria-hidden="true" />
      <button
        class="truncate text-[14px] font-semibold hover:underline"
        :class="{ 'text-sea': hand.part === props.part }"
        type="button"
        @click="hand.choose(props.part)"
      >
        {{ part.name }}
      </button>
      <span class="truncate text-faded">{{ note }}</span>
      <span v-if="near" class="ml-auto"><DriveMenu :part="props.part" /></span>
    </template>
  </div>
</template>

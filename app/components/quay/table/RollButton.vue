<script setup lang="ts">
/** Rolls a group of the tide table up to its name, and down again; with Alt all of them. */
import { ChevronDown, ChevronRight } from '@lucide/vue'
import { useListing } from '~/stores/listing.ts'

const props = defineProps<{ part: string | null; name: string; count: number }>()
const listing = useListing()
const is = computed(() => listing.rolled.has(props.part))
</script>

<template>
  <button
    class="flex shrink-0 items-center gap-1 self-center text-faded hover:text-ink"
    type="button"
    :aria-expanded="!is"
    :aria-label="`${is ? 'Unroll' : 'Roll up'} ${name}`"
    :data-tip="`${is ? 'Unroll' : 'Roll up'} (Alt-click: all groups)`"
    @click="listing.roll(part, $event.altKey)"
  >
    <component :is="is ? ChevronRight : ChevronDown" :size="14" />
    <span v-if="part === null" class="text-[14px] font-semibold text-ink">{{ name }}</span>
    <span v-if="is" class="tabular text-[12px]">{{ count }}</span>
  </button>
</template>

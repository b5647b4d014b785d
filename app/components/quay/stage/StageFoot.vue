<script setup lang="ts">
/** Below the stage: how much of it is seen, from where, and what is drawn over it. */
import { ArrowDown, ArrowLeft, ArrowRight, ArrowUp } from '@lucide/vue'
import { useSelection } from '~/stores/selection.ts'

defineProps<{
  /** Whether the piece is in depth, and one has looked round it. */
  deep: boolean
  away: boolean
}>()
const emit = defineEmits<{ fit: []; actualSize: []; turn: [aside: number, above: number]; home: [] }>()
const hand = useSelection()
const WAYS = [
  [ArrowLeft, 'from the left', -2, 0],
  [ArrowRight, 'from the right', 2, 0],
  [ArrowUp, 'from above', 0, 2],
  [ArrowDown, 'from below', 0, -2],
] as const
</script>

<template>
  <div class="absolute bottom-0 left-5 flex items-center gap-2 text-[11px] leading-4 text-faded" data-view>
    <button
      class="link"
      type="button"
      aria-label="fit the stage"
      data-tip="Fit the stage (F on the stage)"
      @click="emit('fit')"
    >
      fit
    </button>
    <button
      class="link"
      type="button"
      data-tip="Actual size: one stage pixel to one screen pixel"
      @click="emit('actualSize')"
    >
      100 %
    </button>
    <CheckBox v-model="hand.path" data-tip="The path of the selected part through the coming lap, one dot per frame"
      >motion path</CheckBox
    >
    <CheckBox
      v-model="hand.threads"
      data-tip="What the selected part reads, and what reads it; the dot marks the reader"
      >links</CheckBox
    >
    <span v-if="deep" class="flex items-center gap-1" role="group" aria-label="Look around">
      look
      <button
        v-for="[icon, says, aside, above] in WAYS"
        :key="says"
        class="rounded-sm p-[2px] hover:text-sea"
        type="button"
        :aria-label="`look ${says}`"
        :data-tip="`Look ${says} (or drag with the right button, or Alt and an arrow key)`"
        @click="emit('turn', aside, above)"
      >
        <component :is="icon" :size="12" />
      </button>
      <button class="link" type="button" :disabled="!away" data-tip="Reset view (Home)" @click="emit('home')">
        home
      </button>
    </span>
  </div>
</template>

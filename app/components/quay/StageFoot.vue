<script setup lang="ts">
/** Below the stage: how much of it is seen, and what is drawn over it. */
import { useHand } from '~/stores/hand.ts'

const emit = defineEmits<{ fit: []; life: [] }>()
const hand = useHand()
</script>

<template>
  <div class="absolute bottom-0 left-5 flex items-center gap-2 text-[11px] leading-4 text-faded" data-view>
    <button
      class="link"
      type="button"
      aria-label="fit the stage"
      title="All of the stage (F on the stage)"
      @click="emit('fit')"
    >
      fit
    </button>
    <button class="link" type="button" title="One pixel to one" @click="emit('life')">100 %</button>
    <label class="flex items-center gap-1" title="The way of the part in hand through the coming lap, a dot a frame"
      ><input v-model="hand.path" type="checkbox" />path</label
    >
  </div>
</template>

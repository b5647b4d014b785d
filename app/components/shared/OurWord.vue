<script setup lang="ts">
/** One of our words, explained on hover and on focus. */
import { OUR_WORDS, type OurWord } from '~/editor/our-words.ts'

defineProps<{ word: OurWord }>()
const id = useId()
const open = ref(false)
</script>

<template>
  <span
    class="relative"
    tabindex="0"
    :aria-describedby="open ? id : undefined"
    @mouseenter="open = true"
    @mouseleave="open = false"
    @focus="open = true"
    @blur="open = false"
    @keydown.esc="open = false"
  >
    <span class="underline decoration-faded decoration-dotted underline-offset-[3px]"><slot /></span>
    <span
      v-if="open"
      :id="id"
      class="panel pointer-events-none absolute top-full right-0 z-40 mt-1 w-60 px-3 py-2 text-[12px] leading-4 font-normal whitespace-normal text-ink"
      role="tooltip"
      >{{ OUR_WORDS[word] }}</span
    >
  </span>
</template>

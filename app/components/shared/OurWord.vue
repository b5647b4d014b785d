<script setup lang="ts">
/** One of our words, explained by its tooltip. */
import { OUR_WORDS, type OurWord } from '~/editor/our-words.ts'

defineProps<{ word: OurWord }>()
</script>

<template>
  <span
    class="underline decoration-faded decoration-dotted underline-offset-[3px]"
    tabindex="0"
    :data-tip="OUR_WORDS[word]"
    ><slot
  /></span>
</template>

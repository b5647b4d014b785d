<script setup lang="ts">
/** A small piece beside a task of the manual: it moves while it is pointed at, or has the keys. */
import { PICTURES, type ManualPictureName } from '~~/core/manual/pictures.ts'

const props = defineProps<{ of: ManualPictureName }>()
const piece = computed(() => PICTURES[props.of]())
const moving = ref(false)
</script>

<template>
  <figure
    class="mt-2 mb-3 w-[280px] max-w-full overflow-hidden rounded-md border border-rule"
    tabindex="0"
    role="group"
    :aria-label="`${piece.title}, moving while it has the focus`"
    @mouseenter="moving = true"
    @mouseleave="moving = false"
    @focus="moving = true"
    @blur="moving = false"
  >
    <MovingStill :piece="piece" :moving="moving" />
    <figcaption class="px-2 py-1 text-[12px] text-faded">{{ piece.title }}</figcaption>
  </figure>
</template>

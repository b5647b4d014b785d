<script setup lang="ts">
/** What moves a part that has no formula of its own, and how it gets one. */
import { movesBy } from '~~/core/insight/moved-by.ts'
import { useOpenPiece } from '~/stores/open-piece.ts'

const props = defineProps<{ part: string }>()
const store = useOpenPiece()
const says = computed(() => movesBy(store.piece, props.part))
</script>

<template>
  <p class="mb-2 rounded-md border border-dashed border-rule px-3 py-3 text-faded">
    {{ says }} <span class="text-ink">Drive…</span> gives a property a function of time.
  </p>
</template>

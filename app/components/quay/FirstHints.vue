<script setup lang="ts">
/** What a newcomer may try on the demo: a line that goes by itself. */
import { X } from '@lucide/vue'
import { useCommandKeys } from '~/commands/keys.ts'
import { HINTS, useHints } from '~/stores/hints.ts'

const props = defineProps<{ finding: boolean }>()
const hints = useHints()
const { keysOf } = useCommandKeys()
watch(
  () => props.finding,
  is => is && hints.did('find'),
)
</script>

<template>
  <section
    v-if="hints.left.value.length > 0"
    class="flex shrink-0 items-start gap-3 border-b border-rule bg-band px-4 py-[6px]"
    aria-label="Try this first"
  >
    <ul class="flex min-w-0 flex-1 flex-col gap-[2px] text-[12px]">
      <li v-for="h in hints.left.value" :key="h" :data-hint="h">
        {{ HINTS[h].replace('KEY', keysOf('Find anything')[0]!) }}
      </li>
    </ul>
    <button
      class="text-faded hover:text-ink"
      type="button"
      aria-label="Hide hints"
      data-tip="Hide hints"
      @click="hints.all()"
    >
      <X :size="13" />
    </button>
  </section>
</template>

<script setup lang="ts">
/** In which order a part is made: thickened, scaled, turned, moved; each step can go before the one before it. */
import { setPart } from '~~/core/acts/parts.ts'
import { STEPS, type Step } from '~~/core/piece/steps.ts'
import { usePiece } from '~/stores/piece.ts'

const props = defineProps<{ id: string }>()
const store = usePiece()
const steps = computed(() => store.piece!.parts[props.id]!.steps ?? [...STEPS])

function earlier(k: number): void {
  const next = [...steps.value]
  ;[next[k - 1], next[k]] = [next[k]!, next[k - 1]!]
  const usual = next.every((s, n) => s === STEPS[n])
  store.act(setPart(store.piece!, props.id, { steps: usual ? undefined : next }))
}
const says = (s: Step, k: number) => (k === 0 ? `${s} comes first` : `${s} before ${steps.value[k - 1]}`)
</script>

<template>
  <div
    class="flex flex-wrap items-center gap-x-1"
    role="group"
    aria-label="Order of making"
    title="What is done first stands first; press a step to do it before the one at its left"
    data-steps
  >
    <span class="basis-full">made by</span>
    <template v-for="(s, k) in steps" :key="s">
      <span v-if="k > 0" class="text-faded" aria-hidden="true">›</span>
      <button
        class="rounded-sm px-[3px] enabled:hover:bg-paper enabled:hover:text-sea"
        type="button"
        :disabled="k === 0"
        :aria-label="says(s, k)"
        @click="earlier(k)"
      >
        {{ s }}
      </button>
    </template>
  </div>
</template>

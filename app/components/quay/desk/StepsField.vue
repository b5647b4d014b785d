<script setup lang="ts">
/** In which order a part is extruded, scaled, rotated and moved; each step can go before the one before it. */
import { setPart } from '~~/core/acts/parts.ts'
import { STEPS, type Step } from '~~/core/piece/steps.ts'
import { useOpenPiece } from '~/stores/open-piece.ts'

const props = defineProps<{ id: string }>()
const store = useOpenPiece()
const steps = computed(() => store.piece.parts[props.id]!.steps ?? [...STEPS])

function earlier(k: number): void {
  const next = [...steps.value]
  ;[next[k - 1], next[k]] = [next[k]!, next[k - 1]!]
  const usual = next.every((s, n) => s === STEPS[n])
  store.act(setPart(store.piece, props.id, { steps: usual ? undefined : next }))
}
const NAMES: Readonly<Record<Step, string>> = { thicken: 'extrude', scale: 'scale', turn: 'rotate', move: 'move' }
const says = (s: Step, k: number) =>
  k === 0 ? `${NAMES[s]} comes first` : `${NAMES[s]} before ${NAMES[steps.value[k - 1]!]}`
</script>

<template>
  <div
    class="flex flex-wrap items-center gap-x-1"
    role="group"
    aria-label="Transform order"
    data-tip="Steps run from left to right; press one to move it before the one on its left"
    data-steps
  >
    <span class="basis-full">transform order</span>
    <template v-for="(s, k) in steps" :key="s">
      <span v-if="k > 0" class="text-faded" aria-hidden="true">›</span>
      <button
        class="rounded-sm px-[3px] enabled:hover:bg-paper enabled:hover:text-sea"
        type="button"
        :disabled="k === 0"
        :aria-label="says(s, k)"
        @click="earlier(k)"
      >
        {{ NAMES[s] }}
      </button>
    </template>
  </div>
</template>

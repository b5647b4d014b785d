<script setup lang="ts">
/** The points in hand as numbers: time, value, and how the curve goes on from there. */
import { Trash2 } from '@lucide/vue'
import type { CurvePoint, Points } from '~~/core/acts/points.ts'
import { WAYS } from '~~/core/signal/drawn.ts'
import { EASE_BOX, easePath } from '~/editor/ease-path.ts'

const props = defineProps<{ points: Points; picked: readonly number[]; unit: string }>()
const emit = defineEmits<{ set: [points: Points]; remove: [] }>()
const one = computed(() => (props.picked.length === 1 ? props.points[props.picked[0]!] : undefined))
const shape = computed(() => {
  const all = new Set(props.picked.map(k => props.points[k]?.shape))
  return all.size === 1 ? [...all][0] : undefined
})
const put = (change: Partial<CurvePoint>) =>
  emit(
    'set',
    props.points.map((p, k) => (props.picked.includes(k) ? { ...p, ...change } : p)),
  )
const PLAIN = WAYS.slice(0, 3)
const EASED = WAYS.slice(3)
const eased = computed(() => (shape.value !== undefined && EASED.includes(shape.value) ? shape.value : undefined))
const way = useTemplateRef('way')
/** Where the ways stand that are chosen from. */
const choosing = shallowRef<DOMRect | null>(null)
const open = () => (choosing.value = way.value!.getBoundingClientRect())
function choose(name: string): void {
  choosing.value = null
  put({ shape: name })
  way.value?.focus()
}
</script>

<template>
  <div class="flex flex-col gap-2">
    <p v-if="picked.length === 0" class="text-[12px] text-faded">
      Double-click to add a point. Press a point to move it, Shift for several.
    </p>
    <template v-else>
      <template v-if="one">
        <NumberField label="Point at" :value="one.time" unit="s" :stride="0.05" @set="put({ time: $event })" />
        <NumberField label="Value" :value="one.value" :unit="unit" :stride="0.05" @set="put({ value: $event })" />
      </template>
      <p v-else class="text-[12px] text-faded">{{ picked.length }} points</p>
      <div class="flex flex-wrap gap-1" role="group" aria-label="How it continues from there">
        <button
          v-for="is in PLAIN"
          :key="is"
          class="chip !h-5 !px-2"
          :class="{ 'chip-on': shape === is }"
          type="button"
          :aria-pressed="shape === is"
          @click="put({ shape: is })"
        >
          {{ is }}
        </button>
        <button
          ref="way"
          class="chip flex !h-5 items-center gap-1 !px-2"
          :class="{ 'chip-on': eased }"
          type="button"
          aria-haspopup="listbox"
          :aria-label="`By an easing: ${eased ?? 'none'}`"
          @click="open"
        >
          <svg :viewBox="EASE_BOX" class="ease-picture !h-4 !w-6" aria-hidden="true">
            <path :d="easePath(eased ?? 'quadInOut')" /></svg
          >{{ eased ?? 'easing…' }}
        </button>
      </div>
      <LazyEasingChoice
        v-if="choosing"
        :names="EASED"
        :current="eased"
        :at="choosing"
        says="How it continues from there"
        @choose="choose"
        @close="choosing = null"
      />
      <button
        class="flex items-center gap-1 self-start text-faded hover:text-coral"
        type="button"
        @click="emit('remove')"
      >
        <Trash2 :size="13" />delete
      </button>
    </template>
  </div>
</template>

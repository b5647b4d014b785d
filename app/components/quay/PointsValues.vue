<script setup lang="ts">
/** The points in hand as numbers: time, value, and how the curve goes on from there. */
import { Trash2 } from '@lucide/vue'
import type { Point, Points } from '~~/core/acts/points.ts'

const props = defineProps<{ points: Points; picked: readonly number[]; unit: string }>()
const emit = defineEmits<{ set: [points: Points]; remove: [] }>()
const one = computed(() => (props.picked.length === 1 ? props.points[props.picked[0]!] : undefined))
const SHAPES = { smooth: 'smooth', straight: 'straight', stepped: 'stepped' } as const
const shape = computed(() => {
  const all = new Set(props.picked.map(k => props.points[k]?.shape))
  return all.size === 1 ? [...all][0] : undefined
})
const put = (change: Partial<Point>) =>
  emit(
    'set',
    props.points.map((p, k) => (props.picked.includes(k) ? { ...p, ...change } : p)),
  )
</script>

<template>
  <div class="flex flex-col gap-2">
    <p v-if="picked.length === 0" class="text-[12px] text-faded">
      Double press adds a point. Press one to move it, Shift for several.
    </p>
    <template v-else>
      <template v-if="one">
        <NumberField label="Point at" :value="one.time" unit="s" :stride="0.05" @set="put({ time: $event })" />
        <NumberField label="Value" :value="one.value" :unit="unit" :stride="0.05" @set="put({ value: $event })" />
      </template>
      <p v-else class="text-[12px] text-faded">{{ picked.length }} points</p>
      <div class="flex flex-wrap gap-1" role="group" aria-label="How it goes on from there">
        <button
          v-for="(says, is) in SHAPES"
          :key="is"
          class="chip !h-5 !px-2"
          :class="{ 'chip-on': shape === is }"
          type="button"
          :aria-pressed="shape === is"
          @click="put({ shape: is })"
        >
          {{ says }}
        </button>
      </div>
      <button
        class="flex items-center gap-1 self-start text-faded hover:text-coral"
        type="button"
        @click="emit('remove')"
      >
        <Trash2 :size="13" />take away
      </button>
    </template>
  </div>
</template>

<script setup lang="ts">
/** Keyframes of a property in the scope: points over time, and what comes after the last. */
import { setKeys } from '~~/core/acts/parts.ts'
import { setKeyPoints } from '~~/core/acts/points.ts'
import { propertyNamed } from '~~/core/piece/properties.ts'
import { AFTER } from '~~/core/signal/drawn.ts'
import { useOpenPiece } from '~/stores/open-piece.ts'
import type PointsPaper from './PointsPaper.vue'

const props = defineProps<{ part: string; property: string }>()
const store = useOpenPiece()
const keys = computed(() => store.piece.bases[`${props.part}.${props.property}`]!.keys!)
const picked = ref<readonly number[]>([])
const paper = useTemplateRef<InstanceType<typeof PointsPaper>>('paper')
const AFTERWARDS = {
  hold: 'then hold',
  repeat: 'then repeat',
  mirror: 'then mirrored',
  carry: 'then carry on from its end value',
} as const
const unit = computed(() => propertyNamed(props.property)!.unit)
const uneven = computed(() => {
  const { points, after } = keys.value
  return after === 'repeat' && points.length > 1 && points[0]!.value !== points.at(-1)!.value
})
</script>

<template>
  <div class="flex min-h-0 flex-1">
    <div class="flex min-w-0 flex-1 flex-col">
      <div class="min-h-0 flex-1 overflow-hidden pt-2">
        <PointsPaper
          ref="paper"
          v-model:picked="picked"
          :channels="{ keys: keys.points }"
          channel="keys"
          :drawing="false"
          :after="keys.after"
          @set="(_, p) => store.act(setKeyPoints(store.piece, part, property, p))"
        />
      </div>
    </div>
    <div class="flex w-[190px] shrink-0 flex-col gap-3 overflow-y-auto border-l border-rule p-3">
      <SelectBox
        label="After the last keyframe"
        :of="AFTER.map(a => ({ value: a, says: AFTERWARDS[a] }))"
        :model-value="keys.after"
        @update:model-value="store.act(setKeys(store.piece, part, property, { ...keys, after: $event }))"
      />
      <p v-if="uneven" class="text-[12px] text-brass">The first and last keyframes differ, so repeating jumps.</p>
      <PointsValues
        :points="keys.points"
        :picked="picked"
        :unit="unit"
        @set="store.act(setKeyPoints(store.piece, part, property, $event))"
        @remove="paper?.remove()"
      />
      <button
        class="link mt-auto self-start"
        type="button"
        @click="store.act(setKeys(store.piece, part, property, null))"
      >
        Delete all keyframes
      </button>
    </div>
  </div>
</template>

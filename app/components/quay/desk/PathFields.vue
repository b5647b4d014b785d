<script setup lang="ts">
/** A drawn path: closed or open, its poses, and the points of the pose in hand, as text. */
import { Minus, Plus } from '@lucide/vue'
import { addPose, MOST_POSES, removePose, setClosed, setPoints, type DrawnShape } from '~~/core/acts/path-edits.ts'
import { pointsTyped, pointsWritten } from '~~/core/acts/typed-points.ts'
import { laidCoarsely } from '~~/core/rig/outline/posing.ts'
import { useSelection } from '~/stores/selection.ts'
import { useOpenPiece } from '~/stores/open-piece.ts'

const props = defineProps<{ id: string }>()
const store = useOpenPiece()
const hand = useSelection()
const shape = computed(() => store.piece.parts[props.id]!.shape as DrawnShape)
const pose = computed(() => Math.min(hand.pose, shape.value.poses.length - 1))
const wrong = ref('')
const written = computed(() => pointsWritten(shape.value.poses[pose.value]![0]!))

function more(): void {
  store.act(addPose(store.piece, props.id, pose.value))
  hand.pose = pose.value + 1
}
function fewer(): void {
  store.act(removePose(store.piece, props.id, pose.value))
  hand.pose = Math.max(0, pose.value - 1)
}

/** What is no list of points goes back, and says why. */
function typed(e: Event): void {
  const field = e.target as HTMLTextAreaElement
  const read = pointsTyped(field.value, shape.value.closed ? 3 : 2, true)
  wrong.value = 'says' in read ? read.says : ''
  if ('says' in read) field.value = written.value
  else store.act(setPoints(store.piece, props.id, pose.value, read.points))
}
</script>

<template>
  <p v-if="laidCoarsely(shape)" class="text-[12px] text-brass">
    This path has so many points that its curves are drawn more coarsely. Split it into several paths for finer curves.
  </p>
  <TickField
    label="closed"
    :value="shape.closed"
    @set="
      shape.poses[0]![0]!.length < 3
        ? store.say('Closed it needs three points.')
        : store.act(setClosed(store.piece, id, $event))
    "
  />
  <div class="flex flex-wrap items-center gap-1" role="group" aria-label="Poses">
    <span class="mr-auto">pose</span>
    <button
      v-for="(_, k) in shape.poses"
      :key="k"
      class="chip tabular"
      :class="{ 'chip-on': k === pose }"
      type="button"
      :aria-pressed="k === pose"
      :aria-label="`Pose ${k}`"
      @click="hand.pose = k"
    >
      {{ k }}
    </button>
    <IconButton
      label="Add a pose like this one"
      data-tip="Add a pose like this one, then drag its points on the stage"
      small
      :disabled="shape.poses.length >= MOST_POSES"
      @click="more"
      ><Plus :size="14"
    /></IconButton>
    <IconButton label="Delete this pose" small :disabled="shape.poses.length < 2" @click="fewer"
      ><Minus :size="14"
    /></IconButton>
  </div>
  <label class="block"
    ><span>points (x and y, one per line)</span>
    <textarea
      class="field tabular mt-1 h-[92px] w-full resize-y"
      aria-label="Points of the outline"
      data-tip="In px from the middle of the part. Write smooth behind a point to round it."
      spellcheck="false"
      :value="written"
      @change="typed"
    />
  </label>
  <p v-if="wrong" class="text-[12px] text-coral" role="alert">{{ wrong }}</p>
</template>

<script setup lang="ts">
/** A drawn path: closed or open, its poses, and the points of the pose in hand, as text. */
import { Minus, Plus } from '@lucide/vue'
import { addPose, MOST_POSES, removePose, setClosed, setPoints, type DrawnShape } from '~~/core/acts/pen.ts'
import { printNumber } from '~~/core/units/units.ts'
import { useHand } from '~/stores/hand.ts'
import { usePiece } from '~/stores/piece.ts'

const props = defineProps<{ id: string }>()
const store = usePiece()
const hand = useHand()
const shape = computed(() => store.piece!.parts[props.id]!.shape as DrawnShape)
const pose = computed(() => Math.min(hand.pose, shape.value.poses.length - 1))
const wrong = ref('')
const written = computed(() =>
  shape.value.poses[pose.value]![0]!.map(
    p => `${printNumber(p.x, 2)}, ${printNumber(p.y, 2)}${p.smooth ? ' smooth' : ''}`,
  ).join('\n'),
)

function more(): void {
  store.act(addPose(store.piece!, props.id, pose.value))
  hand.pose = pose.value + 1
}
function fewer(): void {
  store.act(removePose(store.piece!, props.id, pose.value))
  hand.pose = Math.max(0, pose.value - 1)
}

/** Points as typed: x, y, and `smooth` where the line runs through. What is no list of points goes back, and says why. */
function typed(e: Event): void {
  const field = e.target as HTMLTextAreaElement
  const lines = field.value
    .replaceAll('−', '-')
    .split(/[\n;]+/)
    .filter(l => l.trim() !== '')
  const read = lines.map(l => {
    const [x, y, word, ...rest] = l.trim().split(/[\s,]+/)
    const sound = word === undefined || word.toLowerCase() === 'smooth'
    return {
      x: Number(x),
      y: y === undefined ? NaN : Number(y),
      smooth: word !== undefined,
      ok: sound && rest.length === 0,
    }
  })
  const bad = read.findIndex(p => !p.ok || ![p.x, p.y].every(n => Number.isFinite(n) && Math.abs(n) <= 1e9))
  const least = shape.value.closed ? 3 : 2
  wrong.value =
    bad >= 0
      ? `“${lines[bad]!.trim()}” is no point: write x and y, such as 120, -40, and smooth where it is that.`
      : read.length < least || read.length > 500
        ? `A path needs ${least} to 500 points.`
        : ''
  if (wrong.value) field.value = written.value
  else
    store.act(
      setPoints(
        store.piece!,
        props.id,
        pose.value,
        read.map(({ x, y, smooth }) => ({ x, y, smooth })),
      ),
    )
}
</script>

<template>
  <TickField
    label="closed"
    :value="shape.closed"
    @set="
      shape.poses[0]![0]!.length < 3
        ? (store.notice = { says: 'Closed it needs three points.' })
        : store.act(setClosed(store.piece!, id, $event))
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
      label="A pose more, like this one"
      title="A pose more, like this one: its points are pulled on the stage"
      small
      :disabled="shape.poses.length >= MOST_POSES"
      @click="more"
      ><Plus :size="14"
    /></IconButton>
    <IconButton label="This pose away" small :disabled="shape.poses.length < 2" @click="fewer"
      ><Minus :size="14"
    /></IconButton>
  </div>
  <label class="block"
    ><span>points, x and y a line</span>
    <textarea
      class="field tabular mt-1 h-[92px] w-full resize-y"
      aria-label="Points of the outline"
      title="In px from the middle of the part; smooth where the line runs through"
      spellcheck="false"
      :value="written"
      @change="typed"
    />
  </label>
  <p v-if="wrong" class="text-[12px] text-coral" role="alert">{{ wrong }}</p>
</template>

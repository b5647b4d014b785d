<script setup lang="ts">
/**
 * Points over time on large paper: of a drawn curve, or keyframes. Double press adds one, points are moved by hand or
 * with the arrow keys, several at once with Shift; the hit point is a line that is dragged; with the pen a line is drawn
 * freehand and then thinned.
 */
import type { CurvePoint, Points } from '~~/core/acts/points.ts'
import { drawnCurve, type After } from '~~/core/signal/drawn.ts'
import { thinPoints } from '~~/core/signal/thinned.ts'
import { useElementSize } from '@vueuse/core'
import { printNumber } from '~~/core/units/units.ts'
import { follow } from '~/editor/follow.ts'
import { useOpenPiece } from '~/stores/open-piece.ts'

const props = defineProps<{
  channels: Readonly<Record<string, Points>>
  /** The channel that is in hand. */
  channel: string
  hit?: number
  drawing: boolean
  /** What comes after the last point: where it comes round again its ends join. */
  after?: After
}>()
const emit = defineEmits<{
  set: [channel: string, points: Points]
  hit: [at: number]
  pick: [channel: string]
  drawn: []
}>()
const picked = defineModel<readonly number[]>('picked', { required: true })
const store = useOpenPiece()
const paper = useTemplateRef('paper')
const { width, height } = useElementSize(paper)
const LEFT = 48
const FOOT = 20
const TOP = 10

const points = computed(() => props.channels[props.channel] ?? [])
/** What is seen; it stands still while something is dragged. */
const held = ref<{ from: number; to: number; low: number; high: number } | null>(null)
const seen = computed(() => {
  if (held.value) return held.value
  const all = Object.values(props.channels).flat()
  const times = [...all.map(p => p.time), props.hit ?? 0]
  const values = all.map(p => p.value)
  const [from, to] = [Math.min(...times), Math.max(...times)]
  const [low, high] = [Math.min(...values), Math.max(...values)]
  const wide = to - from || 1
  const tall = high - low || 1
  return { from: from - wide * 0.04, to: to + wide * 0.12, low: low - tall * 0.12, high: high + tall * 0.12 }
})
const x = (t: number) => LEFT + ((width.value - LEFT - 8) * (t - seen.value.from)) / (seen.value.to - seen.value.from)
const y = (v: number) =>
  TOP + (height.value - TOP - FOOT) * (1 - (v - seen.value.low) / (seen.value.high - seen.value.low))
const timeAt = (px: number) =>
  seen.value.from + ((px - LEFT) * (seen.value.to - seen.value.from)) / Math.max(1, width.value - LEFT - 8)
const valueAt = (px: number) =>
  seen.value.low + (1 - (px - TOP) / Math.max(1, height.value - TOP - FOOT)) * (seen.value.high - seen.value.low)

function steps(low: number, high: number, most: number): number[] {
  const rough = (high - low) / most
  const ten = 10 ** Math.floor(Math.log10(rough))
  const step = [1, 2, 5, 10].map(k => k * ten).find(s => s >= rough)!
  const list: number[] = []
  for (let k = Math.ceil(low / step); k * step <= high; k++) list.push(Number((k * step).toFixed(6)))
  return list
}
const times = computed(() => steps(seen.value.from, seen.value.to, Math.max(2, width.value / 90)))
const values = computed(() => steps(seen.value.low, seen.value.high, Math.max(2, height.value / 40)))

const paths = computed(() =>
  Object.entries(props.channels).map(([name, list]) => {
    const all = Object.values(props.channels).flat()
    const d = drawnCurve(list, [Math.min(...all.map(p => p.time)), Math.max(...all.map(p => p.time))])
    const at = d.round(props.after ?? 'hold')
    const [a, b] = [x(d.start), x(d.end)]
    const line: string[] = []
    for (let px = a; px <= b; px += 2) line.push(`${px.toFixed(1)} ${y(at(timeAt(px))).toFixed(1)}`)
    return { name, d: line.length > 0 ? `M${line.join('L')}` : '' }
  }),
)

const frame = () => store.piece.frameRate.n / store.piece.frameRate.d
const snap = (t: number, free: boolean) => (free ? t : Math.round(t * frame()) / frame())
function change(made: Points): void {
  emit('set', props.channel, made)
}
/** Where the pointer is, on the paper. */
function spot(e: { clientX: number; clientY: number }): { px: number; py: number } {
  const box = paper.value!.getBoundingClientRect()
  return { px: e.clientX - box.left, py: e.clientY - box.top }
}
function begin(): void {
  held.value = seen.value
  store.beginGesture()
}
function end(): void {
  held.value = null
  store.endGesture()
}

function grab(e: PointerEvent, nth: number): void {
  // With the pen in hand a stroke may begin on a point.
  if (e.button !== 0 || props.drawing) return
  e.stopPropagation()
  if (e.shiftKey)
    picked.value = picked.value.includes(nth) ? picked.value.filter(k => k !== nth) : [...picked.value, nth]
  else if (!picked.value.includes(nth)) picked.value = [nth]
  const start = points.value
  const moving = new Set(picked.value)
  const { px, py } = spot(e)
  let moved = false
  follow(
    e,
    m => {
      const now = spot(m)
      if (!moved && Math.abs(now.px - px) + Math.abs(now.py - py) < 3) return
      if (!moved) begin()
      moved = true
      const [dt, dv] = [timeAt(now.px) - timeAt(px), valueAt(now.py) - valueAt(py)]
      move(start, moving, dt, dv, m.altKey)
    },
    () => {
      if (moved) end()
    },
  )
}
/** Moves points, none past the one beside it. */
function move(start: Points, moving: ReadonlySet<number>, dt: number, dv: number, free = false): void {
  const gap = 1 / frame() / 4
  let by = dt
  for (const k of moving) {
    const before = start[k - 1]
    const after = start[k + 1]
    if (before && !moving.has(k - 1)) by = Math.max(by, before.time + gap - start[k]!.time)
    if (after && !moving.has(k + 1)) by = Math.min(by, after.time - gap - start[k]!.time)
  }
  change(
    start.map((p, k) => {
      if (!moving.has(k)) return p
      const time = snap(p.time + by, free || by !== dt)
      return { ...p, time, value: Number((p.value + dv).toPrecision(4)) }
    }),
  )
}
function key(e: KeyboardEvent, nth: number): void {
  const by = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, 1], ArrowDown: [0, -1] }[e.key]
  if (e.key === 'Delete' || e.key === 'Backspace') remove()
  else if (by) {
    if (!picked.value.includes(nth)) picked.value = [nth]
    const far = e.shiftKey ? 10 : 1
    const tall = seen.value.high - seen.value.low
    move(points.value, new Set(picked.value), (by[0]! * far) / frame(), (by[1]! * far * tall) / 100)
  } else return
  e.preventDefault()
  e.stopPropagation()
}
function remove(): void {
  const gone = new Set(picked.value)
  const rest = points.value.filter((_, k) => !gone.has(k))
  if (rest.length === 0) {
    store.say('At least one point is needed.')
    return
  }
  picked.value = []
  change(rest)
}
function add(e: MouseEvent): void {
  const { px, py } = spot(e)
  const point: CurvePoint = {
    time: snap(timeAt(px), e.altKey),
    value: Number(valueAt(py).toPrecision(3)),
    shape: 'smooth',
  }
  const next = [...points.value, point].sort((a, b) => a.time - b.time)
  change(next)
  picked.value = [next.indexOf(point)]
}
function press(e: PointerEvent): void {
  if (e.button !== 0) return
  if (!props.drawing) {
    picked.value = []
    return
  }
  const line: { time: number; value: number }[] = []
  begin()
  follow(
    e,
    m => {
      const { px, py } = spot(m)
      line.push({ time: timeAt(px), value: valueAt(py) })
      const made = thinPoints(line)
      if (made.length > 1) change(made.map(p => ({ ...p, shape: 'smooth' })))
    },
    () => {
      end()
      emit('drawn')
    },
  )
}
function dragHit(e: PointerEvent): void {
  if (e.button !== 0 || props.drawing) return
  e.stopPropagation()
  begin()
  follow(e, m => emit('hit', Number(snap(timeAt(spot(m).px), m.altKey).toFixed(6))), end)
}
defineExpose({ remove })
</script>

<template>
  <svg
    ref="paper"
    class="h-full w-full touch-none"
    :class="drawing ? 'cursor-crosshair' : 'cursor-default'"
    data-points
    @dblclick="add"
    @pointerdown="press"
  >
    <g class="stroke-rule text-[11px]" aria-hidden="true">
      <template v-for="t in times" :key="`t${t}`">
        <line :x1="x(t)" :x2="x(t)" y1="0" :y2="height - FOOT" />
        <text :x="x(t)" :y="height - 6" text-anchor="middle" class="tabular fill-faded stroke-none">
          {{ printNumber(t, 3) }} s
        </text>
      </template>
      <template v-for="v in values" :key="`v${v}`">
        <line :x1="LEFT" :x2="width" :y1="y(v)" :y2="y(v)" />
        <text :x="LEFT - 6" :y="y(v) + 4" text-anchor="end" class="tabular fill-faded stroke-none">
          {{ printNumber(v, 3).replace('-', '−') }}
        </text>
      </template>
    </g>
    <path
      v-for="p in paths"
      :key="p.name"
      :d="p.d"
      fill="none"
      :class="p.name === channel ? 'stroke-sea' : 'cursor-pointer stroke-faded'"
      :stroke-width="p.name === channel ? 2 : 1.2"
      @click="emit('pick', p.name)"
    />
    <g v-if="hit !== undefined">
      <line :x1="x(hit)" :x2="x(hit)" y1="0" :y2="height - FOOT" class="stroke-coral" stroke-dasharray="3 3" />
      <text :x="x(hit) + 5" y="12" class="fill-coral text-[11px]">hit</text>
      <line
        :x1="x(hit)"
        :x2="x(hit)"
        y1="0"
        :y2="height - FOOT"
        class="cursor-ew-resize stroke-transparent"
        stroke-width="11"
        data-hit
        @pointerdown="dragHit"
      />
    </g>
    <rect
      v-for="(p, i) in points"
      :key="i"
      :x="x(p.time) - 5"
      :y="y(p.value) - 5"
      width="10"
      height="10"
      rx="2"
      class="cursor-move"
      :class="picked.includes(i) ? 'fill-brass stroke-ink' : 'fill-sheet stroke-brass'"
      stroke-width="1.5"
      tabindex="0"
      role="button"
      :aria-pressed="picked.includes(i)"
      :aria-label="`Point ${i + 1}: ${printNumber(p.time, 3)} s, ${printNumber(p.value, 3)}`"
      :data-point="i"
      @pointerdown="grab($event, i)"
      @dblclick.stop
      @focus="picked.includes(i) || (picked = [i])"
      @keydown="key($event, i)"
    />
  </svg>
</template>

<script setup lang="ts">
/** The curve in hand on large paper, with handles that belong to the numbers of its formula. */
import { sourceOf } from '~~/core/acts/sources.ts'
import type { Slot } from '~~/core/engine/slot.ts'
import { parse } from '~~/core/formula/parse.ts'
import { handles as numbersOf } from '~~/core/formula/tree.ts'
import type { DriveJumps } from '~~/core/insight/drive-facts.ts'
import { handlesOf, type WaveHandle } from '~~/core/insight/wave-handles.ts'
import { limitsOf, promiseHandles, promiseMoved, type Limit } from '~/player/limits.ts'
import { Scope, type ScopeQuantity } from '~/player/scope.ts'
import type { ScopePart } from '~/player/scope-layers.ts'
import type { PlayerSnapshot } from '~/player/player.ts'
import { follow } from '~/editor/follow.ts'
import { usePiece } from '~/stores/piece.ts'
import { useTuning } from '~/commands/tuning.ts'

const props = defineProps<{
  drive: string
  copy: number
  shown: ScopeQuantity
  ghostly: boolean
  /** Which of the sources of the formula has the handles. */
  source: number
  /** The terms of its sum, shown apart. */
  parts: readonly ScopePart[]
  leaps: DriveJumps['at']
}>()
const store = usePiece()
const tuning = useTuning()
const canvas = useTemplateRef('canvas')
const beads = useTemplateRef('beads')

const entry = computed(() => sourceOf(store.piece!, props.drive))
const slot = computed(() => store.program!.slots.get(props.drive))
const handles = shallowRef<readonly WaveHandle[]>([])
/** The numbers of the formula as they are written now. */
const written = computed(() => {
  const { formula } = parse(entry.value?.text ?? '')
  return formula ? numbersOf(formula).map(n => formula.text.slice(n.from, n.to)) : []
})

let scope: Scope | null = null
let stop = () => {}
const palette = usePalette(() => store.refresh())
/** The handle that is pulled, and how far it has been. */
let pull: { handle: WaveHandle; seconds: number; higher: number } | null = null
let lookedAt = 0
let before: Slot | null = slot.value ?? null
/** Whether the hand is over the paper: then it stands still, so that what is on it can be taken hold of. */
let over = false
/** Milliseconds between looks for handles while they run past the nib. */
const LOOK = 300

function hover(is: boolean): void {
  over = is
  if (!pull) scope?.hold(is)
  store.refresh()
}

function again(): void {
  lookedAt = 0
  store.refresh()
}

/** Worked out when they change, never in a frame. */
const limits = shallowRef<readonly Limit[]>([])
watch([() => store.program, () => props.drive], () => (limits.value = limitsOf(store.program!, props.drive)), {
  immediate: true,
})

function look(now: number): void {
  if (!scope || pull || !store.program) return
  // What is still being worked out has its handles when it is there.
  const { queue } = store.program
  const asked = queue.requestCount
  const right = scope.from + scope.seconds
  const from = store.player!.now().seconds + 0.05 * Math.max(0, right - store.player!.now().seconds)
  handles.value =
    props.shown === 'value'
      ? [
          ...handlesOf(store.program, props.drive, props.copy, props.source, from, 0.9 * Math.max(0, right - from)),
          ...promiseHandles(store.program, props.drive, from + 0.8 * Math.max(0, right - from)),
        ]
      : []
  lookedAt = queue.requestCount === asked ? now : 0
}

/** Beads go along with the paper, without waiting for the page. */
function place(): void {
  if (!scope || !beads.value) return
  for (const bead of beads.value.querySelectorAll<HTMLElement>('[data-bead]')) {
    const h = handles.value[Number(bead.dataset.bead)]
    if (!h) continue
    const mine = pull?.handle === h ? pull : null
    const x = scope.x(h.seconds + (mine && h.way !== 'up' ? mine.seconds : 0))
    const left = scope.x(h.from)
    const y = h.way === 'apart' ? 12 : scope.y(h.value + (mine && h.way === 'up' ? mine.higher : 0))
    bead.style.transform = `translate(${Math.round(x)}px, ${Math.round(Math.min(2000, Math.max(-50, y)))}px)`
    bead.style.visibility = x < 60 || x > scope.width ? 'hidden' : 'visible'
    bead.style.setProperty('--span', `${Math.max(0, x - left)}px`)
  }
}

function frame({ program, moment }: PlayerSnapshot): void {
  if (!scope) return
  const now = program.slots.get(props.drive)
  if (now && before && now.forms !== before.forms && !pull) scope.ghost = props.ghostly ? before : null
  if (now && now.forms !== before?.forms) {
    if (!pull) before = now
    lookedAt = 0
  }
  scope.copy = props.copy
  scope.shown = props.shown
  scope.limits = limits.value
  scope.leapsAt = props.leaps
  scope.layer.show(props.parts)
  // The nib has run off paper that stands still: it is pulled up.
  const beyond = moment.seconds < scope.from || moment.seconds > scope.from + 0.97 * scope.seconds
  if (over && !pull && beyond) {
    scope.hold(false)
    lookedAt = 0
  }
  scope.draw({ program, moment })
  if (over) scope.hold(true)
  const clock = performance.now()
  const passed = handles.value.some(h => h.seconds < moment.seconds || h.seconds > scope!.from + scope!.seconds)
  if (lookedAt === 0 || (passed && !over && clock - lookedAt > LOOK)) look(clock)
  place()
}

// New beads have their place at once, also when nothing moves.
watch(handles, place, { flush: 'post' })
watch(() => [props.source, props.copy, props.shown, props.parts, props.leaps], again)
watch(
  () => props.ghostly,
  is => {
    if (scope && !is) scope.ghost = null
    store.refresh()
  },
)

/** The number that a pull makes, with as many decimals as a pixel tells apart. */
function tune(h: WaveHandle, seconds: number, higher: number): void {
  const pixel = Math.abs(h.pulled(1 / scope!.perSecond, scope!.perPixel) - h.pulled(0, 0)) || 1
  const decimals = Math.min(6, Math.max(h.decimals, Math.ceil(-Math.log10(pixel))))
  const value = h.pulled(seconds, higher)
  if (h.nth >= 0) tuning.number(props.drive, h.nth, value, decimals)
  else store.act(promiseMoved(store.program!, props.drive, h.nth, Number(value.toFixed(decimals))))
}

function begin(): void {
  store.beginGesture()
  scope!.hold(true)
  scope!.fixed = true
  scope!.ghost = props.ghostly ? (slot.value ?? null) : null
}
function end(): void {
  store.endGesture()
  scope!.hold(over)
  scope!.fixed = false
  pull = null
  before = slot.value ?? null
  again()
}

function grab(e: PointerEvent, h: WaveHandle): void {
  if (e.button !== 0) return
  let [x, y] = [e.clientX, e.clientY]
  follow(
    e,
    m => {
      if (!pull) {
        if (Math.abs(m.clientX - x) + Math.abs(m.clientY - y) < 3) return
        begin()
        pull = { handle: h, seconds: 0, higher: 0 }
      }
      const fine = m.altKey ? 0.1 : 1
      pull.seconds += ((m.clientX - x) / scope!.perSecond) * fine
      pull.higher -= (m.clientY - y) * scope!.perPixel * fine
      ;[x, y] = [m.clientX, m.clientY]
      tune(h, pull.seconds, pull.higher)
    },
    () => {
      if (pull) end()
    },
  )
}

const STEPS: Readonly<Record<string, readonly [number, number]>> = {
  ArrowUp: [0, 1],
  ArrowDown: [0, -1],
  ArrowRight: [1, 0],
  ArrowLeft: [-1, 0],
}
/** The arrow keys move a handle by some pixels. */
function step(e: KeyboardEvent, h: WaveHandle): void {
  const by = STEPS[e.key]
  if (!by) return
  e.preventDefault()
  e.stopPropagation()
  const far = e.shiftKey ? 20 : 4
  begin()
  tune(h, (by[0] * far) / scope!.perSecond, by[1] * far * scope!.perPixel)
  end()
}

function wheel(e: WheelEvent): void {
  const factor = 2 ** (-e.deltaY / 300)
  if (e.ctrlKey || e.metaKey) scope!.zoom(factor)
  else if (e.shiftKey) scope!.stretch(2 ** (-(e.deltaY || e.deltaX) / 300))
  else return
  e.preventDefault()
  again()
}
function zoom(factor: number): void {
  scope!.zoom(factor)
  again()
}
function fit(): void {
  scope?.fit()
  again()
}
/** Empty paper is pulled like the tape: along time it moves the moment, up and down the value axis. */
function drag(e: PointerEvent): void {
  if (e.button !== 0) return
  let [x, y] = [e.clientX, e.clientY]
  store.player!.hold(true)
  follow(
    e,
    m => {
      store.player!.move((x - m.clientX) / scope!.perSecond)
      scope!.lift(y - m.clientY)
      ;[x, y] = [m.clientX, m.clientY]
      again()
    },
    () => store.player!.hold(false),
  )
}

onMounted(() => {
  scope = new Scope(canvas.value!, props.drive, palette, again)
  const unwatch = store.player!.watch(frame)
  stop = () => {
    unwatch()
    scope?.stop()
  }
})
onBeforeUnmount(() => {
  if (pull) end()
  stop()
})
defineExpose({ fit, zoom })
</script>

<template>
  <div
    class="relative min-h-0 flex-1 overflow-hidden"
    data-scope
    @wheel="wheel"
    @pointerenter="hover(true)"
    @pointerleave="hover(false)"
  >
    <canvas ref="canvas" class="block h-full w-full cursor-grab touch-none" aria-hidden="true" @pointerdown="drag" />
    <div ref="beads">
      <ScopeBead
        v-for="(h, i) in handles"
        :key="`${h.nth} ${h.name}`"
        :handle="h"
        :written="written[h.nth] ?? h.text"
        :data-bead="i"
        @pointerdown.stop="grab($event, h)"
        @keydown="step($event, h)"
      />
    </div>
  </div>
</template>

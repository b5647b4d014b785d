<script setup lang="ts">
/** The stage: the piece as it is at this moment, fitted; a click chooses a part and shows its pin. */
import { withCarried } from '~~/core/acts/parts.ts'
import { boxWithCarried } from '~~/core/rig/snapping.ts'
import { useBeside } from '~/stage/takes-beside.ts'
import { useStageDrop } from '~/stage/dropping.ts'
import { useStageHand } from '~/stage/gestures.ts'
import { useFitting } from '~/stage/fitting.ts'
import { useStageKeys } from '~/stage/stage-keys.ts'
import { Overlay } from '~/stage/overlay.ts'
import { usePen } from '~/stage/pen/pen.ts'
import { usePointing } from '~/stage/pointing.ts'
import { DrawnStage } from '~/stage/drawn-stage.ts'
import { StageRenderer } from '~/stage/renderer.ts'
import { useRuling } from '~/stage/ruling.ts'
import { useThreads } from '~/stage/threads.ts'
import { useLook } from '~/stage/look.ts'
import { useMotionPath } from '~/stage/motion-path.ts'
import { useView } from '~/stage/viewing.ts'
import { mayDrop, mayDropFile } from '~/editor/carry.ts'
import { offerTarget } from '~/commands/targets.ts'
import { useSelection } from '~/stores/selection.ts'
import { useOpenPiece } from '~/stores/open-piece.ts'

const store = useOpenPiece()
const hand = useSelection()
const title = computed(() => store.piece.title)
const room = useTemplateRef('room')
const canvas = useTemplateRef('canvas')
const overlay = useTemplateRef('overlay')
const frame = useTemplateRef<HTMLElement>('frame')
/** Whether there is no WebGL 2, and the stage is a drawing. */
const failed = ref(false)
/** Whether the picture has more corners than are drawn. */
const partly = ref(false)
const stage = computed(() => store.piece.stage)
const percent = computed(() => Math.round(lens.value.scale * 100))
const palette = usePalette(() => store.refresh())

let renderer: StageRenderer | DrawnStage | null = null
const drawing = useTemplateRef<HTMLElement>('drawing')
const stops: (() => void)[] = []

const { size, style } = useFitting(
  room,
  () => stage.value,
  () => stage.value.rulers ?? false,
  fitted,
)
function fitted(): void {
  const ratio = devicePixelRatio || 1
  renderer?.resize(Math.round(size.value.width * ratio), Math.round(size.value.height * ratio))
  overlay.value!.width = size.value.width * ratio
  overlay.value!.height = size.value.height * ratio
  store.player.refresh()
}

onMounted(() => {
  try {
    renderer = new StageRenderer(canvas.value!, () => store.refresh())
  } catch {
    failed.value = true
    renderer = new DrawnStage(drawing.value!, () => store.refresh())
  }
  stops.push(
    store.player.watch(snapshot => {
      renderer?.draw(snapshot)
      const full = renderer?.full ?? false
      if (partly.value !== full) partly.value = full
      mark()
    }),
  )
})
/** One part solo: only it and its children are drawn. */
const solo = computed(() => (hand.solo !== null ? store.piece.parts[hand.solo] : undefined))
watch(
  () => [hand.solo, store.piece.parts],
  () => {
    if (renderer) renderer.only = solo.value ? new Set(withCarried(store.piece, hand.solo!)) : null
    store.refresh()
  },
)
const beside = useBeside()
watch(
  () => [hand.chosen, hand.instance, hand.path, hand.threads],
  () => store.refresh(),
)
onBeforeUnmount(() => {
  stops.forEach(stop => stop())
  renderer?.dispose()
})

/** Where on the overlay a pointer is, page pixels from its corner. */
function place(e: MouseEvent): [number, number] {
  const box = overlay.value!.getBoundingClientRect()
  return [e.clientX - box.left, e.clientY - box.top]
}
const viewing = useView(
  () => size.value,
  () => stage.value,
  place,
)
const { view, lens } = viewing
watch(view, v => {
  if (renderer) renderer.view = v
  store.refresh()
})
// The keys go to the pen while it draws.
watch(
  () => hand.pen,
  on => on && frame.value?.focus({ preventScroll: true }),
)

const byHand = useStageHand(
  () => renderer?.current() ?? null,
  () => lens.value,
  () => mark(),
)

const pen = usePen(
  () => renderer?.current() ?? null,
  () => lens.value,
  () => mark(),
)

const ruling = useRuling(
  () => renderer?.current() ?? null,
  () => lens.value,
  () => size.value,
  () => mark(),
)
/** Where the pointer is over the stage, for the rulers. */
const pointer = shallowRef<readonly [number, number] | null>(null)

const pathOf = useMotionPath()
const threadsOf = useThreads()

const orbit = useLook()
watch(orbit.look, l => {
  if (renderer) renderer.look = l
  store.refresh()
})

/** What is chosen, and what is done with it. */
function mark(): void {
  const c = overlay.value?.getContext('2d')
  const scene = renderer?.current()
  if (!c || !scene) return
  const ratio = devicePixelRatio || 1
  c.setTransform(ratio, 0, 0, ratio, 0, 0)
  c.clearRect(0, 0, size.value.width, size.value.height)
  const over = new Overlay(c, lens.value, palette, scene.eye)
  const { x, y, marquee } = byHand.shown
  ruling.draw(c, palette)
  for (const id of hand.chosen) {
    const body = scene.bodies.get(id)
    if (!body) continue
    const instance = id === hand.part ? Math.min(hand.instance, body.count - 1) : 0
    const path = id === hand.part ? pathOf(body, instance, scene.eye) : null
    if (path) over.path(path)
    if (id === hand.part && hand.threads) over.threads(threadsOf(scene, id, instance))
    over.circles(body, instance, body.driven.has('rotation'))
    over.outline(body, instance, id === hand.part)
    const box = hand.others.length > 0 && body.part.shape.type === 'group' ? boxWithCarried(scene, id, instance) : null
    if (box) over.box(box)
    if (id === hand.part && hand.others.length === 0) over.pin(body, instance)
  }
  const round = byHand.frame()
  if (round) over.box(round)
  if (!hand.pen) over.handles(byHand.handles(round))
  over.nodes(pen.nodes(), pen.isPicked, pen.ghost())
  const { points, tip } = pen.drawing()
  if (hand.pen) over.drawing(points, tip)
  if (x !== null || y !== null) over.lines(x, y, size.value.width, size.value.height)
  if (marquee) over.marquee(marquee)
}

const { pile, down, hover, twice } = usePointing({
  frame,
  overlay,
  scene: () => renderer?.current() ?? null,
  lens: () => lens.value,
  place,
  pointer,
  byHand,
  pen,
  ruling,
  orbit,
  viewing,
})
const key = useStageKeys(frame, byHand, pen, {
  step: viewing.step,
  turn: orbit.step,
})
offerTarget('stage', {
  zoomBy: viewing.zoomBy,
  fit: viewing.fit,
  actualSize: viewing.actualSize,
  lookStraight: orbit.home,
})
const { drop, asked } = useStageDrop(pile)
</script>

<template>
  <section class="relative flex min-h-0 flex-1 gap-3 p-4" aria-label="Stage">
    <div ref="room" class="grid h-full min-w-0 flex-1 place-items-center">
      <div class="relative" :style="style" @pointerleave="pointer = null">
        <div
          ref="frame"
          class="absolute inset-0 overflow-hidden rounded-sm outline outline-rule focus-visible:outline-2 focus-visible:outline-sea"
          role="group"
          tabindex="0"
          aria-label="Parts on the stage: arrow keys move the selection, Enter enters a group"
          @keydown="key"
        >
          <div ref="drawing" class="pointer-events-none absolute inset-0" :class="{ hidden: !failed }" data-drawing />
          <canvas
            ref="canvas"
            class="absolute inset-0 h-full w-full"
            data-stage
            role="img"
            :aria-label="`The piece ${title} at this moment`"
          />
          <canvas
            ref="overlay"
            class="absolute inset-0 h-full w-full"
            aria-hidden="true"
            @pointerdown="down"
            @pointermove="hover"
            @dblclick="twice"
            @wheel.prevent="viewing.wheel"
            @contextmenu="orbit.deep.value && $event.preventDefault()"
            @dragover="mayDrop($event) || mayDropFile($event)"
            @drop="drop"
          />
          <LazyDropChoice v-if="asked" v-bind="asked" @close="asked = null" />
          <p v-if="hand.pen" class="panel absolute top-2 left-2 flex items-center gap-2 px-2 py-1" role="status">
            Click to add points, drag for smooth ones; click the first to close
            <button class="link" type="button" @click="pen.end(false)">Finish open</button>
            <button class="link" type="button" @click="hand.pen = false">cancel</button>
          </p>
          <p v-if="solo" class="panel absolute top-2 left-2 flex items-center gap-2 px-2 py-1" role="status">
            {{ solo.name }} solo
            <button class="link" type="button" @click="hand.solo = null">show all</button>
          </p>
          <slot />
        </div>
        <template v-if="stage.rulers">
          <LazyStageRuler
            v-for="(axis, nth) in ['x', 'y'] as const"
            :key="axis"
            :axis="axis"
            :lens="lens"
            :size="size"
            :pointer="pointer && pointer[nth]!"
            @pull="ruling.pull($event, place($event), axis === 'x' ? 'y' : 'x', null)"
          />
        </template>
      </div>
      <p v-if="beside.length > 0" class="panel absolute top-5 left-5 px-2 text-[12px]">
        what runs
        <button class="link ml-2" type="button" @click="hand.beside = null">single stage</button>
      </p>
    </div>
    <LazyTakeStage v-for="t in beside" :key="`${t.drive} ${t.name}`" v-bind="t" />
    <StageFoot
      :deep="orbit.deep.value"
      :away="orbit.away.value"
      @fit="viewing.fit"
      @actual-size="viewing.actualSize"
      @turn="orbit.step"
      @home="orbit.home"
    />
    <p class="pointer-events-none absolute right-5 bottom-0 text-[11px] leading-4 text-faded">
      <span v-if="failed" class="mr-3 text-brass" role="status" data-no-card
        >No WebGL 2 in this browser: the stage is drawn a few times a second.</span
      >
      <span v-if="partly" class="mr-3 text-coral" role="status"
        >Not everything is drawn: too many corners. Fewer copies or simpler shapes would help.</span
      ><span v-else class="tabular"
        >{{ stage.width }} × {{ stage.height }} · {{ orbit.deep.value ? 'in depth' : 'flat' }} · {{ percent }} % · y up,
        turns anticlockwise</span
      >
    </p>
  </section>
</template>

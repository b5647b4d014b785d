<script setup lang="ts">
/** The stage: the piece as it is at this moment, fitted; a click chooses a part and shows its pin. */
import { withCarried } from '~~/core/acts/parts.ts'
import { hit } from '~~/core/rig/hit.ts'
import { pitchRadius } from '~~/core/piece/gearing.ts'
import { outlineOf } from '~~/core/rig/outline.ts'
import { noSizes, sizesOf } from '~~/core/rig/sizing.ts'
import type { Body } from '~~/core/rig/body.ts'
import { applyX, applyY } from '~~/core/piece/transform.ts'
import { StageRenderer } from '~/stage/renderer.ts'
import { dropped, mayDrop } from '~/editor/carry.ts'
import { useHand } from '~/stores/hand.ts'
import { useLinking } from '~/stores/linking.ts'
import { useListing } from '~/stores/listing.ts'
import { usePiece } from '~/stores/piece.ts'

const store = usePiece()
const hand = useHand()
const linking = useLinking()
const listing = useListing()
const room = useTemplateRef('room')
const canvas = useTemplateRef('canvas')
const overlay = useTemplateRef('overlay')
const size = ref({ width: 0, height: 0 })
const failed = ref('')
/** Whether the picture has more corners than are drawn. */
const partly = ref(false)
const stage = computed(() => store.piece!.stage)
const percent = computed(() => Math.round((size.value.width / stage.value.width) * 100))
const palette = usePalette(() => store.player?.refresh())

let renderer: StageRenderer | null = null
const stops: (() => void)[] = []

function fit(): void {
  const { clientWidth, clientHeight } = room.value!
  const scale = Math.min(clientWidth / stage.value.width, clientHeight / stage.value.height)
  size.value = { width: Math.floor(stage.value.width * scale), height: Math.floor(stage.value.height * scale) }
  const ratio = devicePixelRatio || 1
  renderer?.resize(Math.round(size.value.width * ratio), Math.round(size.value.height * ratio))
  overlay.value!.width = size.value.width * ratio
  overlay.value!.height = size.value.height * ratio
  store.player!.refresh()
}

onMounted(() => {
  try {
    renderer = new StageRenderer(canvas.value!, () => store.player?.refresh())
  } catch {
    failed.value = 'This browser cannot draw the stage: it has no WebGL 2. Everything else works.'
  }
  const resize = new ResizeObserver(fit)
  resize.observe(room.value!)
  stops.push(
    () => resize.disconnect(),
    store.player!.watch(snapshot => {
      renderer?.draw(snapshot)
      const full = renderer?.full ?? false
      if (partly.value !== full) partly.value = full
      mark()
    }),
  )
})
/** One part alone: only it and what it carries is drawn. */
const alone = computed(() => (hand.alone !== null ? store.piece!.parts[hand.alone] : undefined))
watch(
  () => [hand.alone, store.piece!.parts],
  () => {
    if (renderer) renderer.only = alone.value ? new Set(withCarried(store.piece!, hand.alone!)) : null
    store.player?.refresh()
  },
)
/** Takes that move beside it, most; what runs stands on the stage itself. */
const MOST_BESIDE = 3
const beside = computed(() => {
  const drive = hand.beside === null ? undefined : store.piece!.drives[hand.beside]
  return (drive?.takes ?? [])
    .filter(t => t.text !== drive!.text)
    .slice(0, MOST_BESIDE)
    .map(t => ({ drive: hand.beside!, ...t }))
})
watch(stage, fit)
watch(
  () => [hand.part, hand.instance],
  () => store.player?.refresh(),
)
onBeforeUnmount(() => {
  stops.forEach(stop => stop())
  renderer?.dispose()
})

const toScreen = (x: number, y: number): [number, number] => {
  const scale = size.value.width / stage.value.width
  return [(x + stage.value.width / 2) * scale, (stage.value.height / 2 - y) * scale]
}

/** The chosen part's outline and its pin: where it turns and scales about. */
function mark(): void {
  const c = overlay.value?.getContext('2d')
  const scene = renderer?.current()
  if (!c || !scene) return
  const ratio = devicePixelRatio || 1
  c.setTransform(ratio, 0, 0, ratio, 0, 0)
  c.clearRect(0, 0, size.value.width, size.value.height)
  const body = hand.part ? scene.bodies.get(hand.part) : undefined
  if (!body) return
  const instance = Math.min(hand.instance, body.count - 1)
  outline(c, body, instance)
  if (body.part.shape.type === 'gear') pitch(c, body.worlds[instance]!, pitchRadius(body.part.shape))
  pin(c, body, instance)
}

const sizes = noSizes()
function outline(c: CanvasRenderingContext2D, body: Body, instance: number): void {
  const drawn = outlineOf(body.part.shape, sizesOf(body, instance, sizes))
  if (!drawn) return
  const m = body.worlds[instance]!
  for (const [colour, width, dash] of [
    [palette.ink, 3, []],
    [palette.sheet, 1.4, [5, 4]],
  ] as const) {
    c.strokeStyle = colour
    c.lineWidth = width
    c.setLineDash([...dash])
    c.beginPath()
    for (let k = 0; k < drawn.points.length; k += 2) {
      const [x, y] = toScreen(
        applyX(m, drawn.points[k]!, drawn.points[k + 1]!),
        applyY(m, drawn.points[k]!, drawn.points[k + 1]!),
      )
      if (k === 0) c.moveTo(x, y)
      else c.lineTo(x, y)
    }
    if (drawn.closed) c.closePath()
    c.stroke()
  }
  c.setLineDash([])
}

/** The circle at which a gear's teeth meet those of another. */
function pitch(c: CanvasRenderingContext2D, m: Body['worlds'][number], radius: number): void {
  const [x, y] = toScreen(m[3]!, m[7]!)
  const scale = (Math.hypot(m[0]!, m[4]!) * size.value.width) / stage.value.width
  c.beginPath()
  c.arc(x, y, radius * scale, 0, 2 * Math.PI)
  c.strokeStyle = palette.coral
  c.lineWidth = 1.2
  c.stroke()
}

function pin(c: CanvasRenderingContext2D, body: Body, instance: number): void {
  const m = body.worlds[instance]!
  const { x, y } = body.part.pivot
  const [px, py] = toScreen(applyX(m, x, y), applyY(m, x, y))
  // The tail shows which way the part's own x goes.
  const length = Math.hypot(m[0]!, m[4]!) || 1
  const [tx, ty] = [px + (m[0]! / length) * 20, py - (m[4]! / length) * 20]
  c.lineCap = 'round'
  for (const [colour, width] of [
    [palette.ink, 5],
    [palette.sheet, 2],
  ] as const) {
    c.strokeStyle = colour
    c.lineWidth = width
    c.beginPath()
    c.moveTo(px, py)
    c.lineTo(tx, ty)
    c.stroke()
  }
  c.beginPath()
  c.arc(px, py, 5, 0, 2 * Math.PI)
  c.fillStyle = palette.sheet
  c.fill()
  c.strokeStyle = palette.ink
  c.lineWidth = 2
  c.stroke()
  c.beginPath()
  c.arc(px, py, 1.6, 0, 2 * Math.PI)
  c.fillStyle = palette.sea
  c.fill()
}

/** What lies under the pointer. */
function under(e: MouseEvent): ReturnType<typeof hit> {
  const scene = renderer?.current()
  if (!scene) return null
  const box = canvas.value!.getBoundingClientRect()
  const scale = stage.value.width / box.width
  const x = (e.clientX - box.left) * scale - stage.value.width / 2
  const y = stage.value.height / 2 - (e.clientY - box.top) * scale
  return hit(scene, x, y, 4 * scale)
}
function choose(e: PointerEvent): void {
  const found = under(e)
  hand.choose(found?.id ?? null, found?.instance ?? 0)
}
/** An entry dropped on a part drives it too. */
function drop(e: DragEvent): void {
  const driver = dropped(e)
  if (!driver) return
  const found = under(e)
  if (!found) store.notice = { says: 'There is no part there. Drop it on one, and that follows it.' }
  const key = found && linking.follow(driver, found.id)
  if (key) listing.reveal(key)
}
</script>

<template>
  <section class="relative flex min-h-0 flex-1 gap-3 p-4" aria-label="Stage">
    <div ref="room" class="grid h-full min-w-0 flex-1 place-items-center">
      <div
        class="relative overflow-hidden rounded-sm outline outline-rule"
        :style="{ width: `${size.width}px`, height: `${size.height}px` }"
      >
        <canvas
          ref="canvas"
          class="absolute inset-0 h-full w-full"
          data-stage
          role="img"
          :aria-label="`The piece ${store.piece!.title} at this moment`"
        />
        <canvas
          ref="overlay"
          class="absolute inset-0 h-full w-full"
          aria-hidden="true"
          @pointerdown="choose"
          @dragover="mayDrop"
          @drop="drop"
        />
        <p v-if="failed" class="absolute inset-0 grid place-items-center p-6 text-center text-[#ede6d3]" role="alert">
          {{ failed }}
        </p>
        <p v-if="alone" class="panel absolute top-2 left-2 flex items-center gap-2 px-2 py-1" role="status">
          {{ alone.name }} alone
          <button class="link" type="button" @click="hand.alone = null">all again</button>
        </p>
        <slot />
      </div>
      <p v-if="beside.length > 0" class="panel absolute top-5 left-5 px-2 text-[12px]">
        what runs
        <button class="link ml-2" type="button" @click="hand.beside = null">one stage again</button>
      </p>
    </div>
    <LazyTakeStage v-for="t in beside" :key="`${t.drive} ${t.name}`" v-bind="t" />
    <p class="pointer-events-none absolute right-5 bottom-0 text-[11px] leading-4 text-faded">
      <span v-if="partly" class="mr-3 text-coral" role="status"
        >Not all of it is drawn: too many corners. Fewer copies or simpler shapes help.</span
      ><span v-else class="tabular"
        >{{ stage.width }} × {{ stage.height }} · flat · {{ percent }} % · y up, turns anticlockwise</span
      >
    </p>
  </section>
</template>

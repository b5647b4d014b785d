<script setup lang="ts">
/** The shapes that can be put on the stage. */
import {
  Circle,
  Cog,
  Disc,
  Flower,
  Group,
  Hexagon,
  ImageDown,
  Minus,
  PenTool,
  RectangleHorizontal,
  Spline,
  Star,
  Type,
  Waves,
} from '@lucide/vue'
import { addPart, shapeName } from '~~/core/acts/parts.ts'
import type { Shape } from '~~/core/piece/schema.ts'
import { focusDriving } from '~/editor/focus.ts'
import { useSelection } from '~/stores/selection.ts'
import { useOpenPiece } from '~/stores/open-piece.ts'
import { useTaking } from '~/commands/taking.ts'

defineProps<{ large?: boolean }>()
const emit = defineEmits<{ added: [] }>()
const store = useOpenPiece()
const hand = useSelection()
const taking = useTaking()

/** What a path is before anything is drawn of it by hand. */
const leaf = [
  { x: -60, y: 0, smooth: false },
  { x: 0, y: 40, smooth: true },
  { x: 60, y: 0, smooth: false },
  { x: 0, y: -40, smooth: true },
]
const SHAPES: readonly { shape: Shape; icon: unknown }[] = [
  { shape: { type: 'rectangle' }, icon: RectangleHorizontal },
  { shape: { type: 'ellipse' }, icon: Circle },
  { shape: { type: 'polygon', sides: 6 }, icon: Hexagon },
  { shape: { type: 'star', points: 5 }, icon: Star },
  { shape: { type: 'ring' }, icon: Disc },
  { shape: { type: 'line' }, icon: Minus },
  { shape: { type: 'gear', teeth: 24, spokes: 5, module: 6 }, icon: Cog },
  { shape: { type: 'waves', longest: 240, depth: 200, wind: 0, waves: 10, tile: 0, seed: 1 }, icon: Waves },
  {
    shape: {
      type: 'text',
      words: 'LANTERN PIER',
      shows: 'words',
      decimals: 0,
      prefix: '',
      suffix: '',
      align: 'middle',
    },
    icon: Type,
  },
  { shape: { type: 'path', closed: true, poses: [[leaf]] }, icon: PenTool },
  { shape: { type: 'trace', of: null, x: 0, y: 0, every: 30 }, icon: Spline },
  { shape: { type: 'emitter', seed: 1, flight: 'changing', reverses: false }, icon: Flower },
  { shape: { type: 'group' }, icon: Group },
]

const file = useTemplateRef<HTMLInputElement>('file')
async function chosen(e: Event): Promise<void> {
  const field = e.target as HTMLInputElement
  if (await taking.takeIn([...(field.files ?? [])])) emit('added')
  field.value = ''
}

function add(shape: Shape, byKeys: boolean): void {
  // By hand a path is drawn with the pen; by keys it begins as a leaf, whose points are typed or stepped.
  if (shape.type === 'path' && !byKeys) {
    hand.choose(null)
    hand.pen = true
    emit('added')
    return
  }
  // Inside a chosen group, else on the stage.
  const chosen = hand.part ? store.piece.parts[hand.part] : undefined
  const parent = chosen?.shape.type === 'group' ? hand.part : null
  const { id, op } = addPart(store.piece, shape, { parent })
  store.act(op)
  hand.choose(id)
  emit('added')
  void nextTick(() => focusDriving(id))
}
</script>

<template>
  <div class="flex flex-wrap gap-1" role="group" aria-label="Add a part">
    <button
      v-for="s in SHAPES"
      :key="s.shape.type"
      class="button"
      :class="large ? 'h-16 w-[70px] flex-col !gap-1' : ''"
      type="button"
      :data-add="s.shape.type"
      @click="add(s.shape, $event.detail === 0)"
    >
      <component :is="s.icon" :size="large ? 22 : 15" />{{ shapeName(s.shape) }}
    </button>
    <button
      class="button"
      :class="large ? 'h-16 w-[70px] flex-col !gap-1' : ''"
      type="button"
      data-tip="Import an SVG file as parts, or pictures (PNG, JPEG, WebP), several at once in register. You can also drop them on the stage."
      @click="file?.click()"
    >
      <ImageDown :size="large ? 22 : 15" />From files…
    </button>
    <input
      ref="file"
      class="hidden"
      type="file"
      multiple
      accept=".svg,image/svg+xml,image/png,image/jpeg,image/webp"
      aria-label="Artwork and pictures"
      @change="chosen"
    />
  </div>
</template>

<script setup lang="ts">
/** How a part is copied: in a ring, row or grid, along a path, in layers. */
import { setValueOf } from '~~/core/acts/stage-edits.ts'
import { LAYOUTS, setPart } from '~~/core/acts/parts.ts'
import { MOST_INSTANCES, type Copies } from '~~/core/piece/schema.ts'
import { placedLetters } from '~~/core/acts/text-parts.ts'
import { spotsOf } from '~~/core/rig/text/letters.ts'
import { pointsTyped, pointsWritten } from '~~/core/acts/typed-points.ts'
import { useOpenPiece } from '~/stores/open-piece.ts'

const props = defineProps<{ id: string }>()
const store = useOpenPiece()
const copies = computed(() => store.piece.parts[props.id]!.copies)
const wrong = ref('')

const put = (to: Copies | null) => store.act(setPart(store.piece, props.id, { copies: to }))
const change = (c: Partial<Copies>) => put({ ...copies.value!, ...c } as Copies)

/** A chain whose links hang end to end: each is turned about its left end, and carries the next at its right. */
function chained(count: number): Copies {
  const width = setValueOf(store.piece, props.id, 'width')
  return { layout: 'chain', count, dx: width, dy: 0 }
}

/** Only letters can stand as words are set. */
const choices = computed(() => {
  const { shape } = store.piece.parts[props.id]!
  const { placed, ...rest } = LAYOUTS
  const letters = shape.type === 'text' && shape.shows === 'letters'
  return { none: 'none', ...(letters ? { placed } : {}), ...rest }
})

function layout(to: string): void {
  const { shape } = store.piece.parts[props.id]!
  const count = copies.value?.count ?? 6
  const arc = [
    { x: -200, y: 0 },
    { x: 0, y: -60 },
    { x: 200, y: 0 },
  ]
  const made: Record<string, Copies | null> = {
    none: null,
    ring: { layout: 'ring', count, radius: 150, from: 90, sweep: 360, turn: true },
    row: { layout: 'row', count, dx: 60, dy: 0 },
    grid: { layout: 'grid', count, columns: 3, dx: 80, dy: 80 },
    path: { layout: 'path', count, points: arc, closed: false, smooth: true, turn: true },
    layers: { layout: 'layers', count, dz: 10 },
    chain: chained(count),
    placed: shape.type === 'text' ? placedLetters(shape, setValueOf(store.piece, props.id, 'size'), spotsOf) : null,
  }
  // Links of a chain turn about the end that they hang by, unless their pin was put elsewhere.
  const { pivot } = store.piece.parts[props.id]!
  const link = made[to]
  const ends = link?.layout === 'chain' && pivot.x === 0 && pivot.y === 0
  store.act(setPart(store.piece, props.id, { copies: link!, ...(ends ? { pivot: { x: -link.dx / 2, y: 0 } } : {}) }))
}

/** Points as typed. What is no list of points goes back to what it was, and says why. */
function points(e: Event): void {
  const field = e.target as HTMLTextAreaElement
  const read = pointsTyped(field.value, 2, false)
  wrong.value = 'says' in read ? read.says : ''
  if ('says' in read) field.value = pointsWritten((copies.value as Copies & { layout: 'path' }).points)
  else change({ points: read.points.map(({ x, y }) => ({ x, y })) })
}
</script>

<template>
  <ChoiceField label="copies" name="Copies" :value="copies?.layout ?? 'none'" :choices="choices" @choose="layout" />
  <template v-if="copies">
    <NumberField
      v-if="copies.layout === 'placed'"
      label="set at size"
      data-tip="The letter size they are set for"
      :value="copies.size"
      unit="px"
      :low="0.01"
      @set="change({ size: $event })"
    />
    <NumberField
      v-else
      label="count"
      :value="copies.count"
      :low="1"
      :high="MOST_INSTANCES"
      whole
      @set="change({ count: $event })"
    />
    <template v-if="copies.layout === 'ring'">
      <NumberField label="ring radius" :value="copies.radius" unit="px" @set="change({ radius: $event })" />
      <NumberField label="from" :value="copies.from" unit="deg" @set="change({ from: $event })" />
      <NumberField label="sweep" :value="copies.sweep" unit="deg" @set="change({ sweep: $event })" />
    </template>
    <template v-else-if="copies.layout === 'layers'">
      <NumberField label="layer spacing" :value="copies.dz" unit="px" @set="change({ dz: $event })" />
      <TickField
        label="join layers"
        data-tip="In depth: joins the layers into one solid; otherwise they are separate sheets"
        :value="copies.apart !== true"
        @set="change({ apart: $event ? undefined : true })"
      />
    </template>
    <template v-else-if="copies.layout === 'chain'">
      <NumberField
        label="tip x"
        data-tip="Where the next copy attaches, from the middle of this one"
        :value="copies.dx"
        unit="px"
        @set="change({ dx: $event })"
      />
      <NumberField
        label="tip y"
        data-tip="Where the next copy attaches, from the middle of this one"
        :value="copies.dy"
        unit="px"
        @set="change({ dy: $event })"
      />
    </template>
    <template v-else-if="copies.layout === 'path'">
      <label class="block"
        ><span>points (x and y, one per line)</span>
        <textarea
          class="field tabular mt-1 h-[80px] w-full resize-y"
          aria-label="Points of the path"
          data-tip="In px from the middle of the part"
          :value="pointsWritten(copies.points)"
          @change="points"
        />
      </label>
      <p v-if="wrong" class="text-[12px] text-coral" role="alert">{{ wrong }}</p>
      <TickField label="smooth" :value="copies.smooth" @set="change({ smooth: $event })" />
      <TickField label="closed" :value="copies.closed" @set="change({ closed: $event })" />
    </template>
    <template v-else-if="copies.layout === 'row' || copies.layout === 'grid'">
      <NumberField
        v-if="copies.layout === 'grid'"
        label="columns"
        :value="copies.columns"
        :low="1"
        :high="MOST_INSTANCES"
        whole
        @set="change({ columns: $event })"
      />
      <NumberField label="spacing x" :value="copies.dx" unit="px" @set="change({ dx: $event })" />
      <NumberField label="spacing y" :value="copies.dy" unit="px" @set="change({ dy: $event })" />
    </template>
    <TickField
      v-if="copies.layout === 'ring' || copies.layout === 'path'"
      :label="copies.layout === 'ring' ? 'face outward' : 'turn along it'"
      :value="copies.turn"
      @set="change({ turn: $event })"
    />
  </template>
</template>

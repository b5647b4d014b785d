<script setup lang="ts">
/** What is ruled over the stage: guides, rulers, a grid; and the guides of one's own by number. */
import { MOST_GUIDES } from '~~/core/piece/schema.ts'
import { X } from '@lucide/vue'
import {
  dropGuide,
  guidesOf,
  isRuled,
  layGuide,
  moveGuide,
  rule,
  RULED,
  setGrid,
  type GuideAxis,
} from '~~/core/acts/guides.ts'
import { useOpenPiece } from '~/stores/open-piece.ts'

const store = useOpenPiece()
const piece = computed(() => store.piece)
const own = computed(() => guidesOf(piece.value))
const AXES: readonly (readonly [GuideAxis, string])[] = [
  ['x', 'Vertical'],
  ['y', 'Horizontal'],
]

function lay(axis: GuideAxis): void {
  const op = layGuide(piece.value, axis, 0)
  if (op) store.act(op)
  else store.say(`There are ${MOST_GUIDES} guides already; delete one first.`)
}
</script>

<template>
  <FoldSection page="piece" title="Guides">
    <TickField
      v-for="(label, what) in RULED"
      :key="what"
      :label="label"
      :value="isRuled(piece, what)"
      @set="store.act(rule(piece, what, $event))"
    />
    <NumberField
      v-if="piece.stage.grid"
      label="Grid spacing"
      :value="piece.stage.grid"
      unit="px"
      :low="1"
      @set="store.act(setGrid(piece, $event))"
    />
    <div v-for="[axis, says] in AXES" :key="axis" class="flex flex-col gap-1">
      <div v-for="(at, nth) in own[axis]" :key="nth" class="flex items-center gap-1">
        <NumberField
          class="flex-1"
          :label="`${says} guide ${nth + 1}`"
          :value="at"
          unit="px"
          @set="store.act(moveGuide(piece, axis, nth, $event))"
        />
        <button
          class="link p-1"
          type="button"
          :aria-label="`Delete ${says.toLowerCase()} guide ${nth + 1}`"
          @click="store.act(dropGuide(piece, axis, nth))"
        >
          <X :size="12" />
        </button>
      </div>
    </div>
    <p class="flex gap-3">
      <button class="link" type="button" @click="lay('x')">Vertical guide</button>
      <button class="link" type="button" @click="lay('y')">Horizontal guide</button>
    </p>
  </FoldSection>
</template>

<script setup lang="ts">
/** The desk: its pages, pulled up and down by its upper edge. */
import { sourceName, sourceOf } from '~~/core/acts/sources.ts'
import { follow } from '~/editor/follow.ts'
import { useSelection } from '~/stores/selection.ts'
import { timedOf } from '~/stores/listing.ts'
import { usePiece } from '~/stores/piece.ts'
import { DESK } from '~/stores/desk.ts'

const store = usePiece()
const hand = useSelection()
const inHand = computed(() => {
  const key = hand.drive
  return key && store.piece && sourceOf(store.piece, key) ? sourceName(store.piece, key) : ''
})
/** Px of the desk; null while it has its usual share of the window. */
const height = ref<number | null>(null)
const desk = useTemplateRef('desk')
const LEAST = 120
/** Px that stay for the stage, at least. */
const STAGE = 150
const tallest = () => Math.max(LEAST, desk.value!.parentElement!.clientHeight - STAGE)

function pull(e: PointerEvent): void {
  const from = desk.value!.offsetHeight + e.clientY
  const most = tallest()
  follow(
    e,
    m => (height.value = Math.min(most, Math.max(LEAST, from - m.clientY))),
    () => {},
  )
}
function step(e: KeyboardEvent): void {
  const by = { ArrowUp: 24, ArrowDown: -24 }[e.key]
  if (by === undefined) return
  e.preventDefault()
  e.stopPropagation()
  const most = tallest()
  height.value = Math.min(most, Math.max(LEAST, desk.value!.offsetHeight + by))
}
/** To full height, and back. */
function whole(): void {
  const most = tallest()
  height.value = height.value !== null && height.value >= most ? null : most
}
</script>

<template>
  <section
    ref="desk"
    class="relative flex shrink-0 flex-col border-t border-rule bg-sheet"
    :class="height === null ? 'h-[38%] max-h-[330px] min-h-[220px]' : ''"
    :style="height === null ? undefined : { height: `${height}px` }"
    aria-label="Desk"
  >
    <div
      class="absolute inset-x-0 top-[-4px] z-10 flex h-[8px] cursor-ns-resize touch-none justify-center"
      role="separator"
      aria-orientation="horizontal"
      aria-label="Upper edge of the desk"
      :aria-valuenow="height ?? 0"
      :aria-valuetext="height === null ? 'default height' : `${height} px`"
      tabindex="0"
      data-tip="Drag up or down; double-click for full height"
      @pointerdown="pull"
      @dblclick="whole"
      @keydown="step"
    >
      <span class="mt-[5px] h-[3px] w-10 border-y border-rule" aria-hidden="true" />
    </div>
    <div class="flex h-8 shrink-0 items-end gap-5 border-b border-rule px-4">
      <div class="flex gap-5" role="tablist" aria-label="Pages of the desk">
        <button
          v-for="page in DESK"
          :key="page.is"
          class="pb-[5px]"
          :class="hand.desk === page.is ? 'border-b-2 border-ink font-medium' : 'text-faded hover:text-ink'"
          type="button"
          role="tab"
          :aria-selected="hand.desk === page.is"
          :data-tip="page.title"
          @click="hand.desk = page.is"
        >
          {{ page.says }}
        </button>
      </div>
      <span v-if="hand.desk === 'scope' && inHand" class="tabular ml-auto pb-[6px] text-[12px] text-faded">{{
        inHand
      }}</span>
      <button
        v-else-if="hand.desk === 'part' && hand.part"
        class="link ml-auto pb-[6px]"
        type="button"
        @click="hand.choose(null)"
      >
        All parts, add one…
      </button>
    </div>
    <PartDesk v-if="hand.desk === 'part'" />
    <LazyLinksDesk v-else-if="hand.desk === 'links'" />
    <LazyLapDesk v-else-if="hand.desk === 'lap'" />
    <LazyPieceDesk v-else-if="hand.desk === 'piece'" />
    <LazyScopeDesk v-else-if="hand.drive && sourceOf(store.piece!, hand.drive)" :key="hand.drive" :drive="hand.drive" />
    <LazyTimedScope v-else-if="hand.drive && timedOf(hand.drive)" :key="hand.drive" v-bind="timedOf(hand.drive)!" />
    <EmptyNote v-else>
      The scope shows the selected entry large enough to grab its wave. Press an entry in the tide table.
    </EmptyNote>
  </section>
</template>

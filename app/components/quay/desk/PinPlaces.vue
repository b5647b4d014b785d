<script setup lang="ts">
/** Where the pin of a part may stand: its middle, its edges and corners. Where it stands now, the part stays. */
import { pinTo } from '~~/core/acts/stage-edits.ts'
import { halfOf } from '~/stage/grips.ts'
import { useSelection } from '~/stores/selection.ts'
import { useOpenPiece } from '~/stores/open-piece.ts'

const props = defineProps<{ id: string }>()
const store = useOpenPiece()
const hand = useSelection()
const PLACES = [
  ['top left', -1, 1],
  ['top', 0, 1],
  ['top right', 1, 1],
  ['left', -1, 0],
  ['middle', 0, 0],
  ['right', 1, 0],
  ['bottom left', -1, -1],
  ['bottom', 0, -1],
  ['bottom right', 1, -1],
] as const

function set(across: number, up: number): void {
  const scene = store.sceneNow()
  const body = scene.bodies.get(props.id)!
  const copy = Math.min(hand.instance, body.count - 1)
  const half = halfOf(body, copy)
  if (!half && (across || up)) {
    store.say(`${body.part.name} has no outline of its own: type its pivot, or drag it on the stage.`)
    return
  }
  const grip = { id: props.id, seat: scene.parentFrameOf(body, copy), world: body.worlds[copy]! }
  store.act(pinTo(store.piece, grip, across * (half?.[0] ?? 0), up * (half?.[1] ?? 0), store.player.now().seconds))
}
</script>

<template>
  <div class="flex items-center justify-between gap-2">
    <span class="text-faded">pivot at</span>
    <div class="grid grid-cols-3 gap-[2px]" role="group" aria-label="Place of the pivot">
      <button
        v-for="[says, across, up] in PLACES"
        :key="says"
        class="h-3 w-6 rounded-[2px] border border-rule hover:border-ink hover:bg-sheet"
        type="button"
        :aria-label="`Pivot at the ${says}`"
        :data-tip="`Pivot at the ${says}`"
        @click="set(across, up)"
      />
    </div>
  </div>
</template>

<script setup lang="ts">
/** Parts that leave the stage at some frame of the lap, each with its first moment. */
import type { OffStage } from '~~/core/insight/off-stage.ts'
import { toNumber } from '~~/core/time/rational.ts'
import { printNumber } from '~~/core/units/units.ts'
import { useSelection } from '~/stores/selection.ts'
import { useOpenPiece } from '~/stores/open-piece.ts'

const store = useOpenPiece()
const hand = useSelection()
const found = shallowRef<readonly OffStage[] | null>(null)
const looking = ref(false)
const told = ref('')

async function look(): Promise<void> {
  looking.value = true
  told.value = ''
  const first = Object.keys(store.piece.drives)[0] ?? ''
  const leaving = await store.ask(first, 'leaving')
  looking.value = false
  found.value = leaving
  told.value =
    leaving === null
      ? 'This takes too long to check. Fewer copies or a shorter lap would help.'
      : leaving.length === 0
        ? 'Nothing leaves the stage at any frame.'
        : ''
}
function show(l: OffStage): void {
  hand.choose(l.part, l.copy)
  store.player.play(false)
  store.player.goto(l.at)
}
const nameOf = (id: string) => store.piece.parts[id]?.name ?? id
</script>

<template>
  <section class="mt-3" aria-label="Off-stage parts">
    <p class="flex items-center gap-3">
      <span class="font-semibold">Off-stage parts</span>
      <button class="chip" type="button" :disabled="looking" @click="look">
        {{ looking ? 'checking …' : 'Check the lap' }}
      </button>
      <span v-if="told" :class="found ? 'text-kelp' : 'text-brass'" role="status">{{ told }}</span>
    </p>
    <ul v-if="found && found.length > 0" class="mt-1">
      <li v-for="l in found" :key="l.part" class="flex items-center gap-2 border-b border-rule py-1">
        <span class="w-[178px] truncate font-medium">{{ nameOf(l.part) }}</span>
        <span class="text-brass">{{ l.wholly ? 'is off the stage' : 'crosses the edge' }}</span>
        <button
          class="tabular ml-auto rounded-sm border border-rule px-2 text-[12px] hover:border-faded"
          type="button"
          data-tip="Go there"
          @click="show(l)"
        >
          at {{ printNumber(toNumber(l.at), 2) }} s
        </button>
      </li>
    </ul>
  </section>
</template>

<script setup lang="ts">
/** Copies and letters that overlap at some moment of the lap, part by part, each pair with its first moment. */
import { copyName } from '~~/core/engine/copy-name.ts'
import { MOST_OVERLAPS, type Overlap } from '~~/core/insight/overlaps.ts'
import { toNumber } from '~~/core/time/rational.ts'
import { printNumber } from '~~/core/units/units.ts'
import { useSelection } from '~/stores/selection.ts'
import { useOpenPiece } from '~/stores/open-piece.ts'

const store = useOpenPiece()
const hand = useSelection()
const found = shallowRef<readonly { id: string; name: string; touches: readonly Overlap[] }[] | null>(null)
/** Parts that took too long to be looked at. */
const given = ref<readonly string[]>([])
const looking = ref('')
let run = 0
/** Pairs of one part that are told at once, and the parts of which all are. */
const TOLD = 3
const all = ref(new Set<string>())
/** Whether there is anything that could overlap. */
const copied = computed(() =>
  Object.entries(store.piece.parts).filter(([id]) => store.program.instancesOf(id).count > 1),
)
const countText = (n: number): string =>
  n >= MOST_OVERLAPS
    ? `${n.toLocaleString('en')} pairs or more touch`
    : `${n} ${n === 1 ? 'pair touches' : 'pairs touch'}`
const pair = (id: string, t: Overlap) =>
  `${copyName(store.piece, id, t.a)} and ${copyName(store.piece, id, t.b)} at ${printNumber(toNumber(t.at), 2)} s`

async function look(): Promise<void> {
  const mine = ++run
  found.value = null
  given.value = []
  const list: { id: string; name: string; touches: readonly Overlap[] }[] = []
  const tooLong: string[] = []
  for (const [id, part] of copied.value) {
    looking.value = part.name
    const touches = await store.ask(id, 'touching')
    if (mine !== run) return
    if (!touches) tooLong.push(part.name)
    else if (touches.length > 0) list.push({ id, name: part.name, touches })
  }
  looking.value = ''
  given.value = tooLong
  found.value = list
}
function show(id: string, t: Overlap): void {
  hand.choose(id, t.a)
  store.player.play(false)
  store.player.goto(t.at)
}
onBeforeUnmount(() => run++)
</script>

<template>
  <section class="mt-3" aria-label="Overlaps">
    <p class="flex items-center gap-3">
      <span class="font-semibold">Overlaps</span>
      <span v-if="copied.length === 0" class="text-faded" role="status"
        >No part has copies or letters, so nothing can overlap.</span
      >
      <button v-else class="chip" type="button" :disabled="looking !== ''" @click="look">
        {{ looking ? `checking ${looking} …` : 'Check the lap' }}
      </button>
      <span v-if="copied.length > 0 && found && found.length + given.length === 0" class="text-kelp" role="status"
        >No copies overlap at any frame.</span
      >
    </p>
    <p v-if="given.length > 0" class="mt-1 text-brass" role="status">
      {{ given.join(', ') }}: this takes too long to check. Fewer copies or a shorter lap would help.
    </p>
    <ul v-if="found && found.length > 0" class="mt-1">
      <li v-for="f in found" :key="f.id" class="flex flex-wrap items-center gap-2 border-b border-rule py-1">
        <span class="w-[178px] truncate font-medium">{{ f.name }}</span>
        <span class="text-brass">{{ countText(f.touches.length) }}</span>
        <button
          v-for="t in all.has(f.id) ? f.touches : f.touches.slice(0, TOLD)"
          :key="`${t.a} ${t.b}`"
          class="tabular rounded-sm border border-rule px-2 text-[12px] hover:border-faded"
          type="button"
          data-tip="Go there"
          @click="show(f.id, t)"
        >
          {{ pair(f.id, t) }}
        </button>
        <button
          v-if="f.touches.length > TOLD && !all.has(f.id)"
          class="link text-[12px]"
          type="button"
          @click="all = new Set([...all, f.id])"
        >
          show {{ f.touches.length < MOST_OVERLAPS ? 'all ' : '' }}{{ f.touches.length }}
        </button>
      </li>
    </ul>
  </section>
</template>

<script setup lang="ts">
/** How many times a part looks the same in a turn: calculated and said why, or typed and kept. */
import { setPart } from '~~/core/acts/parts.ts'
import { symmetryIn, symmetryOf } from '~~/core/piece/symmetry.ts'
import { useOpenPiece } from '~/stores/open-piece.ts'

const props = defineProps<{ id: string }>()
const store = useOpenPiece()
const symmetry = computed(() => symmetryIn(store.piece, props.id))
const set = (turns: number) => store.act(setPart(store.piece, props.id, { symmetry: turns, symmetryTyped: true }))
function derive(): void {
  const { shape } = store.piece.parts[props.id]!
  store.act(setPart(store.piece, props.id, { symmetry: symmetryOf(shape), symmetryTyped: false }))
}
/** A change of pivot, fill, size or children that changes what is calculated is said. */
watch(
  () => [props.id, symmetry.value] as const,
  ([id, now], [before, old]) => {
    if (id !== before || now.typed || old.typed || now.turns === old.turns) return
    const times = now.turns === 1 ? 'only after a full turn' : `${now.turns} times in a turn`
    const why = now.because ? `: ${now.because}` : ''
    store.say(`${store.piece.parts[id]!.name} now looks the same ${times}${why}.`)
  },
)
</script>

<template>
  <NumberField
    label="symmetry"
    data-tip="How many times it looks the same in a full turn around its pivot, children included"
    :value="symmetry.turns"
    :low="1"
    :high="1000"
    whole
    @set="set"
  />
  <p class="text-right text-[12px] text-faded" data-symmetry>
    <template v-if="symmetry.typed"
      >typed, <button class="link" type="button" @click="derive">calculate</button></template
    >
    <template v-else>calculated{{ symmetry.because ? `: ${symmetry.because}` : '' }}</template>
  </p>
</template>

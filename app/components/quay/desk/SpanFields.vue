<script setup lang="ts">
/** The span of a part: its first and last moment. What is fitted to it follows when it is made longer. */
import { setPart } from '~~/core/acts/parts.ts'
import { useOpenPiece } from '~/stores/open-piece.ts'

const props = defineProps<{ id: string }>()
const store = useOpenPiece()
const span = computed(() => store.piece.parts[props.id]!.span)
/** From now for a lap, when it is given one. */
function toggle(is: boolean): void {
  const from = Number(store.player.now().seconds.toFixed(2))
  const { n, d } = store.piece.lap.length
  store.act(setPart(store.piece, props.id, { span: is ? { from, to: from + n / d } : null }))
}
function set(end: 'from' | 'to', value: number): void {
  const next = { ...span.value!, [end]: value }
  if (next.to <= next.from) {
    store.say('A span must end after it starts. The old one is kept.')
    return
  }
  store.act(setPart(store.piece, props.id, { span: next }))
}
</script>

<template>
  <span class="flex items-center gap-3">
    <TickField label="has a span" :value="span !== null" @set="toggle" />
    <OurWord word="span">span?</OurWord>
  </span>
  <template v-if="span">
    <NumberField
      label="span from"
      data-tip="When the part appears"
      :value="span.from"
      unit="s"
      :stride="0.1"
      @set="set('from', $event)"
    />
    <NumberField
      label="span to"
      data-tip="When the part disappears; formulas fitted to the span follow"
      :value="span.to"
      unit="s"
      :stride="0.1"
      @set="set('to', $event)"
    />
  </template>
</template>

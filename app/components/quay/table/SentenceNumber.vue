<script setup lang="ts">
/** A number within a sentence: pulled sideways, stepped with the arrow keys, typed after Enter. */
import { readQuantity } from '~~/core/formula/quantity.ts'
import type { SentencePart } from '~~/core/insight/sentence-part.ts'
import { printNumber } from '~~/core/units/units.ts'
import { MOST } from '~~/core/piece/values.ts'
import { strideDecimals, pullSideways } from '~/editor/sideways.ts'
import { useOpenPiece } from '~/stores/open-piece.ts'

const props = defineProps<{ word: Extract<SentencePart, { is: 'number' }> }>()
const store = useOpenPiece()
const typing = ref(false)
const typed = ref('')
const field = useTemplateRef('field')
const handle = useTemplateRef('handle')
const text = computed(() => printNumber(props.word.value, 4).replace('-', '−'))
const held = (v: number) => Math.min(MOST, Math.max(props.word.low ?? -MOST, v))

function put(value: number, decimals = 6): void {
  const next = held(Number(value.toFixed(decimals)))
  if (next !== props.word.value) store.act(props.word.set(next))
}
function grab(e: PointerEvent): void {
  if (e.button !== 0) return
  e.preventDefault()
  handle.value?.focus()
  const { value, stride } = props.word
  const decimals = (/\.(\d+)/.exec(String(value))?.[1] ?? '').length
  pullSideways(
    e,
    { value, stride, decimals },
    {
      begin: store.beginGesture,
      move: put,
      end: pulled => (pulled ? store.endGesture() : write()),
    },
  )
}
function step(e: KeyboardEvent, by: 1 | -1): void {
  const size = props.word.stride * (e.shiftKey ? 10 : 1) * (e.altKey ? 0.1 : 1)
  put(props.word.value + by * size, strideDecimals(size) + 2)
}
async function write(): Promise<void> {
  typed.value = text.value
  typing.value = true
  await nextTick()
  field.value?.select()
}
function done(): void {
  if (!typing.value) return
  typing.value = false
  if (typed.value.trim() === '' && props.word.remove) store.act(props.word.remove)
  else if (typed.value !== text.value) {
    const { value, says } = readQuantity(typed.value, props.word.unit, store.program.measures)
    if (value !== null) put(value)
    else store.say(says)
  }
  void nextTick(() => handle.value?.focus())
}
function leave(): void {
  typing.value = false
  void nextTick(() => handle.value?.focus())
}
function drop(): void {
  if (props.word.remove) store.act(props.word.remove)
}
</script>

<template>
  <input
    v-if="typing"
    ref="field"
    v-model="typed"
    class="field tabular h-5 w-16 px-1"
    :aria-label="word.label"
    @keydown.enter.stop="done"
    @keydown.esc.stop="leave"
    @blur="done"
  />
  <span
    v-else
    ref="handle"
    class="tabular cursor-ew-resize touch-none border-b-2 border-notch whitespace-nowrap"
    role="spinbutton"
    tabindex="0"
    :aria-label="word.label"
    :aria-valuenow="word.value"
    :aria-valuetext="`${text} ${word.unit}`"
    :data-tip="`${word.label}: drag sideways, arrow keys, Enter to type${word.remove ? ', Del to delete' : ''}`"
    @pointerdown="grab"
    @keydown.up.prevent.stop="step($event, 1)"
    @keydown.right.prevent.stop="step($event, 1)"
    @keydown.down.prevent.stop="step($event, -1)"
    @keydown.left.prevent.stop="step($event, -1)"
    @keydown.enter.prevent.stop="write"
    @keydown.delete.prevent.stop="drop"
    >{{ text }}{{ word.unit && ` ${word.unit}` }}</span
  >
</template>

<script setup lang="ts">
/**
 * A number in the unit of its field: typed, dragged sideways or stepped with the arrow keys. Any unit that fits and plain
 * arithmetic are read as formulas read them. What does not fit is explained beside the field and changes nothing.
 */
import { readQuantity } from '~~/core/formula/quantity.ts'
import { MOST } from '~~/core/piece/values.ts'
import { ONE, rational } from '~~/core/time/rational.ts'
import { printNumber } from '~~/core/units/units.ts'
import { strideDecimals, pullSideways } from '~/editor/sideways.ts'
import { usePiece } from '~/stores/piece.ts'

const props = withDefaults(
  defineProps<{
    label: string
    value: number | null
    unit?: string
    /** What one step adds; by the size of the value where it is left out. */
    stride?: number
    low?: number
    high?: number
    whole?: boolean
    decimals?: number
    readonly?: boolean
    placeholder?: string
    /** Sent also where it is what it was. */
    again?: boolean
    /** It may be left empty, which is none. */
    clears?: boolean
    /** Its limits can be moved: what lies beyond them is offered to be so. */
    widens?: boolean
  }>(),
  { unit: '', decimals: 4 },
)
const emit = defineEmits<{
  set: [value: number]
  /** What is being typed, before it is sent; null while it is no amount. */
  typing: [value: number | null]
  /** It is held by the pointer, and let go. */
  take: []
  release: []
  /** It was emptied. */
  clear: []
  /** The limits are to go as far as this. */
  widen: [value: number]
}>()
const store = usePiece()
const field = useTemplateRef('field')
const wrong = ref('')
/** What was typed beyond the limits. */
const beyond = ref<number | null>(null)
const id = useId()
const text = computed(() => (props.value === null ? '' : printNumber(props.value, props.decimals).replace('-', '−')))
/** Written by hand, not bound: a bound value is set again whenever the page is drawn, over what is being typed. */
function show(): void {
  if (field.value && field.value !== document.activeElement) field.value.value = text.value
}
onMounted(show)
watch(text, show, { flush: 'post' })
const measures = () => store.program?.measures ?? { frameRate: rational(30), lapLength: ONE }

/** Sends a number, held within the field's limits: that it was held is said. */
function send(value: number): void {
  const whole = props.whole ? Math.round(value) : value
  const held = Math.min(props.high ?? MOST, Math.max(props.low ?? -MOST, whole))
  wrong.value =
    held === whole
      ? ''
      : `${props.label} goes ${held < whole ? 'up' : 'down'} to ${printNumber(held, 4)}${props.unit}, so that’s what it is now.`
  beyond.value = held === whole ? null : whole
  if (held !== props.value || props.again) emit('set', held)
  void nextTick(() => field.value && (field.value.value = text.value))
}
let reads = 0
function read(): void {
  reads++
  const typed = field.value!.value
  if (!props.again && typed.replace('−', '-') === text.value.replace('−', '-')) {
    wrong.value = ''
    return
  }
  if (props.clears && typed.trim() === '') {
    wrong.value = ''
    return emit('clear')
  }
  const { value, says } = readQuantity(typed, props.unit, measures())
  if (value !== null) return send(value)
  wrong.value = says
  field.value!.value = text.value
}
function widen(): void {
  wrong.value = ''
  emit('widen', beyond.value!)
}
function type(): void {
  wrong.value = ''
  beyond.value = null
  emit('typing', readQuantity(field.value!.value, props.unit, measures()).value)
}
/** Enter reads what is typed; in a form the form is sent with it then, elsewhere the typing ends. */
function enter(): void {
  if (field.value!.form) return read()
  const before = reads
  field.value!.blur()
  // A field that was not changed tells nothing when it is left.
  if (props.again && reads === before) read()
}
const unitText = computed(() => (props.unit === 'deg' ? '°' : props.unit))
/** What one step adds. */
function strideNow(): number {
  if (props.stride !== undefined) return props.stride
  const size = Math.abs(props.value ?? 0)
  return props.whole || size >= 10 ? 1 : size >= 1 ? 0.1 : 0.01
}
function step(by: 1 | -1, e: KeyboardEvent): void {
  if (props.readonly || props.value === null) return
  e.preventDefault()
  e.stopPropagation()
  send(
    Number((props.value + by * strideNow() * (e.shiftKey ? 10 : 1) * (e.altKey && !props.whole ? 0.1 : 1)).toFixed(6)),
  )
}
/** A press that goes sideways drags the number; one that goes nowhere begins typing. */
function grab(e: PointerEvent): void {
  const input = field.value!
  if (e.button !== 0 || input === document.activeElement || props.readonly || input.disabled) return
  e.preventDefault()
  const stride = strideNow()
  const start = { value: props.value ?? 0, stride, decimals: props.whole ? 0 : strideDecimals(stride) }
  pullSideways(e, start, {
    begin: () => {
      emit('take')
      store.beginGesture()
    },
    move: (value, decimals) => send(Number(value.toFixed(props.whole ? 0 : decimals + 2))),
    end: pulled => {
      if (pulled) {
        store.endGesture()
        emit('release')
        return
      }
      input.focus()
      input.select()
    },
  })
}
/** Milliseconds that an explanation stands, since it covers what is below. */
const STANDS = 8000
watch(wrong, (says, _, onCleanup) => {
  if (says === '') return
  const timer = setTimeout(() => (wrong.value = ''), STANDS)
  onCleanup(() => clearTimeout(timer))
})
</script>

<template>
  <span class="relative inline-flex min-w-0 items-center">
    <input
      ref="field"
      class="w-full min-w-0 touch-pan-y bg-transparent text-right outline-none"
      :class="{ 'cursor-ew-resize focus:cursor-text': !readonly }"
      type="text"
      inputmode="decimal"
      autocomplete="off"
      :readonly="readonly"
      :placeholder="placeholder"
      :aria-label="label"
      :aria-invalid="wrong !== ''"
      :aria-describedby="wrong ? id : undefined"
      @pointerdown="grab"
      @change="read"
      @input="type"
      @keydown.enter="enter"
      @keydown.up="step(1, $event)"
      @keydown.down="step(-1, $event)"
    />
    <span v-if="unitText" class="ml-[3px] shrink-0 text-faded" aria-hidden="true">{{ unitText }}</span>
    <FieldWrong v-if="wrong" :id="id" :by="field" :says="wrong"
      ><button v-if="widens && beyond !== null" class="link ml-1" type="button" @click="widen">
        Widen range
      </button></FieldWrong
    >
  </span>
</template>

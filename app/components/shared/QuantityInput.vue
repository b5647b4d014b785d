<script setup lang="ts">
/**
 * A number that is typed, in the unit of its field: any unit that fits and plain arithmetic are read as formulas read
 * them. What does not fit is explained beside the field and changes nothing.
 */
import { readQuantity } from '~~/core/formula/quantity.ts'
import { MOST } from '~~/core/piece/values.ts'
import { ONE, rational } from '~~/core/time/rational.ts'
import { printNumber } from '~~/core/units/units.ts'
import { usePiece } from '~/stores/piece.ts'

const props = withDefaults(
  defineProps<{
    label: string
    value: number | null
    unit?: string
    low?: number
    high?: number
    whole?: boolean
    decimals?: number
    readonly?: boolean
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
  step: [by: 1 | -1, e: KeyboardEvent]
  /** It was emptied. */
  clear: []
  /** The limits are to go as far as this. */
  widen: [value: number]
}>()
/** Width of an explanation, in px. */
const WIDE = 260
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
      : `${props.label} goes ${held < whole ? 'up' : 'down'} to ${printNumber(held, 4)}${props.unit}; that is what it is now.`
  beyond.value = held === whole ? null : whole
  if (held !== props.value || props.again) emit('set', held)
  nextTick(() => field.value && (field.value.value = text.value))
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
/** Where the explanation stands: below the field, over whatever it lies in, within the window. */
const place = computed(() => {
  if (!wrong.value || !field.value) return {}
  const { right, bottom, top } = field.value.getBoundingClientRect()
  const left = Math.min(innerWidth - WIDE - 8, Math.max(8, right - WIDE))
  return bottom + 60 > innerHeight
    ? { left: `${left}px`, bottom: `${innerHeight - top + 4}px` }
    : { left: `${left}px`, top: `${bottom + 4}px` }
})
/** Milliseconds that an explanation stands, since it covers what is below. */
const STANDS = 8000
watch(wrong, (says, _, onCleanup) => {
  if (says === '') return
  const timer = setTimeout(() => (wrong.value = ''), STANDS)
  onCleanup(() => clearTimeout(timer))
})
defineExpose({ send })
</script>

<template>
  <span class="relative inline-flex min-w-0">
    <input
      ref="field"
      class="w-full min-w-0 bg-transparent text-right outline-none"
      type="text"
      inputmode="decimal"
      autocomplete="off"
      :readonly="readonly"
      :aria-label="label"
      :aria-invalid="wrong !== ''"
      :aria-describedby="wrong ? id : undefined"
      @change="read"
      @input="type"
      @keydown.enter="enter"
      @keydown.up="emit('step', 1, $event)"
      @keydown.down="emit('step', -1, $event)"
    />
    <span
      v-if="wrong"
      :id="id"
      :style="{ ...place, width: `${WIDE}px` }"
      class="fixed z-50 rounded-sm border border-coral bg-sheet px-2 py-1 text-left font-sans text-[12px] leading-4 whitespace-normal text-coral"
      role="alert"
      >{{ wrong
      }}<button v-if="widens && beyond !== null" class="link ml-1" type="button" @click="widen">
        Widen range
      </button></span
    >
  </span>
</template>

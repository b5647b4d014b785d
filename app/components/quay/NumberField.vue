<script setup lang="ts">
/** A number with its unit, typed or stepped with the arrow keys. What is no number goes back to what it was. */
import { MOST } from '~~/core/piece/values.ts'
import { printNumber } from '~~/core/units/units.ts'
import { usePiece } from '~/stores/piece.ts'

const props = defineProps<{
  label: string
  value: number
  unit?: string
  stride?: number
  low?: number
  high?: number
  whole?: boolean
  title?: string
}>()
const emit = defineEmits<{ set: [value: number] }>()
const store = usePiece()
const text = computed(() => printNumber(props.value, 4).replace('-', '−'))

function send(value: number, field: HTMLInputElement): void {
  const whole = props.whole ? Math.round(value) : value
  const held = Math.min(props.high ?? MOST, Math.max(props.low ?? -MOST, whole))
  if (held !== props.value) emit('set', held)
  if (held !== whole) {
    const end = `${printNumber(held, 4)}${props.unit ?? ''}`
    store.notice = { says: `${props.label} goes ${held < whole ? 'up' : 'down'} to ${end}; that is what it is now.` }
  }
  nextTick(() => (field.value = text.value))
}
function typed(e: Event): void {
  const field = e.target as HTMLInputElement
  const value = Number(
    field.value
      .trim()
      .replace(',', '.')
      .replace('−', '-')
      .replace(/[^\d.e+-]+$/i, ''),
  )
  // A word is no number: what was there comes back.
  if (/^\s*[-+−.,]*\d/.test(field.value) && Number.isFinite(value)) send(value, field)
  else field.value = text.value
}
function step(e: KeyboardEvent, by: 1 | -1): void {
  e.preventDefault()
  e.stopPropagation()
  const stride = (props.stride ?? 1) * (e.shiftKey ? 10 : 1) * (e.altKey && !props.whole ? 0.1 : 1)
  send(Number((props.value + by * stride).toFixed(6)), e.target as HTMLInputElement)
}
</script>

<template>
  <label class="flex min-w-0 items-center gap-2" :title="title">
    <span class="min-w-0 flex-1 truncate"
      ><slot>{{ label }}</slot></span
    >
    <span class="field tabular flex w-[86px] shrink-0 items-center justify-end !px-[6px] focus-within:border-sea">
      <input
        class="w-full min-w-0 bg-transparent text-right outline-none"
        type="text"
        inputmode="decimal"
        :aria-label="label"
        :value="text"
        @change="typed"
        @keydown.enter="($event.target as HTMLElement).blur()"
        @keydown.up="step($event, 1)"
        @keydown.down="step($event, -1)"
      />
      <span v-if="unit" class="ml-[3px] text-faded">{{ unit === 'deg' ? '°' : unit }}</span>
    </span>
  </label>
</template>

<script setup lang="ts">
/** A dial in its receiver's hand: words, value, a slide that stops at its locks. */
import type { Dial } from '~~/core/piece/schema.ts'
import { stepOf, type Lent } from '~~/core/piece/lent.ts'
import { printNumber } from '~~/core/units/units.ts'

const props = defineProps<{ lent: Lent; dial: Dial; value: number }>()
const emit = defineEmits<{ turn: [value: number] }>()
const step = computed(() => stepOf(props.dial, props.lent))
const share = computed(() => ((props.value - props.lent.low) / (props.lent.high - props.lent.low || 1)) * 100)
const number = (e: Event) => Number((e.target as HTMLInputElement).value)
</script>

<template>
  <label class="block min-w-0 py-1">
    <span class="flex items-baseline justify-between gap-2 text-[15px]">
      <span class="truncate">{{ lent.says }}</span>
      <span v-if="dial.type !== 'choice' && dial.type !== 'switch'" class="tabular"
        >{{ printNumber(value, 3) }}<span v-if="dial.unit" class="ml-1 text-faded">{{ dial.unit }}</span></span
      >
    </span>
    <select
      v-if="dial.type === 'choice'"
      class="field h-10 w-full"
      :aria-label="lent.says"
      :value="value"
      @change="emit('turn', number($event))"
    >
      <option v-for="(o, i) in dial.options ?? []" :key="i" :value="i" :disabled="i < lent.low || i > lent.high">
        {{ o }}
      </option>
    </select>
    <input
      v-else-if="dial.type === 'switch'"
      class="my-2 h-5 w-5"
      type="checkbox"
      :aria-label="lent.says"
      :checked="value >= 0.5"
      @change="emit('turn', ($event.target as HTMLInputElement).checked ? 1 : 0)"
    />
    <input
      v-else
      class="lent block w-full"
      type="range"
      :min="lent.low"
      :max="lent.high"
      :step="step"
      :value="value"
      :style="{ '--share': `${share}%` }"
      :aria-label="lent.says"
      @input="emit('turn', number($event))"
    />
  </label>
</template>

<style>
.lent {
  appearance: none;
  height: 36px;
  background: transparent;
  cursor: pointer;
}
.lent::-webkit-slider-runnable-track {
  height: 3px;
  background: linear-gradient(to right, var(--notch) var(--share), var(--rule) var(--share));
}
.lent::-webkit-slider-thumb {
  appearance: none;
  width: 16px;
  height: 26px;
  margin-top: -12px;
  border-radius: 3px;
  background: var(--brass);
}
.lent::-moz-range-track {
  height: 3px;
  background: linear-gradient(to right, var(--notch) var(--share), var(--rule) var(--share));
}
.lent::-moz-range-thumb {
  width: 16px;
  height: 26px;
  border: 0;
  border-radius: 3px;
  background: var(--brass);
}
</style>

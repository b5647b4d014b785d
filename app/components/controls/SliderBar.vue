<script setup lang="ts">
/** A value between two limits, slid along a track; the part before the thumb is filled. */
const props = defineProps<{
  label: string
  low: number
  high: number
  step: number
  disabled?: boolean
  /** For fingers. */
  large?: boolean
  /** A track of its own, such as the colours that can be chosen. */
  track?: string
}>()
const emit = defineEmits<{ done: [] }>()
const value = defineModel<number>({ required: true })
const share = computed(() => ((value.value - props.low) / (props.high - props.low || 1)) * 100)
</script>

<template>
  <input
    class="slider block w-full"
    :class="{ 'slider-large': large, 'slider-own': track }"
    type="range"
    :min="low"
    :max="high"
    :step="step"
    :value="value"
    :disabled="disabled"
    :aria-label="label"
    :style="{ '--share': `${share}%`, background: track }"
    @input="value = Number(($event.target as HTMLInputElement).value)"
    @change="emit('done')"
  />
</template>

<style>
.slider {
  --high: 14px;
  --wide: 8px;
  --thin: 2px;
  height: 16px;
  appearance: none;
  background: transparent;
  cursor: pointer;
}
.slider-large {
  --high: 26px;
  --wide: 16px;
  --thin: 3px;
  height: 36px;
}
.slider-own {
  --high: 20px;
  --thin: 14px;
  height: 14px;
  border-radius: 3px;
}
.slider:disabled {
  cursor: default;
  opacity: 0.5;
}
.slider::-webkit-slider-runnable-track {
  height: var(--thin);
  background: linear-gradient(to right, var(--notch) var(--share), var(--rule) var(--share));
}
.slider::-moz-range-track {
  height: var(--thin);
  background: linear-gradient(to right, var(--notch) var(--share), var(--rule) var(--share));
}
.slider-own::-webkit-slider-runnable-track {
  background: transparent;
}
.slider-own::-moz-range-track {
  background: transparent;
}
.slider::-webkit-slider-thumb {
  appearance: none;
  width: var(--wide);
  height: var(--high);
  margin-top: calc((var(--thin) - var(--high)) / 2);
  border-radius: 2px;
  background: var(--brass);
}
.slider::-moz-range-thumb {
  width: var(--wide);
  height: var(--high);
  border: 0;
  border-radius: 2px;
  background: var(--brass);
}
.slider-own::-webkit-slider-thumb {
  border: 2px solid var(--ink);
  background: var(--sheet);
}
.slider-own::-moz-range-thumb {
  border: 2px solid var(--ink);
  background: var(--sheet);
}
</style>

<script setup lang="ts">
/** Yes or no, with its words beside it; a box of ours. */
defineProps<{
  /** Its name, where the words beside it do not tell. */
  label?: string
  disabled?: boolean
  /** The words stand before the box, which stands at the far end. */
  before?: boolean
  /** Over a picture: with some room around it. */
  large?: boolean
}>()
const value = defineModel<boolean>({ required: true })
</script>

<template>
  <label class="flex items-center gap-2" :class="{ 'flex-row-reverse': before }">
    <input
      v-model="value"
      class="check-box"
      :class="{ 'check-box-large': large }"
      type="checkbox"
      :disabled="disabled"
      :aria-label="label"
    />
    <span v-if="$slots.default" class="min-w-0" :class="{ 'flex-1': before }"><slot /></span>
  </label>
</template>

<style>
.check-box {
  width: 1.15em;
  height: 1.15em;
  flex-shrink: 0;
  appearance: none;
  border: 1px solid var(--faded);
  border-radius: 3px;
  background: var(--sheet) center / 11px no-repeat;
  cursor: pointer;
}
.check-box:hover:not(:disabled) {
  border-color: var(--ink);
}
.check-box:checked {
  border-color: var(--ink);
  background-color: var(--ink);
}
/* The tick is cut out of a mask, so that it has the colour of the sheet by day and by night. */
.check-box:checked::before {
  content: '';
  display: block;
  width: 100%;
  height: 100%;
  background: var(--sheet);
  clip-path: polygon(16% 47%, 8% 56%, 40% 86%, 94% 24%, 84% 15%, 39% 67%);
}
.check-box-large {
  width: 20px;
  height: 20px;
}
.check-box:disabled {
  opacity: 0.5;
  cursor: default;
}
</style>

<script setup lang="ts">
/** A dial in its receiver's hand: words, value, a slide that stops at its locks. */
import type { Dial } from '~~/core/piece/schema.ts'
import { lentStep, type DialLoan } from '~~/core/piece/lent.ts'
import { printNumber } from '~~/core/units/units.ts'

const props = defineProps<{ lent: DialLoan; dial: Dial; value: number }>()
const emit = defineEmits<{ turn: [value: number] }>()
const step = computed(() => lentStep(props.dial, props.lent))
</script>

<template>
  <div class="block min-w-0 py-1">
    <span class="flex items-baseline justify-between gap-2 text-[15px]">
      <span class="truncate">{{ lent.says }}</span>
      <span v-if="dial.type !== 'choice' && dial.type !== 'switch'" class="tabular"
        >{{ printNumber(value, 3) }}<span v-if="dial.unit" class="ml-1 text-faded">{{ dial.unit }}</span></span
      >
    </span>
    <SelectBox
      v-if="dial.type === 'choice'"
      class="large-select w-full"
      :label="lent.says"
      :model-value="value"
      :of="(dial.options ?? []).map((says, i) => ({ value: i, says, disabled: i < lent.low || i > lent.high }))"
      @update:model-value="emit('turn', $event)"
    />
    <SwitchBox
      v-else-if="dial.type === 'switch'"
      class="my-1"
      large
      :label="lent.says"
      :model-value="value >= 0.5"
      @update:model-value="emit('turn', $event ? 1 : 0)"
    />
    <SliderBar
      v-else
      large
      :label="lent.says"
      :low="lent.low"
      :high="lent.high"
      :step="step"
      :model-value="value"
      @update:model-value="emit('turn', $event)"
    />
  </div>
</template>

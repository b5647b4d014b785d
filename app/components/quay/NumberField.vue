<script setup lang="ts">
/** A number with its unit and its name, typed or stepped with the arrow keys. */
const props = defineProps<{
  label: string
  value: number
  unit?: string
  stride?: number
  low?: number
  high?: number
  whole?: boolean
  title?: string
  /** Setting it to what it is already counts too. */
  again?: boolean
}>()
const emit = defineEmits<{ set: [value: number] }>()
const input = useTemplateRef('input')

function step(by: 1 | -1, e: KeyboardEvent): void {
  e.preventDefault()
  e.stopPropagation()
  const stride = (props.stride ?? 1) * (e.shiftKey ? 10 : 1) * (e.altKey && !props.whole ? 0.1 : 1)
  input.value!.send(Number((props.value + by * stride).toFixed(6)))
}
</script>

<template>
  <label class="flex min-w-0 items-center gap-2" :title="title">
    <span class="min-w-0 flex-1 truncate"
      ><slot>{{ label }}</slot></span
    >
    <span class="field tabular flex w-[86px] shrink-0 items-center justify-end !px-[6px] focus-within:border-sea">
      <QuantityInput
        ref="input"
        class="w-full"
        :label="label"
        :value="value"
        :unit="unit"
        :low="low"
        :high="high"
        :whole="whole"
        :again="again"
        @set="emit('set', $event)"
        @step="step"
      />
      <span v-if="unit" class="ml-[3px] text-faded">{{ unit === 'deg' ? '°' : unit }}</span>
    </span>
  </label>
</template>

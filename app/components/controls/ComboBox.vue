<script setup lang="ts">
/** One of many, found by typing; where it is open, also a word that is not among them. */
import { Combobox, ComboboxInput, ComboboxOption, ComboboxOptions } from '@headlessui/vue'
import { Check, ChevronDown } from '@lucide/vue'
import { matching } from '~~/core/manual/matching.ts'
import type { Choice } from './choices.ts'
import { vFloat } from './floating.ts'

const props = defineProps<{
  label: string
  of: readonly Choice[]
  disabled?: boolean
  placeholder?: string
  /** Any text may be given. */
  open?: boolean
}>()
const value = defineModel<string>({ required: true })
const root = useTemplateRef('root')
const words = ref('')
/** How many are listed at most: typing narrows them down. */
const MOST = 200

const field = () => root.value?.querySelector('input')
/** Opens the list, as the arrow key does. */
const list = () => field()?.dispatchEvent(new KeyboardEvent('keydown', { key: 'ArrowDown', bubbles: true }))
const says = (v: unknown): string => props.of.find(c => c.value === v)?.says ?? (props.open ? String(v ?? '') : '')
const found = computed(() => {
  if (words.value.trim() === '') return props.of.slice(0, MOST)
  return matching(
    words.value,
    props.of.map(c => ({ ...c, name: c.says })),
    MOST,
  )
})
const heads = computed(() =>
  words.value === '' ? found.value.map((c, k) => (c.group !== found.value[k - 1]?.group ? c.group : undefined)) : [],
)
const more = computed(() => (words.value.trim() === '' ? Math.max(0, props.of.length - MOST) : 0))
function choose(v: string | null): void {
  words.value = ''
  if (v !== null) value.value = v
}
/** What was typed counts at once where any text may be given. */
function type(text: string): void {
  words.value = text
  if (props.open) value.value = text
}
</script>

<template>
  <span ref="root" class="field inline-flex min-w-0 items-center !pr-1 focus-within:border-sea">
    <Combobox v-slot="{ open: listed }" :model-value="value" :disabled="disabled" @update:model-value="choose">
      <ComboboxInput
        class="w-full min-w-0 truncate bg-transparent outline-none disabled:opacity-50"
        :aria-label="label"
        :placeholder="placeholder"
        :display-value="says"
        :data-value="value"
        autocomplete="off"
        @change="type($event.target.value)"
        @focus="($event.target as HTMLInputElement).select()"
        @blur="words = ''"
        @click="listed || list()"
      />
      <ChevronDown
        :size="13"
        class="shrink-0 cursor-pointer text-faded"
        aria-hidden="true"
        @pointerdown.prevent="field()?.focus()"
        @click="listed || list()"
      />
      <ComboboxOptions
        v-if="found.length > 0 || !open"
        v-float="{ by: root, wide: true }"
        class="panel list-panel"
        :aria-label="label"
        @click.prevent
      >
        <template v-for="(c, k) in found" :key="c.value">
          <li v-if="heads[k]" class="px-2 pt-2 pb-[2px] text-[12px] text-faded" role="presentation">{{ heads[k] }}</li>
          <ComboboxOption v-slot="{ active, selected }" :value="c.value" :disabled="c.disabled" as="template">
            <li class="list-choice" :class="{ 'bg-band': active }" :data-value="c.value">
              <Check :size="13" :class="{ invisible: !selected }" aria-hidden="true" />{{ c.says }}
            </li>
          </ComboboxOption>
        </template>
        <li v-if="more > 0" class="px-2 py-1 text-[12px] text-faded" role="presentation">
          {{ more }} more: type to narrow the list
        </li>
        <li v-if="found.length === 0" class="px-2 py-1 text-faded" role="status">No results.</li>
      </ComboboxOptions>
    </Combobox>
  </span>
</template>

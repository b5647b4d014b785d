<script setup lang="ts" generic="T extends string | number">
/** One of a few: a button that shows what is chosen, and its list. */
import { Listbox, ListboxButton, ListboxOption, ListboxOptions } from '@headlessui/vue'
import { Check, ChevronDown } from '@lucide/vue'
import type { Choice } from './choices.ts'
import { vFloat } from './floating.ts'

const props = defineProps<{
  label: string
  of: readonly Choice<T>[]
  disabled?: boolean
  /** Within a line of text: without a frame. */
  inline?: boolean
  /** Shown where what is chosen is none of the choices. */
  none?: string
}>()
const value = defineModel<T>({ required: true })
const root = useTemplateRef('root')
const chosen = computed(() => props.of.find(c => c.value === value.value))
/** Groups are headed where their first choice is. */
const heads = computed(() => props.of.map((c, k) => (c.group !== props.of[k - 1]?.group ? c.group : undefined)))
const button = () => root.value?.querySelector<HTMLElement>('[role="combobox"]') ?? null
</script>

<template>
  <span ref="root" class="inline-flex min-w-0">
    <Listbox v-model="value" :disabled="disabled">
      <ListboxButton
        role="combobox"
        class="flex w-full min-w-0 items-center gap-1 text-left"
        :class="
          inline
            ? 'rounded-sm border-b border-dotted border-faded hover:border-ink'
            : 'field disabled:opacity-50 [&:not(:disabled)]:cursor-pointer'
        "
        :aria-label="label"
        :data-value="value"
      >
        <span class="min-w-0 flex-1 truncate"
          ><slot name="chosen" :chosen="chosen">{{ chosen?.says ?? none ?? value }}</slot></span
        >
        <ChevronDown :size="inline ? 11 : 13" class="shrink-0 text-faded" aria-hidden="true" />
      </ListboxButton>
      <ListboxOptions v-float="{ by: button, wide: true }" class="panel list-panel" :aria-label="label" @click.prevent>
        <template v-for="(c, k) in of" :key="c.value">
          <li v-if="heads[k]" class="px-2 pt-2 pb-[2px] text-[12px] text-faded" role="presentation">{{ heads[k] }}</li>
          <ListboxOption v-slot="{ active, selected }" :value="c.value" :disabled="c.disabled" as="template">
            <li class="list-choice" :class="{ 'bg-band': active, 'opacity-50': c.disabled }" :data-value="c.value">
              <Check :size="13" :class="{ invisible: !selected }" aria-hidden="true" /><slot :choice="c">{{
                c.says
              }}</slot>
            </li>
          </ListboxOption>
        </template>
      </ListboxOptions>
    </Listbox>
  </span>
</template>

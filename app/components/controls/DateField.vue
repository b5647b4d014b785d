<script setup lang="ts">
/** A day, or none: typed as 2027-03-12 or 12 Mar 2027, or chosen from a month. `''` is none. */
import { Popover, PopoverButton, PopoverPanel } from '@headlessui/vue'
import { Calendar, ChevronLeft, ChevronRight, X } from '@lucide/vue'
import { dayOf, daysOf, isoOf, readDay, shiftDay } from './days.ts'
import { vFloat } from './floating.ts'

defineProps<{ label: string }>()
const value = defineModel<string>({ required: true })
const wrong = ref('')
const root = useTemplateRef('root')
const grid = useTemplateRef('grid')
const today = isoOf(new Date())
/** The day that the keys are on: the chosen one, until they go elsewhere. */
const at = ref(value.value || today)
watch(value, day => (at.value = day || today))
const days = computed(() => daysOf(at.value))
const month = computed(() =>
  dayOf(at.value).toLocaleDateString('en-GB', { month: 'long', year: 'numeric', timeZone: 'UTC' }),
)
const says = (iso: string) =>
  iso === ''
    ? ''
    : dayOf(iso).toLocaleDateString('en-GB', { day: 'numeric', month: 'short', year: 'numeric', timeZone: 'UTC' })

function read(e: Event): void {
  const field = e.target as HTMLInputElement
  const day = readDay(field.value)
  wrong.value = day === null ? `“${field.value.slice(0, 20)}” isn’t a day. Type one such as ${says(today)}.` : ''
  if (day !== null) value.value = day
  field.value = says(value.value)
}
async function go(by: { days?: number; months?: number }): Promise<void> {
  at.value = shiftDay(at.value, by)
  await nextTick()
  grid.value?.querySelector<HTMLElement>('[tabindex="0"]')?.focus()
}
const KEYS: Readonly<Record<string, { days?: number; months?: number }>> = {
  ArrowLeft: { days: -1 },
  ArrowRight: { days: 1 },
  ArrowUp: { days: -7 },
  ArrowDown: { days: 7 },
  PageUp: { months: -1 },
  PageDown: { months: 1 },
}
function key(e: KeyboardEvent): void {
  const by = KEYS[e.key]
  if (!by) return
  e.preventDefault()
  void go(by)
}
function choose(iso: string, close: () => void): void {
  value.value = iso
  wrong.value = ''
  close()
}
</script>

<template>
  <span ref="root" class="field inline-flex w-[148px] items-center gap-1 !pr-1 focus-within:border-sea">
    <input
      class="w-full min-w-0 bg-transparent outline-none"
      :aria-label="label"
      :aria-invalid="wrong !== ''"
      placeholder="no end"
      autocomplete="off"
      :value="says(value)"
      @change="read"
      @keydown.enter.prevent="read"
    />
    <button
      v-if="value !== ''"
      class="text-faded hover:text-ink"
      type="button"
      :aria-label="`${label}: none`"
      @click="value = ''"
    >
      <X :size="13" />
    </button>
    <Popover v-slot="{ close }">
      <PopoverButton class="block text-faded hover:text-ink" :aria-label="`${label}: choose a day`"
        ><Calendar :size="14"
      /></PopoverButton>
      <PopoverPanel v-float="{ by: root }" class="panel w-[236px] p-2" focus>
        <div class="mb-1 flex items-center gap-1">
          <IconButton label="Previous month" small @click="go({ months: -1 })"><ChevronLeft :size="14" /></IconButton>
          <span class="flex-1 text-center font-medium" aria-live="polite">{{ month }}</span>
          <IconButton label="Next month" small @click="go({ months: 1 })"><ChevronRight :size="14" /></IconButton>
        </div>
        <div ref="grid" class="grid grid-cols-7 text-center" role="group" :aria-label="month" @keydown="key">
          <span v-for="d in ['Mo', 'Tu', 'We', 'Th', 'Fr', 'Sa', 'Su']" :key="d" class="text-[11px] text-faded">{{
            d
          }}</span>
          <button
            v-for="d in days"
            :key="d.iso"
            class="tabular h-7 rounded-sm"
            :class="[
              d.iso === value ? 'bg-ink text-sheet' : 'hover:bg-band',
              { 'text-faded': !d.within && d.iso !== value, 'font-semibold': d.iso === today },
            ]"
            type="button"
            :tabindex="d.iso === at ? 0 : -1"
            :aria-label="says(d.iso)"
            :aria-pressed="d.iso === value"
            @click="choose(d.iso, close)"
          >
            {{ d.day }}
          </button>
        </div>
      </PopoverPanel>
    </Popover>
    <FieldWrong v-if="wrong" :by="root" :says="wrong" />
  </span>
</template>

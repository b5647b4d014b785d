<script setup lang="ts">
/** Drive…: which property, and in plain words what it should do; each with the curve that it would draw. */
import { drivenProperty, propertyKey } from '~~/core/piece/drive-key.ts'
import { Popover, PopoverButton, PopoverPanel } from '@headlessui/vue'
import { sourceName } from '~~/core/acts/sources.ts'
import { STARTERS, likelyFirst, type Starter } from '~~/core/acts/starters.ts'
import { propertiesOf, propertyNamed } from '~~/core/piece/properties.ts'
import { sameKind } from '~~/core/units/kinds.ts'
import { previewPath } from '~/player/preview.ts'
import { useDriving } from '~/commands/driving.ts'
import { useSelection } from '~/stores/selection.ts'
import { useOpenPiece } from '~/stores/open-piece.ts'
import { choicesOf, plainChoices } from '~/components/controls/choices.ts'

const props = defineProps<{ part: string }>()
const store = useOpenPiece()
const hand = useSelection()
const driving = useDriving()

const name = computed(() => store.piece.parts[props.part]!.name)
const all = computed(() => likelyFirst(propertiesOf(store.piece.parts[props.part]!.shape.type)))
const free = computed(() => all.value.filter(p => !store.piece.drives[propertyKey(props.part, p.name)]))
const picked = ref('')
const property = computed(() =>
  propertyNamed(
    picked.value && free.value.some(p => p.name === picked.value) ? picked.value : (free.value[0]?.name ?? 'rotation'),
  )!,
)
/** The other of two axes. */
const OTHER: Readonly<Record<string, string>> = { x: 'y', y: 'x', scaleX: 'scaleY', scaleY: 'scaleX' }
const other = computed(() => {
  const name = OTHER[property.value.name]
  return name && free.value.some(p => p.name === name) ? name : null
})
const together = ref<'alone' | 'alike' | 'own'>('alone')
const own = computed(() => propertyKey(props.part, property.value.name))
/** What it can follow: formulas of its kind first, then the same property of other parts, whatever moves those. */
const drivers = computed(() => {
  const { drives, parts } = store.piece
  const fits = (key: string) => {
    const of = propertyNamed(drivenProperty(key))
    return of && key !== own.value && sameKind(of.kind, property.value.kind)
  }
  const driven = Object.keys(drives).filter(fits)
  const { name } = property.value
  const others = Object.entries(parts)
    .filter(
      ([id, p]) =>
        id !== props.part && !drives[propertyKey(id, name)] && propertiesOf(p.shape.type).some(q => q.name === name),
    )
    .map(([id]) => propertyKey(id, name))
  return { 'with a formula': driven, 'at its set value': others.slice(0, MOST_SET) }
})
const MOST_SET = 300
const anyDriver = computed(() => Object.values(drivers.value).flat())
const driver = ref('')
const followed = computed(() => (anyDriver.value.includes(driver.value) ? driver.value : (anyDriver.value[0] ?? '')))
const offered = computed(() => STARTERS.filter(s => s.needs !== 'driver' || anyDriver.value.length > 0))
const button = useTemplateRef<{ $el: HTMLElement }>('button')
const at = ref({ left: 0, top: 0, height: 0 })
const WIDE = 420

function place(): void {
  const box = button.value!.$el.getBoundingClientRect()
  const below = innerHeight - box.bottom - 12
  const above = box.top - 12
  const height = Math.min(560, Math.max(below, above))
  at.value = {
    left: Math.max(8, Math.min(box.right - 300, innerWidth - WIDE - 8)),
    top: below >= above ? box.bottom + 4 : Math.max(8, box.top - height - 4),
    height,
  }
}

/** Patterns open for this part, or for all that are chosen with it. */
function pattern(close: () => void): void {
  if (!hand.chosen.includes(props.part)) hand.choose(props.part)
  close()
  hand.patterns = true
}

function start(starter: Starter, close: () => void): void {
  const names = together.value === 'alone' || !other.value ? [property.value.name] : [property.value.name, other.value]
  driving.begin(props.part, names, starter, followed.value, together.value === 'alike')
  if (starter.name === 'gesture') hand.desk = 'scope'
  close()
}
</script>

<template>
  <Popover v-slot="{ open, close }">
    <PopoverButton ref="button" class="link" data-driving :aria-label="`Drive a property of ${name}`" @click="place"
      >Drive…</PopoverButton
    >
    <Teleport v-if="open" to="body">
      <PopoverPanel
        static
        class="panel fixed z-40 flex flex-col p-3"
        :style="{ left: `${at.left}px`, top: `${at.top}px`, width: `${WIDE}px`, maxHeight: `${at.height}px` }"
        :focus="true"
      >
        <p class="mb-2 font-medium">What should {{ name }} do?</p>
        <div class="mb-2 flex flex-wrap items-center gap-2">
          <label class="flex flex-1 items-center gap-2">
            <span class="text-faded">Property</span>
            <ComboBox
              class="flex-1"
              label="Property"
              :model-value="property.name"
              :of="plainChoices(free.map(p => p.name))"
              @update:model-value="picked = $event"
            />
          </label>
          <SelectBox
            v-if="other"
            v-model="together"
            label="The other axis"
            :of="
              choicesOf({
                alone: `${property.name} only`,
                alike: `and ${other}, alike`,
                own: `and ${other}, each with its own seed`,
              })
            "
          />
        </div>
        <div class="grid min-h-0 grid-cols-3 gap-2 overflow-y-auto p-[2px]">
          <button
            v-for="s in offered"
            :key="s.name"
            class="rounded-md border border-rule p-2 text-left hover:border-sea focus-visible:border-sea"
            type="button"
            :data-starter="s.name"
            :data-tip="s.says"
            @click="start(s, close)"
          >
            <svg
              viewBox="0 0 120 44"
              class="starter mb-1 block w-full rounded-sm bg-band"
              fill="none"
              aria-hidden="true"
            >
              <path :d="previewPath(s.text(property), property)" stroke="var(--sea)" stroke-width="2.500" />
              <line class="starter-nib" y1="0" y2="44" stroke="var(--ink)" stroke-width="1.500" />
            </svg>
            <span class="block font-medium">{{ s.title(property) }}</span>
            <span class="block text-[12px] leading-4 text-faded">{{ s.says }}</span>
          </button>
        </div>
        <label v-if="anyDriver.length > 0" class="mt-2 flex items-center gap-2">
          <span class="text-faded">Property to follow</span>
          <ComboBox
            class="min-w-0 flex-1"
            label="Followed property"
            :model-value="followed ?? ''"
            :of="
              Object.entries(drivers).flatMap(([group, keys]) =>
                keys.map(value => ({ value, says: sourceName(store.piece, value), group })),
              )
            "
            @update:model-value="driver = $event"
          />
        </label>
        <button class="link mt-2 self-start" type="button" @click="pattern(close)">Apply a pattern…</button>
      </PopoverPanel>
    </Teleport>
  </Popover>
</template>

<style>
.starter-nib {
  animation: starter-run 4s linear infinite;
}
@keyframes starter-run {
  from {
    transform: translateX(0);
  }
  to {
    transform: translateX(120px);
  }
}
</style>

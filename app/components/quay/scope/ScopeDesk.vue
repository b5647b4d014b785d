<script setup lang="ts">
/** The scope: the drive in hand, large enough to take hold of; at its side its values as numbers. */
import { splitDriveKey } from '~~/core/piece/drive-key.ts'
import { takesBeside } from '~~/core/insight/compare-takes.ts'
import { sourcesOf } from '~~/core/insight/wave-handles.ts'
import type { DriveJumps } from '~~/core/insight/drive-facts.ts'
import { DASHES, partsOf, type ScopePart } from '~/player/scope-layers.ts'
import type { ScopeQuantity } from '~/player/scope.ts'
import { useCommandKeys } from '~/commands/keys.ts'
import { offerTarget } from '~/commands/targets.ts'
import { useSelection } from '~/stores/selection.ts'
import { useOpenPiece } from '~/stores/open-piece.ts'
import type ScopeSheet from './ScopeSheet.vue'

const props = defineProps<{ drive: string }>()
const store = useOpenPiece()
const hand = useSelection()
const sheet = useTemplateRef<InstanceType<typeof ScopeSheet>>('sheet')
const SHOWN: readonly ScopeQuantity[] = ['value', 'speed', 'acceleration']
const shown = ref<ScopeQuantity>('value')
const ghostly = ref(true)
const source = ref(0)
/** Keyframes under the formula, and whether they are looked at. */
const place = computed(() => {
  const [part, property] = splitDriveKey(props.drive)
  return property && store.piece.bases[props.drive]?.keys ? { part, property } : null
})
const keyed = ref(false)
const slot = computed(() => store.program.slots.get(props.drive))
const copy = computed(() => {
  const mine = hand.part !== null && props.drive.startsWith(`${hand.part}.`)
  return mine ? Math.min(hand.instance, (slot.value?.count ?? 1) - 1) : 0
})
const sources = computed(() => (slot.value ? sourcesOf(store.program, props.drive) : []))
watch(sources, all => {
  if (source.value >= all.length) source.value = 0
})
/** The terms of its sum, shown apart when asked for. */
const apart = ref(false)
const terms = computed(() => (slot.value ? partsOf(store.program, props.drive, copy.value) : []))
/** The takes that do not run, as curves beside the one that does. */
const compared = ref(false)
const others = computed(() => (slot.value ? takesBeside(store.program, props.drive, copy.value) : []))
const parts = computed(() =>
  apart.value || compared.value
    ? [...(apart.value ? terms.value : NONE), ...(compared.value ? others.value : NONE)]
    : NONE,
)
const NONE: readonly ScopePart[] = []
const leaps = shallowRef<DriveJumps['at']>([])
let asked = 0
watch(
  slot,
  async () => {
    const mine = ++asked
    const found = await store.ask(props.drive, 'leaping')
    if (mine === asked) leaps.value = found?.at ?? []
  },
  { immediate: true },
)
onBeforeUnmount(() => asked++)
offerTarget('scope', { fit: () => sheet.value?.fit(), ghost: () => (ghostly.value = !ghostly.value) })
const { withKeys } = useCommandKeys()
</script>

<template>
  <div v-if="keyed && place" class="flex min-h-0 flex-1 flex-col">
    <div class="flex shrink-0 px-4 pt-2">
      <button class="chip chip-on" type="button" aria-pressed="true" @click="keyed = false">keyframes</button>
    </div>
    <LazyKeysScope v-bind="place" />
  </div>
  <div v-else class="flex min-h-0 flex-1">
    <div class="flex min-w-0 flex-1 flex-col">
      <div class="flex shrink-0 flex-wrap items-center gap-1 px-4 pt-2">
        <button
          v-for="s in SHOWN"
          :key="s"
          class="chip"
          :class="{ 'chip-on': shown === s }"
          type="button"
          :aria-pressed="shown === s"
          @click="shown = s"
        >
          {{ s }}
        </button>
        <button
          class="chip ml-2"
          :class="{ 'chip-on': ghostly }"
          type="button"
          :data-tip="withKeys('Show the curve before the change', 'Curve before the change')"
          :aria-pressed="ghostly"
          @click="ghostly = !ghostly"
        >
          ghost
        </button>
        <button
          v-if="terms.length > 0"
          class="chip"
          :class="{ 'chip-on': apart }"
          type="button"
          data-tip="Show the parts of the sum as separate curves"
          :aria-pressed="apart"
          @click="apart = !apart"
        >
          parts
        </button>
        <button
          v-if="others.length > 0"
          class="chip"
          :class="{ 'chip-on': compared }"
          type="button"
          data-tip="Show the other takes as curves"
          :aria-pressed="compared"
          @click="compared = !compared"
        >
          takes
        </button>
        <button
          class="chip"
          type="button"
          :data-tip="withKeys('Fit everything', 'Fit the curve')"
          @click="sheet?.fit()"
        >
          fit
        </button>
        <button
          class="chip"
          type="button"
          aria-label="More time"
          data-tip="More time (Ctrl wheel)"
          @click="sheet?.zoom(1 / 1.5)"
        >
          −
        </button>
        <button
          class="chip"
          type="button"
          aria-label="Less time"
          data-tip="Less time (Ctrl wheel)"
          @click="sheet?.zoom(1.5)"
        >
          +
        </button>
        <button v-if="place" class="chip" type="button" aria-pressed="false" @click="keyed = true">keyframes</button>
        <SelectBox
          v-if="sources.length > 1"
          v-model="source"
          class="tabular ml-auto max-w-[240px]"
          label="Handles of"
          data-tip="Which source the handles belong to"
          :of="sources.map((s, i) => ({ value: i, says: s.text.slice(0, 60) }))"
        />
      </div>
      <ul v-if="parts.length > 0" class="flex flex-wrap gap-x-4 px-4 pt-1 text-[12px] text-faded" aria-label="Parts">
        <li v-for="(p, i) in parts" :key="i" class="flex max-w-[260px] items-center gap-1">
          <svg width="26" height="6" aria-hidden="true">
            <line
              x2="26"
              y1="3"
              y2="3"
              stroke="var(--faded)"
              stroke-width="1.500"
              :stroke-dasharray="DASHES[i % DASHES.length]!.join(' ')"
            />
          </svg>
          <span class="tabular truncate">{{ p.text }}</span>
        </li>
      </ul>
      <ScopeSheet
        ref="sheet"
        :drive="drive"
        :copy="copy"
        :shown="shown"
        :ghostly="ghostly"
        :source="source"
        :parts="parts"
        :leaps="leaps"
      />
    </div>
    <ScopeValues :drive="drive" :copy="copy" />
  </div>
</template>

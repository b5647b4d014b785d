<script setup lang="ts">
/** A link between any two properties, with or without a formula so far; a dial or a signal may drive too. */
import { propertyKey, signalKey } from '~~/core/piece/drive-key.ts'
import { propertiesOf, propertyNamed } from '~~/core/piece/properties.ts'
import { sameKind } from '~~/core/units/kinds.ts'
import { useSelection } from '~/stores/selection.ts'
import { useLinking } from '~/commands/linking.ts'
import { useOpenPiece } from '~/stores/open-piece.ts'
import { plainChoices, type Choice } from '~/components/controls/choices.ts'

const emit = defineEmits<{ linked: [to: { driver: string; driven: string }] }>()
const store = useOpenPiece()
const hand = useSelection()
const linking = useLinking()
const parts = computed(() => Object.entries(store.piece.parts))
const first = computed(() => parts.value[0]?.[0] ?? '')
/** What drives: a part's id, `dials/` or `~` with the id of a dial or signal. */
const from = ref(hand.part ?? first.value)
const fromProperty = ref('rotation')
const to = ref(parts.value.find(([id]) => id !== from.value)?.[0] ?? first.value)
const toProperty = ref('rotation')
/** All that can drive: parts, dials and signals. */
const drivers = computed<Choice[]>(() => {
  const { dials, signals } = store.piece
  return [
    ...parts.value.map(([value, p]) => ({ value, says: p.name, group: 'parts' })),
    ...Object.entries(dials).map(([id, d]) => ({ value: `dials/${id}`, says: d.name, group: 'dials' })),
    ...Object.entries(signals).map(([id, s]) => ({ value: signalKey(id), says: s.name, group: 'signals' })),
  ]
})
/** A part is chosen by its property, all else is one value. */
const isPart = computed(() => !!store.piece.parts[from.value])
const names = (id: string) => propertiesOf(store.piece.parts[id]?.shape.type ?? 'group').map(p => p.name)
const driver = computed(() => (isPart.value ? propertyKey(from.value, fromProperty.value) : from.value))
const driven = computed(() => propertyKey(to.value, toProperty.value))
const says = computed(() => {
  if (!isPart.value) return ''
  const [a, b] = [propertyNamed(fromProperty.value), propertyNamed(toProperty.value)]
  return a && b && !sameKind(a.kind, b.kind) ? 'Their units differ: 1 of one counts as 1 of the other.' : ''
})

// A property that the other part does not have gives way to one that it has.
watchEffect(() => {
  if (isPart.value && !names(from.value).includes(fromProperty.value)) fromProperty.value = names(from.value)[0]!
  if (!names(to.value).includes(toProperty.value)) toProperty.value = names(to.value)[0]!
})

function link(): void {
  if (linking.join(driver.value, driven.value)) emit('linked', { driver: driver.value, driven: driven.value })
}
</script>

<template>
  <form class="flex flex-wrap items-center gap-2 px-4 pt-2" aria-label="New link" @submit.prevent="link">
    <ComboBox v-model="from" class="w-[150px]" label="What drives" :of="drivers" />
    <ComboBox
      v-if="isPart"
      v-model="fromProperty"
      class="w-[132px]"
      label="By its property"
      :of="plainChoices(names(from))"
    />
    <span class="text-faded">drives</span>
    <ComboBox
      v-model="to"
      class="w-[150px]"
      label="What follows"
      :of="parts.map(([id, p]) => ({ value: id, says: p.name }))"
    />
    <ComboBox v-model="toProperty" class="w-[132px]" label="Its property" :of="plainChoices(names(to))" />
    <button class="button" type="submit" :disabled="parts.length === 0">Link</button>
    <span class="basis-full text-[12px] text-faded empty:hidden">{{ says }}</span>
  </form>
</template>

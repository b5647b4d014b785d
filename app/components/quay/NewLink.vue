<script setup lang="ts">
/** A link between any two properties, with or without a formula so far; a dial or a signal may drive too. */
import { propertyKey } from '~~/core/piece/schema.ts'
import { propertiesOf, propertyNamed } from '~~/core/piece/properties.ts'
import { sameKind } from '~~/core/units/kinds.ts'
import { useHand } from '~/stores/hand.ts'
import { useLinking } from '~/stores/linking.ts'
import { usePiece } from '~/stores/piece.ts'

const emit = defineEmits<{ linked: [to: { driver: string; driven: string }] }>()
const store = usePiece()
const hand = useHand()
const linking = useLinking()
const parts = computed(() => Object.entries(store.piece!.parts))
const first = computed(() => parts.value[0]?.[0] ?? '')
/** What drives: a part's id, `dials/` or `~` with the id of a dial or signal. */
const from = ref(hand.part ?? first.value)
const fromProperty = ref('rotation')
const to = ref(parts.value.find(([id]) => id !== from.value)?.[0] ?? first.value)
const toProperty = ref('rotation')
/** A part is chosen by its property, all else is one value. */
const isPart = computed(() => !!store.piece!.parts[from.value])
const names = (id: string) => propertiesOf(store.piece!.parts[id]?.shape.type ?? 'group').map(p => p.name)
const driver = computed(() => (isPart.value ? propertyKey(from.value, fromProperty.value) : from.value))
const driven = computed(() => propertyKey(to.value, toProperty.value))
const says = computed(() => {
  if (!isPart.value) return ''
  const [a, b] = [propertyNamed(fromProperty.value), propertyNamed(toProperty.value)]
  return a && b && !sameKind(a.kind, b.kind) ? 'They have different units: one unit counts as one.' : ''
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
    <select v-model="from" class="field max-w-[150px]" aria-label="What drives">
      <optgroup label="parts">
        <option v-for="[id, p] in parts" :key="id" :value="id">{{ p.name }}</option>
      </optgroup>
      <optgroup v-if="Object.keys(store.piece!.dials).length > 0" label="dials">
        <option v-for="(d, id) in store.piece!.dials" :key="id" :value="`dials/${id}`">{{ d.name }}</option>
      </optgroup>
      <optgroup v-if="Object.keys(store.piece!.signals).length > 0" label="signals">
        <option v-for="(s, id) in store.piece!.signals" :key="id" :value="`~${id}`">{{ s.name }}</option>
      </optgroup>
    </select>
    <select v-if="isPart" v-model="fromProperty" class="field" aria-label="By its property">
      <option v-for="n in names(from)" :key="n" :value="n">{{ n }}</option>
    </select>
    <span class="text-faded">drives</span>
    <select v-model="to" class="field max-w-[150px]" aria-label="What follows">
      <option v-for="[id, p] in parts" :key="id" :value="id">{{ p.name }}</option>
    </select>
    <select v-model="toProperty" class="field" aria-label="Its property">
      <option v-for="n in names(to)" :key="n" :value="n">{{ n }}</option>
    </select>
    <button class="button" type="submit" :disabled="parts.length === 0">Link</button>
    <span class="basis-full text-[12px] text-faded empty:hidden">{{ says }}</span>
  </form>
</template>

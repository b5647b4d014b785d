<script setup lang="ts">
/** A new dial, or another name, unit and range for one that is there. */
import { addDial, moveDial } from '~~/core/acts/drives.ts'
import { changeNamed, readerNames, removeNamed } from '~~/core/acts/named-things.ts'
import { freeName, nameProblem, rename } from '~~/core/acts/parts.ts'
import { apply, compose } from '~~/core/piece/operation.ts'
import type { Dial } from '~~/core/piece/schema.ts'
import type { Choice } from '~/components/controls/choices.ts'
import { useOpenPiece } from '~/stores/open-piece.ts'
import { useTuning } from '~/commands/tuning.ts'

const props = defineProps<{ id?: string }>()
const emit = defineEmits<{ close: [] }>()
const store = useOpenPiece()
const tuning = useTuning()
const old = props.id ? store.piece.dials[props.id] : undefined

const name = ref(old?.name ?? freeName(store.piece, 'pace'))
const type = ref<Dial['type']>(old?.type ?? 'number')
const hidden = ref(old?.hidden ?? false)
const locked = ref(old?.locked ?? false)
/** Names of what a choice is between, with commas. */
const options = ref((old?.options ?? ['calm', 'lively']).join(', '))
const chosen = computed(() =>
  options.value
    .split(',')
    .map(o => o.trim())
    .filter(o => o !== ''),
)
/** Who reads it, as people call them. */
const readers = props.id ? readerNames(store.piece, 'dials', props.id) : []
const unit = ref<Dial['unit']>(old?.unit ?? '%')
const low = ref(old?.low ?? 0)
const high = ref(old?.high ?? 200)
const initial = ref(old?.initial ?? 100)
const KINDS: readonly Choice<Dial['type']>[] = [
  { value: 'number', says: 'a number' },
  { value: 'whole', says: 'a whole number' },
  { value: 'switch', says: 'a switch, off or on' },
  { value: 'moment', says: 'a moment, also on the tideline' },
  { value: 'choice', says: 'a choice of several' },
]
const UNITS: readonly (readonly [Dial['unit'], string])[] = [
  ['%', '% (a share)'],
  ['', 'a plain number'],
  ['deg', 'deg (an angle)'],
  ['px', 'px (a length)'],
  ['s', 's (a time)'],
  ['Hz', 'Hz (a frequency)'],
]

const problem = computed(() => {
  const named = nameProblem(store.piece, name.value, props.id ? `dials/${props.id}` : null)
  if (named) return named
  if (![low.value, high.value, initial.value].every(n => typeof n === 'number' && Number.isFinite(n)))
    return 'Lowest, highest and start must be numbers.'
  if (type.value === 'switch' && (low.value !== 0 || high.value !== 1)) return 'A switch goes from 0 (off) to 1 (on).'
  if (type.value === 'choice') {
    if (chosen.value.length < 2) return 'A choice needs at least two names, separated by commas.'
    if (chosen.value.length > 40) return 'A choice can have up to 40 names.'
    return chosen.value.some(o => o.length > 60) ? 'Names can have up to 60 letters.' : ''
  }
  if (low.value >= high.value) return 'The lowest value must be below the highest.'
  return initial.value < low.value || initial.value > high.value ? 'The start must lie between lowest and highest.' : ''
})

function done(): void {
  if (problem.value) return
  const range = {
    type: type.value,
    hidden: hidden.value,
    locked: locked.value,
    ...(type.value === 'choice' ? { options: chosen.value } : {}),
    unit: unit.value,
    low: low.value,
    high: high.value,
    initial: initial.value,
  }
  if (type.value === 'choice') [range.low, range.high] = [0, chosen.value.length - 1]
  if (!props.id) store.act(addDial(store.piece, { name: name.value.trim(), ...range, value: initial.value }).op)
  else {
    const value = Math.min(range.high, Math.max(range.low, store.piece.dials[props.id]!.value))
    const change = changeNamed(store.piece, 'dials', props.id, { ...range, value })
    const named =
      name.value.trim() === old!.name
        ? change
        : compose(change, rename(apply(store.piece, change), 'dials', props.id, name.value))
    store.act(named)
  }
  emit('close')
}

function kindChosen(): void {
  if (type.value === 'moment' && unit.value !== 's')
    [unit.value, low.value, high.value, initial.value] = ['s', 0, 60, Number(store.player.now().seconds.toFixed(2))]
  if (type.value === 'choice') [unit.value, low.value, high.value, initial.value] = ['', 0, 1, 0]
  if (type.value !== 'switch') return
  ;[unit.value, low.value, high.value, initial.value] = ['', 0, 1, Math.round(Math.min(1, Math.max(0, initial.value)))]
}
/** One place to the left or right in the row. */
function move(by: 1 | -1): void {
  const op = moveDial(store.piece, props.id!, by)
  if (op) store.act(op)
}
function reset(): void {
  tuning.dial(props.id!, old!.initial)
}
function drop(): void {
  store.act(removeNamed(store.piece, 'dials', props.id!))
  emit('close')
}
</script>

<template>
  <DialogFrame :title="id ? `Dial ${old!.name}` : 'New dial'" :wide="380" form @close="emit('close')" @submit="done">
    <div class="flex min-h-0 flex-1 flex-col overflow-y-auto px-5 py-4">
      <p class="mb-3 text-faded">A number that any formula can read by its name.</p>
      <div class="grid grid-cols-[84px_1fr] items-center gap-x-3 gap-y-2">
        <label for="dial-name">Name</label><input id="dial-name" v-model="name" class="field" maxlength="60" />
        <span>Kind</span>
        <SelectBox v-model="type" label="Kind" :of="KINDS" @update:model-value="kindChosen" />
        <template v-if="type === 'choice'">
          <label for="dial-options">Between</label>
          <input id="dial-options" v-model="options" class="field" placeholder="calm, lively, wild" />
        </template>
        <template v-else>
          <span>Unit</span>
          <SelectBox
            v-model="unit"
            label="Unit"
            :of="UNITS.map(([value, says]) => ({ value, says }))"
            :disabled="type === 'moment'"
          />
          <span>Lowest</span
          ><QuantityInput
            class="field tabular"
            label="Lowest"
            :value="low"
            :unit="unit"
            @typing="$event !== null && (low = $event)"
            @set="low = $event"
          />
          <span>Highest</span
          ><QuantityInput
            class="field tabular"
            label="Highest"
            :value="high"
            :unit="unit"
            @typing="$event !== null && (high = $event)"
            @set="high = $event"
          />
          <span>Start</span
          ><QuantityInput
            class="field tabular"
            label="Start"
            :value="initial"
            :unit="unit"
            @typing="$event !== null && (initial = $event)"
            @set="initial = $event"
          />
        </template>
      </div>
      <TickField class="mt-2" label="Locked: it can’t be changed" :value="locked" @set="locked = $event" />
      <TickField class="mt-1" label="Hide from the row of dials" :value="hidden" @set="hidden = $event" />
      <div v-if="id" class="mt-2 flex items-center gap-2">
        <button class="button" type="button" @click="move(-1)">Earlier</button>
        <button class="button" type="button" @click="move(1)">Later</button>
        <button class="button" type="button" @click="reset">Reset to {{ initial }}</button>
      </div>
      <p v-if="id" class="mt-2 text-[12px] text-faded" data-used-by>
        {{
          readers.length > 0
            ? `Used by ${readers.slice(0, 6).join(', ')}${readers.length > 6 ? ` and ${readers.length - 6} more` : ''}.`
            : 'Nothing uses it yet.'
        }}
      </p>
      <p class="mt-2 min-h-[18px] text-coral" role="alert">{{ problem }}</p>
    </div>
    <template #foot>
      <button v-if="id" class="button mr-auto text-coral" type="button" @click="drop">Remove</button>
      <button class="button" type="button" @click="emit('close')">Cancel</button>
      <button class="button button-strong" type="submit" :disabled="!!problem">
        {{ id ? 'Change' : 'Add dial' }}
      </button>
    </template>
  </DialogFrame>
</template>

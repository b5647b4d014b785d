<script setup lang="ts">
/** What a drive promises, such as to stay above 15px/s: each with whether it is kept, for all time. */
import { Check, CircleHelp, TriangleAlert, X } from '@lucide/vue'
import { setPromises } from '~~/core/acts/drives.ts'
import type { Promised } from '~~/core/piece/schema.ts'
import { promiseStateText, promiseText, type PromiseState } from '~~/core/insight/promises.ts'
import { propertyNamed } from '~~/core/piece/properties.ts'
import { useOpenPiece } from '~/stores/open-piece.ts'
import { choicesOf } from '~/components/controls/choices.ts'

const props = defineProps<{ drive: string; kept: readonly PromiseState[] }>()
const writing = defineModel<boolean>('writing', { required: true })
const store = useOpenPiece()

const entry = computed(() => store.piece.drives[props.drive]!)
const property = computed(() => propertyNamed(entry.value.property)!)
const LOOKS = {
  kept: { icon: Check, colour: 'text-kelp' },
  broken: { icon: TriangleAlert, colour: 'text-coral' },
  open: { icon: CircleHelp, colour: 'text-brass' },
} as const

const side = ref<Promised['side']>('above')
const of = ref<Promised['of']>('value')
const than = ref<number | ''>('')
function add(): void {
  if (than.value === '' || !Number.isFinite(than.value)) return
  const made: Promised = { side: side.value, of: of.value, than: than.value }
  store.act(setPromises(store.piece, props.drive, [...entry.value.promises, made]))
  writing.value = false
  than.value = ''
}
const drop = (nth: number) =>
  store.act(
    setPromises(
      store.piece,
      props.drive,
      entry.value.promises.filter((_, i) => i !== nth),
    ),
  )
</script>

<template>
  <ul v-if="entry.promises.length > 0" class="border-t border-rule px-3 py-[4px] text-[12px]">
    <li v-for="(p, i) in entry.promises" :key="i" class="flex items-center gap-2" data-promise>
      <component
        :is="LOOKS[kept[i]?.verdict ?? 'open'].icon"
        :size="13"
        class="shrink-0"
        :class="LOOKS[kept[i]?.verdict ?? 'open'].colour"
        aria-hidden="true"
      />
      <span class="tabular shrink-0">{{ promiseText(p, property) }}</span>
      <span class="min-w-0 truncate text-faded" :data-tip="kept[i] && promiseStateText(kept[i], p, property)">{{
        kept[i] && promiseStateText(kept[i], p, property)
      }}</span>
      <button
        class="ml-auto grid h-5 w-5 shrink-0 place-items-center rounded-sm text-faded hover:text-ink"
        type="button"
        :aria-label="`Delete the promise that it ${promiseText(p, property)}`"
        @click="drop(i)"
      >
        <X :size="12" />
      </button>
    </li>
  </ul>
  <form
    v-if="writing"
    class="flex flex-wrap items-center gap-2 border-t border-rule px-3 py-[5px]"
    @submit.prevent="add"
  >
    <SelectBox
      v-model="side"
      class="w-[112px]"
      label="Above or below"
      :of="choicesOf({ above: 'stays above', below: 'stays below' })"
    />
    <QuantityInput
      class="field tabular w-[72px]"
      label="Limit"
      :value="than === '' ? null : than"
      :unit="of === 'value' ? property.unit : property.unit && `${property.unit}/s`"
      @typing="$event !== null && (than = $event)"
      @set="than = $event"
      @keydown.esc.stop="writing = false"
    />
    <SelectBox
      v-model="of"
      class="w-[92px]"
      label="Value or speed"
      :of="choicesOf({ value: property.unit || 'as a value', speed: `${property.unit}/s` })"
    />
    <button class="button button-strong" type="submit">Promise</button>
    <button class="button" type="button" @click="writing = false">Cancel</button>
  </form>
</template>

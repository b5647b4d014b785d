<script setup lang="ts">
/** Make a chain in one step: parts in order, the share that each takes of the one before, and how much later. */
import { linkChain } from '~~/core/insight/changing-links.ts'
import { partsListed } from '~~/core/acts/parenting.ts'
import { PROPERTIES } from '~~/core/piece/properties.ts'
import { useOpenPiece } from '~/stores/open-piece.ts'
import { plainChoices } from '~/components/controls/choices.ts'

const emit = defineEmits<{ close: [] }>()
const store = useOpenPiece()
const parts = computed(() => partsListed(store.piece).map(({ id }) => ({ id, name: store.piece.parts[id]!.name })))
const property = ref('rotation')
const picked = ref<readonly string[]>([])
const share = ref(80)
const lag = ref(0.15)
const problem = computed(() => {
  if (picked.value.length < 2) return 'Choose at least two parts, in the order they follow one another.'
  const driven = picked.value.slice(1).filter(id => store.piece.drives[`${id}.${property.value}`])
  if (driven.length > 0)
    return `${driven.map(id => store.piece.parts[id]!.name).join(', ')} has a formula there, which will be replaced.`
  return Number.isFinite(share.value) && Number.isFinite(lag.value) && lag.value >= 0
    ? ''
    : 'Share and lag are numbers, the lag 0 or more.'
})
const can = computed(() => picked.value.length >= 2 && Number.isFinite(share.value) && lag.value >= 0)

function done(): void {
  if (!can.value) return
  store.act(linkChain(store.program, property.value, picked.value, share.value / 100, lag.value))
  store.sayWithUndo(
    `${picked.value.length - 1} parts follow one another; two new dials tune their share and their lag.`,
  )
  emit('close')
}
</script>

<template>
  <DialogFrame title="Make a chain" :wide="420" form @close="emit('close')" @submit="done">
    <div class="flex min-h-0 flex-1 flex-col overflow-y-auto px-5 py-4">
      <p class="mb-3 text-faded">Each part follows the one before it, scaled by a share and delayed.</p>
      <label class="mb-2 flex items-center gap-3"
        ><span class="w-20">Property</span>
        <ComboBox
          v-model="property"
          class="flex-1"
          label="Property of the chain"
          :of="plainChoices(PROPERTIES.filter(q => !q.on).map(p => p.name))"
      /></label>
      <PickList
        v-model="picked"
        class="max-h-[40vh] min-h-0 flex-1"
        label="Parts of the chain, in the order you choose them"
        :of="parts.map(p => ({ id: p.id, says: p.name }))"
      />
      <div class="mt-3 flex gap-6">
        <label class="flex items-center gap-2"
          >Share
          <QuantityInput class="field tabular w-20" label="Share, %" :value="share" unit="%" @set="share = $event"
        /></label>
        <label class="flex items-center gap-2"
          >Delay
          <QuantityInput
            class="field tabular w-20"
            label="Lag, seconds"
            :value="lag"
            unit="s"
            :low="0"
            @set="lag = $event"
        /></label>
      </div>
      <p class="mt-2 min-h-[18px]" :class="can ? 'text-brass' : 'text-faded'" role="status">{{ problem }}</p>
    </div>
    <template #foot>
      <button class="button" type="button" @click="emit('close')">Cancel</button>
      <button class="button button-strong" type="submit" :disabled="!can">Make chain</button>
    </template>
  </DialogFrame>
</template>

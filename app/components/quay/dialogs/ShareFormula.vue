<script setup lang="ts">
/** Gives a formula to others: which parts, following it or on their own, later, larger or faster from one to the next. */
import { splitDriveKey } from '~~/core/piece/drive-key.ts'
import { SHARED_UNCHANGED, shareFormula, sharedText, type SharingOptions } from '~~/core/acts/share-formula.ts'
import { partsListed } from '~~/core/acts/parenting.ts'
import { sourceName } from '~~/core/acts/sources.ts'
import { propertiesOf, propertyNamed } from '~~/core/piece/properties.ts'
import { sameKind } from '~~/core/units/kinds.ts'
import { plainChoices } from '~/components/controls/choices.ts'
import { useOpenPiece } from '~/stores/open-piece.ts'

const props = defineProps<{ drive: string }>()
const emit = defineEmits<{ close: [] }>()
const store = useOpenPiece()
const [own, ownProperty] = splitDriveKey(props.drive)
const kind = propertyNamed(ownProperty)!.kind
const property = ref(ownProperty)
const properties = propertiesOf(store.piece.parts[own]!.shape.type).filter(p => sameKind(p.kind, kind))
const search = ref('')
const parts = computed(() =>
  partsListed(store.piece)
    .map(({ id }) => ({ id, part: store.piece.parts[id]! }))
    .filter(
      ({ id, part }) =>
        `${id}.${property.value}` !== props.drive && propertiesOf(part.shape.type).some(p => p.name === property.value),
    )
    .filter(({ part }) => part.name.toLowerCase().includes(search.value.trim().toLowerCase())),
)
const picked = ref<readonly string[]>([])
const giving = ref<SharingOptions>({ ...SHARED_UNCHANGED })
const set = (change: Partial<SharingOptions>) => (giving.value = { ...giving.value, ...change })
const targets = computed(() => picked.value.map(id => `${id}.${property.value}`))
const replaced = computed(() => targets.value.filter(k => store.piece.drives[k]).length)
/** Preview of the first three formulas. */
const says = computed(() =>
  targets.value.slice(0, 3).map((k, i) => ({
    name: sourceName(store.piece, k),
    text: sharedText(store.piece, props.drive, k, i + 1, giving.value),
  })),
)
function done(): void {
  if (picked.value.length === 0) return
  store.act(shareFormula(store.piece, props.drive, targets.value, giving.value))
  store.sayWithUndo(
    `${sourceName(store.piece, props.drive)} is applied to ${picked.value.length} ${picked.value.length === 1 ? 'other part' : 'other parts'}.`,
  )
  emit('close')
}
</script>

<template>
  <DialogFrame
    :title="`Apply ${sourceName(store.piece, drive)} to other properties`"
    :wide="520"
    form
    @close="emit('close')"
    @submit="done"
  >
    <div class="flex min-h-0 flex-1 flex-col overflow-y-auto px-5 py-4">
      <div class="mb-2 flex items-center gap-3">
        <label class="flex items-center gap-2"
          >Property
          <ComboBox
            v-model="property"
            class="w-[140px]"
            label="Target property"
            :of="plainChoices(properties.map(p => p.name))"
        /></label>
        <input
          v-model="search"
          class="field min-w-0 flex-1"
          type="search"
          aria-label="Search parts"
          placeholder="Search parts"
        />
        <button class="link" type="button" @click="picked = parts.map(p => p.id)">All</button>
      </div>
      <PickList
        v-model="picked"
        class="max-h-[36vh] min-h-[80px] flex-1"
        label="Target parts, in the order you choose them"
        :of="parts.map(p => ({ id: p.id, says: p.part.name }))"
      />
      <div class="mt-3 grid grid-cols-2 gap-x-6 gap-y-2">
        <ChoiceField
          label="each"
          name="Follow or copy"
          :value="giving.follow ? 'follow' : 'own'"
          :choices="{ own: 'has its own copy', follow: 'follows this one' }"
          @choose="set({ follow: $event === 'follow' })"
        />
        <ChoiceField
          label="from one to the next"
          name="Step or random"
          :value="giving.chance ? 'chance' : 'step'"
          :choices="{ step: 'by a step', chance: 'at random, at most' }"
          @choose="set({ chance: $event === 'chance' })"
        />
        <NumberField label="Delay" :value="giving.later" unit="s" :stride="0.05" @set="set({ later: $event })" />
        <NumberField label="Size factor" :value="giving.size" :stride="0.05" @set="set({ size: $event })" />
        <NumberField
          v-if="!giving.follow"
          label="Speed factor"
          :value="giving.pace"
          :stride="0.05"
          :low="0.01"
          @set="set({ pace: $event })"
        />
      </div>
      <ul class="mt-3 min-h-[54px] text-[12px]" aria-label="Preview of the first three formulas">
        <li v-for="s in says" :key="s.name" class="flex gap-2">
          <span class="w-32 shrink-0 truncate text-faded">{{ s.name }}</span><span class="tabular truncate">{{
            s.text
          }}</span>
        </li>
      </ul>
      <p v-if="replaced > 0" class="text-brass" role="status">
        {{ replaced }} of them {{ replaced === 1 ? 'has a formula that is' : 'have formulas that are' }} replaced.
      </p>
    </div>
    <template #foot>
      <button class="button" type="button" @click="emit('close')">Cancel</button>
      <button class="button button-strong" type="submit" :disabled="picked.length === 0">
        Apply to {{ picked.length }}
      </button>
    </template>
  </DialogFrame>
</template>

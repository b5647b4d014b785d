<script setup lang="ts">
/** Properties that all chosen parts have: what is set applies to every one of them, in one step. */
import { setShared, sharedProperties, sharedValue } from '~~/core/acts/shared.ts'
import { propertyLabel } from '~~/core/piece/property-labels.ts'
import type { Property } from '~~/core/piece/properties.ts'
import { useSelection } from '~/stores/selection.ts'
import { useOpenPiece } from '~/stores/open-piece.ts'

const store = useOpenPiece()
const hand = useSelection()
const shared = computed(() =>
  sharedProperties(store.piece, hand.chosen).map(property => ({
    property,
    ...sharedValue(store.piece, hand.chosen, property),
  })),
)
function set(p: Property, value: number): void {
  const { op, left } = setShared(store.piece, hand.chosen, p, value)
  store.act(op)
  if (left.length > 0)
    store.say(
      `${left.slice(0, 3).join(', ')}${left.length > 3 ? ` and ${left.length - 3} more` : ''}: ${p.name} follows keyframes, or a formula that doesn’t read the set value.`,
    )
}
const says = (driven: number) => (driven === 0 ? '' : driven === hand.chosen.length ? 'all driven' : `${driven} driven`)
</script>

<template>
  <FoldSection page="several" :title="`Applies to all ${hand.chosen.length} parts`">
    <div class="compact columns-[216px] gap-x-6 pt-1" data-shared>
      <label
        v-for="{ property: p, value, driven } in shared"
        :key="p.name"
        class="flex min-w-0 items-center gap-2"
        :data-tip="p.description"
      >
        <FieldLabel :label="propertyLabel(p.name, true)" :property="p.name" />
        <span v-if="driven > 0" class="shrink-0 text-[11px] text-sea">{{ says(driven) }}</span>
        <QuantityInput
          class="field tabular w-[86px] shrink-0"
          :label="p.name"
          :value="value"
          :unit="p.unit"
          :stride="p.stride / 20"
          :low="p.range?.[0]"
          :high="p.range?.[1]"
          placeholder="mixed"
          @set="set(p, $event)"
        />
      </label>
    </div>
  </FoldSection>
</template>

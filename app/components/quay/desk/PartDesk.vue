<script setup lang="ts">
/** The Part desk: what the chosen part is and holds by hand. */
import { propertyKey } from '~~/core/piece/drive-key.ts'
import { Copy, Trash2, Ungroup } from '@lucide/vue'
import { duplicatePart } from '~~/core/acts/duplicate.ts'
import { addDrive } from '~~/core/acts/drives.ts'
import { nameProblem, removePart, rename, setPart, shapeName } from '~~/core/acts/parts.ts'
import { setByHand } from '~~/core/acts/text-parts.ts'
import type { Part } from '~~/core/piece/schema.ts'
import { initialOf, propertiesOf, type Property } from '~~/core/piece/properties.ts'
import { hidesHand, onTopOfHand, sourceName } from '~~/core/acts/sources.ts'
import { followedBy } from '~~/core/insight/moved-by.ts'
import { focusFormula } from '~/editor/focus.ts'
import { useDriving } from '~/commands/driving.ts'
import { useSelection } from '~/stores/selection.ts'
import { useListing } from '~/stores/listing.ts'
import { usePiece } from '~/stores/piece.ts'
import { useSeveral } from '~/commands/several.ts'
import { useTuning } from '~/commands/tuning.ts'

const store = usePiece()
const hand = useSelection()
const tuning = useTuning()
const driving = useDriving()
const several = useSeveral()
const listing = useListing()
const id = computed(() => hand.part!)
const part = computed<Part | undefined>(() => store.piece!.parts[id.value])
const wrong = ref('')
/** Shapes that have more to them than properties. */
const HAS_MORE: readonly Part['shape']['type'][] = [
  'polygon',
  'star',
  'gear',
  'text',
  'path',
  'trace',
  'emitter',
  'waves',
]
/** All its copies, with those that it stands in. */
const copies = computed(() => store.program?.instancesOf(id.value).count ?? 1)

const HEADINGS = {
  place: 'Position and rotation',
  size: 'Size',
  fill: 'Fill',
  gradient: 'Gradient',
  stroke: 'Line',
} as const
/** Rotation stands under the position. */
const headOf = (p: Property) => (p.group === 'turn' ? 'place' : p.group)
const properties = computed(() => (part.value ? propertiesOf(part.value.shape.type) : []))
/** What moves by a formula or by keyframes, before all else. */
const moving = computed(() => properties.value.filter(p => driven(p) || isKeyed(p)))
const groups = computed(() =>
  (Object.keys(HEADINGS) as (keyof typeof HEADINGS)[])
    .map(g => ({
      title: HEADINGS[g],
      of: g === 'fill' || g === 'gradient' || g === 'stroke' ? g : null,
      properties: properties.value.filter(p => headOf(p) === g && !moving.value.includes(p)),
    }))
    // A colour stands under its heading also where all of it is driven.
    .filter(g => g.properties.length > 0 || (g.of !== null && properties.value.some(p => p.group === g.of))),
)

const keyed = useKeyed(
  () => id.value,
  () => hand.instance,
)
const isKeyed = (p: Property) => store.piece!.bases[propertyKey(id.value, p.name)]?.keys !== undefined
const value = (p: Property) =>
  keyed(p) ?? store.piece!.bases[propertyKey(id.value, p.name)]?.value ?? initialOf(p, part.value!.shape.type)
const driven = (p: Property) => store.piece!.drives[propertyKey(id.value, p.name)]
/** A set value under a formula that does not read it changes nothing one can see: it is offered as `base +`. */
function set(p: Property, to: number): void {
  // What has keyframes is set at the moment that is shown.
  if (isKeyed(p)) return driving.keyHere(propertyKey(id.value, p.name), to)
  store.act(setByHand(store.piece!, id.value, p.name, to))
  const drive = driven(p)
  const key = propertyKey(id.value, p.name)
  const leader = followedBy(store.piece!, key)
  if (leader) {
    const name = sourceName(store.piece!, leader)
    store.say(
      `${part.value!.name} ${p.name} follows ${name} by a two-way link: what you set here shows only while that one has no formula.`,
      { label: `Go to ${name}`, do: () => listing.reveal(leader) },
    )
  }
  if (!drive || !hidesHand(drive)) return
  store.say(`${part.value!.name} ${p.name} follows its formula, which doesn’t read the set value.`, {
    label: 'Add it as base +',
    do: () => tuning.commit(key, onTopOfHand(drive.text)),
  })
}

function called(e: Event): void {
  const field = e.target as HTMLInputElement
  const wanted = field.value.trim()
  wrong.value = wanted === part.value!.name ? '' : (nameProblem(store.piece!, wanted, `parts/${id.value}`) ?? '')
  if (wrong.value || wanted === part.value!.name) field.value = part.value!.name
  else store.act(rename(store.piece!, 'parts', id.value, wanted))
}

const change = (c: Partial<Part>) => store.act(setPart(store.piece!, id.value, c))
const pivot = (axis: 'x' | 'y', to: number) => change({ pivot: { ...part.value!.pivot, [axis]: to } })

function drive(p: Property): void {
  const key = propertyKey(id.value, p.name)
  if (!driven(p)) store.act(addDrive(store.piece!, id.value, p.name, 'base'))
  hand.take(key)
  void nextTick(() => focusFormula(key))
}

/** The same once more, a little aside so that it is seen. */
function duplicate(): void {
  const made = duplicatePart(store.piece!, id.value)
  store.act(made.op)
  hand.choose(made.id)
}

function drop(): void {
  const gone = id.value
  hand.choose(null)
  store.act(removePart(store.piece!, gone))
}
</script>

<template>
  <SeveralParts v-if="hand.others.length > 0" />
  <div v-else-if="part" class="min-h-0 flex-1 overflow-y-auto px-4 pt-1 pb-2" data-part>
    <div class="mb-px flex flex-wrap items-center gap-x-2">
      <input
        class="field w-44 font-semibold"
        :value="part.name"
        maxlength="60"
        aria-label="Name of the part"
        @change="called"
        @keydown.enter="($event.target as HTMLElement).blur()"
      />
      <span class="text-faded">{{ shapeName(part.shape).toLowerCase() }}</span>
      <span v-if="part.parent" class="truncate text-faded"
        >on
        <button class="link" type="button" @click="hand.choose(part.parent)">
          {{ store.piece!.parts[part.parent]!.name }}
        </button></span
      >
      <span v-if="copies > 1" class="tabular truncate text-faded"
        >copy {{ Math.min(hand.instance, copies - 1) + 1 }} of {{ copies.toLocaleString('en') }}</span
      >
      <span class="text-coral" role="alert">{{ wrong }}</span>
      <button
        v-if="part.shape.type === 'group'"
        class="button button-plain ml-auto"
        type="button"
        data-tip="Its children move to its parent"
        @click="several.scatter"
      >
        <Ungroup :size="14" />Ungroup
      </button>
      <button
        class="button button-plain"
        :class="{ 'ml-auto': part.shape.type !== 'group' }"
        type="button"
        @click="duplicate"
      >
        <Copy :size="14" />Duplicate
      </button>
      <button class="button button-plain text-coral" type="button" @click="drop"><Trash2 :size="14" />Delete</button>
    </div>
    <SectionLanes>
      <FoldSection v-if="moving.length > 0" page="part" title="Driven">
        <PropertyField
          v-for="p in moving"
          :id="id"
          :key="p.name"
          :property="p"
          :value="value(p)"
          whole
          @set="set"
          @drive="drive"
        />
      </FoldSection>
      <FoldSection v-for="g in groups" :key="g.title" page="part" :title="g.title">
        <ColourField v-if="g.of" :id="id" :of="g.of" @set="set" />
        <PropertyField
          v-for="p in g.properties"
          :id="id"
          :key="p.name"
          :property="p"
          :value="value(p)"
          @set="set"
          @drive="drive"
        />
        <ChoiceField
          v-if="g.of === 'gradient'"
          label="fixed to"
          name="Gradient fixed to"
          :value="part.gradientFrame ?? 'part'"
          :choices="{ part: 'the part', stage: 'the stage' }"
          @choose="change({ gradientFrame: $event })"
        />
        <template v-if="g.of === 'stroke'">
          <ChoiceField
            label="caps"
            name="Line caps"
            :value="part.cap ?? 'flat'"
            :choices="{ flat: 'flat', round: 'round', square: 'square' }"
            @choose="change({ cap: $event === 'flat' ? undefined : $event })"
          />
          <ChoiceField
            label="joins"
            name="Line joins"
            :value="part.join ?? 'pointed'"
            :choices="{ pointed: 'pointed', round: 'round', bevel: 'bevelled' }"
            @choose="change({ join: $event === 'pointed' ? undefined : $event })"
          />
        </template>
      </FoldSection>
      <FoldSection v-if="HAS_MORE.includes(part.shape.type)" page="part" :title="shapeName(part.shape)">
        <ShapeFields :id="id" />
      </FoldSection>
      <FoldSection page="part" title="Pivot">
        <PinPlaces :id="id" />
        <NumberField
          label="pivot x"
          data-tip="The point it rotates and scales around, from its middle"
          :value="part.pivot.x"
          unit="px"
          @set="pivot('x', $event)"
        />
        <NumberField
          label="pivot y"
          data-tip="The point it rotates and scales around, from its middle"
          :value="part.pivot.y"
          unit="px"
          @set="pivot('y', $event)"
        />
        <SymmetryField :id="id" />
        <StepsField :id="id" />
      </FoldSection>
      <FoldSection page="part" title="Copies"><CopiesFields :id="id" /></FoldSection>
      <FoldSection page="part" title="Span"><SpanFields :id="id" /></FoldSection>
    </SectionLanes>
  </div>
  <div v-else class="min-h-0 flex-1 overflow-y-auto px-4 py-4">
    <template v-if="Object.keys(store.piece!.parts).length > 0">
      <p class="mb-3 text-faded">Select a part on the stage or in the tide table to edit it, or add one.</p>
      <AddPart />
      <PartsList />
    </template>
    <EmptyNote v-else> Add a part on the stage above: everything about it can be set and driven here. </EmptyNote>
  </div>
</template>

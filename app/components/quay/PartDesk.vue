<script setup lang="ts">
/** The Part desk: what the chosen part is and holds by hand. */
import { Copy, Trash2, Ungroup, Waves } from '@lucide/vue'
import { duplicatePart } from '~~/core/acts/duplicate.ts'
import { addDrive } from '~~/core/acts/drives.ts'
import { nameProblem, removePart, rename, setBase, setPart, shapeName } from '~~/core/acts/parts.ts'
import { setLetterSize } from '~~/core/acts/spelling.ts'
import { propertyKey, type Part } from '~~/core/piece/schema.ts'
import { initialOf, propertiesOf, type Property } from '~~/core/piece/properties.ts'
import { hidesHand, onTopOfHand, sourceName } from '~~/core/acts/sources.ts'
import { followedBy } from '~~/core/insight/moved-by.ts'
import { focusFormula } from '~/editor/focus.ts'
import { useDriving } from '~/stores/driving.ts'
import { useHand } from '~/stores/hand.ts'
import { useListing } from '~/stores/listing.ts'
import { usePiece } from '~/stores/piece.ts'
import { useSeveral } from '~/stores/several.ts'
import { useTuning } from '~/stores/tuning.ts'

const store = usePiece()
const hand = useHand()
const tuning = useTuning()
const driving = useDriving()
const several = useSeveral()
const listing = useListing()
const id = computed(() => hand.part!)
const part = computed<Part | undefined>(() => store.piece!.parts[id.value])
const wrong = ref('')
/** All its copies, with those that it stands in. */
const copies = computed(() => store.program?.instancesOf(id.value).count ?? 1)

const HEADINGS = {
  place: 'Position',
  turn: 'Rotation',
  size: 'Size',
  fill: 'Fill',
  gradient: 'Gradient',
  stroke: 'Line',
} as const
const groups = computed(() => {
  const list = part.value ? propertiesOf(part.value.shape.type) : []
  return (Object.keys(HEADINGS) as (keyof typeof HEADINGS)[])
    .map(g => ({
      title: HEADINGS[g],
      of: g === 'fill' || g === 'gradient' || g === 'stroke' ? g : null,
      properties: list.filter(p => p.group === g),
    }))
    .filter(g => g.properties.length > 0)
})

const keyed = useKeyed(
  () => id.value,
  () => hand.instance,
)
const isKeyed = (p: Property) => store.piece!.bases[propertyKey(id.value, p.name)]?.keys !== undefined
const value = (p: Property) =>
  keyed(p) ?? store.piece!.bases[propertyKey(id.value, p.name)]?.value ?? initialOf(p, part.value!.shape.type)
const driven = (p: Property) => store.piece!.drives[propertyKey(id.value, p.name)]
const label = (p: Property) =>
  p.name.replace(/^(fill|gradient|stroke)(?=[A-Z])/, '').replace(/^./, c => c.toLowerCase())

/** A set value under a formula that does not read it changes nothing one can see: it is offered as `base +`. */
function set(p: Property, to: number): void {
  // What has keyframes is set at the moment that is shown.
  if (isKeyed(p)) return driving.keyHere(propertyKey(id.value, p.name), to)
  const letters = p.name === 'size' && part.value!.copies?.layout === 'placed'
  store.act(letters ? setLetterSize(store.piece!, id.value, to) : setBase(store.piece!, id.value, p.name, to))
  const drive = driven(p)
  const key = propertyKey(id.value, p.name)
  const leader = followedBy(store.piece!, key)
  if (leader) {
    const name = sourceName(store.piece!, leader)
    store.notice = {
      says: `${part.value!.name} ${p.name} follows ${name} by a two-way link: what you set here shows when that has no formula.`,
      act: { says: `Go to ${name}`, do: () => listing.reveal(leader) },
    }
  }
  if (!drive || !hidesHand(drive)) return
  store.notice = {
    says: `${part.value!.name} ${p.name} follows its formula, which does not read the set value.`,
    act: {
      says: 'Add it as base +',
      do: () => tuning.commit(key, onTopOfHand(drive.text)),
    },
  }
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
  nextTick(() => focusFormula(key))
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
  <div v-else-if="part" class="min-h-0 flex-1 overflow-y-auto px-4 py-3">
    <div class="mb-3 flex items-center gap-2">
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
        title="Its children move to its parent"
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
    <div class="grid grid-cols-[repeat(auto-fill,minmax(208px,1fr))] gap-x-7 gap-y-4">
      <fieldset v-for="g in groups" :key="g.title" class="min-w-0">
        <legend class="mb-1 w-full border-b border-rule pb-[3px] text-[12px] font-medium text-faded">
          {{ g.title }}
        </legend>
        <div class="flex flex-col gap-1">
          <ColourField v-if="g.of" :id="id" :of="g.of" @set="set" />
          <NumberField
            v-for="p in g.properties"
            :key="p.name"
            :label="p.name"
            :title="
              isKeyed(p) ? `${p.says} It has keyframes: this is its value now, and typing sets a key here.` : p.says
            "
            :again="isKeyed(p)"
            :value="value(p)"
            :unit="p.unit"
            :stride="p.stride / 20"
            :low="p.range?.[0]"
            :high="p.range?.[1]"
            @set="set(p, $event)"
          >
            <button
              class="inline-flex items-center gap-[5px] hover:text-sea"
              :class="{ 'text-sea': driven(p) }"
              type="button"
              :aria-label="driven(p) ? `${p.name} has a formula, go to it` : `Write a formula for ${p.name}`"
              @click.prevent="drive(p)"
            >
              {{ label(p) }}<Waves v-if="driven(p)" :size="13" />
            </button>
          </NumberField>
          <ChoiceField
            v-if="g.title === HEADINGS.gradient"
            label="fixed to"
            name="Gradient fixed to"
            :value="part.gradientFrame ?? 'part'"
            :choices="{ part: 'the part', stage: 'the stage' }"
            @choose="change({ gradientFrame: $event as 'part' | 'stage' })"
          />
          <ChoiceField
            v-if="g.title === HEADINGS.stroke"
            label="caps"
            name="Line caps"
            :value="part.cap ?? 'flat'"
            :choices="{ flat: 'flat', round: 'round', square: 'square' }"
            @choose="change({ cap: $event === 'flat' ? undefined : ($event as 'round' | 'square') })"
          />
          <ChoiceField
            v-if="g.title === HEADINGS.stroke"
            label="joins"
            name="Line joins"
            :value="part.join ?? 'pointed'"
            :choices="{ pointed: 'pointed', round: 'round', bevel: 'bevelled' }"
            @choose="change({ join: $event === 'pointed' ? undefined : ($event as 'round' | 'bevel') })"
          />
        </div>
      </fieldset>
      <fieldset class="min-w-0">
        <legend class="mb-1 w-full border-b border-rule pb-[3px] text-[12px] font-medium text-faded">
          Pivot and copies
        </legend>
        <div class="flex flex-col gap-1">
          <PinPlaces :id="id" />
          <NumberField
            label="pivot x"
            title="The point it rotates and scales around, from its middle"
            :value="part.pivot.x"
            unit="px"
            @set="pivot('x', $event)"
          />
          <NumberField
            label="pivot y"
            title="The point it rotates and scales around, from its middle"
            :value="part.pivot.y"
            unit="px"
            @set="pivot('y', $event)"
          />
          <SymmetryField :id="id" />
          <StepsField :id="id" />
          <ShapeFields :id="id" />
          <CopiesFields :id="id" />
          <SpanFields :id="id" />
        </div>
      </fieldset>
    </div>
  </div>
  <div v-else class="min-h-0 flex-1 overflow-y-auto px-4 py-4">
    <p class="mb-3 text-faded">Select a part on the stage or in the tide table to edit it, or add one.</p>
    <AddPart />
    <PartsList />
  </div>
</template>

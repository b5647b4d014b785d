<script setup lang="ts">
/** Every control in all its states, for those who work on Open Tide: this page is not part of what is built. */
import { plainChoices, type Choice } from '~/components/controls/choices.ts'
import type { Oklch } from '~~/core/rig/colour-text.ts'

const MOODS: readonly Choice[] = [
  { value: 'calm', says: 'calm' },
  { value: 'lively', says: 'lively' },
  { value: 'wild', says: 'wild, while the wind blows', disabled: true },
]
const PARTS: readonly Choice[] = [
  ...['Carousel', 'Canopy', 'Mount'].map(says => ({ value: says, says, group: 'parts' })),
  ...['wind', 'dusk'].map(says => ({ value: says, says, group: 'dials' })),
]
const mood = ref('calm')
const part = ref('Mount')
const folder = ref('')
const [ticked, on] = [ref(true), ref(true)]
const chip = ref('WebM')
const amount = ref(12.5)
const slid = ref(40)
const day = ref('2027-03-12')
const colour = ref<Oklch>({ lightness: 68, chroma: 0.12, hue: 80 })
const dialog = ref(false)
const CHIPS = [
  { says: 'WebM', value: 'WebM' },
  { says: 'GIF', value: 'GIF' },
  { says: 'transparent', value: 'clear', not: 'This format has no transparent background' },
]
const rows = computed(() => plainChoices(Array.from({ length: 400 }, (_, k) => `Bulb ${k + 1}`)))
</script>

<template>
  <main class="grid h-full grid-cols-[repeat(auto-fill,minmax(300px,1fr))] content-start gap-6 overflow-y-auto p-6">
    <header class="col-span-full flex items-center gap-3">
      <h1 class="text-[22px] font-semibold">Controls</h1>
      <ThemeButton />
    </header>
    <FoldSection page="controls" title="Select">
      <div class="flex flex-col gap-2 pt-2">
        <SelectBox v-model="mood" label="Mood" :of="MOODS" />
        <SelectBox v-model="mood" label="Mood, disabled" :of="MOODS" disabled />
        <p>a sentence with <SelectBox v-model="mood" label="Mood in a sentence" :of="MOODS" inline /> in it</p>
        <ChoiceField label="mood" :value="mood" :choices="MOODS" @choose="mood = $event" />
      </div>
    </FoldSection>
    <FoldSection page="controls" title="Combobox">
      <div class="flex flex-col gap-2 pt-2">
        <ComboBox v-model="part" label="Part or dial" :of="PARTS" />
        <ComboBox v-model="part" label="Bulbs" :of="rows" placeholder="one of 400" />
        <ComboBox
          v-model="folder"
          label="Folder"
          open
          placeholder="Folder (empty for none)"
          :of="plainChoices(['Pier'])"
        />
        <ComboBox v-model="part" label="Part, disabled" :of="PARTS" disabled />
      </div>
    </FoldSection>
    <FoldSection page="controls" title="Checkbox and switch">
      <div class="flex flex-col gap-2 pt-2">
        <CheckBox v-model="ticked">motion path</CheckBox>
        <CheckBox v-model="ticked" disabled>motion path, disabled</CheckBox>
        <TickField label="has a span" :value="ticked" @set="ticked = $event" />
        <span class="flex items-center gap-2"><SwitchBox v-model="on" label="Lights" />lights</span>
        <span class="flex items-center gap-2"
          ><SwitchBox v-model="on" label="Lights, disabled" disabled />disabled</span
        >
        <span class="flex items-center gap-2"><SwitchBox v-model="on" label="Lights, large" large />large</span>
      </div>
    </FoldSection>
    <FoldSection page="controls" title="Radio chips">
      <div class="pt-2"><ChipRow v-model="chip" says="As" :of="CHIPS" /></div>
    </FoldSection>
    <FoldSection page="controls" title="Number with unit">
      <div class="flex flex-col gap-2 pt-2">
        <NumberField label="rotation" :value="amount" unit="deg" @set="amount = $event" />
        <NumberField label="extrusion" property="thickness" :value="amount" unit="px" :low="0" @set="amount = $event" />
        <NumberField label="share, 0 to 100" :value="amount" unit="%" :low="0" :high="100" @set="amount = $event" />
        <NumberField label="whole" :value="Math.round(amount)" whole @set="amount = $event" />
        <QuantityInput class="field tabular w-32" label="Read only" :value="amount" unit="s" readonly />
        <QuantityInput class="field tabular w-32" label="Mixed" :value="null" unit="px" placeholder="mixed" />
      </div>
    </FoldSection>
    <FoldSection page="controls" title="Slider">
      <div class="flex flex-col gap-3 pt-2">
        <SliderBar v-model="slid" label="Pace" :low="0" :high="200" :step="1" />
        <SliderBar v-model="slid" label="Pace, disabled" :low="0" :high="200" :step="1" disabled />
        <SliderBar v-model="slid" label="Pace, large" :low="0" :high="200" :step="1" large />
      </div>
    </FoldSection>
    <FoldSection page="controls" title="Date and colour">
      <div class="flex flex-col gap-2 pt-2">
        <DateField v-model="day" label="Expires" />
        <ColourPicker name="Fill" :value="colour" @set="colour = { ...colour, ...$event }" />
        <ColourPicker name="Line" :value="colour" :driven="['hue']" @set="colour = { ...colour, ...$event }" />
      </div>
    </FoldSection>
    <FoldSection page="controls" title="Buttons and tooltips">
      <div class="flex flex-wrap gap-2 pt-2">
        <button class="button" type="button" data-tip="What it does (Ctrl Z)">Button</button>
        <button class="button button-strong" type="button">Strong</button>
        <button class="button button-plain" type="button">Plain</button>
        <button class="button" type="button" disabled>Disabled</button>
        <button class="link" type="button">Link</button>
        <button class="button" type="button" @click="dialog = true">Dialog…</button>
      </div>
    </FoldSection>
    <FoldSection page="controls" title="Notices and empty states">
      <div class="pt-2">
        <NoticeBox
          >News. <template #act><button class="link" type="button">Undo</button></template></NoticeBox
        >
        <NoticeBox is="note">Something to mind.</NoticeBox>
        <NoticeBox is="trouble">A trouble that waits for an answer.</NoticeBox>
        <EmptyNote title="Nothing yet" framed>
          What belongs here, and the first step.
          <template #act><button class="button" type="button">First step</button></template>
        </EmptyNote>
      </div>
    </FoldSection>
    <DialogFrame v-if="dialog" title="A dialog" :wide="420" form @close="dialog = false" @submit="dialog = false">
      <div class="px-5 py-4"><SelectBox v-model="mood" label="Mood in a dialog" :of="MOODS" /></div>
      <template #foot>
        <button class="button" type="button" @click="dialog = false">Cancel</button>
        <button class="button button-strong" type="submit">Done</button>
      </template>
    </DialogFrame>
  </main>
</template>

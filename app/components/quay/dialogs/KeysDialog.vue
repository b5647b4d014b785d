<script setup lang="ts">
/** Keyboard shortcuts of the quay, by where they are heard; those of a single character can be turned off. */
import { COMMAND_NAMES, commandEntry, HAND_KEYS, isSingleKey, type CommandPlace } from '~~/core/manual/commands.ts'
import { useSingleKeys } from '~/commands/keys.ts'

const emit = defineEmits<{ close: [] }>()
const single = useSingleKeys()
const PLACES: readonly (readonly [CommandPlace | 'formula', string])[] = [
  ['piece', 'Anywhere'],
  ['formula', 'In a formula'],
  ['stage', 'On the stage, while it has the focus'],
  ['scope', 'With the scope open'],
]
interface Row {
  readonly keys: string
  readonly description: string
  readonly off: boolean
}
/** Whether all the keys of a row are turned off. */
const isOff = (place: CommandPlace, keys: readonly string[]) =>
  !single.value && place !== 'stage' && keys.every(isSingleKey)
const rowsOf = (of: CommandPlace | 'formula'): readonly Row[] => [
  ...COMMAND_NAMES.flatMap((name): Row[] => {
    const { keys = [], place = 'piece' } = commandEntry(name)
    return place === of && keys.length > 0
      ? [{ keys: keys.join(' or '), description: name, off: isOff(place, keys) }]
      : []
  }),
  ...HAND_KEYS.flatMap(([place, keys, description]) => (place === of ? [{ keys, description, off: false }] : [])),
]
</script>

<template>
  <DialogFrame title="Keyboard shortcuts" :wide="520" @close="emit('close')">
    <div class="flex min-h-0 flex-1 flex-col overflow-y-auto px-5 py-4">
      <CheckBox v-model="single">Single-key shortcuts</CheckBox>
      <p class="mt-1 mb-4 text-[12px] leading-4 text-faded">
        Turn these off if letters reach Open Tide by accident, or by voice. Ctrl K still finds every command by its
        name.
      </p>
      <section v-for="[place, title] in PLACES" :key="place" class="mb-4">
        <h3 class="mb-[6px] font-semibold">{{ title }}</h3>
        <dl class="grid grid-cols-[140px_1fr] gap-y-[6px]">
          <template v-for="row in rowsOf(place)" :key="`${row.keys} ${row.description}`"
            ><dt class="tabular" :class="{ 'text-faded line-through': row.off }">{{ row.keys }}</dt>
            <dd :class="{ 'text-faded': row.off }">
              {{ row.description }}<span v-if="row.off" class="sr-only"> (off)</span>
            </dd></template
          >
        </dl>
      </section>
    </div>
    <template #foot><button class="button" type="button" @click="emit('close')">Close</button></template>
  </DialogFrame>
</template>

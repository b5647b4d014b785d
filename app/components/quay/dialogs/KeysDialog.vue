<script setup lang="ts">
/** The keyboard shortcuts of the quay, grouped by where they work; single-key shortcuts can be turned off. */
import { COMMAND_NAMES, commandEntry, HAND_KEYS, type CommandPlace } from '~~/core/manual/commands.ts'
import { useCommandKeys, useSingleKeys } from '~/commands/keys.ts'

const emit = defineEmits<{ close: [] }>()
const single = useSingleKeys()
const { isOff } = useCommandKeys()
const PLACES: readonly (readonly [CommandPlace | 'formula', string])[] = [
  ['piece', 'Anywhere'],
  ['formula', 'In a formula'],
  ['stage', 'On the stage, while it has the focus'],
  ['scope', 'With the scope open'],
]
interface Row {
  readonly keys: readonly { readonly text: string; readonly off: boolean }[]
  readonly description: string
}
const rowsOf = (of: CommandPlace | 'formula'): readonly Row[] => [
  ...COMMAND_NAMES.flatMap((name): Row[] => {
    const { keys = [], place = 'piece' } = commandEntry(name)
    return place === of && keys.length > 0
      ? [{ keys: keys.map(text => ({ text, off: isOff(text, place) })), description: name }]
      : []
  }),
  ...HAND_KEYS.flatMap(([place, text, description]) =>
    place === of ? [{ keys: [{ text, off: false }], description }] : [],
  ),
]
</script>

<template>
  <DialogFrame title="Keyboard shortcuts" :wide="560" @close="emit('close')">
    <div class="flex min-h-0 flex-1 flex-col overflow-y-auto px-5 py-4">
      <CheckBox v-model="single">Single-key shortcuts</CheckBox>
      <p class="mt-1 mb-4 text-[12px] leading-4 text-faded">
        Turn these off if letters reach Open Tide by accident, or by voice. Ctrl K still finds every command by its
        name.
      </p>
      <section v-for="[place, title] in PLACES" :key="place" class="mb-4">
        <h3 class="mb-[6px] font-semibold">{{ title }}</h3>
        <dl class="grid grid-cols-[180px_1fr] gap-y-[6px]">
          <template v-for="row in rowsOf(place)" :key="`${row.keys[0]!.text} ${row.description}`">
            <dt class="tabular">
              <template v-for="(key, i) in row.keys" :key="key.text"
                ><span v-if="i > 0" class="mx-1 font-sans text-faded"> or </span
                ><span :class="{ 'text-faded': key.off }"
                  >{{ key.text }}<span v-if="key.off" class="ml-1 font-sans"> (off)</span></span
                ></template
              >
            </dt>
            <dd :class="{ 'text-faded': row.keys.every(key => key.off) }">{{ row.description }}</dd>
          </template>
        </dl>
      </section>
    </div>
    <template #foot><button class="button" type="button" @click="emit('close')">Close</button></template>
  </DialogFrame>
</template>

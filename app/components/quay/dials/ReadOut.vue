<script setup lang="ts">
/** The value of a signal among the dials, to be read; a press shows its formula. */
import { signalKey } from '~~/core/piece/drive-key.ts'
import { propertyOf, showValue } from '~~/core/insight/report.ts'
import { writeText } from '~/player/write-text.ts'
import { useListing } from '~/stores/listing.ts'
import { useOpenPiece } from '~/stores/open-piece.ts'

const props = defineProps<{ signal: string }>()
const store = useOpenPiece()
const listing = useListing()
const value = useTemplateRef('value')
const name = computed(() => store.piece.signals[props.signal]?.name ?? '')
let stop = () => {}
onMounted(
  () =>
    (stop = store.player.watch(({ program, moment }) => {
      const slot = program.slots.get(signalKey(props.signal))
      const text = slot
        ? showValue(slot.readers[0]!.at(moment), propertyOf(program, slot.key), program.measures, 2)
        : '–'
      writeText(value.value, text)
    })),
)
onBeforeUnmount(() => stop())
</script>

<template>
  <div class="min-w-0" :data-read-out="name">
    <button
      class="flex w-full items-baseline gap-1 text-left hover:underline"
      type="button"
      :data-tip="`${name}: show its formula`"
      @click="listing.reveal(signalKey(signal))"
    >
      <span class="truncate">{{ name }}</span>
      <span ref="value" class="tabular ml-auto whitespace-pre text-sea" />
    </button>
  </div>
</template>

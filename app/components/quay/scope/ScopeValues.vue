<script setup lang="ts">
/** The drive in hand as numbers: at the nib, its swing and speed, and at moments that were pinned. */
import { Pin, X } from '@lucide/vue'
import { isBounded } from '~~/core/facts/interval.ts'
import { partBetween } from '~~/core/insight/compare-takes.ts'
import { UNIT_SIGN, propertyOf, propertyOfKind, showValue } from '~~/core/insight/report.ts'
import { momentNear, type Moment } from '~~/core/time/moment.ts'
import { toNumber } from '~~/core/time/rational.ts'
import { printNumber, sizeOfUnit } from '~~/core/units/units.ts'
import type { PlayerSnapshot } from '~/player/player.ts'
import { writeText } from '~/player/write-text.ts'
import { useSelection } from '~/stores/selection.ts'
import { useOpenPiece } from '~/stores/open-piece.ts'

const props = defineProps<{ drive: string; copy: number }>()
const store = useOpenPiece()
const hand = useSelection()
const atNib = useTemplateRef('atNib')
const speedAtNib = useTemplateRef('speedAtNib')
const ofSelected = useTemplateRef('ofSelected')
const turnsAtNib = useTemplateRef('turnsAtNib')
/** Where the values of pinned moments stand, in their order. */
const pins = useTemplateRef<HTMLElement[]>('pins')
const pinned = shallowRef<readonly Moment[]>([])

const property = computed(() => propertyOf(store.program, props.drive))
const slot = computed(() => store.program.slots.get(props.drive))
const sign = computed(() => UNIT_SIGN[property.value.unit])
/** Base measure as people read it, without its unit. */
const plain = (v: number, decimals: number) =>
  printNumber(v / toNumber(sizeOfUnit(property.value.unit, store.program.measures)), decimals).replace('-', '−')
const swing = computed(() => {
  const bounds = slot.value?.readers[props.copy]?.facts().bounds
  return bounds && isBounded(bounds) ? plain(bounds.high - bounds.low, 3) + sign.value : 'no end'
})
/** Half the seconds over which a speed is told. */
const NEAR = 1 / 1024
function frame({ program, moment }: PlayerSnapshot): void {
  const reader = program.slots.get(props.drive)?.readers[props.copy]
  if (!reader) return
  const at = (t: number) => reader.at(momentNear(t, program.measures.frameRate))
  const now = reader.at(moment)
  const speed = (at(moment.seconds + NEAR) - at(moment.seconds - NEAR)) / (2 * NEAR)
  writeText(atNib.value, showValue(now, property.value, program.measures, 3))
  writeText(speedAtNib.value, `${plain(speed, 2)}${sign.value}/s`)
  writeText(turnsAtNib.value, printNumber(now, 2).replace('-', '−'))
  if (selected.value) {
    const { text, kind, form } = selected.value
    writeText(ofSelected.value, showValue(form.at(moment), propertyOfKind(text, kind), program.measures, 3))
  }
  pinned.value.forEach((m, i) =>
    writeText(pins.value?.[i], showValue(reader.at(m), property.value, program.measures, 3)),
  )
}
/** What is selected of the formula, as it runs. */
const selected = computed(() => {
  const s = hand.selected
  const same = s?.drive === props.drive && s.text === store.program.meanings.all.get(props.drive)?.source.text
  return same ? partBetween(store.program, props.drive, props.copy, s.from, s.to) : null
})
watch(selected, () => store.refresh(), { flush: 'post' })
watch(pinned, () => store.refresh(), { flush: 'post' })
let stop = () => {}
onMounted(() => (stop = store.player.watch(frame)))
onBeforeUnmount(() => stop())
</script>

<template>
  <div
    role="group"
    class="w-[152px] shrink-0 overflow-y-auto border-l border-rule px-3 py-2 text-[12px]"
    aria-label="Values"
  >
    <p class="text-faded">Now</p>
    <p ref="atNib" class="tabular mb-1 truncate text-[16px]" data-at-nib />
    <div class="flex justify-between gap-2 border-b border-rule py-[3px]">
      <span class="text-faded">range</span>
      <span class="tabular" data-swing>{{ swing }}</span>
    </div>
    <div class="flex justify-between gap-2 border-b border-rule py-[3px]">
      <span class="text-faded">speed</span>
      <span ref="speedAtNib" class="tabular" />
    </div>
    <div v-if="property.unit === 'deg'" class="flex justify-between gap-2 border-b border-rule py-[3px]">
      <span class="text-faded">turns</span>
      <span ref="turnsAtNib" class="tabular" />
    </div>
    <div v-if="selected" class="border-b border-rule py-[3px]" data-selected>
      <p class="tabular truncate text-faded" :data-tip="selected.text">{{ selected.text }}</p>
      <p ref="ofSelected" class="tabular text-right" />
    </div>
    <div
      v-for="(m, i) in pinned"
      :key="i"
      class="flex items-center justify-between gap-1 border-b border-rule py-[3px]"
      data-pinned
    >
      <span class="tabular text-faded">{{ printNumber(m.seconds, 3) }} s</span>
      <span ref="pins" class="tabular ml-auto truncate" />
      <button
        class="text-faded hover:text-ink"
        type="button"
        :aria-label="`Remove the moment ${printNumber(m.seconds, 3)} s`"
        @click="pinned = pinned.filter(p => p !== m)"
      >
        <X :size="12" />
      </button>
    </div>
    <button
      class="link mt-1 inline-flex items-center gap-1"
      type="button"
      @click="pinned = [...pinned, store.player.now()]"
    >
      <Pin :size="12" />Pin this moment
    </button>
  </div>
</template>

<script setup lang="ts">
/** What stands on an entry of the tide table in full: its curve, what is known of it, its formula, its promises. */
import { drivenSignal, isSignal } from '~~/core/piece/drive-key.ts'
import { driveLabel } from '~~/core/formula/labels.ts'
import { carry } from '~/editor/carry.ts'
import { laidOut, onOneLine } from '~~/core/formula/layout.ts'
import { propertyOf, showValue } from '~~/core/insight/report.ts'
import type { DriveFacts, DriveJumps } from '~~/core/insight/drive-facts.ts'
import { promisesOf, sourceName, sourceOf } from '~~/core/acts/sources.ts'
import type { Fix, Problem } from '~~/core/formula/problem.ts'
import { Strip } from '~/player/strip.ts'
import { writeText } from '~/player/write-text.ts'
import { useSelection } from '~/stores/selection.ts'
import { useListing } from '~/stores/listing.ts'
import { useTuning } from '~/commands/tuning.ts'
import { useOpenPiece } from '~/stores/open-piece.ts'
import { useVerdicts } from '~/stores/verdicts.ts'
import type FormulaField from './FormulaField.vue'

const props = defineProps<{ drive: string; seen: boolean }>()
const emit = defineEmits<{ busy: [busy: boolean]; wrong: [wrong: boolean] }>()
const store = useOpenPiece()
const hand = useSelection()
const listing = useListing()
const tuning = useTuning()
const verdicts = useVerdicts()

const canvas = useTemplateRef('canvas')
const readout = useTemplateRef('readout')
const field = useTemplateRef<InstanceType<typeof FormulaField>>('field')
const problems = shallowRef<readonly Problem[]>([])
const draft = ref(false)
/** Whether a promise is being written. */
const promising = ref(false)
const giving = ref(false)

const signal = isSignal(props.drive)
const entry = computed(() => sourceOf(store.piece, props.drive))
const off = computed(() => !signal && store.piece.drives[props.drive]?.off === true)
const name = computed(() => sourceName(store.piece, props.drive))
const property = computed(() => propertyOf(store.program, props.drive))
const slot = computed(() => store.program.slots.get(props.drive))
/** What is known of it for all time: asked for when its own slot or what it promises has changed; the last that was known stands meanwhile. */
const known = shallowRef<DriveFacts | null>(null)
const report = computed(() => known.value?.report ?? null)
/** Its leaps, those of every copy; and the first that a change would close. */
const leaping = shallowRef<DriveJumps | null>(null)
const leap = computed(() => leaping.value?.closed ?? null)
let asked = 0
watch(
  [slot, () => promisesOf(entry.value)],
  async ([now]) => {
    const mine = ++asked
    leaping.value = null
    if (!now) return (known.value = null)
    const found = await store.ask(props.drive, 'known')
    if (mine !== asked) return
    known.value = found
    const leaps = await store.ask(props.drive, 'leaping')
    if (mine === asked) leaping.value = leaps
  },
  { immediate: true },
)
/** Milliseconds a frame from which on it is told what the entry costs. */
const HEAVY = 2
const cost = computed(() => verdicts.costs?.each.get(props.drive) ?? 0)
const first = computed(() => problems.value[0])
watch(draft, is => emit('busy', is))
watch(
  () => first.value?.level === 'error',
  is => emit('wrong', is),
)
/** What runs meanwhile when the text does not. */
const meanwhile = computed(() => {
  const runs = slot.value?.running === 'text' || slot.value?.running === 'good'
  if (draft.value && problems.value.length === 0) return ''
  if (draft.value && runs) return 'The previous formula keeps running until this one works.'
  if (slot.value?.running === 'good') return 'The previous formula keeps running.'
  return slot.value?.running === 'base' ? 'The property rests at its set value.' : ''
})

const RUNS = {
  yes: 'text-kelp',
  symmetry: 'text-kelp',
  later: 'text-sea',
  no: 'text-brass',
  unproven: 'text-faded',
} as const

let strip: Strip | null = null
let stop = () => {}
const palette = usePalette(() => store.refresh())

watch(
  () => props.seen,
  is => is && store.refresh(),
)
onMounted(() => {
  strip = new Strip(canvas.value!, props.drive, palette, () => store.refresh())
  const unwatch = store.player.watch(snapshot => {
    if (!props.seen) return
    strip?.draw(snapshot)
    const now = snapshot.program.slots.get(props.drive)
    if (!now || !readout.value) return
    const text = showValue(
      signal ? now.readers[0]!.at(snapshot.moment) : (snapshot.values[now.offset] ?? 0),
      property.value,
      snapshot.program.measures,
    )
    writeText(readout.value, text)
  })
  stop = () => {
    strip?.stop()
    unwatch()
  }
})
onBeforeUnmount(() => {
  clearTimeout(waiting)
  asked++
  stop()
})

/** What is half typed is wrong most of the time: while typing goes on, its problems wait. */
const REST = 600
let waiting: ReturnType<typeof setTimeout> | undefined
function found(list: readonly Problem[], typing: boolean): void {
  clearTimeout(waiting)
  draft.value = typing
  if (typing && list.length > 0) waiting = setTimeout(() => (problems.value = list), REST)
  else problems.value = list
}
/** Over several lines, or on one again: the formula stays the same. */
function layOut(): void {
  const { text } = entry.value!
  tuning.exactly(props.drive, text.includes('\n') ? onOneLine(text) : laidOut(text))
}
function fix(chosenFix: Fix): void {
  field.value?.accept(chosenFix)
}
</script>

<template>
  <template v-if="entry">
    <header class="flex min-h-[26px] flex-wrap items-center gap-x-2 pr-1 pl-3">
      <span
        class="w-[104px] shrink-0 cursor-grab truncate font-medium"
        draggable="true"
        :data-tip="`${property.name}: drag it onto a formula, a row of links or a part`"
        @dragstart="carry($event, drive, driveLabel(store.piece, drive))"
        >{{ property.name }}</span
      >
      <span ref="readout" class="tabular w-[76px] shrink-0 text-right whitespace-pre" data-readout />
      <div
        v-if="report && slot?.running !== 'base' && !off"
        class="flex min-w-0 flex-1 items-center gap-2 @max-[480px]:order-last @max-[480px]:basis-full @max-[480px]:pb-1"
        data-facts
      >
        <span
          class="ml-2 min-w-0 shrink-[9] truncate text-[12px] text-faded tabular-nums @max-[480px]:ml-0"
          :data-tip="report.period"
          >{{ report.period }}</span
        >
        <span
          class="tabular ml-auto min-w-0 shrink-[3] truncate text-[12px] text-faded"
          data-tip="Guaranteed lowest and highest value over all time"
          >{{ report.range }}</span
        >
        <span
          v-if="report.reach"
          class="shrink-0 text-[12px] text-brass"
          data-tip="This rate never settles or repeats: beyond that time its sum stays as it is"
          >{{ report.reach }}</span
        >
        <span
          v-if="leaping && leaping.says.length > 0"
          class="shrink-0 text-[12px] text-faded"
          :data-tip="leaping.says.join('\n')"
          data-leaps
          >{{ leaping.may ? 'may jump' : 'jumps' }}</span
        >
        <span
          v-if="cost >= HEAVY"
          class="shrink-0 text-[12px] text-brass"
          :data-tip="`Measured on this machine. ${verdicts.costs!.lighter.get(drive) ?? ''}`"
          data-cost
          >{{ Math.round(cost) }} ms a frame</span
        >
        <span
          v-if="!report.finite"
          class="shrink-0 text-[12px] text-brass"
          data-tip="At some moments there’s no value (such as 1 ÷ 0); the set value is used then"
          >gaps</span
        >
        <span
          class="min-w-[60px] truncate text-[12px]"
          :class="RUNS[report.closure.verdict]"
          :data-tip="`${report.closes}: whether the value loops in the lap`"
          >{{ report.closes }}</span
        >
      </div>
      <span v-else class="ml-auto text-[12px] text-faded">{{ off ? 'turned off' : 'at rest' }}</span>
      <span v-if="signal" class="ml-auto"><NamedMenu collection="signals" :id="drivenSignal(drive)" /></span>
      <EntryMenu
        v-else
        :drive="drive"
        @dial="field?.dialOut()"
        @ease="nextTick(() => field?.ease())"
        @lay="layOut"
        @give="giving = true"
        @promise="promising = true"
      />
    </header>
    <canvas
      ref="canvas"
      class="block h-[40px] w-full cursor-pointer"
      data-tip="Show in the scope"
      aria-hidden="true"
      @click="hand.desk = 'scope'"
    />
    <FormulaField
      ref="field"
      :drive="drive"
      :label="`Formula of ${name}`"
      :class="{ 'opacity-50': off }"
      @focus="hand.take(drive)"
      @problems="found"
      @open="listing.reveal"
    />
    <LazyShareFormula v-if="giving" :drive="drive" @close="giving = false" />
    <TakesRow v-if="!signal" :drive="drive" />
    <DrivePromises v-if="!signal" v-model:writing="promising" :drive="drive" :kept="known?.promises ?? []" />
    <div v-if="first" class="border-t border-rule px-3 py-[5px]" role="alert">
      <p>
        <span :class="first.level === 'error' ? 'text-coral' : 'text-brass'">{{ first.message }}</span>{{ ' '
        }}<span class="text-faded">{{ meanwhile }}</span>
      </p>
      <p v-if="first.fixes.length > 0" class="mt-[3px] flex flex-wrap items-center gap-2">
        <button
          v-for="(f, i) in first.fixes.slice(0, 3)"
          :key="f.label"
          class="tabular rounded-sm border border-rule px-2 py-[1px] text-[12px] hover:border-faded"
          type="button"
          data-fix
          @mousedown.prevent
          @click="fix(f)"
        >
          {{ f.label }}<kbd v-if="i === 0" class="ml-2 font-sans text-faded">Alt Enter</kbd>
        </button>
      </p>
    </div>
    <div
      v-else-if="leap && !draft"
      class="flex flex-wrap items-center gap-2 border-t border-rule px-3 py-[5px]"
      role="status"
    >
      <span class="text-brass">It {{ leap.says }}.</span>
      <button
        class="rounded-sm border border-rule px-2 py-[1px] text-[12px] hover:border-faded"
        type="button"
        @mousedown.prevent
        @click="fix(leap.fix)"
      >
        {{ leap.fix.label }}
      </button>
    </div>
    <p v-else-if="draft" class="px-3 pb-[5px] text-[12px] text-faded">Enter runs it, Esc reverts it.</p>
  </template>
</template>

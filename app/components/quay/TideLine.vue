<script setup lang="ts">
/** The tideline: play, pace, the time, and the tape that is pulled by hand. */
import { ArrowLeftRight, Film, Pause, Play, SkipBack, X } from '@lucide/vue'
import { setStretch } from '~~/core/acts/time-edits.ts'
import { readTime, showTime } from '~~/core/time/reading.ts'
import { printNumber } from '~~/core/units/units.ts'
import { fromNumber, toNumber } from '~~/core/time/rational.ts'
import { SizedCanvas } from '~/player/sized-canvas.ts'
import { NIB, TAPE_PER_SECOND, TAPE_ZOOM } from '~/player/tape-scale.ts'
import { drawTape } from '~/player/tape.ts'
import { writeText } from '~/player/write-text.ts'
import { useCommandKeys } from '~/commands/keys.ts'
import { useSelection } from '~/stores/selection.ts'
import { useOpenPiece } from '~/stores/open-piece.ts'

const store = useOpenPiece()
const { withKeys } = useCommandKeys()
const player = store.player
const hand = useSelection()
const canvas = useTemplateRef('canvas')
const timeText = useTemplateRef('timeText')
const placeText = useTemplateRef('placeText')
const timeField = useTemplateRef('timeField')

const playing = ref(player.playing)
const pace = ref(Math.abs(player.pace))
const backwards = ref(player.pace < 0)
const typing = ref(false)
const typed = ref('')
const wrong = ref('')
/** Px a second of the tape; and its size. */
const perSecond = ref(TAPE_PER_SECOND)
let [width, height] = [0, 0]
const tape = useTape(
  () => perSecond.value,
  () => Math.round(width * NIB) + 0.5,
)
const stretch = computed(() => store.piece.stretch)
const replaying = ref(false)
const everyFrame = ref(false)
const PACES = [0.1, 0.25, 0.5, 1, 2, 4, 8]

const palette = usePalette(() => player.refresh())
const stops: (() => void)[] = []

onMounted(() => {
  const sheet = new SizedCanvas(canvas.value!, () => player.refresh())
  stops.push(
    () => sheet.stop(),
    player.changed(() => {
      playing.value = player.playing
      pace.value = Math.abs(player.pace)
      backwards.value = player.pace < 0
      replaying.value = player.replaying
      everyFrame.value = player.everyFrame
    }),
    player.watch(snapshot => {
      width = sheet.width
      height = sheet.height
      drawTape(sheet, snapshot, palette, perSecond.value, hand.drive)
      const seconds = snapshot.moment.seconds
      tellWhere(seconds)
      const { frameRate, lapLength } = snapshot.program.measures
      const lap = (seconds - snapshot.program.piece.lap.start) / toNumber(lapLength)
      const rate = toNumber(frameRate)
      writeText(timeText.value, showTime(seconds))
      const sign = (n: number, d = 0) => n.toFixed(d).replace('-', '−')
      writeText(
        placeText.value,
        `frame ${sign(Math.floor(seconds * rate + 1e-6))} · lap ${sign(lap, 2)} · ${printNumber(rate, 3)} fps`,
      )
    }),
  )
})
/** When the position was last set for screen readers, in milliseconds since the page opened. */
let told = -Infinity
/** Sets the tape's position for screen readers: once a second while playing, immediately while paused. */
function tellWhere(seconds: number): void {
  if (player.playing && performance.now() - told < 1000) return
  told = performance.now()
  canvas.value!.setAttribute('aria-valuenow', seconds.toFixed(3))
  canvas.value!.setAttribute('aria-valuetext', showTime(seconds))
}
onBeforeUnmount(() => stops.forEach(stop => stop()))

function replay(): void {
  player.replay(!player.replaying)
  if (!player.replaying) return
  const { from, to } = stretch.value!
  const now = player.now().seconds
  if (now < from || now >= to) player.goto(fromNumber(from))
  player.play(true)
}
const setPace = () => player.setPace(backwards.value ? -pace.value : pace.value)
function turnRound(): void {
  backwards.value = !backwards.value
  setPace()
}

function wheel(e: WheelEvent): void {
  if (e.ctrlKey || e.metaKey) {
    const [least, most] = TAPE_ZOOM
    perSecond.value = Math.min(most, Math.max(least, perSecond.value * 2 ** (-e.deltaY / 300)))
    player.refresh()
    return
  }
  const by = Math.abs(e.deltaX) > Math.abs(e.deltaY) ? e.deltaX : e.deltaY
  player.move(by / perSecond.value)
}
function hover(e: PointerEvent): void {
  const at = canvas.value!
  at.title = tape.says({ offsetX: e.offsetX, offsetY: e.offsetY, height })
}

function key(e: KeyboardEvent): void {
  const by = { ArrowLeft: -1, ArrowRight: 1, PageUp: -10, PageDown: 10 }[e.key]
  if (by === undefined) return
  e.preventDefault()
  e.stopPropagation()
  player.move(by * (e.shiftKey ? 10 : 1))
}

async function type(): Promise<void> {
  typed.value = showTime(player.now().seconds)
  typing.value = true
  wrong.value = ''
  await nextTick()
  timeField.value?.select()
}

function go(): void {
  const read = readTime(typed.value, store.program.measures)
  if (!read.seconds) {
    wrong.value = read.says
    return
  }
  player.goto(read.seconds)
  leave()
}
function leave(): void {
  typing.value = false
  wrong.value = ''
  // The read-out is there again, and empty until it is written.
  void nextTick(() => player.refresh())
}
</script>

<template>
  <section class="flex h-16 shrink-0 border-b border-rule bg-sheet" aria-label="Tideline">
    <div class="relative flex w-[344px] shrink-0 items-center gap-3 border-r border-rule px-4">
      <button
        class="grid h-10 w-10 shrink-0 place-items-center rounded-full bg-ink text-sheet"
        type="button"
        :aria-label="playing ? 'Pause' : 'Play'"
        :data-tip="withKeys(playing ? 'Pause' : 'Play', 'Play or pause')"
        @click="player.play(!playing)"
      >
        <component :is="playing ? Pause : Play" :size="18" fill="currentColor" stroke-width="1" />
      </button>
      <div class="min-w-0 flex-1">
        <div class="flex items-center gap-1">
          <input
            v-if="typing"
            ref="timeField"
            v-model="typed"
            class="field tabular h-7 w-[150px] text-[16px]"
            aria-label="Go to time"
            :aria-invalid="!!wrong"
            @keydown.enter="go"
            @keydown.esc="leave"
            @blur="leave"
          />
          <button
            v-else
            class="tabular truncate rounded-sm text-left text-[20px] leading-6 hover:underline hover:decoration-rule hover:underline-offset-4"
            type="button"
            aria-label="Current time, press to type another"
            data-tip="Go to a time: 12.4, 1:30, 372f, 3lap, 365d"
            @click="type"
          >
            <span ref="timeText" data-time />
          </button>
          <span class="ml-auto flex items-center gap-[2px]">
            <IconButton
              label="Back to time 0"
              :data-tip="withKeys('Back to time 0', 'Back to time 0')"
              @click="player.goto({ n: 0n, d: 1n })"
              small
            >
              <SkipBack :size="15" />
            </IconButton>
            <IconButton
              :class="{ 'bg-band !text-sea': backwards }"
              label="Backwards"
              :aria-pressed="backwards"
              data-tip="Backwards"
              @click="turnRound"
              small
            >
              <ArrowLeftRight :size="15" />
            </IconButton>
            <IconButton
              :class="{ 'bg-band !text-sea': everyFrame }"
              label="Play every frame"
              :aria-pressed="everyFrame"
              data-tip="Show every frame, however long it takes; otherwise playback keeps true time"
              @click="player.showEveryFrame(!everyFrame)"
              small
            >
              <Film :size="15" />
            </IconButton>
            <SelectBox
              v-model="pace"
              class="tabular w-[42px] text-faded hover:text-ink"
              label="Pace"
              inline
              data-tip="Pace of playing"
              :of="PACES.map(p => ({ value: p, says: `×${p}` }))"
              @update:model-value="setPace"
            />
          </span>
        </div>
        <p ref="placeText" class="tabular truncate text-[12px] text-faded" data-place />
      </div>
      <p v-if="wrong" class="panel absolute top-[58px] left-16 z-40 px-3 py-2 text-coral" role="alert">{{ wrong }}</p>
    </div>
    <div v-if="stretch" class="flex w-[134px] shrink-0 flex-col justify-center gap-[2px] border-r border-rule px-2">
      <button
        class="truncate rounded-sm text-left text-[12px] hover:text-sea"
        :class="{ 'text-sea': replaying }"
        type="button"
        :aria-pressed="replaying"
        data-tip="Loop the marked stretch"
        @click="replay"
      >
        {{ replaying ? 'replaying it' : 'replay stretch' }}
      </button>
      <p class="tabular flex items-center text-[11px] whitespace-nowrap text-faded" data-stretch>
        {{ printNumber(stretch.from, 2) }} – {{ printNumber(stretch.to, 2) }} s
        <button
          class="ml-auto hover:text-ink"
          type="button"
          aria-label="Unmark the stretch"
          @click="store.act(setStretch(null))"
        >
          <X :size="12" />
        </button>
      </p>
    </div>
    <canvas
      ref="canvas"
      class="h-full min-w-0 flex-1 cursor-grab touch-none active:cursor-grabbing"
      tabindex="0"
      role="slider"
      aria-label="Time tape, drag it sideways"
      aria-valuemin="-1000000000"
      aria-valuemax="1000000000"
      aria-valuenow="0"
      data-tape
      @pointerdown="tape.press"
      @pointermove="hover"
      @wheel.prevent="wheel"
      @keydown="key"
    />
  </section>
</template>

<script setup lang="ts">
/** What a shape is made of: its sides, points, teeth, waves. Fixed; formulas may read it. */
import { addGear } from '~~/core/acts/gear-acts.ts'
import { reshapeGear } from '~~/core/acts/gear-train.ts'
import { setPart } from '~~/core/acts/parts.ts'
import { keepAsPath } from '~~/core/acts/path-edits.ts'
import { setWords } from '~~/core/acts/text-parts.ts'
import { FIELDS } from '~~/core/rig/stage-mesh/laid-outline.ts'
import { LEADING, spotsOf } from '~~/core/rig/text/letters.ts'
import { figure } from '~~/core/engine/weight.ts'
import { MOST_PARTICLES } from '~~/core/rig/motion/emitter.ts'
import { particlesAtOnce } from '~~/core/rig/laying.ts'
import { PARTICLES } from '~~/core/rig/particle.ts'
import type { Shape } from '~~/core/piece/schema.ts'
import { symmetryIn, symmetryOf } from '~~/core/piece/symmetry.ts'
import { useSelection } from '~/stores/selection.ts'
import { usePiece } from '~/stores/piece.ts'

const props = defineProps<{ id: string }>()
const store = usePiece()
const hand = useSelection()
const shape = computed(() => store.piece!.parts[props.id]!.shape)

/** Another outline has another symmetry, unless one was set by hand. */
function change(to: object): void {
  const part = store.piece!.parts[props.id]!
  const next = { ...part.shape, ...to } as Shape
  const symmetry = symmetryIn(store.piece!, props.id).typed ? part.symmetry : symmetryOf(next)
  if (next.type !== 'gear') return store.act(setPart(store.piece!, props.id, { shape: next, symmetry }))
  const { op, says } = reshapeGear(store.piece!, props.id, next, symmetry)
  store.act(op)
  if (says) store.say(says)
}

/** A gear beside this one, in engagement from the first frame. */
function engage(): void {
  const made = addGear(store.piece!, props.id, { teeth: 24, spokes: 5 })
  store.act(made.op)
  hand.choose(made.id)
}

const TEXT = { words: 'its words', number: 'a number', letters: 'one letter per copy' } as const
const ALIGN = { left: 'from the left', middle: 'in the middle', right: 'from the right' } as const

const LINES = { typed: 'as typed', words: 'one word per line' } as const

/** Where each copy shows a letter there are as many copies as letters, set anew with the words. */
const write = (to: object): void => store.act(setWords(store.piece!, props.id, to, spotsOf))

/** The line that the trace has laid by now, as a path that stays. */
function keep(): void {
  const body = store.sceneNow()?.bodies.get(props.id)
  const laid = body?.lay?.(0)
  const made = laid && keepAsPath(store.piece!, props.id, laid.points, laid.heights)
  if (!made) {
    store.say('The trace has no points yet: play the piece, or choose what it follows.')
    return
  }
  store.act(made.op)
  hand.choose(made.id)
}

const BIRTH = { point: 'a point', line: 'a line', ring: 'a ring', area: 'an area' } as const
const FLIGHT = { changing: 'can change in flight', fixed: 'fixed when emitted' } as const

const LAID = { time: 'at a steady rate', bend: 'where it bends' } as const
const BEND = { angle: 6, distance: 60 }

/** Parts that a trace may follow, by id. */
const others = computed(() => {
  const moving = Object.entries(store.piece!.parts).filter(
    ([id, p]) => id !== props.id && p.shape.type !== 'trace' && p.shape.type !== 'emitter',
  )
  return { '': 'nothing', ...Object.fromEntries(moving.map(([id, p]) => [id, p.name])) }
})

/** Parts whose outline particles may have. */
const looks = computed(() => {
  const closed = Object.entries(store.piece!.parts).filter(([, p]) => PARTICLES.includes(p.shape.type))
  return { '': 'dots', ...Object.fromEntries(closed.map(([id, p]) => [id, p.name])) }
})

/** How many particles there are at once, and whether all are shown. */
const atOnce = computed(() => {
  if (shape.value.type !== 'emitter' || !store.program) return ''
  const { alive, shown, copies } = particlesAtOnce(store.program, props.id)
  const { count } = store.program.instancesOf(props.id)
  const each = count > 1 ? ' in each copy' : ''
  const first = copies < count ? ` Only the first ${figure(copies)} copies show any.` : ''
  if (alive <= shown) return `Up to ${figure(alive)} particles at once${each}.${first}`
  const many = Number.isFinite(alive) ? `up to ${figure(alive)}` : 'any number of'
  return `It can have ${many} particles at once${each}. Only the youngest ${figure(shown)} are shown: a piece can show ${figure(MOST_PARTICLES)}.${first}`
})

const STIRRED = { wind: 'wind, like water', noise: 'noise over space' } as const
/** Times a second that noise over space changes, at first. */
const PACE = 0.25
/** What noise over space has no use for. */
const OF_WATER = ['depth', 'wind']
const WAVES = [
  ['longest', 'longest wave', 'px', 'Length of the longest waves'],
  ['depth', 'depth', 'px', 'Depth of the water: shallow water slows long waves down'],
  ['wind', 'wind', 'deg', 'The direction the wind blows in: 0 is across, 90 towards the viewer'],
  ['tile', 'tile', 'px', 'The distance after which it repeats; 0 for never'],
] as const
</script>

<template>
  <NumberField
    v-if="shape.type === 'polygon'"
    label="sides"
    :value="shape.sides"
    :low="3"
    :high="64"
    whole
    @set="change({ sides: $event })"
  />
  <NumberField
    v-if="shape.type === 'star'"
    label="points"
    :value="shape.points"
    :low="3"
    :high="64"
    whole
    @set="change({ points: $event })"
  />
  <template v-if="shape.type === 'gear'">
    <NumberField label="teeth" :value="shape.teeth" :low="4" :high="400" whole @set="change({ teeth: $event })" />
    <NumberField label="spokes" :value="shape.spokes" :low="0" :high="64" whole @set="change({ spokes: $event })" />
    <NumberField
      label="module"
      data-tip="Tooth size: the pitch circle is teeth × module across"
      :value="shape.module"
      unit="px"
      :low="0.1"
      @set="change({ module: $event })"
    />
  </template>
  <button v-if="shape.type === 'gear' && !store.piece!.parts[id]!.copies" class="button" type="button" @click="engage">
    Add an engaging gear
  </button>
  <template v-if="shape.type === 'text'">
    <label class="block" data-words
      ><span>words</span>
      <textarea
        class="field mt-1 w-full resize-y"
        rows="1"
        maxlength="200"
        aria-label="Words"
        data-tip="Enter applies, Shift+Enter starts a new line"
        :value="shape.words"
        @change="write({ words: ($event.target as HTMLTextAreaElement).value })"
        @keydown.enter.exact="($event.target as HTMLElement).blur()"
      />
    </label>
    <ChoiceField label="shows" name="Shows" :value="shape.shows" :choices="TEXT" @choose="write({ shows: $event })" />
    <template v-if="shape.shows !== 'number'">
      <ChoiceField
        label="lines"
        name="Lines"
        :value="shape.lines ?? 'typed'"
        :choices="LINES"
        @choose="write({ lines: $event })"
      />
      <NumberField
        label="leading"
        data-tip="Line height, as a multiple of the letter size"
        :value="shape.leading ?? LEADING"
        unit="%"
        :low="10"
        :high="1000"
        @set="write({ leading: $event })"
      />
    </template>
    <template v-if="shape.shows === 'number'">
      <NumberField
        label="decimals"
        :value="shape.decimals"
        :low="0"
        :high="12"
        whole
        @set="change({ decimals: $event })"
      />
      <label v-for="side in ['prefix', 'suffix'] as const" :key="side" class="flex items-center gap-2"
        ><span class="flex-1">{{ side }}</span>
        <input
          class="field w-[86px]"
          maxlength="20"
          :aria-label="side"
          :value="shape[side]"
          @change="change({ [side]: ($event.target as HTMLInputElement).value })"
      /></label>
    </template>
    <ChoiceField label="set" name="Set" :value="shape.align" :choices="ALIGN" @choose="write({ align: $event })" />
  </template>
  <PathFields v-if="shape.type === 'path'" :id="id" />
  <template v-if="shape.type === 'trace'">
    <ChoiceField
      label="follows"
      name="Follows"
      :value="shape.of ?? ''"
      :choices="others"
      @choose="change({ of: $event || null })"
    />
    <NumberField
      label="point x"
      data-tip="Offset from its pivot"
      :value="shape.x"
      unit="px"
      @set="change({ x: $event })"
    />
    <NumberField
      label="point y"
      data-tip="Offset from its pivot"
      :value="shape.y"
      unit="px"
      @set="change({ y: $event })"
    />
    <ChoiceField
      label="points"
      name="Where points are placed"
      :value="shape.bend ? 'bend' : 'time'"
      :choices="LAID"
      @choose="change({ bend: $event === 'bend' ? BEND : undefined })"
    />
    <template v-if="shape.bend">
      <NumberField
        label="bends by"
        data-tip="A point is placed wherever it has turned this far"
        :value="shape.bend.angle"
        unit="deg"
        :low="0.1"
        :high="180"
        @set="change({ bend: { ...shape.bend, angle: $event } })"
      />
      <NumberField
        label="goes"
        data-tip="… or wherever it has moved this far"
        :value="shape.bend.distance"
        unit="px"
        :low="0.1"
        @set="change({ bend: { ...shape.bend, distance: $event } })"
      />
    </template>
    <NumberField
      :label="shape.bend ? 'points per second, at most' : 'points per second'"
      data-tip="How many points are placed per second"
      :value="shape.every"
      :low="1"
      :high="240"
      whole
      @set="change({ every: $event })"
    />
    <button class="button" type="button" data-tip="Keeps the current line as a path part" @click="keep">
      Keep as a path
    </button>
  </template>
  <template v-if="shape.type === 'emitter'">
    <ChoiceField
      label="speed"
      name="Particle speed"
      :value="shape.flight"
      :choices="FLIGHT"
      @choose="change({ flight: $event })"
    />
    <ChoiceField
      label="particle shape"
      name="Particle shape"
      :value="shape.of ?? ''"
      :choices="looks"
      @choose="change({ of: $event || undefined })"
    />
    <ChoiceField
      label="emit from"
      name="Emit from"
      :value="shape.birth ?? 'point'"
      :choices="BIRTH"
      @choose="change({ birth: $event })"
    />
    <TickField label="can reverse" :value="shape.reverses" @set="change({ reverses: $event })" />
    <NumberField label="seed" :value="shape.seed" :low="0" :high="4294967295" whole @set="change({ seed: $event })" />
    <p v-if="atOnce" class="basis-full text-[12px] text-faded" data-at-once>{{ atOnce }}</p>
  </template>
  <template v-if="shape.type === 'waves'">
    <ChoiceField
      label="driven by"
      name="Driven by wind or noise"
      :value="shape.noise ? 'noise' : 'wind'"
      :choices="STIRRED"
      @choose="change({ noise: $event === 'noise' ? { pace: PACE } : undefined })"
    />
    <NumberField
      v-if="shape.noise"
      label="pace"
      data-tip="How many times a second it changes; 0 is still. It loops in the lap."
      :value="shape.noise.pace"
      unit="Hz"
      :low="0"
      :high="60"
      :stride="0.1"
      @set="change({ noise: { pace: $event } })"
    />
    <NumberField
      v-for="[name, label, unit, says] in WAVES.filter(
        ([n]) => !('noise' in shape && shape.noise && OF_WATER.includes(n)),
      )"
      :key="name"
      :label="label"
      :data-tip="says"
      :value="shape[name]"
      :unit="unit"
      :low="name === 'wind' ? undefined : name === 'tile' ? 0 : 1"
      @set="change({ [name]: $event })"
    />
    <NumberField
      label="resolution"
      data-tip="In depth: cells of the surface in each direction"
      :value="shape.fields ?? FIELDS"
      :low="4"
      :high="256"
      whole
      @set="change({ fields: $event })"
    />
    <NumberField label="waves" :value="shape.waves" :low="1" :high="64" whole @set="change({ waves: $event })" />
    <NumberField label="seed" :value="shape.seed" :low="0" :high="4294967295" whole @set="change({ seed: $event })" />
  </template>
</template>

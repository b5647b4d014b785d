<script setup lang="ts">
/** A signal, curve, clock or cue that a formula names: what it is, in a sentence, and how a curve runs. */
import { X } from '@lucide/vue'
import { drawn } from '~~/core/signal/drawn.ts'
import { usePiece } from '~/stores/piece.ts'

const props = defineProps<{ name: string }>()
const emit = defineEmits<{ close: [] }>()
const store = usePiece()

const thing = computed(() => store.program?.meanings.names.named(props.name))
const seconds = (n: number) => `${Number(n.toFixed(3))} s`

const says = computed((): string => {
  const { piece } = store
  const t = thing.value
  if (!piece || !t) return 'It is gone. A formula that names it rests until the name is changed.'
  if (t.type === 'signal') return piece.signals[t.id]!.text
  if (t.type === 'cue') {
    const { marks, every } = piece.cues[t.id]!
    const at = marks.slice(0, 8).map(seconds).join(', ')
    return marks.length === 0 ? 'no marks yet' : `marks at ${at}${every ? `, and again every ${seconds(every)}` : ''}`
  }
  if (t.type === 'clock') {
    const { way, hold, on } = piece.clocks[t.id]!
    const dial =
      way.type === 'steady' && way.dial ? ` times ${piece.dials[way.dial]?.name ?? 'a dial that is gone'}` : ''
    const how = {
      steady: () => way.type === 'steady' && `runs ${way.rate} times as fast${dial}, ${seconds(way.ahead)} ahead`,
      toAndFro: () => way.type === 'toAndFro' && `runs to and fro, ${seconds(way.length)} each way`,
      restart: () => way.type === 'restart' && `begins again every ${seconds(way.every)}`,
      cue: () =>
        way.type === 'cue' && `begins again at each mark of ${piece.cues[way.cue]?.name ?? 'a cue that is gone'}`,
      curve: () => way.type === 'curve' && `follows the curve ${piece.curves[way.curve]?.name ?? 'that is gone'}`,
    }[way.type]()
    const held = hold ? `, held at ${hold} steps a second` : ''
    return `${how}${held}${on ? `, on ${piece.clocks[on]?.name}` : ''}`
  }
  if (t.type === 'curve') {
    const { channels, unit, hit } = piece.curves[t.id]!
    const points = Object.entries(channels).map(([channel, p]) => `${channel}, ${p.length} points`)
    return `${points.join('; ')}${unit ? `, in ${unit}` : ''}; its hit point is at ${seconds(hit)}`
  }
  return t.type
})

const WIDE = 220
const HIGH = 44
const paths = computed((): string[] => {
  const t = thing.value
  if (t?.type !== 'curve') return []
  const channels = Object.values(store.piece!.curves[t.id]!.channels)
  const times = channels.flatMap(c => c.map(p => p.time))
  const all = channels.map(c => drawn(c, [Math.min(...times), Math.max(...times)]))
  const [low, high] = [Math.min(...all.map(d => d.low)), Math.max(...all.map(d => d.high))]
  return all.map(d => {
    const at = Array.from({ length: 111 }, (_, i) => {
      const v = d.at(d.start + ((d.end - d.start) * i) / 110)
      return `${i * 2} ${(HIGH - 3 - ((v - low) / (high - low || 1)) * (HIGH - 6)).toFixed(1)}`
    })
    return `M${at.join('L')}`
  })
})
</script>

<template>
  <div
    class="flex items-center gap-3 border-t border-rule px-3 py-[5px]"
    data-thing
    :aria-label="`What ${name} is`"
    role="region"
  >
    <p class="min-w-0 flex-1">
      <strong class="font-medium">{{ thing?.name ?? name }}</strong><span class="ml-1 text-faded">{{
        thing ? `(${thing.type})` : ''
      }}</span>
      <span class="ml-2" :class="thing?.type === 'signal' ? 'tabular text-[12.5px]' : ''">{{ says }}</span>
    </p>
    <svg v-if="paths.length > 0" :width="WIDE" :height="HIGH" class="shrink-0" aria-hidden="true">
      <path
        v-for="(d, i) in paths"
        :key="i"
        :d="d"
        fill="none"
        class="stroke-sea"
        stroke-width="1.4"
        :opacity="1 - i * 0.35"
      />
    </svg>
    <button class="shrink-0 text-faded hover:text-ink" type="button" aria-label="Close" @click="emit('close')">
      <X :size="15" />
    </button>
  </div>
</template>

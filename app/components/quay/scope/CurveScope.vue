<script setup lang="ts">
/** A drawn curve in the scope: its channels, its points, its hit point. */
import { PenLine, Plus } from '@lucide/vue'
import { addChannel, channelProblem, nameChannel, removeChannel, setChannel } from '~~/core/acts/points.ts'
import { changeNamed } from '~~/core/acts/named-things.ts'
import { channelsOf } from '~~/core/piece/channels.ts'
import { useOpenPiece } from '~/stores/open-piece.ts'
import type PointsPaper from './PointsPaper.vue'

const props = defineProps<{ id: string }>()
const store = useOpenPiece()
const curve = computed(() => store.piece.curves[props.id]!)
const names = computed(() => channelsOf(curve.value))
const chosen = ref('')
const channel = computed(() => (names.value.includes(chosen.value) ? chosen.value : names.value[0]!))
const picked = ref<readonly number[]>([])
const drawing = ref(false)
const paper = useTemplateRef<InstanceType<typeof PointsPaper>>('paper')
const points = computed(() => curve.value.channels[channel.value] ?? [])
watch(channel, () => (picked.value = []))
const uneven = computed(() => points.value.length > 1 && points.value[0]!.value !== points.value.at(-1)!.value)

function rename(e: Event): void {
  const field = e.target as HTMLInputElement
  const name = field.value.trim()
  const problem = channelProblem(curve.value, name, channel.value)
  if (problem) store.say(problem)
  else if (name !== channel.value) {
    store.act(nameChannel(store.piece, props.id, channel.value, name))
    chosen.value = name
  }
  field.value = channel.value
}
function add(): void {
  const before = new Set(names.value)
  store.act(addChannel(store.piece, props.id))
  chosen.value = names.value.find(n => !before.has(n)) ?? chosen.value
}
function even(): void {
  const list = points.value
  const made = list.map((p, k) => (k === list.length - 1 ? { ...p, value: list[0]!.value } : p))
  store.act(setChannel(store.piece, props.id, channel.value, made))
}
</script>

<template>
  <div class="flex min-h-0 flex-1">
    <div class="flex min-w-0 flex-1 flex-col">
      <div class="flex shrink-0 flex-wrap items-center gap-1 px-4 pt-2" role="group" aria-label="Channels">
        <button
          v-for="n in names"
          :key="n"
          class="chip"
          :class="{ 'chip-on': n === channel }"
          type="button"
          :aria-pressed="n === channel"
          @click="chosen = n"
        >
          {{ n }}
        </button>
        <IconButton label="Add channel" small @click="add"><Plus :size="14" /></IconButton>
        <button
          class="chip ml-2 flex items-center gap-1"
          :class="{ 'chip-on': drawing }"
          type="button"
          :aria-pressed="drawing"
          data-tip="Draw the channel freehand; the line is simplified"
          @click="drawing = !drawing"
        >
          <PenLine :size="13" />draw
        </button>
        <span v-if="uneven" class="ml-auto flex items-center gap-2 text-[12px] text-brass">
          The ends differ, so repeating jumps
          <button class="rounded-sm border border-rule px-2 text-ink hover:border-faded" type="button" @click="even">
            Match the ends
          </button>
        </span>
      </div>
      <div class="min-h-0 flex-1 overflow-hidden">
        <PointsPaper
          ref="paper"
          v-model:picked="picked"
          :channels="curve.channels"
          :channel="channel"
          :hit="curve.hit"
          :drawing="drawing"
          @set="(c, p) => store.act(setChannel(store.piece, id, c, p))"
          @hit="store.act(changeNamed(store.piece, 'curves', id, { hit: $event }))"
          @pick="chosen = $event"
          @drawn="drawing = false"
        />
      </div>
    </div>
    <div class="flex w-[190px] shrink-0 flex-col gap-3 overflow-y-auto border-l border-rule p-3">
      <label class="flex items-center gap-2"
        ><span class="text-faded">Channel</span>
        <input class="field w-full" :value="channel" aria-label="Name of the channel" maxlength="60" @change="rename" />
      </label>
      <PointsValues
        :points="points"
        :picked="picked"
        :unit="curve.unit"
        @set="store.act(setChannel(store.piece, id, channel, $event))"
        @remove="paper?.remove()"
      />
      <button
        v-if="names.length > 1"
        class="link mt-auto self-start"
        type="button"
        @click="store.act(removeChannel(store.piece, id, channel))"
      >
        Delete channel
      </button>
    </div>
  </div>
</template>

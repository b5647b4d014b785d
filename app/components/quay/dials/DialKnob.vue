<script setup lang="ts">
/** One dial: its name, its number, its slide. A double click on the slide puts it back. */
import { Lock, Pencil } from '@lucide/vue'
import { placeDial } from '~~/core/acts/drives.ts'
import { follow } from '~/editor/follow.ts'
import { lentStep, limitToLent } from '~~/core/piece/lent.ts'
import type { Dial } from '~~/core/piece/schema.ts'
import { slipsOf } from '~~/core/engine/retime.ts'
import { useOpenPiece } from '~/stores/open-piece.ts'
import { useTuning } from '~/commands/tuning.ts'

const props = defineProps<{ id: string; dial: Dial }>()
const store = useOpenPiece()
const tuning = useTuning()
const changing = ref(false)

/** The name is dragged over another dial, and takes its place. */
function drag(e: PointerEvent): void {
  if (e.button !== 0) return
  store.beginGesture()
  follow(
    e,
    m => {
      const over = document
        .elementFromPoint(m.clientX, m.clientY)
        ?.closest('[data-dial-id]')
        ?.getAttribute('data-dial-id')
      if (!over || over === props.id) return
      const { dials } = store.piece
      const op = placeDial(store.piece, props.id, Object.values(dials).filter(d => d.order < dials[over]!.order).length)
      if (op) store.act(op)
    },
    () => store.endGesture(),
  )
}

const step = computed(() => lentStep(props.dial, props.dial))
const slipped = computed(() => slipsOf(store.piece, props.id).some(key => store.piece.slips[key] !== 0))

function type(value: number): void {
  const held = limitToLent(props.dial, props.dial, value)
  if (held !== null) tuning.dial(props.id, held)
}
</script>

<template>
  <div class="group min-w-0" :data-dial="dial.name" :data-dial-id="id">
    <div class="flex items-baseline gap-1">
      <span class="cursor-grab touch-none truncate" data-tip="Drag to reorder" @pointerdown="drag">{{
        dial.name
      }}</span>
      <button
        class="text-faded opacity-0 group-hover:opacity-100 hover:text-ink focus-visible:opacity-100"
        type="button"
        :aria-label="`Change dial ${dial.name}`"
        @click="changing = true"
      >
        <Pencil :size="12" />
      </button>
      <Lock v-if="dial.locked" :size="11" class="self-center text-faded" aria-label="locked" />
      <span v-if="dial.type !== 'choice'" class="tabular ml-auto flex items-baseline">
        <QuantityInput
          class="w-14 border-b border-transparent focus-within:border-sea hover:border-rule"
          :label="`${dial.name}, value`"
          :value="dial.value"
          :unit="dial.unit"
          :low="dial.low"
          :high="dial.high"
          :readonly="dial.locked"
          widens
          :stride="step"
          @take="tuning.takeDial()"
          @release="tuning.letDialGo(id)"
          @set="type"
          @widen="tuning.widen(id, $event)"
        />
      </span>
    </div>
    <SelectBox
      v-if="dial.type === 'choice'"
      class="w-full"
      :label="dial.name"
      :disabled="dial.locked"
      :model-value="dial.value"
      :of="(dial.options ?? []).map((says, value) => ({ value, says }))"
      @update:model-value="tuning.dial(id, $event)"
    />
    <div v-else-if="dial.type === 'switch'" class="flex h-4 items-center gap-2 text-[12px] text-faded">
      <SwitchBox
        :label="dial.name"
        :disabled="dial.locked"
        :model-value="dial.value >= 0.5"
        @update:model-value="tuning.dial(id, $event ? 1 : 0)"
      />{{ dial.value >= 0.5 ? 'on' : 'off' }}
    </div>
    <SliderBar
      v-else
      :label="dial.name"
      :disabled="dial.locked"
      :low="dial.low"
      :high="dial.high"
      :step="step"
      :model-value="dial.value"
      @pointerdown="tuning.takeDial()"
      @pointerup="tuning.letDialGo(id)"
      @pointercancel="tuning.letDialGo(id)"
      @update:model-value="tuning.dial(id, $event)"
      @dblclick="tuning.dial(id, dial.initial)"
    />
    <p v-if="slipped" class="flex justify-between gap-2 text-[11px] leading-4 whitespace-nowrap text-faded">
      <span class="truncate" data-tip="It was tuned while playing: what it paces was offset so that nothing jumped."
        >offset by tuning</span
      >
      <button
        class="link"
        type="button"
        data-tip="Removes the offset: values go where the formulas alone put them"
        @click="tuning.settle(id)"
      >
        reset
      </button>
    </p>
    <LazyDialForm v-if="changing" :id="id" @close="changing = false" />
  </div>
</template>

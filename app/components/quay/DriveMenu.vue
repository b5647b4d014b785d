<script setup lang="ts">
/** Drive…: which property, and in plain words what it should do. */
import { Popover, PopoverButton, PopoverPanel } from '@headlessui/vue'
import { addDrive } from '~~/core/acts/drives.ts'
import { propertyKey } from '~~/core/piece/schema.ts'
import { STARTERS, likelyFirst, type Starter } from '~~/core/acts/starters.ts'
import { propertiesOf, propertyNamed } from '~~/core/piece/properties.ts'
import { focusFormula } from '~/editor/focus.ts'
import { useHand } from '~/stores/hand.ts'
import { usePiece } from '~/stores/piece.ts'

const props = defineProps<{ part: string }>()
const store = usePiece()
const hand = useHand()

const all = computed(() => likelyFirst(propertiesOf(store.piece!.parts[props.part]!.shape.type)))
const free = computed(() => all.value.filter(p => !store.piece!.drives[propertyKey(props.part, p.name)]))
const picked = ref('')
const property = computed(() =>
  propertyNamed(
    picked.value && free.value.some(p => p.name === picked.value) ? picked.value : (free.value[0]?.name ?? 'rotation'),
  )!,
)
const button = useTemplateRef<{ $el: HTMLElement }>('button')
const at = ref({ left: 0, top: 0 })

function place(): void {
  const box = button.value!.$el.getBoundingClientRect()
  const height = 236
  at.value = {
    left: Math.max(8, box.right - 300),
    top: box.bottom + height > innerHeight ? box.top - height - 4 : box.bottom + 4,
  }
}

function start(starter: Starter, close: () => void): void {
  const name = property.value.name
  store.act(addDrive(store.piece!, props.part, name, starter.text(property.value)))
  const key = propertyKey(props.part, name)
  hand.take(key)
  store.player!.play(true)
  close()
  nextTick(() => focusFormula(key))
}
</script>

<template>
  <Popover v-slot="{ close }">
    <PopoverButton
      ref="button"
      class="link"
      data-driving
      :aria-label="`Drive a property of ${store.piece!.parts[part]!.name}`"
      @click="place"
      >Drive…</PopoverButton
    >
    <Teleport to="body">
      <PopoverPanel
        class="panel fixed z-40 w-[300px] p-3"
        :style="{ left: `${at.left}px`, top: `${at.top}px` }"
        :focus="true"
      >
        <p class="mb-2 font-medium">What should {{ store.piece!.parts[part]!.name }} do?</p>
        <label class="mb-3 flex items-center gap-2">
          <span class="w-16 text-faded">Property</span>
          <select
            class="field flex-1"
            aria-label="Property"
            :value="property.name"
            @change="picked = ($event.target as HTMLSelectElement).value"
          >
            <option v-for="p in free" :key="p.name" :value="p.name">{{ p.name }}</option>
          </select>
        </label>
        <div class="grid grid-cols-2 gap-2">
          <button
            v-for="s in STARTERS"
            :key="s.name"
            class="rounded-md border border-rule p-2 text-left hover:border-sea focus-visible:border-sea"
            type="button"
            :data-starter="s.name"
            @click="start(s, close)"
          >
            <svg
              viewBox="0 0 120 44"
              class="mb-1 block w-full rounded-sm bg-band"
              fill="none"
              stroke="var(--sea)"
              stroke-width="2.500"
              aria-hidden="true"
            >
              <path v-if="s.name === 'turn'" d="M0 40 60 4M60 40 120 4" />
              <path v-else d="M0 22c10-22 20-22 30 0s20 22 30 0 20-22 30 0 20 22 30 0" />
              <circle
                class="starter-dot"
                :class="`starter-${s.name}`"
                r="4"
                fill="var(--sheet)"
                stroke="var(--ink)"
                stroke-width="2"
              />
            </svg>
            <span class="block font-medium">{{ s.title(property) }}</span>
            <span class="block text-[12px] text-faded">{{ s.says }}</span>
          </button>
        </div>
      </PopoverPanel>
    </Teleport>
  </Popover>
</template>

<style>
.starter-turn {
  offset-path: path('M0 40 60 4');
  animation: starter-run 1.4s linear infinite;
}
.starter-swing {
  offset-path: path('M0 22c10-22 20-22 30 0s20 22 30 0 20-22 30 0 20 22 30 0');
  animation: starter-run 2.4s linear infinite;
}
@keyframes starter-run {
  from {
    offset-distance: 0%;
  }
  to {
    offset-distance: 100%;
  }
}
</style>

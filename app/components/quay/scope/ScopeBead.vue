<script setup lang="ts">
/** A handle on the scope: a bead for what is pulled up, a ring for what is pulled along, a bracket for what is pulled apart. */
import { MoveHorizontal } from '@lucide/vue'
import type { WaveHandle } from '~~/core/insight/wave-handles.ts'

defineProps<{
  handle: WaveHandle
  /** The number as it is written now. */
  written: string
}>()
</script>

<template>
  <button
    class="bead"
    :class="`bead-${handle.way}`"
    type="button"
    :data-handle-name="handle.name"
    :aria-label="`${handle.name} ${written}, drag ${handle.way === 'up' ? 'up and down' : 'sideways'}`"
  >
    <span class="bead-mark" aria-hidden="true"><MoveHorizontal v-if="handle.way === 'apart'" :size="11" /></span>
    <span class="bead-label tabular">{{ handle.name }} {{ written }}</span>
  </button>
</template>

<style>
.bead {
  position: absolute;
  top: 0;
  left: 0;
  width: 18px;
  height: 18px;
  margin: -9px;
  visibility: hidden;
  touch-action: none;
}
.bead-mark {
  position: absolute;
  inset: 2.5px;
  display: grid;
  place-items: center;
  border: 2px solid var(--brass);
  border-radius: 50%;
  background: var(--brass);
}
.bead-along .bead-mark {
  background: var(--sheet);
}
.bead-up {
  cursor: ns-resize;
}
.bead-along,
.bead-apart {
  cursor: ew-resize;
}
.bead-apart .bead-mark {
  inset: 1px;
  border-radius: 3px;
  background: var(--sheet);
  color: var(--brass);
}
.bead-apart::before {
  position: absolute;
  top: 8px;
  right: 17px;
  width: calc(var(--span) - 8px);
  border-top: 1.5px solid var(--brass);
  content: '';
}
.bead-label {
  position: absolute;
  left: 20px;
  top: -13px;
  padding: 0 5px;
  border: 1px solid var(--rule);
  border-radius: 3px;
  background: var(--sheet);
  color: var(--brass);
  font-size: 11.5px;
  line-height: 17px;
  white-space: nowrap;
  pointer-events: none;
}
.bead-apart .bead-label {
  top: 0;
  left: calc(9px - var(--span) / 2);
  transform: translateX(-50%);
}
.bead:focus-visible {
  outline: none;
}
.bead:focus-visible .bead-mark {
  box-shadow:
    0 0 0 2px var(--sheet),
    0 0 0 4px var(--sea);
}
</style>

<script setup lang="ts">
/** Easings chosen by their pictures, over whatever they are chosen for. */
import { EASE_BOX, easePath } from '~/editor/ease-path.ts'

const props = defineProps<{
  names: readonly string[]
  /** The one in force; several differ where there is none. */
  current?: string
  /** Px of the window by which it stands. */
  at: { readonly left: number; readonly top: number; readonly bottom: number }
  says?: string
}>()
const emit = defineEmits<{ choose: [name: string]; close: [] }>()
const panel = useTemplateRef('panel')
const [WIDE, HIGH, ACROSS] = [424, 300, 6]
const place = computed(() => ({
  left: `${Math.max(8, Math.min(props.at.left, innerWidth - WIDE - 8))}px`,
  ...(props.at.bottom + HIGH + 8 < innerHeight
    ? { top: `${props.at.bottom + 4}px` }
    : { bottom: `${Math.max(8, innerHeight - props.at.top + 4)}px` }),
}))
const buttons = () => [...(panel.value?.querySelectorAll<HTMLElement>('[role="option"]') ?? [])]
onMounted(() => (buttons()[Math.max(0, props.names.indexOf(props.current ?? ''))] ?? panel.value)?.focus())

function go(e: KeyboardEvent): void {
  const by = { ArrowRight: 1, ArrowLeft: -1, ArrowDown: ACROSS, ArrowUp: -ACROSS }[e.key]
  if (by === undefined) return
  e.preventDefault()
  const all = buttons()
  all[Math.min(all.length - 1, Math.max(0, all.indexOf(document.activeElement as HTMLElement) + by))]?.focus()
}
function left(e: FocusEvent): void {
  if (!panel.value?.contains(e.relatedTarget as Node | null)) emit('close')
}
</script>

<template>
  <Teleport to="body">
    <div
      ref="panel"
      class="panel fixed z-50 grid grid-cols-6 gap-1 overflow-y-auto p-2"
      :style="{ ...place, width: `${WIDE}px`, maxHeight: `${HIGH}px` }"
      role="listbox"
      tabindex="-1"
      :aria-label="says ?? 'Easings'"
      @keydown="go"
      @keydown.esc.stop="emit('close')"
      @focusout="left"
    >
      <button
        v-for="name in names"
        :key="name"
        class="rounded-sm border p-[2px] text-center hover:border-sea focus-visible:border-sea"
        :class="name === current ? 'border-ink bg-band' : 'border-transparent'"
        type="button"
        role="option"
        :aria-selected="name === current"
        :data-tip="name"
        @click="emit('choose', name)"
      >
        <svg :viewBox="EASE_BOX" class="ease-picture mx-auto block" aria-hidden="true">
          <path :d="easePath(name)" />
        </svg>
        <span class="block truncate text-[11px] leading-4">{{ name }}</span>
      </button>
    </div>
  </Teleport>
</template>

<script setup lang="ts">
/** An entry was dropped where several parts lie: which of them is to follow it. */
import { driverName } from '~~/core/insight/changing-links.ts'
import type { DropQuestion } from '~/stage/dropping.ts'
import { useLinking } from '~/commands/linking.ts'
import { useOpenPiece } from '~/stores/open-piece.ts'

const props = defineProps<DropQuestion>()
const emit = defineEmits<{ close: [] }>()
const store = useOpenPiece()
const linking = useLinking()
const list = useTemplateRef('list')
/** Px that it takes at most. */
const [WIDE, HIGH] = [240, 260]
const place = computed(() => ({
  left: `${Math.max(8, Math.min(props.at[0], innerWidth - WIDE - 8))}px`,
  top: `${Math.max(8, Math.min(props.at[1], innerHeight - HIGH - 8))}px`,
}))
onMounted(() => list.value?.querySelector('button')?.focus())

function choose(part: string): void {
  emit('close')
  linking.followed(props.driver, part)
}
/** The arrow keys go from one to the next. */
function go(e: KeyboardEvent, by: 1 | -1): void {
  const all = [...list.value!.querySelectorAll('button')]
  all[(all.indexOf(e.target as HTMLButtonElement) + by + all.length) % all.length]?.focus()
}
function left(e: FocusEvent): void {
  if (!list.value?.contains(e.relatedTarget as Node | null)) emit('close')
}
</script>

<template>
  <Teleport to="body">
    <div
      ref="list"
      class="panel fixed z-40 flex flex-col overflow-y-auto py-1"
      :style="{ ...place, width: `${WIDE}px`, maxHeight: `${HIGH}px` }"
      role="menu"
      :aria-label="`What should follow ${driverName(store.piece, driver)}?`"
      @keydown.esc.stop="emit('close')"
      @focusout="left"
    >
      <p class="px-3 py-1 text-[12px] text-faded">What should follow {{ driverName(store.piece, driver) }}?</p>
      <button
        v-for="id in parts"
        :key="id"
        class="menu-row hover:bg-band focus:bg-band"
        type="button"
        role="menuitem"
        @click="choose(id)"
        @keydown.down.prevent="go($event, 1)"
        @keydown.up.prevent="go($event, -1)"
      >
        {{ store.piece.parts[id]?.name }}
      </button>
    </div>
  </Teleport>
</template>

<script setup lang="ts">
/** The takes of a drive: press one and it runs; the one that runs is filled. */
import { Columns2, Plus } from '@lucide/vue'
import { nameTake, takeInHand } from '~~/core/acts/sources.ts'
import { useCommandKeys } from '~/commands/keys.ts'
import { useSelection } from '~/stores/selection.ts'
import { useOpenPiece } from '~/stores/open-piece.ts'
import { useTakes } from '~/commands/takes.ts'

const props = defineProps<{ drive: string }>()
const store = useOpenPiece()
const { withKeys } = useCommandKeys()
const takes = useTakes()
const hand = useSelection()
const entry = computed(() => store.piece.drives[props.drive])
const inHand = computed(() => (entry.value ? takeInHand(entry.value) : -1))
const others = computed(() => (entry.value?.takes.length ?? 0) - (inHand.value >= 0 ? 1 : 0))
const naming = ref(-1)
const name = ref('')
const field = useTemplateRef<HTMLInputElement[]>('field')

async function rename(nth: number): Promise<void> {
  name.value = entry.value!.takes[nth]!.name
  naming.value = nth
  await nextTick()
  field.value?.[0]?.select()
}
function named(): void {
  if (naming.value < 0) return
  const nth = naming.value
  naming.value = -1
  if (name.value.trim() !== entry.value!.takes[nth]?.name)
    store.act(nameTake(store.piece, props.drive, nth, name.value))
}
</script>

<template>
  <div
    v-if="entry && entry.takes.length > 0"
    class="flex flex-wrap items-center gap-1 border-t border-rule px-3 py-[4px] text-[12px]"
    role="group"
    aria-label="Takes"
  >
    <template v-for="(t, i) in entry.takes" :key="i">
      <input
        v-if="naming === i"
        ref="field"
        v-model="name"
        class="field h-5 w-24"
        maxlength="60"
        aria-label="Name of the take (empty to delete it)"
        @keydown.enter.stop="named"
        @keydown.esc.stop="naming = -1"
        @blur="named"
      />
      <button
        v-else
        class="chip !h-5"
        :class="{ 'chip-on': inHand === i }"
        type="button"
        :aria-pressed="inHand === i"
        :data-tip="`${t.text}\nDouble-click or F2 to rename, Del to delete`"
        @click="takes.put(drive, i)"
        @dblclick="rename(i)"
        @keydown.f2.stop="rename(i)"
        @keydown.delete.stop="store.act(nameTake(store.piece, drive, i, ''))"
      >
        {{ t.name }}
      </button>
    </template>
    <button
      v-if="inHand < 0"
      class="flex items-center gap-1 text-faded hover:text-ink"
      type="button"
      :data-tip="withKeys('Keep the current formula as a take', 'Keep a take of the selected formula')"
      @click="takes.keep(drive)"
    >
      <Plus :size="12" />keep this
    </button>
    <button
      v-if="others > 0"
      class="ml-auto flex items-center gap-1 hover:text-ink"
      :class="hand.beside === drive ? 'text-sea' : 'text-faded'"
      type="button"
      :aria-pressed="hand.beside === drive"
      data-tip="Show the takes side by side on the stage"
      @click="hand.beside = hand.beside === drive ? null : drive"
    >
      <Columns2 :size="12" />side by side
    </button>
  </div>
</template>

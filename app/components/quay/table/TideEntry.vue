<script setup lang="ts">
/**
 * One driven property: a strip of gauge paper with its formula written on it. Only those near what is seen stand there
 * in full; of the others their names and formulas, so that a thousand cost hardly more than ten.
 */
import { drivenProperty, isSignal } from '~~/core/piece/drive-key.ts'
import { sourceName, sourceOf } from '~~/core/acts/sources.ts'
import { useSelection } from '~/stores/selection.ts'
import { useOpenPiece } from '~/stores/open-piece.ts'

const props = defineProps<{ drive: string }>()
const store = useOpenPiece()
const hand = useSelection()
const shell = useTemplateRef('shell')
const { near, seen, tall } = useNear(shell)
/** A formula half written stays in full, wherever it is scrolled. */
const busy = ref(false)
const wrong = ref(false)

const entry = computed(() => sourceOf(store.piece, props.drive))
const name = computed(() => sourceName(store.piece, props.drive))
/** Computed, so that an entry is not made anew with every program. */
const there = computed(() => entry.value !== undefined && store.program.meanings.all.has(props.drive))
/** On its own under the name of its part. */
const short = computed(() => (isSignal(props.drive) ? name.value : drivenProperty(props.drive)))
const chosen = computed(() => hand.drive === props.drive)
const full = computed(() => near.value || chosen.value || busy.value)
/** Px of an entry whose formula takes one line. */
const USUAL = 94
</script>

<template>
  <article
    v-if="there"
    ref="shell"
    class="entry @container relative rounded-md border bg-sheet"
    :class="chosen ? 'border-sea' : wrong ? 'border-coral' : 'border-rule'"
    :style="full ? undefined : { height: `${tall || USUAL}px`, contain: 'strict' }"
    :data-drive="drive"
    :aria-label="name"
    @pointerdown="hand.take(drive)"
  >
    <span v-if="chosen" class="absolute inset-y-[-1px] left-[-1px] w-[4px] rounded-l-md bg-sea" aria-hidden="true" />
    <EntrySheet v-if="full" :drive="drive" :seen="seen" @busy="busy = $event" @wrong="wrong = $event" />
    <template v-else>
      <p class="px-3 py-1 font-medium">{{ short }}</p>
      <p
        class="tabular truncate px-3"
        role="textbox"
        aria-readonly="true"
        tabindex="0"
        :aria-label="`Formula of ${name}`"
        @focus="hand.take(drive)"
      >
        {{ entry!.text }}
      </p>
    </template>
  </article>
</template>

<script setup lang="ts">
/** What the quay has to say: a save that failed, a piece changed elsewhere, what a change did. */
import { post, get } from '~/stores/request.ts'
import { usePiece } from '~/stores/piece.ts'
import { isBlocked } from '~/stores/storage.ts'
import type { Stored } from '~~/core/piece/api.ts'

const store = usePiece()
const busy = ref(false)
const trouble = ref('')

/** This window's version becomes a piece of its own. */
async function keepMine(): Promise<void> {
  busy.value = true
  const answer = await post('/api/pieces', { document: store.piece })
  busy.value = false
  if (!answer.ok) {
    trouble.value = answer.says
    return
  }
  store.dropUnsaved()
  await navigateTo(`/piece/${(answer.value as Stored).id}`)
}

async function takeOther(): Promise<void> {
  busy.value = true
  await store.flush()
  const answer = await get(`/api/pieces/${store.id}`)
  busy.value = false
  if (answer.ok) emit('reopen', answer.value as Stored)
  else trouble.value = answer.says
}
const emit = defineEmits<{ reopen: [stored: Stored] }>()

/** Whether something that is shown is being added up. */
const working = ref(false)
watch(
  () => store.player,
  (player, _, done) => {
    if (player) done(player.changed(() => (working.value = player.busy)))
  },
  { immediate: true },
)

let timer: ReturnType<typeof setTimeout> | undefined
watch(
  () => store.notice,
  notice => {
    clearTimeout(timer)
    if (notice) timer = setTimeout(() => (store.notice = null), 9000)
  },
)
/** What is offered may say something in its turn. */
function act(): void {
  const { act } = store.notice!
  store.notice = null
  act!.do()
}
/** Said once: what this browser does not keep. */
const blocked = ref(isBlocked())
const kept = !blocked.value
</script>

<template>
  <div
    v-if="blocked"
    class="flex shrink-0 items-center gap-3 border-b border-brass bg-sheet px-4 py-2"
    role="status"
    data-blocked
  >
    <span
      >This browser blocks site data. Your piece is saved on the server, but the theme, hints and copied parts are
      forgotten with this window, and changes made while the server is away aren't kept.</span
    >
    <button class="button ml-auto" type="button" @click="blocked = false">OK</button>
  </div>
  <div
    v-if="store.saving.is === 'stale'"
    class="flex shrink-0 flex-wrap items-center gap-3 border-b border-coral bg-sheet px-4 py-2"
    role="alert"
  >
    <span
      ><strong class="font-semibold text-coral">This piece was changed in another window.</strong> Both are kept: the
      other one as the piece, yours in its version history.</span
    >
    <button class="button ml-auto" type="button" :disabled="busy" @click="keepMine">Keep mine as a new piece</button>
    <button class="button" type="button" :disabled="busy" @click="takeOther">Continue with the other one</button>
    <span v-if="trouble" class="text-coral">{{ trouble }}</span>
  </div>
  <div
    v-else-if="store.saving.is === 'gone'"
    class="flex shrink-0 flex-wrap items-center gap-3 border-b border-coral bg-sheet px-4 py-2"
    role="alert"
  >
    <span><strong class="font-semibold text-coral">This piece was deleted.</strong> Your copy is still here.</span>
    <button class="button ml-auto" type="button" :disabled="busy" @click="keepMine">Keep it as a new piece</button>
    <span v-if="trouble" class="text-coral">{{ trouble }}</span>
  </div>
  <div
    v-else-if="store.saving.is === 'failed'"
    class="flex shrink-0 items-center gap-3 border-b border-coral bg-sheet px-4 py-2"
    role="alert"
  >
    <span
      ><strong class="font-semibold text-coral">Not saved.</strong> {{ store.saving.says }}
      {{ kept ? 'Your changes are kept in this browser' : 'This browser can’t store anything: keep this window open'
      }}{{ store.saving.again ? ' and will be saved automatically' : '' }}.</span
    >
    <button class="button ml-auto" type="button" @click="store.saveNow()">Save now</button>
    <button v-if="!store.saving.again" class="button" type="button" :disabled="busy" @click="keepMine">
      Keep mine as a new piece
    </button>
    <span v-if="trouble" class="text-coral">{{ trouble }}</span>
  </div>
  <div v-if="working" class="panel fixed bottom-4 left-4 z-40 px-4 py-2 text-faded" role="status" data-working>
    Calculating this moment …
  </div>
  <div
    v-if="store.notice"
    class="panel fixed bottom-4 left-1/2 z-40 flex -translate-x-1/2 items-center gap-4 px-4 py-2"
    role="status"
  >
    {{ store.notice.says }}
    <button v-if="store.notice.act" class="link whitespace-nowrap" type="button" @click="act">
      {{ store.notice.act.says }}
    </button>
    <button class="text-faded hover:text-ink" type="button" @click="store.notice = null">Dismiss</button>
  </div>
</template>

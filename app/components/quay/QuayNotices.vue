<script setup lang="ts">
/** What the quay has to say: a save that failed, a piece changed elsewhere, what a change did. */
import { create, get } from '~/services/request.ts'
import { usePiece } from '~/stores/piece.ts'
import { isBlocked } from '~/services/storage.ts'
import { Created, Stored } from '~~/core/piece/api.ts'

const store = usePiece()
const busy = ref(false)
const wrong = ref('')
/** What keeps the piece from being saved. */
const trouble = computed(() => ['stale', 'gone', 'failed'].includes(store.saving.is))
const mayKeep = computed(() => trouble.value && !(store.saving.is === 'failed' && store.saving.again))

/** This window's version becomes a piece of its own. */
async function keepMine(): Promise<void> {
  busy.value = true
  const answer = await create('/api/pieces', Created, { document: store.piece })
  busy.value = false
  if (!answer.ok) {
    wrong.value = answer.says
    return
  }
  store.dropUnsaved()
  await navigateTo(`/piece/${answer.value.id}`)
}

async function takeOther(): Promise<void> {
  busy.value = true
  await store.flush()
  const answer = await get(`/api/pieces/${store.id}`, Stored)
  busy.value = false
  if (answer.ok) emit('reopen', answer.value)
  else wrong.value = answer.says
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
    if (notice) timer = setTimeout(store.dismissNotice, 9000)
  },
)
/** What is offered may say something in its turn. */
function act(): void {
  const { action } = store.notice!
  store.dismissNotice()
  action!.do()
}
/** Said once: what this browser does not keep. */
const blocked = ref(isBlocked())
const kept = !blocked.value
</script>

<template>
  <NoticeBox v-if="blocked" is="note" place="top" data-blocked>
    This browser blocks site data. Your piece is saved on the server, but the theme, hints and copied parts are
    forgotten with this window, and changes made while the server is away aren't kept.
    <template #act><button class="button" type="button" @click="blocked = false">OK</button></template>
  </NoticeBox>
  <NoticeBox v-if="trouble" is="trouble" place="top">
    <template v-if="store.saving.is === 'stale'">
      <strong class="font-semibold text-coral">This piece was changed in another window.</strong> Both are kept: the
      other one as the piece, yours in its version history.
    </template>
    <template v-else-if="store.saving.is === 'gone'">
      <strong class="font-semibold text-coral">This piece was deleted.</strong> Your copy is still here.
    </template>
    <template v-else-if="store.saving.is === 'failed'">
      <strong class="font-semibold text-coral">Not saved.</strong> {{ store.saving.says }}
      {{ kept ? 'Your changes are kept in this browser' : 'This browser can’t store anything: keep this window open'
      }}{{ store.saving.again ? ' and will be saved automatically' : '' }}.
    </template>
    <template #act>
      <span v-if="wrong" class="text-coral">{{ wrong }}</span>
      <button v-if="store.saving.is === 'failed'" class="button" type="button" @click="store.saveNow()">
        Save now
      </button>
      <button v-if="mayKeep" class="button" type="button" :disabled="busy" @click="keepMine">
        {{ store.saving.is === 'gone' ? 'Keep it as a new piece' : 'Keep mine as a new piece' }}
      </button>
      <button v-if="store.saving.is === 'stale'" class="button" type="button" :disabled="busy" @click="takeOther">
        Continue with the other one
      </button>
    </template>
  </NoticeBox>
  <div v-if="working" class="panel fixed bottom-4 left-4 z-40 px-4 py-2 text-faded" role="status" data-working>
    Calculating this moment …
  </div>
  <NoticeBox v-if="store.notice" place="foot">
    {{ store.notice.message }}
    <template #act>
      <button v-if="store.notice.action" class="link whitespace-nowrap" type="button" @click="act">
        {{ store.notice.action.label }}
      </button>
      <button class="text-faded hover:text-ink" type="button" @click="store.dismissNotice">Dismiss</button>
    </template>
  </NoticeBox>
</template>

<script setup lang="ts">
/** The quay: where a piece is worked on. */
import { momentOfSeconds } from '~~/core/time/moment.ts'
import { fromNumber } from '~~/core/time/rational.ts'
import type { Stored } from '~~/core/piece/api.ts'
import { openPiece } from '~/services/opening.ts'
import { useClip } from '~/commands/clip.ts'
import { useDriving } from '~/commands/driving.ts'
import { useSelection } from '~/stores/selection.ts'
import { useTakes } from '~/commands/takes.ts'
import { useTiming } from '~/commands/timing.ts'
import { usePiece } from '~/stores/piece.ts'
import type DeskPages from '~/components/quay/desk/DeskPages.vue'
import type TideTable from '~/components/quay/table/TideTable.vue'

const route = useRoute()
const store = usePiece()
const hand = useSelection()
const timing = useTiming()
const takes = useTakes()
const clip = useClip()
const driving = useDriving()
const trouble = ref('')
const finding = ref(false)
/** What was typed for the search before it was there. */
const typed = ref('')
function find(): void {
  typed.value = ''
  finding.value = true
}
const desk = useTemplateRef<InstanceType<typeof DeskPages>>('desk')
const table = useTemplateRef<InstanceType<typeof TideTable>>('table')
/** Another number for each opening, so that nothing of the piece before stays in a canvas. */
const opening = ref(0)

function open(stored: Stored, mine: Stored['document'] | null = null): void {
  hand.choose(null)
  hand.take(null)
  hand.solo = null
  hand.patterns = false
  hand.dialog = null
  store.open(stored, mine)
  opening.value++
  if (Object.keys(stored.document.drives).length > 0) store.player!.play(true)
}

async function load(): Promise<void> {
  trouble.value = ''
  const id = String(route.params.id)
  const opened = await openPiece(id)
  if (id !== String(route.params.id)) return
  if (!opened.ok) {
    trouble.value = opened.says
    return
  }
  open(opened.stored, opened.mine)
  if (opened.says) store.notice = { says: opened.says }
  fetchRest()
}

/** Milliseconds after which the rest is fetched: what has to come at once, even when the server has gone. */
const LATER = 500
let later: ReturnType<typeof setTimeout> | undefined
function fetchRest(): void {
  clearTimeout(later)
  later = setTimeout(() => {
    const rest = [import('~/components/quay/FindAnything.vue'), import('~/components/quay/dialogs/LeavingDialog.vue')]
    // What does not come now is asked for again when it is wanted.
    void Promise.allSettled(rest)
  }, LATER)
}
onBeforeUnmount(() => clearTimeout(later))

/** Asked when the page is left while something is not saved. */
const leaving = ref<((go: boolean) => void) | null>(null)
async function mayLeave(): Promise<boolean> {
  if (await store.flush()) return true
  const go = await new Promise<boolean>(answer => (leaving.value = answer))
  leaving.value = null
  return go
}
onBeforeRouteLeave(mayLeave)
onBeforeRouteUpdate(mayLeave)
onMounted(load)
onBeforeUnmount(() => store.close())
watch(() => route.params.id, load)
useHead({ title: computed(() => (store.piece ? `${store.piece.title} · Open Tide` : 'Open Tide')) })

const empty = computed(() => (store.piece ? Object.keys(store.piece.parts).length === 0 : false))

const BACK = new Set([',', '<', ';'])
const ON = new Set(['.', '>', ':'])

function onKey(e: KeyboardEvent): void {
  const player = store.player
  if (!player || e.defaultPrevented) return
  const target = e.target as HTMLElement
  const mod = e.ctrlKey || e.metaKey
  // The search takes all plain keys; letters typed while it is still on its way are kept for it.
  if (finding.value && !mod && e.key !== 'F1') {
    if (e.key === 'Escape') finding.value = false
    else if (e.key.length === 1 && !e.altKey && !target.closest('[role=dialog]')) {
      e.preventDefault()
      typed.value += e.key
    }
    return
  }
  const slider = target.matches('input[type=range]')
  const typing = target.closest('.cm-content, input:not([type=range]), textarea, select') !== null
  if (e.key === 'F1') hand.manual = !hand.manual
  else if (mod && e.key.toLowerCase() === 'z' && !typing) {
    if (e.shiftKey) store.redo()
    else store.undo()
  } else if (mod && e.key.toLowerCase() === 's') void store.saveNow()
  else if (mod && !typing && e.key.toLowerCase() === 'c' && getSelection()?.isCollapsed !== false) clip.copy()
  else if (mod && !typing && e.key.toLowerCase() === 'v') clip.paste()
  else if (typing || mod || e.altKey || hand.dialog || target.closest('[role=dialog], [role=menu]')) return
  else if (e.key === ' ' && !target.closest('button, a')) player.play(!player.playing)
  else if (e.key === '0') player.goto({ n: 0n, d: 1n })
  else if (BACK.has(e.key) || ON.has(e.key)) {
    const by = BACK.has(e.key) ? -1 : 1
    // With Shift a second, whatever sign the keyboard makes of it.
    if (e.shiftKey) player.move(by)
    else player.stepFrames(by)
  } else if (e.key === 'ArrowDown' && !slider) table.value?.go(1)
  else if (e.key === 'ArrowUp' && !slider) table.value?.go(-1)
  else if (e.key === 'Enter' && !target.closest('button, a')) table.value?.write()
  else if (e.key === '?') hand.dialog = 'keys'
  else if (e.key === '/') find()
  else if (e.key === 'a') hand.solo = hand.solo === null ? hand.part : null
  else if (e.key === 'c') timing.cueHere()
  else if (e.key === 'p') hand.patterns = true
  else if (e.key === 'k') driving.keyHere(hand.drive)
  else if (e.key === 't') takes.keep(hand.drive)
  else if (e.key === 'y') takes.before(hand.drive)
  else if (e.key === '[' || e.key === ']') timing.endHere(e.key === '[')
  else if (e.key === 'f') desk.value?.fit()
  else if (e.key === 'g') desk.value?.ghost()
  else if (e.key === 'd') desk.value?.next()
  else return
  e.preventDefault()
}
onMounted(() => addEventListener('keydown', onKey))
onBeforeUnmount(() => removeEventListener('keydown', onKey))

onMounted(() => {
  // For tests and for the curious: values as the engine gives them, read only.
  Object.assign(window, {
    openTide: {
      values: (key: string, seconds: number) => {
        const program = store.program!
        return [...program.copiesAt(key, momentOfSeconds(fromNumber(seconds), program.measures.frameRate))]
      },
      now: () => store.player!.now().seconds,
    },
  })
})
</script>

<template>
  <div v-if="trouble" class="grid h-full place-items-center">
    <div class="text-center">
      <p class="mb-3 text-[15px]" role="alert">{{ trouble }}</p>
      <NuxtLink to="/" class="button">Go to the harbour</NuxtLink>
      <button class="button ml-2" type="button" @click="load">Try again</button>
    </div>
  </div>
  <div v-else-if="!store.piece" class="grid h-full place-items-center text-faded">Opening the piece …</div>
  <div v-else :key="opening" class="flex h-full min-w-[800px] flex-col overflow-hidden">
    <MastHead @find="find" />
    <QuayNotices @reopen="open" />
    <TideLine />
    <div class="flex min-h-0 flex-1">
      <div class="flex w-[42.500%] max-w-[640px] min-w-[380px] flex-col border-r border-rule">
        <FirstHints :finding="finding" />
        <DialStrip />
        <TideTable ref="table">
          <p v-if="empty" class="px-1 pt-2 text-faded">
            The tide table: one strip of gauge paper for each property that moves. It fills as soon as a part has a
            function of time.
          </p>
        </TideTable>
      </div>
      <div class="relative flex min-w-0 flex-1 flex-col">
        <LazyManualBeside v-if="hand.manual" @close="hand.manual = false" />
        <StageView>
          <div v-if="empty && !hand.pen" class="absolute inset-0 grid place-items-center">
            <div class="panel max-w-[90%] p-5 text-center">
              <p class="text-[15px] font-semibold">An empty stage</p>
              <p class="mt-1 mb-4 text-faded">Add a part, press Drive… beside its name, and choose how it moves.</p>
              <AddPart large class="justify-center" />
            </div>
          </div>
        </StageView>
        <DeskPages ref="desk" />
      </div>
    </div>
    <LazyPatternsDialog v-if="hand.patterns" @close="hand.patterns = false" />
    <LazyKeysDialog v-if="hand.dialog === 'keys'" @close="hand.dialog = null" />
    <LazyFindAnything v-if="finding" :typed="typed" @close="finding = false" />
    <LazyLeavingDialog v-if="leaving" @answer="leaving($event)" />
  </div>
</template>

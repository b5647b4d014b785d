<script setup lang="ts">
/** The quay: where a piece is worked on. */
import { momentOfSeconds } from '~~/core/time/moment.ts'
import { fromNumber } from '~~/core/time/rational.ts'
import type { Stored } from '~~/core/piece/api.ts'
import { commandEntry } from '~~/core/manual/commands.ts'
import { useCommandKeys } from '~/commands/keys.ts'
import { useCommands } from '~/commands/run-command.ts'
import { offerTarget } from '~/commands/targets.ts'
import { openPiece } from '~/services/opening.ts'
import { useSelection } from '~/stores/selection.ts'
import { usePiece } from '~/stores/piece.ts'

const route = useRoute()
const store = usePiece()
const hand = useSelection()
const { canRun, runCommand } = useCommands()
const { commandFor } = useCommandKeys()
const trouble = ref('')
const finding = ref(false)
/** What was typed for the search before it was there. */
const typed = ref('')
function find(): void {
  typed.value = ''
  finding.value = true
}
offerTarget('search', { open: find })
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
  if (opened.says) store.say(opened.says)
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

/** Keys that controls use themselves. */
const USED_BY_BUTTONS = new Set([' ', 'Enter'])
const USED_BY_SLIDERS = new Set(['ArrowUp', 'ArrowDown'])

/** Keeps the letters that are typed while the search is still loading; it receives all plain keys. */
function keepForSearch(e: KeyboardEvent, target: HTMLElement): void {
  if (e.key === 'Escape') finding.value = false
  else if (e.key.length === 1 && !e.altKey && !target.closest('[role=dialog]')) {
    e.preventDefault()
    typed.value += e.key
  }
}

function onKey(e: KeyboardEvent): void {
  if (!store.player || e.defaultPrevented) return
  const target = e.target as HTMLElement
  const held = e.ctrlKey || e.metaKey || e.altKey
  if (finding.value && !held && e.key !== 'F1') return keepForSearch(e, target)
  const command = commandFor(e, 'piece') ?? commandFor(e, 'scope')
  if (!command || !canRun(command)) return
  const typing = target.closest('.cm-content, input:not([type=range]), textarea, select') !== null
  if (typing && !commandEntry(command).whileTyping) return
  if (!held && e.key !== 'F1') {
    if (typing || hand.dialog || target.closest('[role=dialog], [role=menu]')) return
    if (USED_BY_BUTTONS.has(e.key) && target.closest('button, a')) return
    if (USED_BY_SLIDERS.has(e.key) && target.matches('input[type=range]')) return
  }
  // Selected text is copied as text.
  if (command === 'Copy the selected formula' && getSelection()?.isCollapsed === false) return
  runCommand(command)
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
      settled: () => store.answered(),
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
    <MastHead />
    <QuayNotices @reopen="open" />
    <TideLine />
    <div class="flex min-h-0 flex-1">
      <div class="flex w-[42.500%] max-w-[640px] min-w-[380px] flex-col border-r border-rule">
        <FirstHints :finding="finding" />
        <DialStrip />
        <TideTable>
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
        <DeskPages />
      </div>
    </div>
    <LazyPatternsDialog v-if="hand.patterns" @close="hand.patterns = false" />
    <LazyKeysDialog v-if="hand.dialog === 'keys'" @close="hand.dialog = null" />
    <LazyFindAnything v-if="finding" :typed="typed" @close="finding = false" />
    <LazyLeavingDialog v-if="leaving" @answer="leaving($event)" />
  </div>
</template>

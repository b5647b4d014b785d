/** The piece in hand: its document, what has been done to it, and how it is saved. */
import { defineStore } from 'pinia'
import { Program } from '~~/core/engine/program.ts'
import { apply, compose, inverse, type Operation } from '~~/core/piece/operation.ts'
import type { Stored } from '~~/core/piece/api.ts'
import type { Piece } from '~~/core/piece/schema.ts'
import { Scene } from '~~/core/rig/scene.ts'
import { Player } from '~/player/player.ts'
import { Insight } from '~/work/insight.ts'
import type { About, Answers } from '~/work/asking.ts'
import { Keeper, type SaveState } from '../services/keeper.ts'

interface Step {
  readonly op: Operation
  readonly back: Operation
}

/** Undo steps that are kept. */
const STEPS = 500

/** A button in a notice. */
export interface NoticeAction {
  readonly label: string
  readonly do: () => void
}
export interface Notice {
  readonly message: string
  readonly action?: NoticeAction
}

/** When changes of pace keep values: while it plays, always, or never. */
export type Keeping = 'playing' | 'always' | 'never'

export const usePiece = defineStore('piece', () => {
  const id = ref('')
  const piece = shallowRef<Piece | null>(null)
  const program = shallowRef<Program | null>(null)
  const player = shallowRef<Player | null>(null)
  const done = shallowRef<readonly Step[]>([])
  const undone = shallowRef<readonly Step[]>([])
  const saving = ref<SaveState>({ is: 'saved', at: null })
  /** Changes of pace keep every value where it is. */
  const keeping = ref<Keeping>('playing')
  /** Whether a change made now keeps every value where it is. */
  const noJump = (): boolean =>
    keeping.value === 'always' || (keeping.value === 'playing' && (player.value?.playing ?? false))
  /** A sentence about what just happened. */
  const notice = shallowRef<Notice | null>(null)
  let keeper: Keeper | null = null
  let insight: Insight | null = null
  let gesture: { before: Piece; op: Operation | null } | null = null

  /** @param mine this browser's own newer state, which is saved at once */
  function open(stored: Stored, mine: Piece | null = null): void {
    close()
    id.value = stored.id
    const document = mine ?? stored.document
    show(document, new Program(document))
    insight = new Insight(document)
    player.value = markRaw(new Player(program.value!))
    done.value = []
    undone.value = []
    saving.value = { is: 'saved', at: null }
    const retitled = (title: string) => {
      const op: Operation = { undoLabel: '', puts: [{ set: 'title', value: title }] }
      const after = apply(piece.value!, op)
      show(after, new Program(after, program.value), op)
    }
    keeper = new Keeper(stored.id, stored.revision, stored.document, state => (saving.value = state), retitled)
    if (mine) keeper.changed(mine)
  }

  function close(): void {
    player.value?.stop()
    keeper?.leave()
    insight?.stop()
    insight = null
    player.value = null
    piece.value = null
    program.value = null
    keeper = null
    gesture = null
    notice.value = null
  }

  /** @param op what has been done to the piece before */
  function show(next: Piece, made: Program, op?: Operation): void {
    piece.value = markRaw(next)
    if (op) insight?.changed(op, next)
    program.value = markRaw(made)
    player.value?.run(made)
  }

  /** Does an operation. `made` is the program with it, when the caller already has it. */
  function act(op: Operation, made?: Program): void {
    const before = piece.value!
    const after = made?.piece ?? apply(before, op)
    show(after, made ?? new Program(after, program.value), op)
    if (gesture) gesture.op = gesture.op ? compose(gesture.op, op) : op
    else remember({ op, back: inverse(before, op) })
    keeper?.changed(after, gesture !== null)
  }

  function remember(step: Step): void {
    done.value = [...done.value.slice(1 - STEPS), step]
    undone.value = []
  }

  /** What is done until `endGesture` is one undo step. */
  function beginGesture(): void {
    gesture ??= { before: piece.value!, op: null }
  }

  function endGesture(): void {
    if (gesture?.op) {
      remember({ op: gesture.op, back: inverse(gesture.before, gesture.op) })
      keeper?.changed(piece.value!)
    }
    gesture = null
  }

  /** Where everything stands at the moment that is shown. */
  function sceneNow(): Scene {
    const now = player.value!.now()
    return new Scene(program.value!).update(program.value!.moment(now, new Float64Array(program.value!.size)), now)
  }

  function undo(): void {
    const step = done.value.at(-1)
    if (!step || gesture) return
    done.value = done.value.slice(0, -1)
    undone.value = [...undone.value, step]
    replay(step.back)
  }

  function redo(): void {
    const step = undone.value.at(-1)
    if (!step || gesture) return
    undone.value = undone.value.slice(0, -1)
    done.value = [...done.value, step]
    replay(step.op)
  }

  function replay(op: Operation): void {
    const after = apply(piece.value!, op)
    show(after, new Program(after, program.value), op)
    keeper?.changed(after)
  }

  const undoAction: NoticeAction = { label: 'Undo', do: undo }
  /** Shows a notice at the foot of the page for nine seconds. */
  function say(message: string, action?: NoticeAction): void {
    notice.value = { message, ...(action && { action }) }
  }

  return {
    id: computed(() => id.value),
    piece: computed(() => piece.value),
    program: computed(() => program.value),
    player: computed(() => player.value),
    done: computed(() => done.value),
    undone: computed(() => undone.value),
    saving: computed(() => saving.value),
    keeping: computed(() => keeping.value),
    setKeeping: (to: Keeping): void => void (keeping.value = to),
    noJump,
    notice: computed(() => notice.value),
    say,
    undoAction,
    /** Shows a notice with an Undo button. */
    sayWithUndo: (message: string): void => say(message, undoAction),
    dismissNotice: (): void => void (notice.value = null),
    open,
    close,
    act,
    beginGesture,
    endGesture,
    sceneNow,
    undo,
    redo,
    /** Redraws the current moment. */
    refresh: () => player.value?.refresh(),
    /** What is known of a drive for all time, worked out beside the page. */
    ask: <A extends About>(key: string, about: A): Promise<Answers[A] | null> =>
      insight?.ask(key, about) ?? Promise.resolve(null),
    /** Resolves when the insight worker has answered all questions. */
    answered: (): Promise<void> => insight?.settled() ?? Promise.resolve(),
    saveNow: () => keeper?.save() ?? Promise.resolve(),
    /** What is not saved lies elsewhere by now. */
    dropUnsaved: () => keeper?.drop(),
    /** The revision that is saved. */
    revision: (): number => keeper?.at ?? 0,
    /** Waits until all is saved, as far as that can be; whether it is. */
    flush: async (): Promise<boolean> => {
      await keeper?.flush()
      return !keeper?.unsaved
    },
  }
})

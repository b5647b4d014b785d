/** The keys of the stage, while it has the focus. */
import { useCommandKeys } from '~/commands/keys.ts'
import { useCommands } from '~/commands/run-command.ts'
import { useSelection } from '~/stores/selection.ts'
import { useOpenPiece } from '~/stores/open-piece.ts'
import type { useStageHand } from './gestures.ts'
import type { usePen } from './pen/pen.ts'

const ARROWS: Record<string, readonly [number, number]> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, 1],
  ArrowDown: [0, -1],
}

export function useStageKeys(
  frame: Readonly<Ref<HTMLElement | null>>,
  byHand: ReturnType<typeof useStageHand>,
  pen: ReturnType<typeof usePen>,
  view: {
    /** Along, to the right and up. */
    step: (aside: number, up: number) => void
    /** Looking round, in steps to the side and from above. */
    turn: (aside: number, above: number) => void
  },
): (e: KeyboardEvent) => void {
  const store = useOpenPiece()
  const hand = useSelection()
  const { canRun, runCommand } = useCommands()
  const { commandFor } = useCommandKeys()

  function arrow([aside, up]: readonly [number, number], e: KeyboardEvent): boolean {
    if (e.ctrlKey || e.metaKey) return false
    if (e.altKey) {
      if (!store.piece.camera) return false
      view.turn(aside, up)
      return true
    }
    const by = e.shiftKey ? 10 : 1
    if (hand.part === null) view.step(aside, up)
    else byHand.nudge(aside * by, up * by)
    return true
  }

  /** Whether the key was one of the stage's. */
  function heard(e: KeyboardEvent): boolean {
    if (!e.ctrlKey && !e.metaKey && !e.altKey && pen.key(e)) return true
    const way = ARROWS[e.key]
    if (way) return arrow(way, e)
    const command = commandFor(e, 'stage')
    if (!command || !canRun(command)) return false
    runCommand(command)
    return true
  }

  return e => {
    if (e.target === frame.value && heard(e)) e.preventDefault()
  }
}

/** The keys of the stage, while it has the focus. */
import { partsListed } from '~~/core/acts/parenting.ts'
import { useClip } from '~/commands/clip.ts'
import { useSelection } from '~/stores/selection.ts'
import { usePiece } from '~/stores/piece.ts'
import { useSeveral } from '~/commands/several.ts'
import type { useStageHand } from './gestures.ts'
import type { usePen } from './pen.ts'

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
  zoom: {
    by: (factor: number) => void
    fit: () => void
    /** Along, to the right and up. */
    step: (aside: number, up: number) => void
    /** Looking round, in steps to the side and from above. */
    turn: (aside: number, above: number) => void
    home: () => void
  },
): (e: KeyboardEvent) => void {
  const store = usePiece()
  const hand = useSelection()
  const several = useSeveral()
  const clip = useClip()

  /** Whether the key was one of the stage's. */
  function done(e: KeyboardEvent): boolean {
    const mod = e.ctrlKey || e.metaKey
    const parts = store.piece!.parts
    const { part } = hand
    if (!mod && pen.key(e)) return true
    const arrow = mod ? undefined : ARROWS[e.key]
    if (arrow) {
      const by = e.shiftKey ? 10 : 1
      if (part === null) zoom.step(...arrow)
      else byHand.nudge(arrow[0] * by, arrow[1] * by)
    } else if (e.key === 'Enter' && part !== null) {
      const first = partsListed(store.piece!).find(l => parts[l.id]!.parent === part)
      if (!first) return false
      hand.choose(first.id)
    } else if (e.key === 'Escape') hand.choose(part === null ? null : (parts[part]?.parent ?? null))
    else if (e.key === 'Delete' && part !== null) several.remove()
    else if (mod && e.key.toLowerCase() === 'd' && part !== null) several.double()
    else if (mod && e.key.toLowerCase() === 'c' && part !== null) clip.copyParts()
    else if (mod && e.key.toLowerCase() === 'v') clip.pasteParts()
    else if (mod && e.key.toLowerCase() === 'g' && part !== null) several.gather()
    else if (mod && e.key.toLowerCase() === 'a')
      hand.chooseAll(Object.keys(parts).filter(id => parts[id]!.parent === null && !parts[id]!.locked))
    else if (e.key === '+' || e.key === '=') zoom.by(1.25)
    else if (e.key === '-') zoom.by(0.8)
    else if (e.key === 'f') zoom.fit()
    else if (e.key === 'Home') zoom.home()
    else return false
    return true
  }

  return e => {
    if (e.target !== frame.value) return
    const arrow = ARROWS[e.key]
    if (e.altKey && arrow && store.piece!.camera) zoom.turn(...arrow)
    else if (e.altKey || !done(e)) return
    e.preventDefault()
  }
}

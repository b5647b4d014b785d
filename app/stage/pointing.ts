/** What the pointer does over the stage: which of all hands a press belongs to, and what the cursor tells of it. */
import { hit, hits, type Hit } from '~~/core/rig/hit.ts'
import type { Scene } from '~~/core/rig/scene.ts'
import { focusWords } from '~/editor/focus.ts'
import { useSelection } from '~/stores/selection.ts'
import { useOpenPiece } from '~/stores/open-piece.ts'
import type { useStageHand } from './gestures.ts'
import type { useLook } from './look.ts'
import type { usePen } from './pen/pen.ts'
import type { useRuling } from './ruling.ts'
import type { Lens } from './view.ts'
import type { useView } from './viewing.ts'

const GRIPS = { size: 'pointer', turn: 'grab', pin: 'grab' } as const
const BARS = { x: 'col-resize', y: 'row-resize' } as const

interface Hands {
  readonly frame: Readonly<Ref<HTMLElement | null>>
  readonly overlay: Readonly<Ref<HTMLCanvasElement | null>>
  /** The scene as it was last drawn. */
  readonly scene: () => Scene | null
  readonly lens: () => Lens
  /** Where a pointer is, page pixels from the stage's corner. */
  readonly place: (e: MouseEvent) => [number, number]
  /** Is told where the pointer is, for the rulers. */
  readonly pointer: Ref<readonly [number, number] | null>
  readonly byHand: ReturnType<typeof useStageHand>
  readonly pen: ReturnType<typeof usePen>
  readonly ruling: ReturnType<typeof useRuling>
  readonly orbit: ReturnType<typeof useLook>
  readonly viewing: ReturnType<typeof useView>
}

export function usePointing({
  frame,
  overlay,
  scene,
  lens,
  place,
  pointer,
  byHand,
  pen,
  ruling,
  orbit,
  viewing,
}: Hands) {
  const store = useOpenPiece()
  const hand = useSelection()

  /** What lies under the pointer. */
  function under(e: MouseEvent): Hit | null {
    const drawn = scene()
    return drawn ? hit(drawn, ...lens().toStage(...place(e)), 4 / lens().scale) : null
  }
  /** All parts that lie there, from above down. */
  function pile(e: MouseEvent): Hit[] {
    const drawn = scene()
    return drawn ? hits(drawn, ...lens().toStage(...place(e)), 4 / lens().scale) : []
  }
  function down(e: PointerEvent): void {
    frame.value?.focus({ preventScroll: true })
    e.preventDefault()
    const node = pen.nodeAt(place(e))
    const guide = byHand.handleAt(place(e)) ? null : ruling.guideAt(place(e))
    if (e.button === 0 && hand.pen) pen.lay(e, place(e))
    else if (e.button === 0 && node) pen.pull(e, node)
    else if (e.button === 0 && guide) ruling.pull(e, place(e), guide.axis, guide.nth)
    else if (e.button === 0) byHand.press(e, place(e))
    else if (e.button === 2 && orbit.deep.value) orbit.press(e)
    else if (e.button === 1) viewing.pan(e)
  }
  /** A double press: a point of a path, or the words of a text. */
  function twice(e: MouseEvent): void {
    const found = pen.twice(place(e)) || hand.pen ? null : under(e)
    if (!found || store.piece.parts[found.id]!.shape.type !== 'text') return
    hand.choose(found.id, found.instance)
    hand.desk = 'part'
    focusWords()
  }
  /** The cursor tells what a press would do. */
  function hover(e: PointerEvent): void {
    pen.hover(place(e), e)
    if (store.piece.stage.rulers) pointer.value = place(e)
    if (e.buttons) return
    const handle = byHand.handleAt(place(e))
    const guide = handle ? null : ruling.guideAt(place(e))
    const is = hand.pen
      ? 'crosshair'
      : pen.nodeAt(place(e))
        ? 'pointer'
        : handle
          ? GRIPS[handle.is]
          : guide
            ? BARS[guide.axis]
            : under(e)
              ? 'move'
              : 'default'
    if (overlay.value!.style.cursor !== is) overlay.value!.style.cursor = is
  }

  return { pile, down, hover, twice }
}

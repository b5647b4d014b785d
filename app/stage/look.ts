/** Looking round a piece in depth: pulled with the right button, or by keys. It changes nothing of the piece. */
import { AHEAD, type Look } from '~~/core/rig/depth/eye.ts'
import { useOpenPiece } from '~/stores/open-piece.ts'
import { pullFrom } from './pull.ts'

/** Turns for a page pixel that is pulled, and for a key. */
const PER_PIXEL = 1 / 900
const STEP = 1 / 48
/** From straight above to straight below. */
const STEEPEST = 0.25

export function useLook() {
  const store = useOpenPiece()
  const look = shallowRef<Look>(AHEAD)
  const deep = computed(() => store.piece.camera !== null)
  watch(deep, () => (look.value = AHEAD))

  function to(from: Look, aside: number, above: number): void {
    const steep = Math.min(STEEPEST, Math.max(-STEEPEST, from.above + above))
    look.value = { ...from, aside: from.aside + aside, above: steep }
  }
  function press(e: PointerEvent): void {
    const from = look.value
    pullFrom(e, { move: (dx, dy) => to(from, dx * PER_PIXEL, dy * PER_PIXEL), end() {} })
  }
  const step = (aside: number, above: number) => to(look.value, aside * STEP, above * STEP)
  const home = () => (look.value = AHEAD)
  const away = computed(() => look.value !== AHEAD)
  return { look, deep, away, press, step, home }
}

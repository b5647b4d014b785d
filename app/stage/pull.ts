/** A press on the stage and what becomes of it: pulled from a few pixels on, let go, or given up by Esc. */
export interface Pull {
  begin?: (e: PointerEvent) => void
  /** Page pixels from where it was pressed. */
  move: (dx: number, dy: number, e: PointerEvent) => void
  /** @param pulled false for a press that went nowhere */
  end: (pulled: boolean, e: PointerEvent | KeyboardEvent) => void
  /** By Esc. */
  giveUp?: () => void
}

const STARTS_AT = 3

export function pullFrom(e: PointerEvent, to: Pull): void {
  let pulling = false
  const move = (m: PointerEvent): void => {
    const [dx, dy] = [m.clientX - e.clientX, m.clientY - e.clientY]
    if (!pulling && Math.hypot(dx, dy) < STARTS_AT) return
    if (!pulling) to.begin?.(m)
    pulling = true
    m.preventDefault()
    to.move(dx, dy, m)
  }
  const stop = (): void => {
    removeEventListener('pointermove', move)
    removeEventListener('pointerup', up)
    removeEventListener('pointercancel', up)
    removeEventListener('keydown', key, true)
  }
  const up = (m: PointerEvent): void => {
    stop()
    to.end(pulling, m)
  }
  const key = (k: KeyboardEvent): void => {
    if (k.key !== 'Escape' || !pulling) return
    k.preventDefault()
    k.stopPropagation()
    stop()
    to.end(true, k)
    to.giveUp?.()
  }
  addEventListener('pointermove', move)
  addEventListener('pointerup', up)
  addEventListener('pointercancel', up)
  addEventListener('keydown', key, true)
}

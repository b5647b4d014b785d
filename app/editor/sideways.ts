/** A number pulled sideways: what each pixel adds, coarser with Shift, finer with Alt. */

export interface NumberPull {
  readonly value: number
  /** What one step adds. */
  readonly stride: number
  readonly decimals: number
}

export interface Pulling {
  begin: () => void
  move: (value: number, decimals: number) => void
  /** @param pulled false for a press that went nowhere */
  end: (pulled: boolean) => void
}

/** Screen pixels a step of the drag. */
const PER_STEP = 4
const STARTS_AT = 3

export const strideDecimals = (stride: number): number => Math.max(0, Math.ceil(-Math.log10(stride) - 1e-9))
const factor = (e: { shiftKey: boolean; altKey: boolean }) => (e.shiftKey ? 10 : 1) * (e.altKey ? 0.1 : 1)

/** Follows the pointer from a press on. */
export function pullSideways(e: PointerEvent, start: NumberPull, to: Pulling): void {
  let last = e.clientX
  let steps = 0
  let pulling = false
  const move = (m: PointerEvent): void => {
    if (!pulling) {
      if (Math.abs(m.clientX - last) < STARTS_AT) return
      pulling = true
      last = m.clientX
      to.begin()
      document.body.style.cursor = 'ew-resize'
    }
    m.preventDefault()
    steps += ((m.clientX - last) / PER_STEP) * factor(m)
    last = m.clientX
    const stride = m.altKey ? start.stride / 10 : start.stride
    const value = start.value + Math.round(steps * (start.stride / stride)) * stride
    to.move(value, Math.max(start.decimals, strideDecimals(stride)))
  }
  const up = (): void => {
    removeEventListener('pointermove', move)
    removeEventListener('pointerup', up)
    removeEventListener('pointercancel', up)
    document.body.style.cursor = ''
    to.end(pulling)
  }
  addEventListener('pointermove', move)
  addEventListener('pointerup', up)
  addEventListener('pointercancel', up)
}

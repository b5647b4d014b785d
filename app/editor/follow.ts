/** Follows the pointer from a press on until it is let go, wherever it goes meanwhile. */
export function follow(e: PointerEvent, move: (m: PointerEvent) => void, end: () => void): void {
  const at = e.currentTarget as Element
  at.setPointerCapture(e.pointerId)
  const listen = move as (e: Event) => void
  at.addEventListener('pointermove', listen)
  at.addEventListener(
    'lostpointercapture',
    () => {
      at.removeEventListener('pointermove', listen)
      end()
    },
    { once: true },
  )
}

/** A canvas that knows its size: it is watched, never read in a frame after something was written. */
export class SizedCanvas {
  width = 0
  height = 0
  private readonly watching: ResizeObserver

  /** @param turned called when the size has changed */
  constructor(
    private readonly canvas: HTMLCanvasElement,
    turned: () => void,
  ) {
    this.watching = new ResizeObserver(([entry]) => {
      const { width, height } = entry!.contentRect
      this.width = width
      this.height = height
      turned()
    })
    this.watching.observe(canvas)
  }

  /** The empty sheet in CSS pixels; null while it has no size. */
  begin(): CanvasRenderingContext2D | null {
    const { canvas, width, height } = this
    if (width === 0 || height === 0) return null
    const ratio = devicePixelRatio || 1
    const [w, h] = [Math.round(width * ratio), Math.round(height * ratio)]
    if (canvas.width !== w) canvas.width = w
    if (canvas.height !== h) canvas.height = h
    const c = canvas.getContext('2d')!
    c.setTransform(ratio, 0, 0, ratio, 0, 0)
    c.clearRect(0, 0, width, height)
    return c
  }

  stop(): void {
    this.watching.disconnect()
  }
}

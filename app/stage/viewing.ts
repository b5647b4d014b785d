/** The window of the stage that is seen: nearer by the wheel, moved by the middle button, fitted, one pixel to one. */
import { pullFrom } from './pull.ts'
import { FITTED, lensOf, zoomed, type Size, type View } from './view.ts'

/** @param size of the stage on the page; @param place where a pointer is, page pixels from the stage's corner */
export function useView(size: () => Size, stage: () => Size, place: (e: MouseEvent) => [number, number]) {
  const view = shallowRef<View>(FITTED)
  const lens = computed(() => lensOf(view.value, size(), stage()))
  const fit = () => (view.value = FITTED)
  watch([() => stage().width, () => stage().height], fit)
  const zoomBy = (factor: number) => (view.value = zoomed(view.value, factor, view.value.x, view.value.y))
  /** One stage pixel to one of the page. */
  const actualSize = () => (view.value = zoomed(view.value, stage().width / size().width / view.value.zoom, 0, 0))
  /** Page pixels that the view goes along. */
  function go(dx: number, dy: number): void {
    const { scale } = lens.value
    view.value = { ...view.value, x: view.value.x + dx / scale, y: view.value.y - dy / scale }
  }
  /** By keys, a tenth of what is seen. */
  const step = (aside: number, up: number) => go((aside * size().width) / 10, (-up * size().height) / 10)
  /** Nearer and further; sideways or with Shift along. A pinch of two fingers comes as a wheel with Ctrl, in small steps. */
  function wheel(e: WheelEvent): void {
    if (e.ctrlKey || (!e.shiftKey && Math.abs(e.deltaX) <= Math.abs(e.deltaY)))
      view.value = zoomed(view.value, Math.exp(-e.deltaY / (e.ctrlKey ? 100 : 400)), ...lens.value.toStage(...place(e)))
    else if (e.shiftKey && e.deltaX === 0) go(e.deltaY, 0)
    else go(e.deltaX, e.deltaY)
  }
  function pan(e: PointerEvent): void {
    const from = view.value
    const { scale } = lens.value
    pullFrom(e, {
      move: (dx, dy) => (view.value = { ...from, x: from.x - dx / scale, y: from.y + dy / scale }),
      end() {},
    })
  }
  return { view, lens, fit, zoomBy, actualSize, step, wheel, pan }
}

/** How large the stage lies in its room, and where: fitted, on whole pixels, beside its rulers. */
import type { Size } from './view.ts'

/** How wide a ruler is, page pixels. */
export const STAGE_RULER = 18

/**
 * @param room what the stage has to lie in
 * @param stage its size in px
 * @param ruled whether rulers lie above it and at its left
 * @param fitted called when its size on the page has changed
 */
export function useFitting(
  room: Readonly<Ref<HTMLElement | null>>,
  stage: () => Size,
  ruled: () => boolean,
  fitted: () => void,
) {
  const size = ref<Size>({ width: 0, height: 0 })
  const style = ref({})

  function fit(): void {
    const { clientWidth, clientHeight } = room.value!
    const beside = ruled() ? STAGE_RULER : 0
    const [w, h] = [clientWidth - beside, clientHeight - beside]
    const scale = Math.max(0, Math.min(w / stage().width, h / stage().height))
    const [width, height] = [Math.floor(stage().width * scale), Math.floor(stage().height * scale)]
    size.value = { width, height }
    // In the middle of its room it lies on whole pixels, so that nothing of it is blurred.
    style.value = {
      width: `${width}px`,
      height: `${height}px`,
      marginLeft: `${beside + ((w - width) % 2)}px`,
      marginTop: `${beside + ((h - height) % 2)}px`,
    }
    fitted()
  }
  // Each for itself: a stage that changes otherwise, as by a guide, stays as it lies.
  watch([() => stage().width, () => stage().height, ruled], fit, { flush: 'post' })
  onMounted(() => {
    const resize = new ResizeObserver(fit)
    resize.observe(room.value!)
    onBeforeUnmount(() => resize.disconnect())
  })
  return { size, style }
}

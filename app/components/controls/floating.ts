/** Where what opens beside a control stands: over all else, near its control, within the window. */
import { autoUpdate, computePosition, flip, offset, shift, size, type Placement } from '@floating-ui/dom'
import type { ObjectDirective } from 'vue'

/** Px between a panel and its control, and between it and the edge of the window. */
const [GAP, EDGE] = [3, 8]
/** Px that a panel is high at most. */
const HIGHEST = 340

export interface Floats {
  /** The control, or a function that finds it. */
  readonly by: HTMLElement | null | (() => HTMLElement | null)
  readonly at?: Placement
  /** At least as wide as its control. */
  readonly wide?: boolean
}

/** Shows an element in the browser's top layer, which nothing cuts off, and keeps it by its control until it goes. */
export function float(panel: HTMLElement, { by, at = 'bottom-start', wide }: Floats): () => void {
  const control = typeof by === 'function' ? by() : by
  panel.popover = 'manual'
  panel.showPopover()
  if (!control) return () => {}
  return autoUpdate(control, panel, async () => {
    const { x, y } = await computePosition(control, panel, {
      strategy: 'fixed',
      placement: at,
      middleware: [
        offset(GAP),
        flip({ padding: EDGE }),
        shift({ padding: EDGE }),
        size({
          padding: EDGE,
          apply({ availableHeight, rects }) {
            panel.style.maxHeight = `${Math.max(60, Math.min(HIGHEST, availableHeight))}px`
            if (wide) panel.style.minWidth = `${rects.reference.width}px`
          },
        }),
      ],
    })
    Object.assign(panel.style, { left: `${x}px`, top: `${y}px` })
  })
}

const ends = new WeakMap<HTMLElement, () => void>()

/** `v-float="{ by: button }"` on an element that is there while it is open. */
export const vFloat: ObjectDirective<HTMLElement, Floats> = {
  mounted(panel, { value }) {
    ends.set(panel, float(panel, value))
  },
  beforeUnmount(panel) {
    ends.get(panel)?.()
  },
}

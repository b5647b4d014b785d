/** Which window of the stage is seen: how many times as large as fitted, and about which point. */
export interface View {
  readonly zoom: number
  /** The stage point in the middle, px. */
  readonly x: number
  readonly y: number
}

export const FITTED: View = { zoom: 1, x: 0, y: 0 }
const LEAST = 0.25
/** Page pixels at the edge in which nothing is taken hold of. */
const EDGE = 6
const MOST = 64

/** Zoomed about a stage point, which stays where it is on the screen. */
export function zoomed(view: View, factor: number, x: number, y: number): View {
  const zoom = Math.min(MOST, Math.max(LEAST, view.zoom * factor))
  // Near enough to fitted it is that, so that the way back needs no aim.
  if (Math.abs(zoom - 1) < 0.04 && factor < 1) return FITTED
  const k = view.zoom / zoom
  return { zoom, x: x + (view.x - x) * k, y: y + (view.y - y) * k }
}

export interface Size {
  readonly width: number
  readonly height: number
}

/** From stage points to the page and back: `screen` is the size on the page at which the stage is fitted. */
export interface Lens {
  /** Page pixels that a stage pixel takes. */
  readonly scale: number
  readonly toScreen: (x: number, y: number) => [number, number]
  readonly toStage: (x: number, y: number) => [number, number]
  /** Whether a place of the page lies on the stage that is seen, and not at its very edge. */
  readonly shows: (x: number, y: number) => boolean
}

export function lensOf(view: View, screen: Size, stage: Size): Lens {
  const scale = (screen.width / stage.width) * view.zoom
  const [mx, my] = [screen.width / 2, screen.height / 2]
  return {
    scale,
    toScreen: (x, y) => [mx + (x - view.x) * scale, my - (y - view.y) * scale],
    toStage: (x, y) => [view.x + (x - mx) / scale, view.y - (y - my) / scale],
    shows: (x, y) => Math.abs(x - mx) < mx - EDGE && Math.abs(y - my) < my - EDGE,
  }
}

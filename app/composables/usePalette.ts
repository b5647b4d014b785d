/** The printed colours as text for canvases; `onTurn` is called when day and night change. */
export interface Palette {
  paper: string
  sheet: string
  band: string
  rule: string
  ink: string
  faded: string
  sea: string
  coral: string
  kelp: string
  brass: string
}

const NAMES = ['paper', 'sheet', 'band', 'rule', 'ink', 'faded', 'sea', 'coral', 'kelp', 'brass'] as const

function read(): Palette {
  const style = getComputedStyle(document.documentElement)
  return Object.fromEntries(NAMES.map(n => [n, style.getPropertyValue(`--${n}`).trim()])) as unknown as Palette
}

export function usePalette(onTurn: () => void): Palette {
  const palette = reactive(read())
  const observer = new MutationObserver(() => {
    Object.assign(palette, read())
    onTurn()
  })
  observer.observe(document.documentElement, { attributes: true, attributeFilter: ['data-theme'] })
  onScopeDispose(() => observer.disconnect())
  return toRaw(palette)
}

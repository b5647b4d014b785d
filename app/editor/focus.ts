/** Puts the caret into the formula of a drive, and its entry in sight. */
export function focusFormula(drive: string): void {
  const entry = document.querySelector<HTMLElement>(`[data-drive="${drive}"]`)
  entry?.scrollIntoView({ block: 'nearest' })
  entry?.querySelector<HTMLElement>('.cm-content')?.focus()
}

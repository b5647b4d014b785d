/** Puts the caret into the formula of a drive, and its entry in sight. */
export function focusFormula(drive: string, tries = 10): void {
  const entry = document.querySelector<HTMLElement>(`[data-drive="${drive}"]`)
  entry?.scrollIntoView({ block: 'nearest' })
  const field = entry?.querySelector<HTMLElement>('.cm-content')
  if (field) field.focus()
  // One that was far away is there in full a moment later.
  else if (tries > 0) requestAnimationFrame(() => focusFormula(drive, tries - 1))
}

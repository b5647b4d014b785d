/** Where the keys go next. What was far away is there in full a moment later, so it is tried for some frames. */
function focusIn(place: string, field: string, tries = 10): void {
  const at = document.querySelector<HTMLElement>(place)
  at?.scrollIntoView({ block: 'nearest' })
  const found = at?.querySelector<HTMLElement>(field)
  if (found instanceof HTMLTextAreaElement) found.select()
  if (found) found.focus()
  else if (tries > 0) requestAnimationFrame(() => focusIn(place, field, tries - 1))
}

/** Puts the caret into the formula of a drive, and its entry in sight. */
export const focusFormula = (drive: string): void => focusIn(`[data-drive="${drive}"]`, '.cm-content')

/** To what gives a part its first function of time. */
export const focusDriving = (part: string): void => focusIn(`[data-head="${part}"]`, '[data-driving]')

/** Into the words of the text that is in hand on the Part page. */
export const focusWords = (): void => focusIn('[data-words]', 'textarea')

/**
 * Goes to a control by its name, as a person would read it: into sight, with the keys, and marked for a moment. What was
 * opened for it is there some frames later, so it is tried again until then.
 */
const FOCUSABLE = 'input, select, textarea, button, a[href], [tabindex]:not([tabindex="-1"])'
/** Frames in which it is looked for, and ms for which it is marked. */
const [TRIES, MARKED] = [90, 1600]

function named(name: string, within: ParentNode): HTMLElement | undefined {
  const labelled = [...within.querySelectorAll<HTMLElement>('[aria-label]')].find(e => e.ariaLabel === name)
  if (labelled) return labelled
  return [...within.querySelectorAll<HTMLElement>('button, label, legend, summary, [data-found-as]')].find(
    e => (e.dataset.foundAs ?? e.textContent).trim() === name,
  )
}

/** @param at a selector of what it lies in, where its name may stand elsewhere too */
export function reveal(name: string, at = 'body', tries = TRIES): void {
  const within = document.querySelector(at)
  const it = within && named(name, within)
  if (!it) {
    if (tries > 0) requestAnimationFrame(() => reveal(name, at, tries - 1))
    return
  }
  const fold = it.closest('[data-section]')?.querySelector<HTMLElement>('[aria-expanded="false"]')
  if (fold && fold !== it) {
    fold.click()
    requestAnimationFrame(() => reveal(name, at, tries - 1))
    return
  }
  it.scrollIntoView({ block: 'nearest' })
  const control = it.matches(FOCUSABLE) ? it : it.querySelector<HTMLElement>(FOCUSABLE)
  hold(control ?? it)
  it.classList.add('revealed')
  setTimeout(() => it.classList.remove('revealed'), MARKED)
}

/** A dialog that has just closed may still give the focus back to where it came from: it is held for some frames. */
function hold(it: HTMLElement, frames = 4): void {
  if (document.activeElement !== it) it.focus()
  if (frames > 0) requestAnimationFrame(() => hold(it, frames - 1))
}

/** A place of the manual that is shown beside the piece. */
export function revealInManual(anchor: string, tries = TRIES): void {
  const it = document.querySelector<HTMLElement>(`aside #${CSS.escape(anchor)}`)
  if (it) {
    it.scrollIntoView({ block: 'start' })
    it.tabIndex = -1
    it.focus({ preventScroll: true })
  } else if (tries > 0) requestAnimationFrame(() => revealInManual(anchor, tries - 1))
}

/**
 * Puts a text that changes with the moment into an element. The text node stays: a new one in every frame would be
 * styled and laid out as if it had come into the page.
 */
export function writeText(to: HTMLElement | null | undefined, text: string): void {
  if (!to || to.textContent === text) return
  const [only] = to.childNodes
  if (to.childNodes.length === 1 && only instanceof Text) only.data = text
  else to.textContent = text
}

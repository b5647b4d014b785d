/** An entry of the tide table that is carried with the pointer: onto a formula, a row of links, a part of the stage. */
const ENTRY = 'application/x-open-tide-entry'

/** @param label how formulas name it: a formula that it is dropped on reads it by that */
export function carry(e: DragEvent, key: string, label: string): void {
  e.dataTransfer!.setData(ENTRY, key)
  e.dataTransfer!.setData('text/plain', label)
  e.dataTransfer!.effectAllowed = 'all'
}

/** Lets it be dropped here; called while something is carried over. Whether it was an entry. */
export function mayDrop(e: DragEvent): boolean {
  if (!e.dataTransfer?.types.includes(ENTRY)) return false
  e.preventDefault()
  e.dataTransfer.dropEffect = 'link'
  return true
}

/** The key of the entry that was dropped; null for anything else. */
export function dropped(e: DragEvent): string | null {
  const key = e.dataTransfer?.getData(ENTRY)
  if (!key) return null
  e.preventDefault()
  return key
}

/** Lets a file from outside be dropped here. */
export function mayDropFile(e: DragEvent): void {
  if (!e.dataTransfer?.types.includes('Files')) return
  e.preventDefault()
  e.dataTransfer.dropEffect = 'copy'
}

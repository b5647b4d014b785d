/** What was pressed, as the table of commands (`core/manual/commands.ts`) prints it. */
const NAMED: Readonly<Record<string, string>> = {
  ' ': 'Space',
  ArrowLeft: '←',
  ArrowUp: '↑',
  ArrowRight: '→',
  ArrowDown: '↓',
  Escape: 'Esc',
  Delete: 'Del',
}
/** What Shift makes of comma and full stop on one keyboard or another. */
const SHIFTED: Readonly<Record<string, string>> = { '<': ',', ';': ',', '>': '.', ':': '.' }

/** What was pressed as it is printed: `Ctrl Shift Z`, `?`. Shift is left out where it only makes the sign. */
export function chordOf(e: KeyboardEvent): string {
  const key = NAMED[e.key] ?? SHIFTED[e.key] ?? (e.key.length === 1 ? e.key.toUpperCase() : e.key)
  // Signs that some keyboards have behind AltGr come with Ctrl and Alt.
  const sign = e.getModifierState('AltGraph')
  const shift = e.shiftKey && (key.length > 1 || /[\p{L},.←↑→↓]/u.test(key))
  const held = [!sign && (e.ctrlKey || e.metaKey) && 'Ctrl', !sign && e.altKey && 'Alt', shift && 'Shift']
  return [...held.filter(Boolean), key].join(' ')
}

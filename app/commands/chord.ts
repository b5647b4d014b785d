/** Turns a key event into the text that the command table (`core/manual/commands.ts`) uses for it. */
const NAMED: Readonly<Record<string, string>> = {
  ' ': 'Space',
  ArrowLeft: '←',
  ArrowUp: '↑',
  ArrowRight: '→',
  ArrowDown: '↓',
  Escape: 'Esc',
  Delete: 'Del',
}
/** What Shift turns comma and full stop into, depending on the keyboard. */
const SHIFTED: Readonly<Record<string, string>> = { '<': ',', ';': ',', '>': '.', ':': '.' }

/** The pressed keys as they are printed: `Ctrl Shift Z`, `?`. Shift is left out where it only selects the character. */
export function chordOf(e: KeyboardEvent): string {
  const key = NAMED[e.key] ?? SHIFTED[e.key] ?? (e.key.length === 1 ? e.key.toUpperCase() : e.key)
  // Characters typed with AltGr report Ctrl and Alt as pressed on Windows.
  const sign = e.getModifierState('AltGraph')
  const shift = e.shiftKey && (key.length > 1 || /[\p{L},.←↑→↓]/u.test(key))
  const held = [!sign && (e.ctrlKey || e.metaKey) && 'Ctrl', !sign && e.altKey && 'Alt', shift && 'Shift']
  return [...held.filter(Boolean), key].join(' ')
}

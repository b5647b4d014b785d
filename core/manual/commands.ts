/**
 * The commands of the workbench: name, search words and keys. The keyboard, the search, menus, tooltips and the list of
 * shortcuts all read this table; `app/commands/run-command.ts` defines what each command does.
 */

/** Where the keys of a command work: anywhere in a piece, while the stage has the focus, or while the scope is open. */
export type CommandPlace = 'piece' | 'stage' | 'scope'

export interface CommandEntry {
  /** Other words by which it is found. */
  readonly words: string
  /** Its keys as they are printed: `Ctrl Shift Z`, `↑`. Ctrl stands for Command on a Mac. */
  readonly keys?: readonly string[]
  /** `piece` if left out. */
  readonly place?: CommandPlace
  /** Whether keys with Ctrl, and F keys, also work while typing. */
  readonly whileTyping?: true
}

export const COMMANDS = {
  'Find anything': {
    words: 'search find command palette spotlight go to quick open',
    keys: ['/', 'Ctrl K'],
    whileTyping: true,
  },
  'Play or pause': { words: 'play stop playback start run preview halt', keys: ['Space'] },
  'Back to time 0': { words: 'rewind go to start beginning home first frame reset time zero', keys: ['0'] },
  'One frame back': { words: 'previous frame step backward', keys: [','] },
  'One frame forward': { words: 'next frame step forward advance', keys: ['.'] },
  'One second back': { words: 'previous second skip back', keys: ['Shift ,'] },
  'One second forward': { words: 'next second skip ahead', keys: ['Shift .'] },
  'Go to a time': { words: 'seek timecode jump playhead scrub current time frame number' },
  'Playback speed': { words: 'pace slow motion speed rate faster slower tempo' },
  'Play backwards': { words: 'reverse playback backward' },
  'Play every frame': { words: 'dropped frames skip realtime stutter' },
  'Mark the cue here': { words: 'marker trigger event tap beat hit', keys: ['C'] },
  'Start the stretch here': { words: 'in point work area loop region range from', keys: ['['] },
  'End the stretch here': { words: 'out point work area loop region range to', keys: [']'] },
  'Solo the selected part, or show everything again': { words: 'isolate isolation hide others focus', keys: ['A'] },
  'Set a keyframe here': { words: 'keyframe key hand animate insert record pose diamond', keys: ['K'] },
  'Previous entry': { words: 'select up table row above', keys: ['↑'] },
  'Next entry': { words: 'select down table row below', keys: ['↓'] },
  'Edit the selected formula': { words: 'write type change expression text', keys: ['Enter'] },
  'Keep a take of the selected formula': { words: 'snapshot variant alternative version formula store', keys: ['T'] },
  'Previous take': { words: 'take before compare variant', keys: ['Y'] },
  'Copy the selected formula': { words: 'clipboard expression duplicate formula', keys: ['Ctrl C'] },
  'Paste it on the selected part': { words: 'clipboard expression formula', keys: ['Ctrl V'] },
  Patterns: { words: 'preset template library behaviour behavior reuse apply save recipe', keys: ['P'] },
  Undo: { words: 'back step revert mistake history', keys: ['Ctrl Z'] },
  Redo: { words: 'again forward step', keys: ['Ctrl Shift Z', 'Ctrl Y'] },
  'Keyboard shortcuts': { words: 'hotkeys keys bindings keymap accelerators', keys: ['?'] },
  'Single-key shortcuts': { words: 'hotkeys accessibility speech input voice letters disable turn off keys accident' },
  'Open or close the manual': {
    words: 'help documentation docs guide tutorial reference learn how',
    keys: ['F1'],
    whileTyping: true,
  },
  'Export…': {
    words:
      'download render save as film video movie mp4 webm gif png sequence frames svg css html web page embed gltf glb csv json wav audio output publish deliver animation loop file image still screenshot',
  },
  'Hand over…': { words: 'share link publish client review send url public viewer collaborate permission' },
  'Version history…': { words: 'versions history revisions backup restore autosave recover earlier' },
  'Save now': { words: 'save store write disk', keys: ['Ctrl S'], whileTyping: true },
  Harbour: { words: 'home projects files open dashboard pieces list folder import recent all' },
  'Rename the piece': { words: 'title name piece project' },
  'Add a part…': {
    words:
      'new shape object layer element create insert rectangle square ellipse circle line polygon star text type image picture photo gear water waves particles emitter trace group null controller camera',
  },
  'Import artwork or pictures…': {
    words: 'svg png jpeg jpg webp vector bitmap image illustration drawing file asset import',
  },
  'Import a table…': { words: 'csv json data spreadsheet import curve cue beats' },
  'Draw a path': { words: 'pen tool bezier bézier vector draw freehand pencil curve outline' },
  'Parts list': {
    words:
      'layers outliner hierarchy tree parent child children nest order stacking front back lock hide visibility eye',
  },
  'Duplicate the selected part': { words: 'copy clone double', keys: ['Ctrl D'], place: 'stage' },
  'Delete the selected part': { words: 'remove erase trash clear', keys: ['Del'], place: 'stage' },
  'Group the selected parts': { words: 'folder combine nest parent merge', keys: ['Ctrl G'], place: 'stage' },
  'Copy the selected parts': { words: 'clipboard parts copy', keys: ['Ctrl C'], place: 'stage' },
  'Paste parts': { words: 'clipboard parts insert', keys: ['Ctrl V'], place: 'stage' },
  'Select all parts': { words: 'everything choose whole', keys: ['Ctrl A'], place: 'stage' },
  'Enter the selected group': { words: 'child inside isolate group first child', keys: ['Enter'], place: 'stage' },
  'Leave the group, or select nothing': { words: 'deselect parent out unselect', keys: ['Esc'], place: 'stage' },
  'Desk: Scope': { words: 'curve value graph wave waveform oscilloscope handles' },
  'Fit the curve': { words: 'scope fit zoom everything whole range', keys: ['F'], place: 'scope' },
  'Curve before the change': { words: 'compare ghost previous before scope', keys: ['G'], place: 'scope' },
  'Desk: Part': { words: 'properties inspector attributes transform settings' },
  'Desk: Links': { words: 'connections dependency wires parenting constraint follow drive relation matrix link' },
  'Loop: the Lap page': { words: 'loop duration length seamless cycle period timing' },
  'Desk: Piece': { words: 'settings document project composition canvas artboard' },
  'Next page of the desk': { words: 'tab panel switch', keys: ['D'] },
  'Lap length': { words: 'loop duration seconds composition end time length seamless' },
  'Start of the lap': { words: 'loop offset start time begin' },
  'Seam at the loop point': { words: 'seamless loop jump first last frame compare onion' },
  'Stage size': { words: 'canvas artboard resolution dimensions width height aspect ratio format hd 1080p' },
  'Frame rate': { words: 'fps frames per second 24 25 30 60 timing' },
  'Poster frame': { words: 'thumbnail cover card image preview still poster' },
  Background: { words: 'backdrop colour color ground fill stage transparent' },
  'In depth': { words: '3d perspective depth z space three dimensional camera' },
  'Camera distance': { words: 'perspective focal length field of view lens eye' },
  'Look around': { words: 'orbit camera rotate view tumble 3d' },
  'Seed of new drives': { words: 'random seed variation chance' },
  'Reset tuning offsets': { words: 'settle phase offset restart slip zero' },
  'Smooth tuning': { words: 'jump keep value continuity phase while playing no jump glitch' },
  Guides: { words: 'safe margins title action centre center lines alignment' },
  Rulers: { words: 'measure pixels edges' },
  Grid: { words: 'snap snapping raster lines spacing' },
  Overlaps: { words: 'collision touch intersect crash hit test' },
  'Off-stage parts': { words: 'clip outside cropped out of frame bounds leaving' },
  'Cost per frame': { words: 'performance slow lag fps heavy optimise optimize speed profiler budget' },
  'Motion path': { words: 'trajectory trail onion skin path way travel' },
  'Links on the stage': { words: 'threads connections wires lines show' },
  'Fit the stage': { words: 'zoom fit all view reset window', keys: ['F'], place: 'stage' },
  'Zoom in': { words: 'larger magnify closer', keys: ['+', '='], place: 'stage' },
  'Zoom out': { words: 'smaller farther', keys: ['-'], place: 'stage' },
  'Reset the view': { words: 'camera look straight front home', keys: ['Home'], place: 'stage' },
  'Actual size': { words: 'zoom 100% pixel one to one' },
  'Align the selected parts': { words: 'distribute arrange left right top bottom centre center spacing even' },
  Pivot: { words: 'anchor anchor point origin centre center of rotation registration pin hinge' },
  Copies: { words: 'repeat repeater array duplicate instances clone ring grid row radial pattern' },
  Span: { words: 'in point out point layer duration start end visible lifetime duration appear disappear' },
  'Drive a property…': { words: 'animate animation motion expression formula add keyframes driver wobble bind' },
  'New dial': { words: 'slider parameter variable knob global master control' },
  'New signal': { words: 'variable expression shared named formula helper null' },
  'New cue': { words: 'marker trigger event beat sync music audio' },
  'New clock': { words: 'time stretch remapped speed tempo bpm pause retime' },
  'New curve': { words: 'drawn animation curve easing gesture bezier graph custom' },
  'Dark or light theme': { words: 'dark mode light mode night daylight appearance colour color scheme theme' },
} as const satisfies Readonly<Record<string, CommandEntry>>

export type Command = keyof typeof COMMANDS

/** All commands in display order. */
export const COMMAND_NAMES = Object.keys(COMMANDS) as Command[]
export const commandEntry = (name: Command): CommandEntry => COMMANDS[name]

/** Keys that aren't commands: moving parts by keys, and the formula editor's own. */
export const HAND_KEYS: readonly (readonly [place: CommandPlace | 'formula', keys: string, description: string])[] = [
  ['formula', 'Enter', 'run what was typed'],
  ['formula', 'Esc', 'leave the formula and revert what was typed'],
  ['formula', 'Alt B', 'bypass the term at the caret, or restore it'],
  ['formula', 'Alt D', 'make a dial from the number at the caret'],
  ['formula', 'Alt Enter', 'accept the first fix'],
  ['formula', 'Alt ↑ ↓', 'step the number at the caret, with Shift coarser'],
  ['stage', '← ↑ → ↓', 'move the selection by 1 px, with Shift by 10; with nothing selected, pan the view'],
  ['stage', 'Alt ← ↑ → ↓', 'look around a piece in depth'],
]

/** Whether a shortcut is a single character, which can be triggered by accident or by speech input (WCAG 2.2, 2.1.4). */
export const isSingleKey = (keys: string): boolean => keys.replace(/^Shift /, '').length === 1 && !/[←↑→↓]/.test(keys)

/** The formats that a piece is exported in: one entry a format, which the window, the worker and the prompt read. */

export type ExportKind = 'Film' | 'Live page' | 'Moving SVG or CSS' | '3D scene' | 'Numbers' | 'Still' | 'Piece'

export interface FormatEntry {
  readonly name: string
  readonly kind: ExportKind
  /** The end of its files. */
  readonly end: string
  /** Its media type. */
  readonly type: string
  /** Frames are drawn by the stage's renderer: it needs a browser. */
  readonly drawn?: true
  /** It can be without its ground. */
  readonly clear?: true
  /** It is of one moment, or of all time: no laps are asked for. */
  readonly timeless?: true
  /** Px to a side are even. */
  readonly even?: true
}

export const FORMATS = {
  webm: { name: 'WebM', kind: 'Film', end: 'webm', type: 'video/webm', drawn: true, even: true },
  mp4: { name: 'MP4', kind: 'Film', end: 'mp4', type: 'video/mp4', drawn: true, even: true },
  gif: { name: 'GIF', kind: 'Film', end: 'gif', type: 'image/gif', drawn: true, clear: true },
  zip: { name: 'PNGs', kind: 'Film', end: 'zip', type: 'application/zip', drawn: true, clear: true },
  page: { name: 'HTML page', kind: 'Live page', end: 'html', type: 'text/html', timeless: true },
  module: { name: 'script module', kind: 'Live page', end: 'js', type: 'text/javascript', timeless: true },
  moving: { name: 'SVG', kind: 'Moving SVG or CSS', end: 'svg', type: 'image/svg+xml', clear: true },
  css: { name: 'CSS keyframes', kind: 'Moving SVG or CSS', end: 'html', type: 'text/html', clear: true },
  gltf: { name: 'glTF', kind: '3D scene', end: 'glb', type: 'model/gltf-binary' },
  csv: { name: 'CSV', kind: 'Numbers', end: 'csv', type: 'text/csv' },
  json: { name: 'JSON', kind: 'Numbers', end: 'json', type: 'application/json' },
  wav: { name: 'WAV', kind: 'Numbers', end: 'wav', type: 'audio/wav' },
  png: { name: 'PNG', kind: 'Still', end: 'png', type: 'image/png', drawn: true, clear: true, timeless: true },
  svg: { name: 'SVG', kind: 'Still', end: 'svg', type: 'image/svg+xml', timeless: true },
  piece: { name: 'piece file', kind: 'Piece', end: 'tide', type: 'application/zip', timeless: true },
} as const satisfies Record<string, FormatEntry>

export type ExportFormat = keyof typeof FORMATS

export const EXPORT_KINDS: readonly { readonly kind: ExportKind; readonly says: string }[] = [
  { kind: 'Film', says: 'WebM, MP4, GIF, numbered PNGs' },
  { kind: 'Live page', says: 'one HTML file; never ends; dials if you like' },
  { kind: 'Moving SVG or CSS', says: 'for web pages, no script' },
  { kind: '3D scene', says: 'glTF 2.0 with its motion' },
  { kind: 'Numbers', says: 'CSV, JSON, WAV of a drive' },
  { kind: 'Still', says: 'PNG or SVG of this moment' },
  { kind: 'Piece', says: 'everything, to open elsewhere' },
]

export const formatOf = (as: ExportFormat): FormatEntry => FORMATS[as]
export const formatsOf = (kind: ExportKind): ExportFormat[] =>
  (Object.keys(FORMATS) as ExportFormat[]).filter(as => FORMATS[as].kind === kind)

/**
 * A piece as one page, or as one script module, that runs for ever with no server: the bundled runner, the piece and its
 * pictures. The page brings its own strict content security policy, by the hashes of its one script and its one style.
 */
import type { DialLoan } from '../../piece/lent.ts'
import type { Piece } from '../../piece/schema.ts'

/** What stands under the stage: nothing, a button that plays and pauses, or that and the dials. */
export type Controls = 'none' | 'play' | 'dials'

export interface BundledPiece {
  readonly piece: Piece
  /** Data addresses, by hash. */
  readonly pictures: ReadonlyMap<string, string>
  readonly lent: readonly DialLoan[]
  readonly controls: Controls
}

/** The SHA-256 of a text, in base 64: a browser and Node each have their own. */
export type Hashing = (text: string) => Promise<string>

/** As JSON that may stand in a script: it cannot end it, whatever a title holds. */
const held = (value: unknown): string =>
  JSON.stringify(value).replace(/[<\u2028\u2029]/g, c => `\\u${c.charCodeAt(0).toString(16).padStart(4, '0')}`)

const text = (s: string): string => s.replace(/[&<>"]/g, c => `&#${c.charCodeAt(0)};`)

const given = ({ piece, pictures, lent, controls }: BundledPiece): string =>
  held({ piece, pictures: Object.fromEntries(pictures), lent, controls })

const STYLE = 'html,body{margin:0;background:Canvas}body>div{max-width:1920px;margin:0 auto}'

/** @param runner the bundle of app/running, which leaves `OpenTide` behind */
export async function pageOf(runner: string, carried: BundledPiece, hash: Hashing): Promise<string> {
  const script = `${runner}\nOpenTide.mount(document.querySelector('div'),JSON.parse(document.getElementById('piece').textContent))`
  const policy = `default-src 'none'; script-src 'sha256-${await hash(script)}'; style-src 'sha256-${await hash(STYLE)}'; base-uri 'none'; form-action 'none'`
  return `<!doctype html>
<html lang="en"><head><meta charset="utf-8"><meta name="viewport" content="width=device-width,initial-scale=1">
<meta http-equiv="Content-Security-Policy" content="${policy}">
<title>${text(carried.piece.title)}</title><style>${STYLE}</style></head>
<body><div></div><script type="application/json" id="piece">${given(carried)}</script>
<script>${script}</script></body></html>
`
}

/** A module that gives `mount(element, choices)` for this piece. */
export const moduleOf = (runner: string, carried: BundledPiece): string =>
  `/* ${carried.piece.title.replace(/\*\/|[\u2028\u2029]|\p{Control}/gu, ' ')} · runs by itself: mount(element, { controls, playing }) gives play, seek, dial, values, remove. */
${runner}
const GIVEN = ${given(carried)}
export const mount = (element, choices) => OpenTide.mount(element, GIVEN, choices)
`

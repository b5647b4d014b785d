/** The values of pieces and formulas, as bits: the same code in every browser engine and in Node (`npm run engines`). */
import { Program } from '../../core/engine/program.ts'
import { readPiece } from '../../core/piece/migrate.ts'
import { fair } from '../../core/testing/fair.ts'
import { momentOfFrame, momentOfSeconds } from '../../core/time/moment.ts'
import { rational, toNumber } from '../../core/time/rational.ts'

export interface Work {
  /** Documents by a name. */
  readonly pieces: readonly (readonly [string, unknown])[]
  /** Formulas that give an angle, each tried on the carousel of the example fair. */
  readonly formulas: readonly string[]
}
/** Values by what they are of, in their order; bits as text, since numbers do not pass unharmed. */
export type Bits = readonly (readonly [string, string])[]

const LOOKS = 60
/** Frames that are no whole lap apart, one just before a year is over, and moments that are on no frame. */
const FRAMES = [...Array.from({ length: LOOKS }, (_, k) => k * 7), 946_727_999]
const SECONDS = [0.1, 1 / 3, 2.718281828, 11.75, 4321.0987]

function momentsOf(program: Program) {
  const rate = program.measures.frameRate
  const between = SECONDS.map(s => momentOfSeconds(rational(Math.round(s * 1e6), 1e6), rate))
  return [...FRAMES.map(f => momentOfFrame(f, rate)), ...between]
}

/** Sixteen digits a value. */
function bitsOf(values: readonly number[]): string {
  const view = new DataView(new ArrayBuffer(8))
  return values
    .map(v => {
      view.setFloat64(0, v)
      return view.getBigUint64(0).toString(16).padStart(16, '0')
    })
    .join(' ')
}

/** The values of every copy of every formula that runs. */
function ofProgram(name: string, program: Program): [string, string][] {
  const moments = momentsOf(program)
  return [...program.slots].flatMap(([key, { forms }]) =>
    forms.map((form, copy): [string, string] => [
      `${name} ${key} ${copy + 1}`,
      bitsOf(moments.map(m => program.queue.settle(() => form.at(m)))),
    ]),
  )
}

export function valuesOf({ pieces, formulas }: Work): Bits {
  const all: [string, string][] = []
  for (const [name, document] of pieces) {
    const { piece, problem } = readPiece(document)
    if (!piece) throw new Error(`${name}: ${problem}`)
    all.push(...ofProgram(name, new Program(piece)))
  }
  for (const text of formulas) {
    const { slot, program } = fair(text)
    if (slot.forms.length === 0) throw new Error(`${text}: ${slot.problems[0]?.message}`)
    const moments = momentsOf(program).filter((_, k) => k % 6 === 0)
    const lap = toNumber(program.measures.lapLength)
    all.push([`${text} (lap ${lap} s)`, bitsOf(moments.map(m => program.queue.settle(() => slot.forms[0]!.at(m))))])
  }
  return all
}

/**
 * What is written about a clock, a cue or a drawn curve: a sentence whose numbers and choices are handles, as those of
 * a formula are.
 */
import { changeNamed } from '../acts/named-things.ts'
import { curveEnds, lastingUntil, setMarks } from '../acts/time-edits.ts'
import type { Cue, Curve, Piece } from '../piece/schema.ts'
import { clockSentence, type Changing } from './clock-sentence.ts'
import { SHORTEST, plainText, type SentencePart } from './sentence-part.ts'

export type TimedIn = 'clocks' | 'cues' | 'curves'

/** Marks that stand in the sentence of a cue; the others are told by their number. */
const MOST_MARKS = 10

export function sentenceOf(piece: Piece, collection: TimedIn, id: string, changing: () => Changing): SentencePart[] {
  if (collection === 'clocks') return clockSentence(piece, id, piece.clocks[id]!, changing)
  return collection === 'cues' ? ofCue(piece, id, piece.cues[id]!) : ofCurve(piece, id, piece.curves[id]!)
}

function ofCue(piece: Piece, id: string, { marks, every }: Cue): SentencePart[] {
  const told = marks.slice(0, MOST_MARKS)
  const words: SentencePart[] = [plainText(marks.length === 0 ? 'no marks yet' : 'marks at')]
  told.forEach((at, i) => {
    words.push({
      is: 'number',
      label: `Mark ${i + 1}`,
      value: at,
      unit: 's',
      stride: 0.1,
      set: v =>
        setMarks(
          piece,
          id,
          marks.map((m, k) => (k === i ? v : m)),
        ),
      remove: setMarks(
        piece,
        id,
        marks.filter((_, k) => k !== i),
      ),
    })
  })
  if (marks.length > told.length) words.push(plainText(`and ${marks.length - told.length} more`))
  words.push({
    is: 'choice',
    label: 'Repeat or once',
    value: every === null ? '' : 'again',
    of: [
      { value: '', says: 'once' },
      { value: 'again', says: 'repeat every' },
    ],
    set: v => changeNamed(piece, 'cues', id, { every: v === '' ? null : longEnough(marks) }),
  })
  if (every !== null)
    words.push({
      is: 'number',
      label: 'Repeat every',
      value: every,
      unit: 's',
      stride: 0.1,
      low: SHORTEST,
      set: v => changeNamed(piece, 'cues', id, { every: v }),
    })
  return words
}

/** Whole seconds in which all marks have their place. */
const longEnough = (marks: readonly number[]): number =>
  marks.length < 2 ? 4 : Math.max(1, Math.floor(marks.at(-1)! - marks[0]!) + 1)

const UNITS: readonly (readonly [Curve['unit'], string])[] = [
  ['', 'plain numbers'],
  ['%', '%'],
  ['deg', 'degrees'],
  ['px', 'px'],
  ['s', 'seconds'],
  ['Hz', 'Hz'],
]

function ofCurve(piece: Piece, id: string, curve: Curve): SentencePart[] {
  const { channels, unit, hit } = curve
  const points = Object.values(channels).reduce((n, p) => n + p.length, 0)
  const count = Object.keys(channels).length
  const longest = curveEnds(curve)[1]
  return [
    plainText(`${points} points${count > 1 ? ` in ${count} channels` : ''}, in`),
    {
      is: 'choice',
      label: 'Unit of the values',
      value: unit,
      of: UNITS.map(([value, says]) => ({ value, says })),
      set: v => changeNamed(piece, 'curves', id, { unit: v as Curve['unit'] }),
    },
    plainText('lasts'),
    {
      is: 'number',
      label: 'Lasts',
      value: longest,
      unit: 's',
      stride: 0.1,
      low: SHORTEST,
      set: v => lastingUntil(piece, id, v),
    },
    plainText('hits at'),
    {
      is: 'number',
      label: 'Hit point',
      value: hit,
      unit: 's',
      stride: 0.05,
      set: v => changeNamed(piece, 'curves', id, { hit: v }),
    },
  ]
}

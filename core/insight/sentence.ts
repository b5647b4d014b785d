/**
 * What is written about a clock, a cue or a drawn curve: a sentence whose numbers and choices are handles, as those of
 * a formula are. Each says what it is and what the piece becomes when it is changed.
 */
import { changeNamed } from '../acts/named-things.ts'
import { curveEnds, lastingUntil, runsOn, setMarks } from '../acts/time-edits.ts'
import { setClockRate } from '../engine/retime.ts'
import { channelsOf } from '../piece/channels.ts'
import type { Operation } from '../piece/operation.ts'
import type { Clock, Cue, Curve, Piece } from '../piece/schema.ts'
import type { Moment } from '../time/moment.ts'

export type SentencePart =
  | { readonly is: 'text'; readonly says: string }
  | {
      readonly is: 'number'
      readonly label: string
      readonly value: number
      readonly unit: string
      /** What one step of a drag adds. */
      readonly stride: number
      readonly low?: number
      readonly set: (value: number) => Operation
      /** Taken out of the sentence; only where it can be. */
      readonly remove?: Operation
    }
  | {
      readonly is: 'choice'
      readonly label: string
      readonly value: string
      readonly of: readonly { readonly value: string; readonly says: string }[]
      readonly set: (value: string) => Operation
    }

/** When a change is made, and whether what runs stays where it is. */
export interface Changing {
  readonly at: Moment
  readonly keep: boolean
}

export type TimedIn = 'clocks' | 'cues' | 'curves'

const text = (says: string): SentencePart => ({ is: 'text', says })
/** The least length of what repeats, in seconds. */
const SHORTEST = 0.001
/** Marks that stand in the sentence of a cue; the others are told by their number. */
const MOST_MARKS = 10

export function sentenceOf(piece: Piece, collection: TimedIn, id: string, changing: () => Changing): SentencePart[] {
  if (collection === 'clocks') return ofClock(piece, id, piece.clocks[id]!, changing)
  return collection === 'cues' ? ofCue(piece, id, piece.cues[id]!) : ofCurve(piece, id, piece.curves[id]!)
}

const named = (entries: Readonly<Record<string, { readonly name: string }>>) =>
  Object.entries(entries).map(([value, e]) => ({ value, says: e.name }))

function ofClock(piece: Piece, id: string, clock: Clock, changing: () => Changing): SentencePart[] {
  const { way, on, hold } = clock
  const change = (c: Partial<Clock>): Operation => changeNamed(piece, 'clocks', id, c)
  const number = (
    label: string,
    value: number,
    unit: string,
    stride: number,
    set: (v: number) => Clock['way'],
  ): SentencePart => ({
    is: 'number',
    label,
    value,
    unit,
    stride,
    low: SHORTEST,
    set: v => change({ way: set(v) }),
  })
  const [cue, curve] = [Object.keys(piece.cues)[0], Object.keys(piece.curves)[0]]
  const first = curve === undefined ? '' : channelsOf(piece.curves[curve]!)[0]
  const ways: Record<string, readonly [string, Clock['way'] | null]> = {
    steady: ['runs steadily', { type: 'steady', rate: 1, ahead: 0 }],
    toAndFro: ['runs back and forth', { type: 'toAndFro', length: 4 }],
    restart: ['restarts', { type: 'restart', every: 4 }],
    cue: ['starts at each mark', cue === undefined ? null : { type: 'cue', cue }],
    curve: ['follows a curve', curve === undefined ? null : { type: 'curve', curve, channel: first }],
  }
  const words: SentencePart[] = [
    {
      is: 'choice',
      label: 'How it runs',
      value: way.type,
      of: Object.entries(ways).flatMap(([value, [says, to]]) => (to ? [{ value, says }] : [])),
      set: v => change({ way: ways[v]![1]! }),
    },
  ]
  if (way.type === 'steady') {
    words.push(
      {
        is: 'number',
        label: 'Rate',
        value: way.rate,
        unit: '',
        stride: 0.05,
        set: v => {
          const { at, keep } = changing()
          return setClockRate(piece, id, v, at, keep)
        },
      },
      text('times as fast'),
      {
        is: 'choice',
        label: 'Times a dial',
        value: way.dial ?? '',
        of: [
          { value: '', says: 'by itself' },
          ...Object.entries(piece.dials).map(([value, d]) => ({ value, says: `× ${d.name}` })),
        ],
        set: v => {
          const { dial: _none, ...rest } = way
          return change({ way: v === '' ? rest : { ...rest, dial: v } })
        },
      },
      {
        is: 'number',
        label: 'Ahead',
        value: way.ahead,
        unit: 's',
        stride: 0.1,
        set: v => change({ way: { ...way, ahead: v } }),
      },
      text('ahead'),
    )
  } else if (way.type === 'toAndFro') {
    words.push(
      number('Each way', way.length, 's', 0.1, length => ({ type: 'toAndFro', length })),
      text('each way'),
    )
  } else if (way.type === 'restart') {
    words.push(
      text('every'),
      number('Every', way.every, 's', 0.1, every => ({ type: 'restart', every })),
    )
  } else if (way.type === 'cue') {
    words.push(text('of'), {
      is: 'choice',
      label: 'Cue',
      value: way.cue,
      of: named(piece.cues),
      set: v => change({ way: { type: 'cue', cue: v } }),
    })
  } else {
    const of = Object.entries(piece.curves).flatMap(([c, { name, channels }]) =>
      Object.keys(channels).map(channel => ({ value: `${c} ${channel}`, says: `${name}, ${channel}` })),
    )
    words.push({
      is: 'choice',
      label: 'Curve and channel',
      value: `${way.curve} ${way.channel}`,
      of,
      set: v => {
        const [c, ...channel] = v.split(' ')
        return change({ way: { type: 'curve', curve: c!, channel: channel.join(' ') } })
      },
    })
  }
  const others = named(piece.clocks).filter(o => o.value !== id && !runsOn(piece, o.value, id))
  words.push(
    text('on'),
    {
      is: 'choice',
      label: 'Time source',
      value: on ?? '',
      of: [{ value: '', says: "the piece's time" }, ...others],
      set: v => change({ on: v === '' ? null : v }),
    },
    {
      is: 'choice',
      label: 'Smooth or stepped',
      value: hold === null ? '' : 'held',
      of: [
        { value: '', says: 'smoothly' },
        { value: 'held', says: 'held at' },
      ],
      set: v => change({ hold: v === '' ? null : 12 }),
    },
  )
  if (hold !== null)
    words.push(
      {
        is: 'number',
        label: 'Held at',
        value: hold,
        unit: 'Hz',
        stride: 1,
        low: SHORTEST,
        set: v => change({ hold: v }),
      },
      text('steps'),
    )
  return words
}

function ofCue(piece: Piece, id: string, { marks, every }: Cue): SentencePart[] {
  const told = marks.slice(0, MOST_MARKS)
  const words: SentencePart[] = [text(marks.length === 0 ? 'no marks yet' : 'marks at')]
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
  if (marks.length > told.length) words.push(text(`and ${marks.length - told.length} more`))
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
    text(`${points} points${count > 1 ? ` in ${count} channels` : ''}, in`),
    {
      is: 'choice',
      label: 'Unit of the values',
      value: unit,
      of: UNITS.map(([value, says]) => ({ value, says })),
      set: v => changeNamed(piece, 'curves', id, { unit: v as Curve['unit'] }),
    },
    text('lasts'),
    {
      is: 'number',
      label: 'Lasts',
      value: longest,
      unit: 's',
      stride: 0.1,
      low: SHORTEST,
      set: v => lastingUntil(piece, id, v),
    },
    text('hits at'),
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

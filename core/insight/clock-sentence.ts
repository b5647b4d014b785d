/** The sentence of a clock: how it runs, on what, and whether it is held. */
import { changeNamed } from '../acts/named-things.ts'
import { runsOn } from '../acts/time-edits.ts'
import { setClockRate } from '../engine/retime.ts'
import { channelsOf } from '../piece/channels.ts'
import type { Operation } from '../piece/operation.ts'
import type { Clock, Piece } from '../piece/schema.ts'
import type { Moment } from '../time/moment.ts'
import { SHORTEST, named, plainText, type SentencePart } from './sentence-part.ts'

/** When a change is made, and whether what runs stays where it is. */
export interface Changing {
  readonly at: Moment
  readonly keep: boolean
}

type Way = Clock['way']
type WayOf<T extends Way['type']> = Extract<Way, { readonly type: T }>

/** The clock of the sentence, and how to change it. */
interface Written {
  readonly piece: Piece
  readonly id: string
  readonly change: (c: Partial<Clock>) => Operation
  readonly changing: () => Changing
}

/** A way to run: its label, its first settings (null where the piece lacks what it needs), and its part of the sentence. */
interface Running<T extends Way['type']> {
  readonly label: string
  readonly begin: (piece: Piece) => WayOf<T> | null
  readonly words: (way: WayOf<T>, clock: Written) => readonly SentencePart[]
}

/** A length of time in the way a clock runs. */
const length = (label: string, value: number, { change }: Written, way: (seconds: number) => Way): SentencePart => ({
  is: 'number',
  label,
  value,
  unit: 's',
  stride: 0.1,
  low: SHORTEST,
  set: v => change({ way: way(v) }),
})

const WAYS: { readonly [T in Way['type']]: Running<T> } = {
  steady: {
    label: 'runs steadily',
    begin: () => ({ type: 'steady', rate: 1, ahead: 0 }),
    words: steadyWords,
  },
  toAndFro: {
    label: 'runs back and forth',
    begin: () => ({ type: 'toAndFro', length: 4 }),
    words: (way, clock) => [
      length('Each way', way.length, clock, seconds => ({ type: 'toAndFro', length: seconds })),
      plainText('each way'),
    ],
  },
  restart: {
    label: 'restarts',
    begin: () => ({ type: 'restart', every: 4 }),
    words: (way, clock) => [
      plainText('every'),
      length('Every', way.every, clock, every => ({ type: 'restart', every })),
    ],
  },
  cue: {
    label: 'starts at each mark',
    begin: ({ cues }) => {
      const cue = Object.keys(cues)[0]
      return cue === undefined ? null : { type: 'cue', cue }
    },
    words: (way, { piece, change }) => [
      plainText('of'),
      {
        is: 'choice',
        label: 'Cue',
        value: way.cue,
        of: named(piece.cues),
        set: v => change({ way: { type: 'cue', cue: v } }),
      },
    ],
  },
  curve: {
    label: 'follows a curve',
    begin: ({ curves }) => {
      const [first] = Object.entries(curves)
      return first ? { type: 'curve', curve: first[0], channel: channelsOf(first[1])[0] } : null
    },
    words: curveWords,
  },
}

function steadyWords(way: WayOf<'steady'>, { piece, id, change, changing }: Written): SentencePart[] {
  return [
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
    plainText('times as fast'),
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
    plainText('ahead'),
  ]
}

function curveWords(way: WayOf<'curve'>, { piece, change }: Written): SentencePart[] {
  const of = Object.entries(piece.curves).flatMap(([curve, { name, channels }]) =>
    Object.keys(channels).map(channel => ({ value: `${curve} ${channel}`, says: `${name}, ${channel}` })),
  )
  return [
    {
      is: 'choice',
      label: 'Curve and channel',
      value: `${way.curve} ${way.channel}`,
      of,
      set: v => {
        const space = v.indexOf(' ')
        return change({ way: { type: 'curve', curve: v.slice(0, space), channel: v.slice(space + 1) } })
      },
    },
  ]
}

/** What it runs on, and whether it is held. */
function sourceWords({ on, hold }: Clock, { piece, id, change }: Written): SentencePart[] {
  const others = named(piece.clocks).filter(o => o.value !== id && !runsOn(piece, o.value, id))
  return [
    plainText('on'),
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
    ...(hold === null ? [] : heldWords(hold, change)),
  ]
}

const heldWords = (hold: number, change: Written['change']): SentencePart[] => [
  {
    is: 'number',
    label: 'Held at',
    value: hold,
    unit: 'Hz',
    stride: 1,
    low: SHORTEST,
    set: v => change({ hold: v }),
  },
  plainText('steps'),
]

export function clockSentence(piece: Piece, id: string, clock: Clock, changing: () => Changing): SentencePart[] {
  const written: Written = { piece, id, change: c => changeNamed(piece, 'clocks', id, c), changing }
  const ways = Object.entries(WAYS).flatMap(([value, { label, begin }]) => {
    const way = begin(piece)
    return way ? [{ value, says: label, way }] : []
  })
  const wordsOf = <T extends Way['type']>(way: WayOf<T>) => (WAYS[way.type as T] as Running<T>).words(way, written)
  return [
    {
      is: 'choice',
      label: 'How it runs',
      value: clock.way.type,
      of: ways.map(({ value, says }) => ({ value, says })),
      set: v => written.change({ way: ways.find(w => w.value === v)?.way ?? clock.way }),
    },
    ...wordsOf(clock.way),
    ...sourceWords(clock, written),
  ]
}

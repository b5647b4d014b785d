/** What will come out of a piece when it is exported as pictures or film: which frames, how large, how long. */
import type { DialLoan } from '../../piece/lent.ts'
import type { Piece } from '../../piece/schema.ts'
import { momentOfSeconds, type Moment } from '../../time/moment.ts'
import { fromNumber, minus, over, plus, rational, times, toNumber, type Rational } from '../../time/rational.ts'
import type { Controls } from '../running/running.ts'
import { MOST_SAMPLES, samplesOf } from '../sound/wav.ts'
import { formatOf, type ExportFormat } from './formats.ts'

export interface ExportSettings {
  readonly as: ExportFormat
  /** Whole laps; null for the marked stretch, or from one moment to another. */
  readonly laps: number | null
  /** The lap with which they begin, counted from 0. */
  readonly firstLap: number
  /** Seconds from and to, instead of laps; null for the stretch. */
  readonly between: readonly [number, number] | null
  /** Px across; as high as the stage asks. */
  readonly width: number
  /** Without the ground, where the format can. */
  readonly seeThrough: boolean
  /** Moments of which each frame is the average, over half a frame. */
  readonly blur: number
  /** Of a still: seconds. */
  readonly at: number
  /** Of sound: the key of the drive or signal, its copy, samples a second. */
  readonly drive: string
  readonly copy: number
  readonly sampleRate: number
  /** Of the page that runs: the dials to show. */
  readonly lent: readonly DialLoan[]
  readonly controls: Controls
}

/** What is wanted where nothing is said. */
export const exportSettings = (piece: Piece, as: ExportFormat): ExportSettings => ({
  as,
  laps: 1,
  firstLap: 0,
  between: null,
  width: piece.stage.width,
  seeThrough: false,
  blur: 1,
  at: 0,
  drive: Object.keys(piece.drives)[0] ?? Object.keys(piece.signals)[0] ?? '',
  copy: 0,
  sampleRate: 48_000,
  lent: [],
  controls: 'dials',
})

export interface ExportPlan {
  readonly frames: number
  readonly from: Rational
  /** Seconds from the first moment to the one that is not exported any more. */
  readonly span: Rational
  readonly rate: Rational
  readonly width: number
  readonly height: number
  /** Why it cannot be, in a sentence with a way out. */
  readonly problem: string | null
}

/** Frames of one file that is held in memory, and of films, which are written as they are made: an hour at 60 a second. */
const MOST_FRAMES = 36_000
const LONGEST_FILM = 216_000
/** Pixels to a side. */
const WIDEST = 8192
/** Pixels of all pictures that fit into a packed file. */
const MOST_PIXELS = 2_500_000_000

/** Frames 0 … N − 1 of whole laps or of the stretch; never the one that would repeat the first. */
export function exportPlan(piece: Piece, wanted: ExportSettings): ExportPlan {
  const rate = rational(BigInt(piece.frameRate.n), BigInt(piece.frameRate.d))
  const lap = rational(BigInt(piece.lap.length.n), BigInt(piece.lap.length.d))
  const { stretch, stage } = piece
  const format = formatOf(wanted.as)
  const still = format.timeless === true
  const [begin, end] = wanted.between ?? [stretch?.from ?? 0, stretch?.to ?? 0]
  const part = wanted.laps === null && end > begin
  const start = plus(fromNumber(piece.lap.start), times(lap, rational(BigInt(wanted.firstLap))))
  const from = still ? fromNumber(wanted.at) : part ? fromNumber(begin) : start
  const span = part
    ? minus(fromNumber(end), fromNumber(begin))
    : times(lap, rational(BigInt(Math.max(1, wanted.laps ?? 1))))
  const frames = still ? 1 : Math.max(1, Math.ceil(toNumber(times(span, rate)) - 1e-9))
  const even = format.even ? 2 : 1
  const side = (v: number) => Math.max(16, Math.round(v / even) * even)
  const width = side(wanted.width)
  const height = side((wanted.width * stage.height) / stage.width)
  const plan = { frames, from, span, rate, width, height }
  const says = (problem: string | null): ExportPlan => ({ ...plan, problem })
  if (wanted.laps === null && !part && !still)
    return says(
      wanted.between
        ? 'The last moment must be after the first.'
        : 'No stretch is marked: mark one with [ and ], or export laps.',
    )
  if (format.kind === 'Moving SVG or CSS' && piece.camera)
    return says('A drawing can’t hold a piece in depth. Export a film, a 3D scene or a live page instead.')
  if (wanted.as === 'wav') {
    if (wanted.drive === '') return says('Nothing is driven here, so there’s nothing to hear.')
    const samples = samplesOf({ span, rate: wanted.sampleRate })
    return says(samples > MOST_SAMPLES ? `That is ${samples} samples; ${MOST_SAMPLES} fit in one file.` : null)
  }
  const most = format.drawn && wanted.as !== 'zip' ? LONGEST_FILM : MOST_FRAMES
  if (frames > most) return says(`That is ${frames} frames; ${most} fit in one file. Choose fewer laps.`)
  if (!format.drawn) return says(null)
  if (Math.max(width, height) > WIDEST)
    return says(`That is ${width} × ${height}; ${WIDEST} pixels per side is the limit.`)
  if (wanted.as === 'zip' && width * height * frames > MOST_PIXELS)
    return says('That’s too much for one file of pictures. Make them smaller, or export fewer laps.')
  return says(null)
}

/** The moment of a frame; of a blurred one the n-th of so many within the first half of its time. */
export function exportedMoment(piece: Piece, { from, rate }: ExportPlan, frame: number, nth = 0, of = 1): Moment {
  const fps = rational(BigInt(piece.frameRate.n), BigInt(piece.frameRate.d))
  const at = plus(rational(BigInt(frame)), rational(BigInt(nth), BigInt(2 * of)))
  return momentOfSeconds(plus(from, over(at, rate)), fps)
}

/** When each frame of a GIF ends, in its hundredths of a second: rounded from the beginning, so that it keeps its pace. */
export const frameDelay = ({ rate }: ExportPlan, frame: number): number => {
  const end = (k: number) => Math.round((100 * k) / toNumber(rate))
  return Math.max(1, end(frame + 1) - end(frame))
}

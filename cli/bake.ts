/** `bake`: the values of a piece, frame by frame, as CSV (RFC 4180) or JSON. */
import { writeFileSync } from 'node:fs'
import { Program } from '../core/engine/program.ts'
import { driveLabel } from '../core/formula/labels.ts'
import { columnsOf, numbersText } from '../core/formats/export/numbers-text.ts'
import { floor, minus, times } from '../core/time/rational.ts'
import { WrongCall, optionsOf, pieceIn, positiveOf, progress, timeOf } from './call.ts'

const HELP = `open-tide bake FILE --from TIME --to TIME --out FILE.csv|FILE.json [--fps N]

Writes every driven value at each frame from the first up to, but not with, the last moment.
Columns: time (seconds), frame, then part.property, of copies part[0].property and so on; in degrees, px, or plain
numbers (shares: 1 is 100 %).

  ./open-tide bake demo/lantern-pier.json --from 0s --to 8s --out lap.csv`

/** Frames that fit in one file. */
const MOST_FRAMES = 1_000_000

export async function bake(args: string[]): Promise<number> {
  const { values: o, positionals } = optionsOf(args, {
    from: { type: 'string', default: '0s' },
    to: { type: 'string' },
    fps: { type: 'string' },
    out: { type: 'string' },
  })
  if (o.help) {
    console.log(HELP)
    return 0
  }
  const program = new Program(pieceIn(positionals[0]))
  const broken = [...program.slots.values()].find(s => s.problems.some(p => p.level === 'error'))
  if (broken) {
    console.error(
      `${driveLabel(program.piece, broken.key)}: ${broken.problems[0]!.message} Fix it first; open-tide check lists every error.`,
    )
    return 1
  }
  if (o.out === undefined || !/\.(csv|json)$/i.test(o.out))
    throw new WrongCall('--out needs a file name that ends in .csv or .json.')
  if (o.to === undefined) throw new WrongCall('--to is missing. Give an end, such as 8s or 1lap.')
  const rate = o.fps === undefined ? program.measures.frameRate : positiveOf(o.fps, '--fps')
  const [from, to] = [timeOf(String(o.from), program.measures, '--from'), timeOf(o.to, program.measures, '--to')]
  const frames = Number(floor(times(minus(to, from), rate)))
  if (frames < 1) throw new WrongCall(`From ${o.from} to ${o.to} there’s no frame. --to must be after --from.`)
  if (frames > MOST_FRAMES)
    throw new WrongCall(`That is ${frames} frames; at most ${MOST_FRAMES} fit in a file. Choose a shorter stretch.`)

  const as = /\.json$/i.test(o.out) ? 'json' : 'csv'
  const text = numbersText(program, as, from, rate, frames, done => progress(done, frames))
  try {
    writeFileSync(o.out, text)
  } catch (e) {
    throw new WrongCall(`${o.out} can’t be written: ${(e as Error).message}.`)
  }
  console.error(`${frames} frames of ${columnsOf(program).length} values are in ${o.out}.`)
  return 0
}

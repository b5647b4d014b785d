/** `give`: a piece exported as a file, with the same options and the same result as in the window. */
import { createHash } from 'node:crypto'
import { closeSync, openSync, renameSync, rmSync, writeSync } from 'node:fs'
import { Program } from '../core/engine/program.ts'
import { FORMATS, formatOf, type ExportFormat } from '../core/formats/export/formats.ts'
import { lossesOf } from '../core/formats/export/losses.ts'
import type { Controls } from '../core/formats/running/running.ts'
import { exportPlan, exportSettings, type ExportSettings } from '../core/formats/export/export-plan.ts'
import { exportWithoutDrawing } from '../core/formats/export/text-exports.ts'
import { headOf } from '../core/formats/pictures/head.ts'
import { lendable } from '../core/piece/lent.ts'
import { toNumber } from '../core/time/rational.ts'
import { runnerText } from './app-bundle.ts'
import { drawnInBrowser, type Write } from './browser.ts'
import { WrongCall, optionsOf, packedIn, progress, timeOf } from './call.ts'
import { driveLabel } from '../core/formula/labels.ts'

const NAMES = Object.keys(FORMATS) as ExportFormat[]

const HELP = `open-tide give FILE --as FORMAT --out FILE [options]

FORMAT is one of:
${NAMES.map(n => `  ${n.padEnd(8)} ${FORMATS[n].kind}: ${FORMATS[n].name}`).join('\n')}

  --laps N            number of whole laps, 1 by default
  --first-lap N       the first lap, counted from 0
  --from T --to T     from one moment to another instead, such as 0s and 2.5s
  --stretch           the marked stretch instead
  --at T              of a still: the moment
  --width PX          px across; the size of the stage by default
  --clear             without the background, where the format allows it
  --blur N            each frame averages N moments of its first half
  --drive NAME        of wav: the drive or signal, such as carousel.rotation, with --copy N and --rate 44100|48000|96000
  --dials A,B         of page and module: the dials to show
  --controls WHAT     of page and module, under the stage: none, play or dials (play and the dials); dials by default

FILE is a piece file (.tide) or a piece as JSON. Films and pictures are drawn in Chromium; the other formats don’t need it.

  ./open-tide give demo/lantern-pier.json --as webm --laps 1 --out pier.webm`

export async function exportCommand(args: string[]): Promise<number> {
  const { values: o, positionals } = optionsOf(args, {
    as: { type: 'string' },
    out: { type: 'string' },
    laps: { type: 'string' },
    'first-lap': { type: 'string' },
    from: { type: 'string' },
    to: { type: 'string' },
    stretch: { type: 'boolean' },
    at: { type: 'string' },
    width: { type: 'string' },
    clear: { type: 'boolean' },
    blur: { type: 'string' },
    drive: { type: 'string' },
    copy: { type: 'string' },
    rate: { type: 'string' },
    dials: { type: 'string' },
    controls: { type: 'string' },
  })
  if (o.help) {
    console.log(HELP)
    return 0
  }
  const { piece, pictures } = packedIn(positionals[0])
  const as = o.as as ExportFormat | undefined
  if (!as || !NAMES.includes(as)) throw new WrongCall(`--as needs one of ${NAMES.join(', ')}.`)
  const controls = (o.controls ?? 'dials') as Controls
  if (!['none', 'play', 'dials'].includes(controls)) throw new WrongCall('--controls needs none, play or dials.')
  if (!o.out) throw new WrongCall('--out needs the name of the new file.')
  const program = new Program(piece)
  const whole = (text: string | undefined, option: string, least: number, most: number, initial: number): number => {
    if (text === undefined) return initial
    const n = Number(text)
    if (!Number.isInteger(n) || n < least || n > most)
      throw new WrongCall(`${option} ${text}: it must be a whole number from ${least} to ${most}.`)
    return n
  }
  const time = (text: string, option: string) => toNumber(timeOf(text, program.measures, option))
  const between = o.from !== undefined || o.to !== undefined
  if (between && (o.from === undefined || o.to === undefined)) throw new WrongCall('--from and --to go together.')
  const initial = exportSettings(piece, as)
  const wanted: ExportSettings = {
    ...initial,
    laps: between || o.stretch ? null : whole(o.laps, '--laps', 1, 1000, 1),
    firstLap: whole(o['first-lap'], '--first-lap', 0, 100_000, 0),
    between: between ? [time(o.from!, '--from'), time(o.to!, '--to')] : null,
    at: o.at === undefined ? 0 : time(o.at, '--at'),
    width: whole(o.width, '--width', 16, 8192, initial.width),
    seeThrough: o.clear === true,
    blur: whole(o.blur, '--blur', 1, 64, 1),
    drive: o.drive === undefined ? initial.drive : driveNamed(program, o.drive),
    copy: whole(o.copy, '--copy', 0, 100_000, 0),
    sampleRate: whole(o.rate, '--rate', 8000, 96_000, initial.sampleRate),
    lent: (o.dials ?? '')
      .split(',')
      .filter(n => n !== '')
      .map(n => lentNamed(piece, n)),
    controls,
  }
  const plan = exportPlan(piece, wanted)
  if (plan.problem !== null) throw new WrongCall(plan.problem)
  for (const says of lossesOf(piece, as)) console.error(says)
  const tell = (n: number) => progress(n, plan.frames)
  const typed = (bytes: Uint8Array) => {
    const head = headOf(bytes)
    return 'says' in head ? '' : head.type
  }
  const size = await kept(o.out, async write => {
    const file = await exportWithoutDrawing({ piece, wanted }, plan, {
      picture: async hash => {
        const bytes = pictures.get(hash)
        return bytes ? { type: typed(bytes), bytes } : null
      },
      runner: runnerText,
      hash: async text => createHash('sha256').update(text).digest('base64'),
      tell,
    })
    if (file) return write(Buffer.from(file), 0)
    const addresses = [...pictures].map(([h, b]) => [h, `data:${typed(b)};base64,${Buffer.from(b).toString('base64')}`])
    await drawnInBrowser({ piece, wanted }, Object.fromEntries(addresses), tell, write)
  })
  console.error(
    `${o.out} was written, ${size} bytes, ${formatOf(as).name}${formatOf(as).timeless ? '' : `, ${plan.frames} frames`}.`,
  )
  return 0
}

/** The whole file or nothing: it is written as it is made, and gets its name when it is whole. @returns its size in bytes */
async function kept(out: string, make: (write: Write) => Promise<void> | void): Promise<number> {
  const part = `${out}.part`
  const cannot = (e: unknown) => new WrongCall(`${out} can’t be written: ${(e as Error).message}.`)
  let file: number | null = null
  let size = 0
  try {
    try {
      file = openSync(part, 'w')
    } catch (e) {
      throw cannot(e)
    }
    const to = file
    await make((bytes, at) => {
      try {
        for (let done = 0; done < bytes.length;) done += writeSync(to, bytes, done, bytes.length - done, at + done)
      } catch (e) {
        throw cannot(e)
      }
      size = Math.max(size, at + bytes.length)
    })
    closeSync(file)
    file = null
    try {
      renameSync(part, out)
    } catch (e) {
      throw cannot(e)
    }
    return size
  } catch (e) {
    if (file !== null) closeSync(file)
    rmSync(part, { force: true })
    throw e
  }
}

function driveNamed(program: Program, name: string): string {
  const key = [...program.slots.keys()].find(k => k === name || driveLabel(program.piece, k) === name)
  if (key === undefined)
    throw new WrongCall(`--drive ${name}: nothing with that name is driven. open-tide check lists what is.`)
  return key
}

function lentNamed(piece: Parameters<typeof lendable>[0], name: string) {
  const found = lendable(piece).find(l => l.says === name.trim())
  if (!found) throw new WrongCall(`--dials ${name}: there’s no such dial, or it’s locked.`)
  return found
}

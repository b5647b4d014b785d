/** Reading a call: its options, the times and pieces it names. What is wrong says what, where and what to do. */
import { createHash } from 'node:crypto'
import { readFileSync } from 'node:fs'
import { parseArgs, type ParseArgsConfig } from 'node:util'
import { unpackPiece, type Packed } from '../core/formats/piece-file/piece-file.ts'
import { readPiece } from '../core/piece/migrate.ts'
import type { Fraction, Piece } from '../core/piece/schema.ts'
import { readTime, type Scale } from '../core/time/reading.ts'
import { fromDecimal, type Rational } from '../core/time/rational.ts'

/** The call itself is wrong. */
export class WrongCall extends Error {}

export function optionsOf<T extends NonNullable<ParseArgsConfig['options']>>(args: string[], options: T) {
  try {
    return parseArgs({
      args,
      options: { ...options, help: { type: 'boolean' } },
      allowPositionals: true,
      allowNegative: false,
    })
  } catch (e) {
    throw new WrongCall((e as Error).message.split('. ')[0]! + '.')
  }
}

export function timeOf(text: string, scale: Scale, option: string): Rational {
  const read = readTime(text, scale)
  if (!read.seconds) throw new WrongCall(`${option} ${text}: ${read.says}`)
  return read.seconds
}

/** A number above 0, as a fraction. */
export function positiveOf(text: string, option: string): Rational {
  let value: Rational | null = null
  try {
    value = fromDecimal(text)
  } catch {
    // told below
  }
  if (!value || value.n <= 0n) throw new WrongCall(`${option} ${text}: it must be a number above 0.`)
  return value
}

export const numbersOfFraction = (r: Rational): Fraction => ({ n: Number(r.n), d: Number(r.d) })

/** The piece in a file, which may hold it alone, as the server gives it, or with its pictures. */
export const pieceIn = (path: string | undefined): Piece => packedIn(path).piece

/** The same with the pictures that the file holds. */
export function packedIn(path: string | undefined): Packed {
  if (path === undefined) throw new WrongCall('Name the file of a piece, such as demo/lantern-pier.json.')
  let bytes: Buffer
  try {
    bytes = readFileSync(path === '-' ? 0 : path)
  } catch {
    throw new WrongCall(`${path} couldn’t be read. Is the name right?`)
  }
  if (bytes.subarray(0, 2).toString('latin1') === 'PK') {
    const read = unpackPiece(bytes, b => createHash('sha256').update(b).digest('hex').slice(0, 32))
    if ('says' in read) throw new WrongCall(`${path}: ${read.says}`)
    return read
  }
  const text = bytes.toString('utf8')
  let value: unknown
  try {
    value = JSON.parse(text)
  } catch (e) {
    throw new WrongCall(`${path} isn’t valid JSON: ${(e as Error).message}.`)
  }
  const inner = typeof value === 'object' && value !== null && 'document' in value ? value.document : value
  const { piece, problem } = readPiece(inner)
  if (!piece) throw new WrongCall(`${path}: ${problem}`)
  return { piece, pictures: new Map() }
}

/** A bar on a terminal; nothing where the output is kept. */
export function progress(done: number, all: number): void {
  if (!process.stderr.isTTY || (done % Math.ceil(all / 100) !== 0 && done !== all)) return
  const share = Math.floor((done / all) * 30)
  process.stderr.write(
    `\r[${'#'.repeat(share)}${'.'.repeat(30 - share)}] ${done} of ${all} frames${done === all ? '\n' : ''}`,
  )
}

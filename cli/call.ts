/** Reading a call: its options, the times and pieces it names. What is wrong says what, where and what to do. */
import { readFileSync } from 'node:fs'
import { parseArgs, type ParseArgsConfig } from 'node:util'
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
  if (!value || value.n <= 0n) throw new WrongCall(`${option} ${text}: a number above 0 is wanted.`)
  return value
}

export const fractionOf = (r: Rational): Fraction => ({ n: Number(r.n), d: Number(r.d) })

/** The piece in a file, which may hold it alone or as the server gives it. */
export function pieceIn(path: string | undefined): Piece {
  if (path === undefined) throw new WrongCall('Name the file of a piece, such as demo/lantern-pier.json.')
  let text: string
  try {
    text = readFileSync(path === '-' ? 0 : path, 'utf8')
  } catch {
    throw new WrongCall(`${path} cannot be read. Is the name right?`)
  }
  let value: unknown
  try {
    value = JSON.parse(text)
  } catch (e) {
    throw new WrongCall(`${path} is no JSON: ${(e as Error).message}.`)
  }
  const inner = typeof value === 'object' && value !== null && 'document' in value ? value.document : value
  const { piece, problem } = readPiece(inner)
  if (!piece) throw new WrongCall(`${path}: ${problem}`)
  return piece
}

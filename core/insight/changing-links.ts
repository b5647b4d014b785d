/** Changing links: made, in another ratio, later, turned round, both ways, cut, and chains of them in one step. */
import { drivenPart, isSignal, splitDriveKey } from '../piece/drive-key.ts'
import { addDial, addDrive, removeDrive } from '../acts/drives.ts'
import { freeName } from '../acts/parts.ts'
import { setText, sourceName, sourceOf } from '../acts/sources.ts'
import { addTie, tieProblem } from '../acts/ties.ts'
import type { Program } from '../engine/program.ts'
import { labelFor } from '../formula/labels.ts'
import { parse } from '../formula/parse.ts'
import { quotedName as spelled } from '../formula/words.ts'
import { apply, compose, operation, type Operation } from '../piece/operation.ts'
import type { Piece } from '../piece/schema.ts'
import { kindOfUnit } from '../formula/scope.ts'
import { isPlain, sameKind, type Kind } from '../units/kinds.ts'
import { printNumber, unitOfKind } from '../units/units.ts'
import { linksOf } from './links.ts'
import { pinPlace, textWithoutPin, type Pin } from './pins.ts'
import { propertyOf } from './report.ts'

/** Another text for a formula, kept good when it runs. */
function texted(program: Program, key: string, text: string): Operation {
  const good = !program.meanings.look(text, key).problems.some(p => p.level === 'error')
  return setText(program.piece, key, text, good)
}

/** What was done, or why it cannot be, in one sentence. */
export type Linked = { readonly op: Operation } | { readonly says: string }

/** What drives, as people call it, and as it is written in a formula. */
export const driverName = (piece: Piece, key: string): string =>
  key.startsWith('dials/') ? (piece.dials[key.slice(6)]?.name ?? key) : sourceName(piece, key)
const driverLabel = (piece: Piece, key: string, driven: string): string =>
  key.startsWith('dials/')
    ? spelled(piece.dials[key.slice(6)]!.name)
    : labelFor(piece, key, isSignal(driven) ? null : drivenPart(driven))

function kindOf(program: Program, key: string): Kind {
  if (!key.startsWith('dials/')) return propertyOf(program, key).kind
  return kindOfUnit(program.piece.dials[key.slice(6)]!.unit)
}

const decimal = (x: number): string => String(Number(x.toFixed(9)))

/** `delay(carousel.rotation, 0.2s) * -0.3`, without what is added. */
function termText(
  piece: Piece,
  { driver, driven, written, ratio, lag }: Pick<Pin, 'driver' | 'driven' | 'written' | 'lag'> & { ratio: number },
): string {
  const label = written ?? driverLabel(piece, driver, driven)
  return `${lag === 0 ? label : `delay(${label}, ${decimal(lag)}s)`}${ratio === 1 ? '' : ` * ${decimal(ratio)}`}`
}

/** The text of a driven formula with other numbers for a pin; null where it has none. */
export function pinText(
  program: Program,
  pin: Pin,
  change: Partial<Pick<Pin, 'lag'>> & { ratio?: number; offset?: number },
): string | null {
  const { piece } = program
  const next = { ...pin, ratio: change.ratio ?? pin.ratio, lag: change.lag ?? pin.lag }
  if (next.ratio === null) return null
  const term = { ...next, ratio: next.ratio }
  if (pin.offset !== null) {
    const offset = change.offset ?? pin.offset
    const { unit } = propertyOf(program, pin.driven)
    const added = offset === 0 ? '' : ` ${offset < 0 ? '-' : '+'} ${decimal(Math.abs(offset))}${unit}`
    return termText(piece, term) + added
  }
  const place = pinPlace(program, pin)
  const text = sourceOf(piece, pin.driven)?.text
  if (!place || text === undefined) return null
  return text.slice(0, place.from) + termText(piece, { ...term, ratio: term.ratio * place.sign }) + text.slice(place.to)
}

/** The way from one formula to another along what they read; null when there is none. */
function wayTo(program: Program, from: string, to: string): string[] | null {
  const links = linksOf(program)
  const before = new Map<string, string | null>([[from, null]])
  const open = [from]
  for (let at = open.shift(); at !== undefined; at = open.shift()) {
    if (at === to) {
      const way: string[] = []
      for (let k: string | null = at; k !== null; k = before.get(k) ?? null) way.unshift(k)
      return way
    }
    for (const next of links.get(at)?.reads ?? [])
      if (!before.has(next)) {
        before.set(next, at)
        open.push(next)
      }
  }
  return null
}

/** Links a property to what is to drive it: on top of its formula where it has one. */
export function link(program: Program, driver: string, driven: string): Linked {
  const { piece } = program
  if (driver === driven) return { says: 'A property can’t drive itself.' }
  const way = wayTo(program, driver, driven)
  if (way) {
    const path = way.map(k => driverName(piece, k)).join(' follows ')
    return { says: `That would make a circle: ${path}. Remove one of these links first.` }
  }
  const [from, to] = [kindOf(program, driver), kindOf(program, driven)]
  const label = driverLabel(piece, driver, driven)
  const unit = propertyOf(program, driven).unit
  const one = isPlain(from) ? label : `${label} / 1${unitOfKind(from) ?? ''}`
  const text = sameKind(from, to) ? label : `${one}${isPlain(to) ? '' : ` * 1${unit}`}`
  const source = sourceOf(piece, driven)
  if (!source) {
    const [part, property] = splitDriveKey(driven)
    return { op: addDrive(piece, part, property, text) }
  }
  const body = parse(source.text).formula?.body
  const loose = body !== undefined && ['on', 'if'].includes(body.type)
  const before = loose ? `(${source.text})` : source.text
  return { op: texted(program, driven, `${before} + ${text}`) }
}

/** Takes a link away: of a formula that is nothing else, the formula. */
export function cutLink(program: Program, pin: Pin): Operation {
  const { piece } = program
  const says = `unlink ${driverName(piece, pin.driver)} from ${sourceName(piece, pin.driven)}`
  if (pin.tie !== null) return operation(says, { in: 'ties', id: pin.tie, value: null })
  // A formula that is nothing else goes, with what was added.
  const rest = pin.offset === null ? textWithoutPin(program, pin) : null
  if (rest !== null) return { ...texted(program, pin.driven, rest), undoLabel: says }
  return isSignal(pin.driven)
    ? texted(program, pin.driven, '0')
    : { ...removeDrive(piece, pin.driven), undoLabel: says }
}

/** The driven one drives from now on, in the inverse ratio. */
export function reverseLink(program: Program, pin: Pin): Linked {
  const { piece } = program
  const { driver, driven, ratio, offset, lag } = pin
  if (pin.tie !== null) return { says: 'This link is already two-way.' }
  if (!ratio || offset === null || lag !== 0 || !/^[^~/]+\.[^/]+$/.test(driver) || isSignal(driven))
    return { says: 'Only a link that is the whole formula, without a delay, can be reversed.' }
  if (sourceOf(piece, driver)) return { says: `${sourceName(piece, driver)} has its own formula. Remove it first.` }
  const gone = removeDrive(piece, driven)
  const bare = apply(piece, gone)
  const back: Pin = { ...pin, driver: driven, driven: driver, written: null, ratio: 1 / ratio, offset: -offset / ratio }
  const text = pinText(program, back, {})!
  const [part, property] = splitDriveKey(driver)
  const says = `reverse ${sourceName(piece, driver)} and ${sourceName(piece, driven)}`
  return { op: { ...compose(gone, addDrive(bare, part, property, text)), undoLabel: says } }
}

/** Makes a link two-way, or one-way again. */
export function bothWays(program: Program, pin: Pin): Linked {
  const { piece } = program
  const { driver, driven, ratio, offset, lag, tie } = pin
  if (tie !== null) {
    const gone = operation('one-way link', { in: 'ties', id: tie, value: null })
    const [part, property] = splitDriveKey(driven)
    if (sourceOf(piece, driven)) return { op: gone }
    return {
      op: compose(gone, addDrive(apply(piece, gone), part, property, pinText(program, { ...pin, tie: null }, {})!)),
    }
  }
  if (!ratio || offset === null || lag !== 0 || !/^[^~/]+\.[^/]+$/.test(driver) || isSignal(driven))
    return { says: 'Only a link that is the whole formula, without a delay, can be two-way.' }
  const gone = removeDrive(piece, driven)
  const bare = apply(piece, gone)
  const problem = tieProblem(bare, driver, driven, ratio)
  if (problem) return { says: problem }
  return { op: compose(gone, addTie(bare, { a: driver, b: driven, ratio, offset })) }
}

/**
 * A chain over parts in order: each takes a share of the one before, some time later. Two dials tune all of it.
 * @param share as a fraction
 * @param lag seconds
 */
export function linkChain(
  program: Program,
  property: string,
  parts: readonly string[],
  share: number,
  lag: number,
): Operation {
  let piece = program.piece
  const ops: Operation[] = []
  const act = (op: Operation) => {
    ops.push(op)
    piece = apply(piece, op)
  }
  const dial = (name: string, given: Omit<Parameters<typeof addDial>[1], 'name'>): string => {
    const free = freeName(piece, name)
    act(addDial(piece, { ...given, name: free }).op)
    return spelled(free)
  }
  const shared = dial('share', {
    unit: '%',
    value: share * 100,
    initial: share * 100,
    low: 0,
    high: Math.max(200, share * 100),
  })
  const later = dial('lag', { unit: 's', value: lag, initial: lag, low: 0, high: Math.max(2, lag) })
  for (const [i, part] of parts.entries()) {
    if (i === 0) continue
    const before = labelFor(piece, `${parts[i - 1]!}.${property}`, part)
    act(addDrive(piece, part, property, `delay(${before}, ${later}) * ${shared}`))
  }
  return { ...ops.reduce(compose), undoLabel: `chain ${parts.length} parts by ${property}` }
}

/** What stands on a pin: `× −0.3`, with ⇄ where it works both ways. */
export function pinSays({ ratio, tie, lag }: Pin): string {
  const text = ratio === null ? 'reads' : `× ${printNumber(ratio, 4).replace('-', '−')}`
  return `${text}${lag > 0 ? ', later' : ''}${tie === null ? '' : ' ⇄'}`
}

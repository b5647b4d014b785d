/**
 * The formulas of a piece, whatever they are of: a driven property by its key `part.property`, a signal by `~id`. A
 * drive may keep other texts, its takes, of which one can be put in the place of the one that runs.
 */
import { drivenSignal, isSignal, splitDriveKey } from '../piece/drive-key.ts'
import { operation, type Operation, type Put } from '../piece/operation.ts'
import type { Drive, Piece, Promised, Signal } from '../piece/schema.ts'

/** Undefined where there is no formula of that key. */
export function sourceOf(piece: Piece, key: string): Drive | Signal | undefined {
  const [of, id] = isSignal(key) ? [piece.signals, drivenSignal(key)] : [piece.drives, key]
  return Object.hasOwn(of, id) ? of[id] : undefined
}

/** Its name as people read it: `Carousel rotation`, `load`. */
export function sourceName(piece: Piece, key: string): string {
  if (isSignal(key)) return piece.signals[drivenSignal(key)]?.name ?? key
  const [part, property] = splitDriveKey(key)
  return `${piece.parts[part]?.name ?? part} ${property}`
}

/** Whether a formula reads what is set by hand: else a set value under it changes nothing one can see. */
export const readsHand = (text: string): boolean => /\bbase\b/i.test(text)

/** A drive that hides what is set by hand. */
export const hidesHand = (drive: Drive | undefined): boolean =>
  drive !== undefined && !drive.off && !readsHand(drive.text)

/** The formula on top of what is set by hand. */
export const onTopOfHand = (text: string): string =>
  `base + ${/^\s*(if|let)\b|\bon\b/i.test(text) ? `(${text})` : text}`

const put = (key: string, value: Drive | Signal): Put =>
  isSignal(key)
    ? { in: 'signals', id: drivenSignal(key), value: value as Signal }
    : { in: 'drives', id: key, value: value as Drive }

/** Another text. `good` says whether it runs; if not, the last good text goes on. */
export function setText(piece: Piece, key: string, text: string, good: boolean): Operation {
  const source = sourceOf(piece, key)!
  return operation(`tune ${sourceName(piece, key)}`, put(key, { ...source, text, good: good ? text : source.good }))
}

/** What a drive promises; a signal promises nothing. */
export const promisesOf = (source: Drive | Signal | undefined): readonly Promised[] =>
  source && 'promises' in source ? source.promises : []

/** Takes of a drive, most. */
export const MOST_TAKES = 20

/** Keeps the text that runs as a take; the formula stays as it is, to be changed from there. */
export function keepTake(piece: Piece, key: string, name?: string): Operation {
  const drive = piece.drives[key]!
  const used = new Set(drive.takes.map(t => t.name))
  let n = drive.takes.length + 1
  while (used.has(`take ${n}`)) n++
  const takes = [...drive.takes, { name: name ?? `take ${n}`, text: drive.text }]
  return operation(`keep a take of ${sourceName(piece, key)}`, put(key, { ...drive, takes }))
}

/** A take under another name; one without a name is taken away. */
export function nameTake(piece: Piece, key: string, nth: number, name: string): Operation {
  const drive = piece.drives[key]!
  const takes = drive.takes.flatMap((t, i) =>
    i !== nth ? [t] : name.trim() === '' ? [] : [{ ...t, name: name.trim() }],
  )
  const says = takes.length < drive.takes.length ? 'delete' : 'name'
  return operation(`${says} a take of ${sourceName(piece, key)}`, put(key, { ...drive, takes }))
}

/** The take whose text the drive has now; −1 when it has none of them. */
export const takeInHand = ({ takes, text }: Drive): number => takes.findIndex(t => t.text === text)

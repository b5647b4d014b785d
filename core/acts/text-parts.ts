/** Text with a letter a copy, whose letters stand where the font sets them. */
import { propertyKey } from '../piece/drive-key.ts'
import { operation, type Operation } from '../piece/operation.ts'
import type { Copies, Piece, Shape } from '../piece/schema.ts'
import { setBase } from './parts.ts'
import { setValueOf } from './stage-edits.ts'

type Text = Extract<Shape, { type: 'text' }>

/** Where the letters of a text are set, in thousandths of its size. */
export type LetterPlaces = (words: string, align: Text['align'], lines: Text) => readonly { x: number; y: number }[]

const short = (x: number) => Number(x.toFixed(2)) || 0

/** The copies of a text whose letters stand as they are set; at least one, so that words may be taken away. */
export function placedLetters(shape: Text, size: number, spots: LetterPlaces): Copies {
  const points = spots(shape.words, shape.align, shape).map(p => ({ x: short(p.x), y: short(p.y) }))
  if (points.length === 0) points.push({ x: 0, y: 0 })
  return { layout: 'placed', count: points.length, points, size: Math.max(0.01, size) }
}

/**
 * A text changed: where each copy shows a letter there are as many copies as letters, and where they stand as they are
 * set they are set anew. What drives it stays.
 */
export function setWords(piece: Piece, id: string, change: Partial<Text>, spots: LetterPlaces): Operation {
  const part = piece.parts[id]!
  const shape = { ...(part.shape as Text), ...change }
  let { copies } = part
  // A letter a copy needs copies: they stand as the words are set until they are put elsewhere.
  if (change.shows === 'letters' && !copies) copies = placedLetters(shape, setValueOf(piece, id, 'size'), spots)
  if (shape.shows === 'letters' && copies) {
    if (copies.layout === 'placed') copies = placedLetters(shape, copies.size, spots)
    else copies = { ...copies, count: Math.max(1, [...shape.words].length) }
  } else if (copies?.layout === 'placed') copies = null
  return operation(`change ${part.name}`, { in: 'parts', id, value: { ...part, shape, copies } })
}

/** The size of letters by hand, and with it where they stand. */
export function setLetterSize(piece: Piece, id: string, size: number): Operation {
  const part = piece.parts[id]!
  const key = propertyKey(id, 'size')
  const puts: Operation['puts'] = [{ in: 'bases', id: key, value: { ...piece.bases[key], value: size } }]
  const { copies } = part
  if (copies?.layout !== 'placed' || !(size > 0)) return operation(`set ${part.name} size`, ...puts)
  const scaled = (copies.size * size) / (setValueOf(piece, id, 'size') || size)
  const value = { ...part, copies: { ...copies, size: Number(scaled.toFixed(4)) } }
  return operation(`set ${part.name} size`, ...puts, { in: 'parts', id, value })
}

/** A property set by hand, in its unit; what letters that are placed are sized to moves their places with it. */
export const setByHand = (piece: Piece, part: string, property: string, value: number): Operation =>
  property === 'size' && piece.parts[part]!.copies?.layout === 'placed'
    ? setLetterSize(piece, part, value)
    : setBase(piece, part, property, value)

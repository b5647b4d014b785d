/** What an instance is called: its letter where its copies are letters, else its copy's number, and its layer. */
import { lettersOf } from '../formula/scope.ts'
import type { Piece } from '../piece/schema.ts'
import { indicesOf, instancesOf } from './instances.ts'

/** `“N”, letter 3`, `copy 2`, `copy 2 of copy 5, layer 1`; counted from 1. `the part` where there is but one. */
export function copyName(piece: Piece, part: string, instance: number): string {
  const instances = instancesOf(piece, part)
  const indices = indicesOf(instances, instance)
  const copies: string[] = []
  let layer = ''
  instances.levels.forEach((level, k) => {
    const index = indices[k]!
    const letters = lettersOf(piece, level)
    if (level.copies.layout === 'layers') layer = `layer ${index + 1}`
    else if (letters !== null) copies.unshift(`“${[...letters][index] ?? ' '}”, letter ${index + 1}`)
    else copies.unshift(`copy ${index + 1}`)
  })
  return [copies.join(' of '), layer].filter(s => s !== '').join(', ') || 'the part'
}

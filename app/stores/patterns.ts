/** Patterns, those that ship and those that were saved: kept, put on parts, exported and imported. */
import { defineStore } from 'pinia'
import { patternOf, putOnAll, putPattern, rolesOf } from '~~/core/acts/patterns.ts'
import { SHIPPED, shipped } from '~~/core/acts/shipped.ts'
import * as v from 'valibot'
import { Pattern } from '~~/core/piece/api.ts'
import type { Piece } from '~~/core/piece/schema.ts'
import { useListing } from './listing.ts'
import { usePiece } from './piece.ts'
import { useOpenPiece } from './open-piece.ts'
import { get, patch, post, remove } from '../services/request.ts'

export const usePatterns = defineStore('patterns', () => {
  const own = shallowRef<Pattern[]>([])
  const wrong = ref('')
  const made = SHIPPED.map(name => ({ id: `shipped ${name}`, document: shipped(name) }))
  const all = computed<readonly Pattern[]>(() => [...own.value, ...made])
  const isShipped = ({ id }: Pattern) => id.startsWith('shipped ')

  async function load(): Promise<void> {
    const answer = await get('/api/patterns', v.array(Pattern))
    wrong.value = answer.ok ? '' : answer.says
    if (answer.ok) own.value = answer.value
  }

  /** @returns whether it was kept */
  async function keep(document: Piece): Promise<boolean> {
    const answer = await post('/api/patterns', { document })
    wrong.value = answer.ok ? '' : answer.says
    await load()
    return answer.ok
  }

  /** Saves what drives some parts of the open piece. */
  function save(ids: readonly string[], title: string): Promise<boolean> {
    return keep(patternOf(usePiece().piece!, ids, title))
  }

  async function rename({ id }: Pattern, title: string): Promise<void> {
    const answer = await patch(`/api/patterns/${id}`, { title })
    await load()
    if (!answer.ok) wrong.value = answer.says
  }

  async function drop({ id }: Pattern): Promise<void> {
    const answer = await remove(`/api/patterns/${id}`)
    await load()
    if (!answer.ok) wrong.value = answer.says
  }

  /** Puts a pattern on parts of the open piece. @param places a part for each role */
  function put(pattern: Piece, places: ReadonlyMap<string, string>): void {
    const store = useOpenPiece()
    store.act(putPattern(store.piece, pattern, places))
    said(pattern, [...places.values()])
  }

  /** A pattern of one role, on each of several. */
  function putOn(pattern: Piece, parts: readonly string[]): void {
    const store = useOpenPiece()
    store.act(putOnAll(store.piece, pattern, parts))
    said(pattern, parts)
  }

  function said(pattern: Piece, parts: readonly string[]): void {
    const store = useOpenPiece()
    const names = parts.map(id => store.piece.parts[id]?.name).filter(Boolean)
    const first = rolesOf(pattern)[0]
    if (first && parts[0]) useListing().reveal(`${parts[0]}.${first.driven[0]}`)
    store.sayWithUndo(`${pattern.title} is on ${names.length <= 3 ? names.join(', ') : `${names.length} parts`}.`)
  }

  return { own, all, wrong, isShipped, load, keep, save, rename, drop, put, putOn }
})

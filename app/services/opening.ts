/** Opens a piece with what this browser has of it: changes that never reached the server are not forgotten. */
import { nanoid } from 'nanoid'
import { Stored } from '~~/core/piece/api.ts'
import { alike } from '~~/core/piece/alike.ts'
import { settled } from './keeper.ts'
import { get, save } from './request.ts'
import { forgetUnsaved, unsavedOf, type Sent } from './unsaved.ts'

export type Opening =
  | {
      readonly ok: true
      readonly stored: Stored
      /** This browser's own newer state of it. */
      readonly mine: Stored['document'] | null
      /** What has to be said. */
      readonly says: string | null
    }
  | { readonly ok: false; readonly says: string }

const BACK = 'Unsaved changes were restored.'

export async function openPiece(id: string): Promise<Opening> {
  await settled(id)
  const own = await unsavedOf(id)
  const path = `/api/pieces/${id}`
  const send = ({ document, save: own }: Sent, revision: number) => save(path, { revision, document, save: own })
  const answer = await get(path, Stored)
  if (!answer.ok) {
    // Away or deleted: what stands here is shown, and the keeper says which.
    if (!own || (answer.status !== 0 && answer.status !== 404 && answer.status < 500))
      return { ok: false, says: answer.says }
    return { ok: true, stored: { id, revision: own.revision, document: own.document }, mine: own.document, says: null }
  }
  let stored = answer.value
  if (!own) return { ok: true, stored, mine: null, says: null }
  if (stored.revision === own.revision) return { ok: true, stored, mine: own.document, says: BACK }

  // Another state came meanwhile. Perhaps it is what was sent from here, and its answer was lost.
  const waiting: Sent = { document: own.document, save: nanoid(16) }
  let kept = own.sent === null ? null : await send(own.sent, own.revision)
  if (kept?.ok) {
    const { revision } = kept.value
    if (revision === stored.revision) {
      const newer = !alike(own.document, stored.document)
      if (!newer) await forgetUnsaved(id)
      return { ok: true, stored, mine: newer ? own.document : null, says: newer ? BACK : null }
    }
  }
  // Else it was changed elsewhere: the newest state of this browser is refused, and so kept among the versions.
  const known = own.sent !== null && kept?.ok === false && alike(own.sent.document, own.document)
  if (!known) kept = await send(waiting, own.revision)
  if (kept && !kept.ok && kept.status !== 409)
    return { ok: false, says: `Changes to this piece are kept in this browser and couldn’t be saved. ${kept.says}` }
  await forgetUnsaved(id)
  const again = await get(path, Stored)
  if (!again.ok) return { ok: false, says: again.says }
  stored = again.value
  const says = 'This piece was changed elsewhere. Your unsaved changes are in its version history.'
  return { ok: true, stored, mine: null, says }
}

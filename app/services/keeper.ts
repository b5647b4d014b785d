/**
 * Saves a piece as it changes: a little after the last change, one save at a time; answered means on disk. A save has
 * a name of its own and is sent again with it when its answer was lost, so that it is never done twice nor taken for
 * somebody else's. It goes on when its page is left.
 */
import { nanoid } from 'nanoid'
import { alike } from '~~/core/piece/alike.ts'
import { Stored } from '~~/core/piece/api.ts'
import type { Piece } from '~~/core/piece/schema.ts'
import { documentText } from '~~/core/piece/document-text.ts'
import { get, JsonText, save, type Answer } from './request.ts'
import { forgetUnsaved, keepUnsaved, type Sent } from './unsaved.ts'

export type SaveState =
  | { is: 'saved'; at: Date | null }
  | { is: 'changed' | 'saving' }
  /** `again`: it is tried again by itself. */
  | { is: 'failed'; says: string; again: boolean }
  /** Changed elsewhere: this window's versions are refused and kept. */
  | { is: 'stale' }
  /** Deleted elsewhere. */
  | { is: 'gone' }

/** Milliseconds after a change before it is saved, and between two saves while changes go on. */
const REST = 80
const BETWEEN = 1000
/** The same of a document that takes long to be sent, at most; while something is dragged, at least. */
const LONGEST = 5000
/** Milliseconds between two notes in the browser while changes go on, and while something is dragged. */
const NOTES = 250
const NOTES_DRAGGED = 2000
/** A large document holds the page up while it is handed over: then so many times as long passes until the next time. */
const SHARE = 50
/** Characters that a browser still sends for a window that is closed. */
const MOST_AFTER = 60_000
/** Milliseconds between tries when the server does not answer: at first, at most. */
const AGAIN = 2000
const LATEST = 30_000
/** Milliseconds after which a save without an answer is given up. */
const PATIENCE = 15_000

/** Those that save, by piece: one for each, whatever page is shown. */
const keepers = new Map<string, Keeper>()

/** Waits until nothing of a piece is on its way any more, and takes it out of the hands of a page that was left. */
export async function settled(id: string): Promise<void> {
  const keeper = keepers.get(id)
  if (!keeper) return
  await keeper.flush()
  keeper.end()
}

export class Keeper {
  private waiting: Piece | null = null
  private sent: Sent | null = null
  private busy = false
  private tries = 0
  private timer: ReturnType<typeof setTimeout> | null = null
  private state: SaveState = { is: 'saved', at: null }
  private readonly settlers: (() => void)[] = []
  private left = false
  /** When the last save began, and when the next one is to come by itself. */
  private began = -Infinity
  private due = Infinity
  /** When the last note was made, and when the next one is. */
  private noted = -Infinity
  private noting: ReturnType<typeof setTimeout> | null = null
  private noteDue = Infinity
  /** Whether more of the same is about to follow what was changed last. */
  private dragged = false
  /** Milliseconds that the last save and the last note held the page up. */
  private saveTook = 0
  private noteTook = 0
  /** What is left when the window is closed is sent after it, where it is small enough for that. */
  private readonly send = () => {
    if (this.noting) this.note()
    const document = this.waiting ?? this.sent?.document
    if (!document || this.state.is === 'stale' || this.state.is === 'gone') return
    const save = this.waiting ? nanoid(16) : this.sent!.save
    const body = this.body({ document, save })
    if (body.length > MOST_AFTER) return
    const headers = { 'content-type': 'application/json' }
    void fetch(`/api/pieces/${this.id}`, { method: 'PUT', headers, body, keepalive: true }).catch(() => {})
  }
  private readonly warn = (e: BeforeUnloadEvent) => {
    if (this.unsaved) e.preventDefault()
  }

  /**
   * @param base the document at `revision`
   * @param merged told when another title was taken over
   */
  constructor(
    private readonly id: string,
    private revision: number,
    private base: Piece,
    private readonly tell: (state: SaveState) => void,
    private readonly merged: (title: string) => void,
  ) {
    keepers.get(id)?.end()
    keepers.set(id, this)
    addEventListener('beforeunload', this.warn)
    addEventListener('pagehide', this.send)
  }

  /** Whether something is not on the server's disk. */
  get unsaved(): boolean {
    return this.waiting !== null || this.sent !== null
  }

  /** @param dragged whether more of the same is about to follow: then the page is held up less often for it */
  changed(piece: Piece, dragged = false): void {
    this.waiting = piece
    this.dragged = dragged
    const now = performance.now()
    const noteAt = Math.max(dragged ? now + NOTES_DRAGGED : 0, this.noted + Math.max(NOTES, SHARE * this.noteTook))
    if (noteAt <= now) this.note()
    else if (noteAt < this.noteDue) {
      if (this.noting) clearTimeout(this.noting)
      this.noteDue = noteAt
      this.noting = setTimeout(() => this.note(), noteAt - now)
    }
    if (this.state.is === 'saved') this.say({ is: 'changed' })
    if (!this.busy) this.soon()
  }

  /** Saves after a moment of rest; while changes go on, again and again. */
  private soon(): void {
    const now = performance.now()
    const between = Math.min(LONGEST, Math.max(BETWEEN, SHARE * this.saveTook))
    const held = Math.max(LONGEST, SHARE * this.saveTook)
    const due = this.dragged ? Math.max(now, this.began) + held : Math.max(now + REST, this.began + between)
    if (this.timer && this.due <= due) return
    this.later(due - now)
    this.due = due
  }

  /** Keeps in the browser what is not on the server's disk, and nothing else. */
  private note(): void {
    if (this.noting) clearTimeout(this.noting)
    this.noting = null
    this.noteDue = Infinity
    this.noted = performance.now()
    const { sent, revision } = this
    const document = this.waiting ?? sent?.document
    if (!document) void forgetUnsaved(this.id)
    else void keepUnsaved(this.id, { revision, document, sent }).then(took => (this.noteTook = took))
  }

  /** What is sent to save a document, as JSON. */
  private body({ document, save }: Sent): string {
    return `{"revision":${this.revision},"save":${JSON.stringify(save)},"document":${documentText(document)}}`
  }

  private say(state: SaveState): void {
    this.state = state
    if (!this.left) this.tell(state)
  }

  private later(wait: number): void {
    if (this.timer) clearTimeout(this.timer)
    this.due = Infinity
    this.timer = setTimeout(() => {
      this.timer = null
      void this.save()
    }, wait)
  }

  async save(): Promise<void> {
    if (this.busy || !this.unsaved) return
    if (this.timer) clearTimeout(this.timer)
    this.busy = true
    this.due = Infinity
    this.began = performance.now()
    // What was sent and not answered is sent again first: it may be on disk already.
    if (!this.sent) {
      this.sent = { document: this.waiting!, save: nanoid(16) }
      this.waiting = null
    }
    const { sent } = this
    const asked = performance.now()
    this.note()
    if (this.state.is === 'changed' || this.state.is === 'saved') this.say({ is: 'saving' })
    const answering = save(`/api/pieces/${this.id}`, new JsonText(this.body(sent)), PATIENCE)
    this.saveTook = performance.now() - asked
    await this.answered(sent, await answering)
    this.busy = false
    if (!this.unsaved || !['changed', 'saving', 'saved'].includes(this.state.is)) {
      for (const done of this.settlers.splice(0)) done()
      if (this.left && !this.unsaved) this.end()
    }
  }

  private async answered(sent: Sent, answer: Answer<{ revision: number }>): Promise<void> {
    if (answer.ok) return this.done(sent, answer.value.revision)
    if (answer.status === 409) return this.refused(sent)
    if (answer.status === 404) {
      this.say({ is: 'gone' })
      return
    }
    const { says, status } = answer
    // A status below 400 means that the answer wasn't this server's.
    const again = status < 400 || [408, 429].includes(status) || status >= 500
    if (!again) {
      // Sent again only when it is another: this one will be refused again.
      if (this.waiting) this.later(REST)
      this.waiting ??= sent.document
      this.sent = null
    }
    this.say({ is: 'failed', says, again })
    if (again) this.later(Math.min(LATEST, AGAIN * 2 ** this.tries++))
  }

  /** The revision that is saved. */
  get at(): number {
    return this.revision
  }

  private done(sent: Sent, revision: number): void {
    this.revision = revision
    this.base = sent.document
    this.sent = null
    this.tries = 0
    this.note()
    if (this.waiting) {
      this.say({ is: 'changed' })
      this.soon()
      return
    }
    this.say({ is: 'saved', at: new Date() })
  }

  /** Refused, and kept by the server. Where only the title is another by now, that one is taken over. */
  private async refused(sent: Sent): Promise<void> {
    const answer = await get(`/api/pieces/${this.id}`, Stored, PATIENCE)
    const other = answer.ok ? answer.value : null
    // Another window has saved the very same.
    if (other && alike(other.document, sent.document)) return this.done(sent, other.revision)
    if (other && alike(other.document, { ...this.base, title: other.document.title }) && this.state.is !== 'stale') {
      const mine = this.waiting ?? sent.document
      const title = mine.title === this.base.title ? other.document.title : mine.title
      this.sent = null
      this.waiting = { ...mine, title }
      this.revision = other.revision
      this.base = other.document
      this.note()
      if (title !== mine.title && !this.left) this.merged(title)
      this.say({ is: 'changed' })
      this.later(0)
      return
    }
    this.sent = null
    this.note()
    this.say({ is: 'stale' })
    // What is changed from now on is refused as well, and kept.
    if (this.waiting) this.later(REST)
  }

  /** Resolves when nothing waits any more, or nothing more can be done at once. */
  flush(most = 4000): Promise<void> {
    if (!this.unsaved) return Promise.resolve()
    const done = new Promise<void>(resolve => this.settlers.push(resolve))
    void this.save()
    return Promise.race([done, new Promise<void>(resolve => setTimeout(resolve, most))])
  }

  /** What is not saved is of no interest any more: it lies elsewhere. */
  drop(): void {
    this.waiting = null
    this.sent = null
    this.note()
    this.end()
  }

  /** Its page is left: what waits goes on being saved, and nothing is told any more. */
  leave(): void {
    this.left = true
    if (this.unsaved) void this.save()
    else this.end()
  }

  end(): void {
    if (this.timer) clearTimeout(this.timer)
    if (this.noting) this.note()
    this.left = true
    removeEventListener('beforeunload', this.warn)
    removeEventListener('pagehide', this.send)
    if (keepers.get(this.id) === this) keepers.delete(this.id)
  }
}

/**
 * What the formulas of a piece mean together: each checked, the signals given their kinds, and circles found
 * and named. Decides for every drive which text runs: the one written, the last good one, or none.
 */
import { isSignal, propertyKey, signalKey, splitDriveKey } from '../piece/drive-key.ts'
import { check, type Checked } from '../formula/check.ts'
import type { Got } from '../formula/lookup.ts'
import { mended } from '../formula/mending.ts'
import { parse } from '../formula/parse.ts'
import { problem, type Fix, type Problem } from '../formula/problem.ts'
import { Names, type Target } from '../formula/scope.ts'
import { driveLabel } from '../formula/labels.ts'
import { followingFormulas } from '../acts/ties.ts'
import { NAMED, type Drive, type Piece, type Signal } from '../piece/schema.ts'
import { propertyNamed } from '../piece/properties.ts'
import { ForkedMap } from './forked-map.ts'
import { dependencyOrder } from './dependency-order.ts'

/** Which text of a drive or signal runs. `base`: neither can, so the set value stands. */
export type RunningText = 'text' | 'good' | 'base' | 'off'

export interface Meaning {
  /** `part.property` of a drive, or `~id` of a signal. */
  readonly key: string
  readonly source: Drive | Signal
  readonly target: Target
  readonly text: Checked | null
  readonly good: Checked | null
  /** What is wrong with the written text. */
  readonly problems: readonly Problem[]
  readonly running: RunningText
  /** Whether it is all its own doing: no circle or chain it stands in has a say. */
  readonly settled: boolean
}

/** A formula that follows from the piece: `base` for keyframes that nothing drives, the other face of a tie. */
const impliedDrive = (part: string, property: string, text: string): Drive => ({
  part,
  property,
  text,
  good: text,
  seed: 0,
  off: false,
  takes: [],
  promises: [],
})

/** What a checked formula reads, as keys, but for the copies before. */
export function readKeys(checked: Checked): readonly string[] {
  let known = keysOf.get(checked)
  if (!known) keysOf.set(checked, (known = keysRead(checked)))
  return known
}
const keysOf = new WeakMap<Checked, readonly string[]>()

function keysRead(checked: Checked): string[] {
  return checked.reads.flatMap(r =>
    r.type === 'property'
      ? r.before
        ? []
        : [propertyKey(r.part, r.property)]
      : r.type === 'signal'
        ? [signalKey(r.id)]
        : [],
  )
}

/** The formula of a meaning that runs, or null. */
export const runningFormula = (m: Meaning): Checked | null =>
  m.running === 'text' ? m.text : m.running === 'good' ? m.good : null

/** What the running formula of a meaning reads, in one line. */
const readsOf = (m: Meaning): string =>
  (runningFormula(m)?.reads ?? [])
    .map(r => (r.type === 'property' ? `${r.part}.${r.property}${r.before ? ' before' : ''}` : `${r.type} ${r.id}`))
    .join()

const readsTheSame = (a: Meaning, b: Meaning): boolean =>
  a.settled && a.target.part === b.target.part && a.running === b.running && readsOf(a) === readsOf(b)

const runningResult = (m: Meaning | undefined): Got => (m && runningFormula(m)?.result) ?? 'any'

/** A property that reads itself means what it holds by hand. */
function ownBase(m: Meaning, key: string): Fix {
  const reads = (m.text?.reads ?? []).filter(r => r.type === 'property' && propertyKey(r.part, r.property) === key)
  const changes = reads.map(({ from, to }) => ({ from, to, insert: 'base' }))
  return { label: 'base, its set value or keyframes', changes }
}

/** Formulas that read one another in a chain, at most. */
const LONGEST_CHAIN = 500

export class Meanings {
  readonly names: Names
  readonly all: ForkedMap<string, Meaning>
  /** The kind of each signal, by id. */
  private readonly kinds: ReadonlyMap<string, Got>
  /** While they are made: what texts mean wherever they mean the same. */
  private shared = new Map<string, Checked | null>()
  /** Whether no circle or chain has a say in any. */
  private readonly isSettled: boolean
  /** Keys, each after all that its formula reads. */
  order: readonly string[] = []
  /** How many stand in the longest chain of links that ends with each. */
  links: ReadonlyMap<string, number> = new Map()

  /** `before` lends what has not changed. */
  constructor(
    readonly piece: Piece,
    before: Meanings | null = null,
    /** The one drive in which the piece differs from that of the meanings before, where that is all. */
    only: string | null = null,
  ) {
    const was = only === null ? undefined : before?.all.get(only)
    if (was && before!.isSettled) {
      const { names, kinds, all } = before!
      this.names = names
      this.kinds = kinds
      this.all = all.fork()
      const m = this.make(was.key, piece.drives[was.key]!, was.target, id => kinds.get(id) ?? 'any', before)
      this.shared = new Map()
      const isAlike = readsTheSame(was, m)
      if (isAlike) this.keepOrder(before!)
      else this.breakCircles()
      this.isSettled = isAlike || this.allSettled
      return
    }
    const lend = before && sameNames(before.piece, piece) ? before : null
    this.all = new ForkedMap()
    this.names = lend && lend.piece.dials === piece.dials ? lend.names : new Names(piece)
    const signalKinds = new Map<string, Got>()
    const kindOf = (id: string): Got => {
      if (signalKinds.has(id)) return signalKinds.get(id)!
      signalKinds.set(id, 'any')
      const meaning = this.make(signalKey(id), piece.signals[id]!, { part: null, property: null }, kindOf, lend)
      const kind = runningFormula(meaning)?.result ?? 'any'
      signalKinds.set(id, kind)
      return kind
    }
    for (const id of Object.keys(piece.signals)) kindOf(id)
    // What reads a signal asks for its kind alone: while those stand, what was found of the others stands.
    this.kinds = signalKinds
    const sameSignals = !!lend && alike(lend.kinds, signalKinds)
    for (const [key, drive] of Object.entries(piece.drives)) {
      const part = piece.parts[drive.part]
      const property = propertyNamed(drive.property)
      if (!part || !property) continue
      this.make(key, drive, { part: drive.part, property }, kindOf, sameSignals ? lend : null)
    }
    for (const [key, text] of followingFormulas(piece)) {
      const [part, name] = splitDriveKey(key)
      const property = propertyNamed(name)
      if (piece.parts[part] && property)
        this.make(key, impliedDrive(part, name, text), { part, property }, kindOf, null)
    }
    for (const key of keyedOf(piece.bases)) {
      if (this.all.has(key)) continue
      const [part, name] = splitDriveKey(key)
      const property = propertyNamed(name)
      if (piece.parts[part] && property)
        this.make(key, impliedDrive(part, name, 'base'), { part, property }, kindOf, lend)
    }
    this.shared = new Map()
    if (before && this.readsAlike(before)) this.keepOrder(before)
    else this.breakCircles()
    this.isSettled = this.allSettled
  }

  private keepOrder({ order, links }: Meanings): void {
    this.order = order
    this.links = links
  }

  private get allSettled(): boolean {
    for (const m of this.all.values()) if (!m.settled) return false
    return true
  }

  /** Whether everything reads what it read before, and there were no circles. */
  private readsAlike(before: Meanings): boolean {
    if (this.all.size !== before.all.size || this.piece.parts !== before.piece.parts) return false
    const old = before.all.entries()
    for (const [key, m] of this.all) {
      const [was, n] = old.next().value!
      if (was !== key) return false
      if (n !== m && !readsTheSame(n, m)) return false
    }
    return true
  }

  private make(
    key: string,
    source: Drive | Signal,
    target: Target,
    kindOf: (id: string) => Got,
    lend: Meanings | null,
  ): Meaning {
    const old = lend?.all.get(key)
    if (old?.settled && old.source === source) {
      this.all.set(key, old)
      return old
    }
    const same = old && old.source === source
    const text = same ? old.text : this.checked(source.text, target, kindOf)
    const problems = same
      ? [...old.problems.filter(p => p.code !== 'cycle' && p.code !== 'heavy')]
      : text && 'formula' in text
        ? [...text.problems]
        : [...(parse(source.text).problems as readonly Problem[])]
    const shown = same
      ? problems
      : mended(source.text, problems, t => this.problemsOf(t, target, kindOf), this.names, target)
    const sound = (c: Checked | null) => (c && !c.problems.some(p => p.level === 'error') ? c : null)
    const good = same ? old.good : source.good === source.text ? text : this.checked(source.good, target, kindOf)
    const off = 'off' in source && source.off
    const running: RunningText = off ? 'off' : sound(text) ? 'text' : sound(good) ? 'good' : 'base'
    const meaning: Meaning = { key, source, target, text, good, problems: shown, running, settled: true }
    this.all.set(key, meaning)
    return meaning
  }

  private checked(text: string, target: Target, kindOf: (id: string) => Got): Checked | null {
    const place = this.placeOf(target)
    const name = place && `${place} ${text}`
    const known = name ? this.shared.get(name) : undefined
    if (known !== undefined) return known
    const { formula } = parse(text)
    const made = formula && check(formula, this.names, target, kindOf)
    if (name) this.shared.set(name, made)
    return made
  }

  /** Where a text means the same as on every part of this kind; null where relatives, copies or gears have a say. */
  private placeOf({ part, property }: Target): string | null {
    if (part === null) return null
    const { parent, copies, shape } = this.piece.parts[part]!
    return parent !== null || copies || shape.type === 'gear' ? null : `${shape.type} ${property!.name}`
  }

  /** What another text would mean in the place of a drive or signal: checked, with its problems. */
  look(text: string, key: string): { checked: Checked | null; problems: readonly Problem[] } {
    const { formula, problems } = parse(text)
    const { target } = this.all.get(key)!
    const kindOf = (id: string): Got => runningResult(this.all.get(signalKey(id)))
    const trying = (t: string) => this.problemsOf(t, target, kindOf)
    const checked = formula && check(formula, this.names, target, kindOf)
    return { checked, problems: mended(text, checked?.problems ?? problems, trying, this.names, target) }
  }

  private problemsOf(text: string, target: Target, kindOf: (id: string) => Got): readonly Problem[] {
    const { formula, problems } = parse(text)
    return formula ? check(formula, this.names, target, kindOf).problems : problems
  }

  /**
   * A circle of readings cannot run. Where one was just made, the formula that closed it still has an older
   * good text and goes back to that; a circle of settled texts holds the set values.
   */
  private breakCircles(): void {
    let found = dependencyOrder(this.readings())
    for (; found.circle; found = dependencyOrder(this.readings())) {
      const { circle } = found
      const says = `${circle.map(k => this.label(k)).join(' reads ')} reads ${this.label(circle[0]!)}: that’s a circle. Remove one of these links.`
      const newly = circle.filter(k => {
        const m = this.all.get(k)!
        return m.running === 'text' && m.source.text !== m.source.good
      })
      for (const key of newly.length > 0 ? newly : circle) {
        const m = this.all.get(key)!
        const next = circle[(circle.indexOf(key) + 1) % circle.length]!
        const at = runningFormula(m)!.reads.find(r =>
          readKeys({ ...m.text!, reads: [r] } as Checked).includes(next),
        ) ?? { from: 0, to: m.source.text.length }
        const fixes = next === key && !isSignal(key) ? [ownBase(m, key)] : []
        const running = newly.length > 0 && m.good && m.good.problems.length === 0 ? 'good' : 'base'
        this.hold(m, problem('cycle', at, says, ...fixes), running)
      }
    }
    this.order = found.order
    this.links = found.links
    for (const [key, chained] of found.links) {
      const m = this.all.get(key)!
      const links = chained + this.copiesInChain(m)
      if (links <= LONGEST_CHAIN) continue
      const says = `This depends on a chain of ${links} formulas reading one another; at most ${LONGEST_CHAIN} run.`
      this.hold(m, problem('heavy', { from: 0, to: m.source.text.length }, says), 'base')
    }
  }

  /** How many copies read one another, besides the one that is counted. */
  private copiesInChain({ target, ...m }: Meaning): number {
    const reads = runningFormula({ target, ...m })?.reads ?? []
    const before = reads.some(r => r.type === 'property' && r.before)
    return before && target.part !== null ? (this.piece.parts[target.part]!.copies?.count ?? 1) - 1 : 0
  }

  private hold(m: Meaning, why: Problem, running: RunningText): void {
    this.all.set(m.key, { ...m, problems: [...m.problems, why], running, settled: false })
  }

  /** What each running formula reads, by key. */
  private readings(): Map<string, readonly string[]> {
    const reads = (m: Meaning): readonly string[] => {
      const formula = runningFormula(m)
      const keys = formula ? readKeys(formula) : []
      return keys.every(key => this.all.has(key)) ? keys : keys.filter(key => this.all.has(key))
    }
    return new Map([...this.all].map(([key, m]) => [key, reads(m)]))
  }

  /** A drive or signal in words: `carousel.rotation`. */
  label(key: string): string {
    return driveLabel(this.piece, key)
  }
}

const keyed = new WeakMap<Piece['bases'], readonly string[]>()
/** Properties that have keyframes. */
function keyedOf(bases: Piece['bases']): readonly string[] {
  let known = keyed.get(bases)
  if (!known) keyed.set(bases, (known = Object.keys(bases).filter(key => bases[key]!.keys)))
  return known
}

const alike = (a: ReadonlyMap<string, Got>, b: ReadonlyMap<string, Got>): boolean =>
  a.size === b.size && [...a].every(([id, kind]) => JSON.stringify(kind) === JSON.stringify(b.get(id)))

/** Whether every name means the same and every part has the same shape, parent and copies. */
function sameNames(a: Piece, b: Piece): boolean {
  return NAMED.every(c => {
    if (a[c] === b[c]) return true
    if (c !== 'dials' && c !== 'signals') return false
    const [x, y] = [a[c], b[c]]
    const ids = Object.keys(x)
    if (ids.length !== Object.keys(y).length) return false
    return ids.every(id => x[id]!.name === y[id]?.name && (c === 'signals' || a.dials[id]!.unit === b.dials[id]!.unit))
  })
}

/**
 * Handles on a curve. Each belongs to one number of the formula: where it stands in time and value, and what the number
 * becomes when it is pulled. Nothing is guessed: a number that is no argument of a source, or is a dial or a link, has
 * none.
 */
import { envelopeCorner } from './envelope-corners.ts'
import { compile, compileNode, compilePhase } from '../engine/compile.ts'
import { CannotRun } from '../engine/env.ts'
import type { Program } from '../engine/program.ts'
import { argumentsOf } from '../formula/arguments.ts'
import type { Checked } from '../formula/check.ts'
import { decimalsOf, setHandle } from '../formula/edit.ts'
import { everyNode, handles, type CallNode, type Node, type NumberNode } from '../formula/tree.ts'
import { functionNamed } from '../functions/index.ts'
import { constantOf, type CompiledExpression } from '../form/compiled-expression.ts'
import { momentNear } from '../time/moment.ts'
import { toNumber } from '../time/rational.ts'
import { sizeOfUnit } from '../units/units.ts'

export interface WaveHandle {
  /** Which number of the text, and the argument it fills. */
  readonly nth: number
  readonly name: string
  /** As it is written, `24px`. */
  readonly text: string
  /** Pulled up and down, along time, or apart from where it begins. */
  readonly way: 'up' | 'along' | 'apart'
  /** The second at which it stands; of what is pulled apart, the second at which that begins. */
  readonly seconds: number
  readonly from: number
  /** The value of the whole formula there, in base measure. */
  readonly value: number
  /** Decimals that it is written with. */
  readonly decimals: number
  /**
   * What the number becomes, without the sign before it, when the handle is pulled some seconds later and some (base
   * measure) higher.
   */
  readonly pulled: (seconds: number, higher: number) => number
}

/** A call of the formula that has handles. */
export interface Source {
  readonly call: CallNode
  readonly text: string
}

const UPWARD = ['amp', 'offset', 'low', 'high', 'from', 'to']
const PULLED = new Set([...UPWARD, 'attack', 'hold', 'release', 'every', 'freq', 'phase', 'start', 'length'])

/** The number that fills an argument by itself, with its sign. */
function numberIn(node: Node): { number: NumberNode; sign: number } | null {
  if (node.type === 'number') return { number: node, sign: 1 }
  if (node.type === 'unary' && node.op === '-' && node.of.type === 'number') return { number: node.of, sign: -1 }
  return null
}

const checkedOf = (program: Program, key: string): Checked | null => {
  const slot = program.slots.get(key)
  return slot?.running === 'text' ? (program.meanings.all.get(key)?.text ?? null) : null
}

/** The calls of a drive's formula that have handles, in text order. */
export function sourcesOf(program: Program, key: string): Source[] {
  const checked = checkedOf(program, key)
  if (!checked) return []
  return everyNode(checked.formula)
    .filter((n): n is CallNode => n.type === 'call' && numbersOf(n).length > 0)
    .map(call => ({ call, text: checked.formula.text.slice(call.from, call.to) }))
}

function numbersOf(call: CallNode): { name: string; number: NumberNode; sign: number }[] {
  const entry = functionNamed(call.name)
  if (!entry || (entry.group !== 'source' && entry.name !== 'clamp')) return []
  return argumentsOf(call, entry).filled.flatMap(({ parameter, arg }) => {
    const found = PULLED.has(parameter.name) ? numberIn(arg.value) : null
    return found && found.number.unitFrom > found.number.from ? [{ name: parameter.name, ...found }] : []
  })
}

/** Looks for where a number has the most say, and how far it is changed to see that. */
const LOOKS = 64
const SHARE = 1 / 64

/**
 * The handles of one call, for what is seen from a second on. What has to be added up first has none meanwhile: it is
 * asked for, and the caller looks again.
 * @param nth which of `sourcesOf`
 * @param seconds how long the stretch is in which they are to stand
 */
export function handlesOf(
  program: Program,
  key: string,
  copy: number,
  nth: number,
  from: number,
  seconds: number,
): WaveHandle[] {
  const checked = checkedOf(program, key)
  const source = sourcesOf(program, key)[nth]
  if (!checked || !source) return []
  try {
    return new Handles(program, key, copy, checked, source.call, from, seconds).all()
  } catch (e) {
    if (e instanceof CannotRun) return []
    throw e
  }
}

/** Formulas with another number, as long as the formula itself runs. */
const OTHERS = new WeakMap<CompiledExpression, Map<string, CompiledExpression>>()

interface One extends Pick<WaveHandle, 'nth' | 'name' | 'text' | 'decimals'> {
  readonly written: number
}

class Handles {
  private readonly form: CompiledExpression
  /** Turns a second and at second 0, where the source has a steady pace. */
  private readonly pace: { readonly rate: number; readonly base: number } | null

  constructor(
    private readonly program: Program,
    private readonly key: string,
    private readonly copy: number,
    private readonly checked: Checked,
    private readonly call: CallNode,
    private readonly from: number,
    private readonly seconds: number,
  ) {
    this.form = program.slots.get(key)!.forms[copy]!
    const entry = functionNamed(call.name)!
    const affine = entry.pace ? compilePhase(checked, program.envFor(key, copy), call).affine : null
    const rate = affine ? toNumber(affine.rate) : 0
    this.pace = affine && rate !== 0 ? { rate, base: toNumber(affine.base) } : null
  }

  all(): WaveHandle[] {
    const all = handles(this.checked.formula)
    return numbersOf(this.call).flatMap(({ name, number, sign }) => {
      const size = toNumber(sizeOfUnit(number.unit, this.program.measures))
      const one = {
        nth: all.indexOf(number),
        name,
        text: this.checked.formula.text.slice(number.from, number.to),
        written: toNumber(number.value),
        decimals: decimalsOf(this.checked.formula.text.slice(number.from, number.unitFrom)),
      }
      const made = UPWARD.includes(name) ? this.upward(one) : this.alongTime(one, sign * size)
      // What is still being worked out stands nowhere yet.
      return made && Number.isFinite(made.value) ? [made] : []
    })
  }

  private at(form: CompiledExpression, seconds: number): number {
    return form.at(momentNear(seconds, this.program.measures.frameRate))
  }

  /** The first second from the left on at which the source is at a part of its cycle. */
  private reaching(part: number): number {
    const { rate, base } = this.pace!
    const turns = rate * this.from + base
    const ahead = rate > 0 ? Math.ceil(turns - part) + part : Math.floor(turns - part) + part
    return (ahead - base) / rate
  }

  /** The parts of its cycle at which an oscillator is highest and lowest. */
  private ends(): { crest: number; trough: number } {
    const own = compileNode(this.checked, this.program.envFor(this.key, this.copy), this.call)
    let [crest, trough, high, low] = [0, 0, -Infinity, Infinity]
    for (let k = 0; k < LOOKS; k++) {
      const v = this.at(own, this.reaching(k / LOOKS))
      if (v > high) [crest, high] = [k / LOOKS, v]
      if (v < low) [trough, low] = [k / LOOKS, v]
    }
    return { crest, trough }
  }

  /** What the whole formula is with another number in that place; kept, so that what it adds up is there next time. */
  private with(nth: number, value: number): CompiledExpression | null {
    const text = setHandle(this.checked.formula, nth, value, 12)
    const others = OTHERS.get(this.form) ?? new Map<string, CompiledExpression>()
    OTHERS.set(this.form, others)
    const kept = others.get(text)
    if (kept) return kept
    const { checked } = this.program.meanings.look(text, this.key)
    const form = checked && compile(checked, this.program.envFor(this.key, this.copy))
    if (form) others.set(text, form)
    return form
  }

  /** Whether the call is read on a clock of its own. */
  private get onClock(): boolean {
    return everyNode(this.checked.formula).some(
      n => n.type === 'on' && n.of.from <= this.call.from && this.call.to <= n.of.to,
    )
  }

  private get swings(): boolean {
    return this.pace !== null && ['sine', 'triangle', 'square', 'saw'].includes(functionNamed(this.call.name)!.name)
  }

  /** A bead where the number has the most say: of a wave its crest, its trough or its middle. */
  private upward(one: One): WaveHandle | null {
    const step = SHARE * Math.max(Math.abs(one.written), 1)
    const other = this.with(one.nth, one.written + step)
    if (!other) return null
    const say = (t: number) => (this.at(other, t) - this.at(this.form, t)) / step
    let seconds = this.from
    if (this.swings) {
      const { crest, trough } = this.ends()
      seconds = this.reaching(one.name === 'low' ? trough : one.name === 'offset' ? 0.5 : crest)
    } else {
      let most = 0
      for (let k = 0; k <= LOOKS; k++) {
        const t = this.from + (this.seconds * k) / LOOKS
        const size = Math.abs(say(t))
        if (size > most * 1.02) [most, seconds] = [size, t]
      }
    }
    const slope = say(seconds)
    if (!(Math.abs(slope) > 1e-9)) return null
    const { written, ...rest } = one
    return {
      ...rest,
      way: 'up',
      seconds,
      from: seconds,
      value: this.at(this.form, seconds),
      pulled: (_, higher) => written + higher / slope,
    }
  }

  /** @param size of its unit in base measure, below 0 behind a minus */
  private alongTime(one: One, size: number): WaveHandle | null {
    const { written, ...rest } = one
    const stand = (seconds: number) => ({ ...rest, seconds, from: seconds, value: this.at(this.form, seconds) })
    const { pace, call, checked } = this
    if (one.name === 'phase') {
      if (!pace) return null
      return {
        ...stand(this.reaching(0)),
        way: 'along',
        pulled: later => written - (pace.rate * later) / size,
      }
    }
    if (one.name === 'every' || one.name === 'freq') {
      if (!pace) return null
      const length = 1 / Math.abs(pace.rate)
      // From the crest (or cell) before to the next one, so that both ends are in sight.
      const first = this.reaching(this.swings ? this.ends().crest : 0) - length
      const least = length / 50
      const grown = (later: number) => Math.max(least, length + later) / length
      return {
        ...stand(first + length),
        from: first,
        way: 'apart',
        pulled: later => (one.name === 'every' ? written * grown(later) : written / grown(later)),
      }
    }
    // A ramp from its own start on; on a cue or a clock of its own it has no fixed place.
    const entry = functionNamed(call.name)!
    const filled = new Map(argumentsOf(call, entry).filled.map(f => [f.parameter.name, f.arg.value]))
    const env = this.program.envFor(this.key, this.copy)
    const seconds = (name: string) => {
      const node = filled.get(name)
      const c = node ? constantOf(compileNode(checked, env, node)) : null
      return node ? c && toNumber(c) : 0
    }
    if (entry.name === 'envelope') {
      const corner = this.onClock ? null : envelopeCorner(this.program, this.key, one.name, filled, seconds, this.from)
      return (
        corner && {
          ...stand(corner.seconds),
          from: corner.from,
          way: 'along',
          pulled: by => Math.max(0, written + (corner.sign * by) / size),
        }
      )
    }
    const [start, length] = [seconds('start'), seconds('length')]
    if (entry.name !== 'ramp' || start === null || length === null || this.onClock) return null
    const later = one.name === 'start' ? start : start + length
    return { ...stand(later), from: start, way: 'along', pulled: by => written + by / size }
  }
}

/** What can be laid over the curve on the scope: the terms of a sum apart, and where it leaps. */
import { compileNode } from '~~/core/engine/compile.ts'
import { CannotRun } from '~~/core/engine/env.ts'
import type { ProgramHome, Program } from '~~/core/engine/program.ts'
import type { CompiledExpression } from '~~/core/form/compiled-expression.ts'
import { outerSpan } from '~~/core/formula/tree.ts'
import { termsOf } from '~~/core/insight/pins.ts'
import type { DriveJumps } from '~~/core/insight/drive-facts.ts'
import { drawCurve, type StripCurve } from './curve.ts'
import { Samples, type Columns } from './samples.ts'

export interface ScopePart {
  /** As it is written, with its sign. */
  readonly text: string
  readonly form: Pick<CompiledExpression, 'at'>
}

/** The terms of the sum that a formula is; none where it is one alone, or has names of its own. */
export function partsOf(program: Program, key: string, copy: number): ScopePart[] {
  const slot = program.slots.get(key)
  const checked = slot?.running === 'text' ? program.meanings.all.get(key)?.text : null
  if (!checked || checked.formula.lets.length > 0) return []
  const terms = termsOf(checked.formula.body)
  if (terms.length < 2) return []
  const { text } = checked.formula
  return terms.flatMap(({ sign, node }) => {
    try {
      const form = compileNode(checked, program.envFor(key, copy), node)
      const { from, to } = outerSpan(node)
      return [{ text: `${sign < 0 ? '−' : ''}${text.slice(from, to)}`, form: { at: m => sign * form.at(m) } }]
    } catch (e) {
      if (e instanceof CannotRun) return []
      throw e
    }
  })
}

/** The leaps of the first copy within a stretch of seconds, most. */
const MOST_LEAPS = 60
export function leapsWithin(
  leaps: DriveJumps['at'],
  from: number,
  to: number,
): { second: number; from: number; to: number }[] {
  const found: { second: number; from: number; to: number }[] = []
  for (const l of leaps) {
    const first =
      l.every === null || l.second >= from ? l.second : l.second + Math.ceil((from - l.second) / l.every) * l.every
    for (let at = first; at <= to && found.length < MOST_LEAPS; at += l.every ?? Infinity)
      if (at >= from) found.push({ second: at, from: l.from, to: l.to })
  }
  return found
}

/** Dashes by which parts are told apart, the same in the legend. */
export const DASHES: readonly (readonly number[])[] = [[], [7, 3], [2, 3], [9, 3, 2, 3]]

/** Keeps what parts were at each column. */
export class PartLayer {
  private parts: readonly ScopePart[] = []
  private samples: Samples[] = []
  private home: ProgramHome | null = null

  show(parts: readonly ScopePart[]): void {
    if (parts === this.parts) return
    this.parts = parts
    this.samples = parts.map(() => new Samples())
  }

  forget(): void {
    for (const s of this.samples) s.forget()
  }

  /** Values that the parts take in sight, as they were sampled so far. */
  ends(first: number, last: number, columns: Columns): number[] {
    const { home } = this
    if (!home) return []
    return this.parts.flatMap(({ form }, i) => {
      const found: number[] = []
      for (let k = first; k <= last; k += 8) {
        this.samples[i]!.resize(last - first + 80)
        const v = this.samples[i]!.at(k, columns, form, home)
        if (Number.isFinite(v)) found.push(v)
      }
      return found
    })
  }

  draw(
    c: CanvasRenderingContext2D,
    colour: string,
    columns: Columns,
    home: ProgramHome,
    drawn: Omit<StripCurve, 'every'>,
  ): void {
    this.home = home
    c.strokeStyle = colour
    c.lineWidth = 1.4
    this.parts.forEach(({ form }, i) => {
      const samples = this.samples[i]!
      samples.resize(drawn.to - drawn.from + 80)
      c.setLineDash([...DASHES[i % DASHES.length]!])
      drawCurve(c, k => samples.at(k, columns, form, home), { ...drawn, every: 1, turn: 0, leap: Infinity })
    })
    c.setLineDash([])
  }
}

/** A mark beside each leap, with how far it goes where there is room. */
export function drawLeaps(
  c: CanvasRenderingContext2D,
  leaps: readonly { readonly second: number; readonly from: number; readonly to: number }[],
  colour: string,
  at: {
    readonly x: (second: number) => number
    readonly y: (value: number) => number
    readonly says: (by: number) => string
  },
): void {
  c.fillStyle = colour
  c.font = '11px "Spline Sans Mono", monospace'
  c.textAlign = 'left'
  let free = -Infinity
  for (const l of leaps) {
    const [x, y] = [at.x(l.second), (at.y(l.from) + at.y(l.to)) / 2]
    const up = l.to > l.from ? -1 : 1
    c.beginPath()
    c.moveTo(x + 4, y - 4 * up)
    c.lineTo(x + 12, y - 4 * up)
    c.lineTo(x + 8, y + 4 * up)
    c.fill()
    if (x < free) continue
    const text = at.says(l.to - l.from)
    c.fillText(text, x + 15, y + 4)
    free = x + 22 + c.measureText(text).width
  }
}

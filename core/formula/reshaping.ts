/** What is right in spelling and wrong in shape, and the shape that was meant: each candidate is tried (`mending.ts`). */
import { functionNamed } from '../functions/index.ts'
import { toNumber } from '../time/rational.ts'
import { TIME, FREQUENCY, sameKind } from '../units/kinds.ts'
import { readUnit, printNumber } from '../units/units.ts'
import { canonical } from '../units/names.ts'
import { parse } from './parse.ts'
import { change } from './problem.ts'
import type { Names, Target } from './scope.ts'
import { everyNode, outerSpan, type CallNode, type Node } from './tree.ts'
import { quotedName } from './words.ts'

interface Reshaped {
  readonly likely: readonly string[]
  /** What is tried when nothing else mends it. */
  readonly last: readonly string[]
}

/** The texts with one thing shaped as it was meant, the likeliest first. */
export function reshaped(text: string, names: Names, target: Target): Reshaped {
  const { formula } = parse(text)
  if (!formula) return { likely: [], last: [] }
  const found: string[] = []
  const put = (n: Node, insert: string) => {
    const { from, to } = outerSpan(n)
    found.push(change(text, [{ from, to, insert }]))
  }
  for (const n of everyNode(formula)) {
    if (n.type === 'binary' && n.op === '*') {
      const wave = swing(text, n, target)
      if (wave) put(n, wave)
      const pace = paced(text, n, target)
      if (pace) put(pace.node, pace.text)
    }
    if (n.type === 'call') {
      const angle = cycles(text, n)
      if (angle) put(n, angle)
      for (const t of calls(text, n, names)) put(n, t)
    }
    for (const t of selves(text, n, names, target)) put(n, t)
  }
  const unit = target.property?.unit ?? ''
  const whole = text.trim()
  const last = [`if ${whole} then 1${unit} else 0${unit}`]
  if (unit === 'deg' || unit === 'px')
    for (const own of ['deg', 'px', 's', 'Hz']) if (own !== unit) last.push(`${whole} / 1${own} * 1${unit}`)
  return { likely: found, last }
}

/** A plain number that time is multiplied with lacks the rate of the property. */
function paced(text: string, n: Node, target: Target): { node: Node; text: string } | null {
  const all = factors(n)
  const unit = target.property?.unit
  if (!unit || !all.some(f => f.node.type === 'name' && canonical(f.node.name) === 'time')) return null
  const bare = all.filter(f => f.node.type === 'number' && f.node.unit === '' && !f.inverse)
  return bare.length === 1 ? { node: bare[0]!.node, text: `${slice(text, bare[0]!.node)}${unit}/s` } : null
}

const slice = (text: string, n: Node): string => text.slice(outerSpan(n).from, outerSpan(n).to)

function factors(n: Node, inverse = false): { node: Node; inverse: boolean }[] {
  if (n.type === 'binary' && (n.op === '*' || n.op === '/'))
    return [...factors(n.left, inverse), ...factors(n.right, inverse !== (n.op === '/'))]
  return [{ node: n, inverse }]
}

/**
 * An angle in radians made of time and plain numbers: how many radians a second, in pi where pi stands in it.
 * Null for anything else.
 */
function radians(arg: Node): { perSecond: number; pi: boolean } | null {
  let perSecond = 1
  let times = 0
  let pis = 0
  for (const { node, inverse } of factors(arg)) {
    const name = node.type === 'name' ? canonical(node.name) : ''
    if (name === 'time' && !inverse) times++
    else if (name === 'pi' && !inverse) pis++
    else if (node.type === 'number' && node.unit === '') {
      const v = toNumber(node.value)
      perSecond = inverse ? perSecond / v : perSecond * v
    } else return null
  }
  return times === 1 && pis <= 1 && Number.isFinite(perSecond) && perSecond > 0 ? { perSecond, pi: pis === 1 } : null
}

const ofAngle = (n: Node): n is CallNode =>
  n.type === 'call' && ['sin', 'cos'].includes(canonical(n.name)) && n.args.length === 1

/** `sin(time*2*pi) * 20` as `sine(1Hz, 20deg)`: cycles a second, as it is written elsewhere. */
function swing(text: string, n: Node, target: Target): string | null {
  const all = factors(n)
  const call = all.find(f => ofAngle(f.node) && !f.inverse)?.node as CallNode | undefined
  const size = all.find(f => f.node.type === 'number')?.node
  if (!call || !size || size.type !== 'number' || all.length !== 2 || all.some(f => f.inverse)) return null
  const made = wave(call, size.unit === '' ? `${slice(text, size)}${target.property?.unit ?? ''}` : slice(text, size))
  return made
}

function wave(call: CallNode, amp: string | null): string | null {
  const r = radians(call.args[0]!.value)
  if (!r?.pi) return null
  const hertz = printNumber(r.perSecond / 2, 6)
  const rate = Number(hertz) === r.perSecond / 2 ? `${hertz}Hz` : `every: ${printNumber(2 / r.perSecond, 9)}s`
  const more = amp === null ? '' : rate.startsWith('every') ? `, amp: ${amp}` : `, ${amp}`
  return `sine(${rate}${more}${canonical(call.name) === 'cos' ? ', phase: 0.25turn' : ''})`
}

/** A sine of time alone: in cycles where pi stands in it, else in radians a second, so that its speed stays. */
function cycles(text: string, n: CallNode): string | null {
  if (!ofAngle(n)) return null
  const r = radians(n.args[0]!.value)
  if (!r) return null
  if (r.pi) return wave(n, null)
  return `${n.name}(time * ${printNumber(r.perSecond, 9)}rad/s)`
}

const SOURCE_ORDER = ['every', 'amp', 'offset', 'phase']

function calls(text: string, n: CallNode, names: Names): string[] {
  const entry = functionNamed(n.name)
  if (!entry) return []
  const found: string[] = []
  const args = n.args.map(a => ({ label: a.label, text: slice(text, a.value), node: a.value }))
  const kind = (node: Node) => (node.type === 'number' ? readUnit(node.unit)?.kind : undefined)
  const told = (list: readonly { label?: string; text: string }[]) =>
    `${n.name}(${list.map(a => (a.label ? `${a.label}: ${a.text}` : a.text)).join(', ')})`
  const first = args[0]
  if (entry.pace?.every && first && !first.label && kind(first.node) && sameKind(kind(first.node)!, TIME))
    found.push(told(args.map((a, i) => (a.label ? a : { ...a, label: SOURCE_ORDER[i] ?? 'phase' }))))
  if (entry.pace?.every) {
    const swapped = args.map(a => {
      const k = kind(a.node)
      if (k && canonical(a.label ?? '') === 'freq' && sameKind(k, TIME)) return { ...a, label: 'every' }
      return k && canonical(a.label ?? '') === 'every' && sameKind(k, FREQUENCY) ? { ...a, label: 'freq' } : a
    })
    if (swapped.some((a, i) => a !== args[i])) found.push(told(swapped))
  }
  if (entry.name === 'play' && first?.node.type === 'name') {
    const [a, b] = args.map(x => (x.node.type === 'name' ? names.named(x.node.name)?.type : undefined))
    if (a === 'cue' && b === 'curve') found.push(told([args[1]!, args[0]!, ...args.slice(2)]))
    if (a === 'curve' && args.length === 1) found.push(`curve(${first.text})`)
  }
  return found
}

/** A property that reads itself means what it holds by hand; a thing named alone, what is likeliest read of it. */
function selves(text: string, n: Node, names: Names, target: Target): string[] {
  const { part, property } = target
  if (!part || !property) return []
  const own = canonical(names.piece.parts[part]!.name)
  if (n.type === 'name' && canonical(n.name) === canonical(property.name) && !names.named(n.name)) return ['base']
  if (n.type === 'member' && canonical(n.name) === canonical(property.name)) {
    const of = n.of.type === 'index' ? n.of.of : n.of
    if (of.type === 'name' && [own, 'own'].includes(canonical(of.name))) return ['base']
  }
  const cue = n.type === 'name' ? names.named(n.name) : undefined
  if (cue?.type === 'cue') return [`since(${quotedName(cue.name)}) / 1s * 1${property.unit || '0%'}`]
  const thing = n.type === 'index' && n.of.type === 'name' ? names.named(n.of.name) : undefined
  return thing?.type === 'part' ? [`${slice(text, n)}.${property.name}`] : []
}

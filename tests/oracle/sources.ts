/** The functions of the language, as the design page and the manual tell them, for the trials alone. */
import {
  add,
  clockTime,
  div,
  evaluate,
  floorV,
  fractV,
  isQ,
  least,
  less,
  moment,
  most,
  mul,
  num,
  power,
  sub,
  type Place,
  type V,
} from './evaluate.ts'
import { floorOf, minus, over, plus, q, times, toDouble, type Q } from './fraction.ts'
import { fromZero, integral } from './integral.ts'
import type { Tree } from './read.ts'
import { eased } from './easings.ts'
import { around, drawn } from './marks.ts'
import { CUES, FPS, HITS, LAP } from './world.ts'

type Call = Extract<Tree, { is: 'call' }>

const ORDER: Readonly<Record<string, string>> = {
  sine: 'freq amp offset phase every low high',
  triangle: 'freq amp offset phase every low high',
  square: 'freq amp offset phase duty every low high',
  saw: 'freq amp offset phase every low high',
  ramp: 'start length from to ease after end',
  envelope: 'attack hold release ease easeIn easeOut over cue',
  curve: 'name channel after',
  play: 'curve cue channel shift overlap',
  since: 'cue',
  fires: 'cue',
  count: 'cue',
  until: 'cue',
  accumulate: 'rate from reset',
  delay: 'x by',
  hold: 'x rate',
  at: 'x time',
  average: 'x over',
  remap: 'x inLow inHigh outLow outHigh limit',
  clamp: 'x low high',
  wrap: 'x low high',
  mirror: 'x low high',
  mix: 'a b share',
  step: 'edge x',
  smoothstep: 'low high x',
  round: 'x to',
  floor: 'x to',
  ceil: 'x to',
  fract: 'x to',
  mod: 'x by',
  pow: 'x power',
  atan2: 'y x',
  hypot: 'x y',
  ease: 'x curve',
}

/** sin of so many turns: reduced exactly first, so that it is right for any. */
export function sineOf(turns: V): number {
  const part = num(fractV(turns))
  const eighth = Math.floor(part * 8)
  const at = 2 * Math.PI * (part - eighth / 8)
  // The nearest multiple of an eighth is taken off before the sine is asked.
  const [s, c] = [Math.sin(at), Math.cos(at)]
  const r = Math.SQRT1_2
  return [s, r * (s + c), c, r * (c - s), -s, -r * (s + c), -c, -r * (c - s)][eighth]!
}

const half = q(1, 2)

export function source(call: Call, p: Place): V {
  const order = (ORDER[call.name] ?? 'x y z').split(' ')
  const trees = new Map<string, Tree>()
  call.args.forEach((a, i) => trees.set((a.name || order[i] || `#${i}`).toLowerCase(), a.of))
  const has = (name: string) => trees.has(name.toLowerCase())
  const tree = (name: string) => trees.get(name.toLowerCase())!
  const get = (name: string, otherwise: V = q(0)): V => (has(name) ? evaluate(tree(name), p) : otherwise)
  const word = (name: string): string => {
    const t = trees.get(name.toLowerCase())
    return t?.is === 'name' || t?.is === 'call' ? t.name : ''
  }
  const ease = (name: string, x: V): V => {
    const t = trees.get(name.toLowerCase())
    if (!t) return x
    return eased(word(name), t.is === 'call' ? num(evaluate(t.args[0]!.of, p)) : null, x)
  }
  const here = (u: Q): Place => ({ ...p, t: u, clock: null })
  /** ∫ of a tree over the clock's own seconds, from 0. */
  const total = (f: Tree, of: (v: V) => number = num): number =>
    fromZero(u => of(evaluate(f, here(moment(u)))), toDouble(clockTime(p)), f, `${p.index}`)

  switch (call.name) {
    case 'sine':
    case 'triangle':
    case 'square':
    case 'saw': {
      const pace = has('freq') ? tree('freq') : tree('every')
      const now = evaluate(pace, p)
      const steady = isQ(now) && !moves(pace)
      const turns: V = steady
        ? mul(clockTime(p), has('freq') ? now : div(q(1), now))
        : total(pace, has('freq') ? num : v => 1 / num(v))
      const at = fractV(add(turns, get('phase')))
      const [low, high] = has('low') || has('high') ? [get('low'), get('high')] : [null, null]
      const amp = low ? div(sub(high, low), q(2)) : get('amp', q(1))
      const offset = low ? div(add(high, low), q(2)) : get('offset')
      return add(offset, mul(amp, shape(call.name, at, get('duty', half))))
    }
    case 'ramp': {
      const start = get('start')
      const length = has('end') ? sub(get('end'), start) : get('length')
      let x = div(sub(clockTime(p), start), length)
      const after = word('after')
      if (less(x, q(0))) return get('from')
      if (after === 'repeat') x = fractV(x)
      else if (after === 'mirror') {
        const r = fractV(div(x, q(2)))
        x = less(half, r) ? sub(q(2), mul(q(2), r)) : mul(q(2), r)
      } else x = least(x, q(1))
      const [from, to] = [get('from'), get('to', q(1))]
      return add(from, mul(sub(to, from), ease('ease', x)))
    }
    case 'envelope': {
      const [attack, release] = [get('attack'), get('release')]
      let hold = get('hold')
      let t: V = clockTime(p)
      if (word('over') === 'lap') {
        t = mul(fractV(div(t, LAP)), LAP)
        hold = sub(sub(LAP, attack), release)
      } else if (has('cue')) {
        const { last, next } = around(word('cue'), t as Q)
        if (!last) return q(0)
        if (word('over') === 'cue') hold = next ? sub(sub(sub(next, last), attack), release) : q(10n ** 12n)
        t = sub(t, last)
      }
      if (less(t, q(0))) return q(0)
      const into = (name: string, x: V) => (has(name) ? ease(name, x) : ease('ease', x))
      if (less(t, attack)) return into('easeIn', div(t, attack))
      const rest = sub(sub(t, attack), hold)
      if (less(rest, q(0))) return q(1)
      return less(rest, release) ? into('easeOut', sub(q(1), div(rest, release))) : q(0)
    }
    case 'curve':
      return drawn(word('name'), word('channel'), clockTime(p), word('after'))
    case 'play': {
      const lead = sub(HITS[word('curve')]!, get('shift'))
      const t = clockTime(p)
      const { last } = around(word('cue'), add(t, lead) as Q)
      const first = CUES[word('cue')]!.marks[0]
      if (!first) return q(0)
      return drawn(word('curve'), word('channel'), last ? (sub(add(t, lead), last) as Q) : q(0), 'hold')
    }
    case 'since': {
      const t = clockTime(p)
      return minus(t, around(word('cue'), t).last ?? CUES[word('cue')]!.marks[0]!)
    }
    case 'until': {
      const t = clockTime(p)
      return minus(around(word('cue'), t).next!, t)
    }
    case 'count':
      return q(around(word('cue'), clockTime(p)).so)
    case 'fires': {
      const t = clockTime(p)
      const frame = floorOf(times(t, FPS))
      const { last } = around(word('cue'), over(plus(q(frame), q(999, 1000)), FPS))
      return last !== null && floorOf(times(last, FPS)) === frame
    }
    case 'accumulate': {
      if (!has('reset')) return add(get('from'), total(tree('rate')))
      const t = clockTime(p)
      const { last } = around(word('reset'), t)
      const f = (u: number) => num(evaluate(tree('rate'), here(moment(u))))
      const upTo = (u: number) => fromZero(f, u, tree('rate'), `${p.index}`)
      return add(get('from'), upTo(toDouble(t)) - (last ? upTo(toDouble(last)) : 0))
    }
    case 'delay':
      return evaluate(tree('x'), { ...p, t: exactly(sub(p.t, get('by'))) })
    case 'hold': {
      const rate = get('rate') as Q
      return evaluate(tree('x'), { ...p, t: over(q(floorOf(times(p.t, rate))), rate) })
    }
    case 'at':
      return evaluate(tree('x'), here(exactly(get('time'))))
    case 'average': {
      const length = num(get('over'))
      const t = toDouble(p.t)
      return integral(u => num(evaluate(tree('x'), { ...p, t: moment(u) })), t - length, t) / length
    }
    case 'remap': {
      const [x, a, b, c, d] = ['x', 'inLow', 'inHigh', 'outLow', 'outHigh'].map(n => get(n)) as [V, V, V, V, V]
      const share = div(sub(x, a), sub(b, a))
      const kept = word('limit') === 'yes' ? least(most(share, q(0)), q(1)) : share
      return add(c, mul(sub(d, c), kept))
    }
    case 'clamp':
      return least(most(get('x'), get('low')), get('high'))
    case 'wrap': {
      const [low, high] = [get('low'), get('high')]
      const size = sub(high, low)
      return add(low, mul(fractV(div(sub(get('x'), low), size)), size))
    }
    case 'mirror': {
      const [low, high] = [get('low'), get('high')]
      const size = sub(high, low)
      const r = fractV(div(sub(get('x'), low), mul(q(2), size)))
      return add(low, mul(size, less(half, r) ? sub(q(2), mul(q(2), r)) : mul(q(2), r)))
    }
    case 'mix':
      return add(get('a'), mul(sub(get('b'), get('a')), get('share')))
    case 'step':
      return less(get('x'), get('edge')) ? q(0) : q(1)
    case 'smoothstep': {
      const x = least(most(div(sub(get('x'), get('low')), sub(get('high'), get('low'))), q(0)), q(1))
      return mul(mul(x, x), sub(q(3), mul(q(2), x)))
    }
    case 'round':
      return stepped(get('x'), get('to', q(1)), x => floorV(add(x, half)))
    case 'floor':
      return stepped(get('x'), get('to', q(1)), floorV)
    case 'ceil':
      return stepped(get('x'), get('to', q(1)), x => sub(q(0), floorV(sub(q(0), x))))
    case 'fract':
      return stepped(get('x'), get('to', q(1)), fractV)
    case 'mod':
      return stepped(get('x'), get('by'), fractV)
    case 'abs': {
      const x = get('x')
      return less(x, q(0)) ? sub(q(0), x) : x
    }
    case 'sign': {
      const x = get('x')
      return less(x, q(0)) ? q(-1) : less(q(0), x) ? q(1) : q(0)
    }
    case 'min':
      return call.args.map(a => evaluate(a.of, p)).reduce(least)
    case 'max':
      return call.args.map(a => evaluate(a.of, p)).reduce(most)
    case 'pow':
      return power(get('x'), get('power'))
    case 'sin':
      return sineOf(get('x'))
    case 'cos':
      return sineOf(add(get('x'), q(1, 4)))
    case 'tan':
      return sineOf(get('x')) / sineOf(add(get('x'), q(1, 4)))
    case 'sqrt':
      return Math.sqrt(num(get('x')))
    case 'exp':
      return Math.exp(num(get('x')))
    case 'log':
      return Math.log(num(get('x')))
    case 'asin':
      return Math.asin(num(get('x'))) / (2 * Math.PI)
    case 'acos':
      return Math.acos(num(get('x'))) / (2 * Math.PI)
    case 'atan2':
      return Math.atan2(num(get('y')), num(get('x'))) / (2 * Math.PI)
    case 'hypot':
      return Math.hypot(num(get('x')), num(get('y')))
    case 'ease':
      return ease('curve', least(most(get('x'), q(0)), q(1)))
  }
  throw new Error(`no function ${call.name}`)
}

const exactly = (v: V): Q => (isQ(v) ? v : moment(num(v)))
const stepped = (x: V, to: V, f: (v: V) => V): V => mul(f(div(x, to)), to)

/** Whether a tree may change with time. */
function moves(t: Tree): boolean {
  return /"(time|frame|lapprogress|lapindex|gust|call|dot)"/.test(JSON.stringify(t))
}

function shape(name: string, at: V, duty: V): V {
  if (name === 'sine') return sineOf(at)
  if (name === 'square') return less(at, duty) ? q(1) : q(-1)
  if (name === 'saw') return sub(mul(q(2), at), q(1))
  // From the middle, going up: 0, 1 at a quarter, −1 at three quarters.
  if (less(at, q(1, 4))) return mul(q(4), at)
  return less(at, q(3, 4)) ? sub(q(2), mul(q(4), at)) : sub(mul(q(4), at), q(4))
}

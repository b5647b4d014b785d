/** A tree as text: read back, it is the same tree. Brackets are written only where they are needed. */
import { equal, toNumber, type Rational } from '../time/rational.ts'
import { spelled as written } from './words.ts'
import type { Formula, Node, NumberNode } from './tree.ts'

/** How tightly a node binds, as in the grammar; higher is tighter. */
function strength(n: Node): number {
  switch (n.type) {
    case 'on':
      return 0
    case 'if':
      return 1
    case 'unary':
      return n.op === 'not' ? 4 : 8
    case 'binary':
      return {
        or: 2,
        and: 3,
        '<': 5,
        '<=': 5,
        '>': 5,
        '>=': 5,
        '==': 5,
        '!=': 5,
        '+': 6,
        '-': 6,
        '*': 7,
        '/': 7,
        '^': 9,
      }[n.op]
    default:
      return 10
  }
}

const within = (n: Node, least: number): string => (strength(n) < least ? `(${print(n)})` : print(n))

/** The text of a node. */
export function print(n: Node): string {
  switch (n.type) {
    case 'number':
      return numberText(n)
    case 'name':
      return n.quoted ? `\`${n.name}\`` : written(n.name)
    case 'member':
      return `${within(n.of, 10)}.${written(n.name)}`
    case 'index':
      return `${within(n.of, 10)}[${print(n.at)}]`
    case 'call': {
      const args = n.args.map(a => (a.label === undefined ? '' : `${written(a.label)}: `) + print(a.value))
      if (!n.method) return `${written(n.name)}(${args.join(', ')})`
      return `${within(n.args[0]!.value, 10)}.${written(n.name)}(${args.slice(1).join(', ')})`
    }
    case 'unary':
      return n.op === 'not' ? `not ${within(n.of, 5)}` : `${n.op}${within(n.of, 9)}`
    case 'if':
      return `if ${within(n.test, 1)} then ${within(n.yes, 1)} else ${within(n.no, 1)}`
    case 'on':
      return `${within(n.of, 0)} on ${written(n.clock)}`
    case 'binary': {
      const s = strength(n)
      // A comparison takes no other; a power binds to the right and takes a sign there.
      const [left, right] = s === 5 ? [6, 6] : s === 9 ? [10, 8] : [s, s + 1]
      const bare = n.op === '/' && n.right.type === 'number' && n.right.unitFrom === n.right.from
      return bare
        ? `${within(n.left, left)}/${n.right.type === 'number' ? n.right.unit : ''}`
        : `${within(n.left, left)} ${n.op} ${within(n.right, right)}`
    }
  }
}

function numberText(n: NumberNode): string {
  if (n.unitFrom === n.from) return `1${n.unit}`
  return decimal(n.value) + n.unit
}

/** The decimal text of a fraction whose denominator divides a power of ten. */
function decimal(r: Rational): string {
  let places = 0
  let top = r.n
  for (let rest = r.d; rest > 1n && places < 400; places++) {
    top *= 10n
    const g = gcd(top, rest)
    if (g === rest) {
      top /= rest
      rest = 1n
      places++
      break
    }
    top /= g
    rest /= g
  }
  const digits = top.toString().padStart(places + 1, '0')
  const text = places === 0 ? digits : `${digits.slice(0, -places)}.${digits.slice(-places)}`
  return text.length > 24 ? String(toNumber(r)) : text
}
const gcd = (a: bigint, b: bigint): bigint => (b === 0n ? a : gcd(b, a % b))

/** A whole formula, its lets a line each. */
export const printFormula = (f: Formula): string =>
  [...f.lets.map(l => `let ${written(l.name)} = ${print(l.value)};`), print(f.body)].join('\n')

/** Whether two trees are the same but for their places. */
export function sameTree(a: Node, b: Node): boolean {
  if (a.type === 'number' && b.type === 'number') return equal(a.value, b.value) && a.unit === b.unit
  return JSON.stringify(stripped(a)) === JSON.stringify(stripped(b))
}

function stripped(n: Node): unknown {
  return JSON.parse(
    JSON.stringify(n, (key, v: unknown) => {
      if (['from', 'to', 'outer', 'nameAt', 'labelAt', 'clockAt', 'unitFrom'].includes(key)) return undefined
      return typeof v === 'bigint' ? String(v) : v
    }),
  )
}

/** Which written argument fills which parameter of a function. */
import { canonical, meant, nearest } from '../units/names.ts'
import { problem, replacing, type Problem } from './problem.ts'
import type { WordArgument } from '../functions/prepared-call.ts'
import type { Entry } from '../functions/entry.ts'
import type { Parameter } from '../functions/parameter.ts'
import { takesStrength } from '../signal/easing.ts'
import type { Arg, CallNode, Node } from './tree.ts'

export interface Filled {
  readonly parameter: Parameter
  readonly arg: Arg
  /** When the parameter takes words. */
  readonly word?: WordArgument
}

export interface Arguments {
  /** In the order they are written. */
  readonly filled: readonly Filled[]
  readonly problems: readonly Problem[]
}

/** Fills the parameters of a call; what is missing, twice or unknown comes back as problems. */
export function argumentsOf(call: CallNode, entry: Entry): Arguments {
  const problems: Problem[] = []
  const filled: Filled[] = []
  const taken = new Set<string>()
  const many = entry.variadic ? entry.parameters.at(-1)! : null
  const labelled = new Set(call.args.map(a => a.label && canonical(a.label)))
  const free = entry.parameters.filter(p => !labelled.has(canonical(p.name)))
  for (const arg of call.args) {
    let parameter: Parameter | undefined
    if (arg.label === undefined) {
      parameter = free.shift() ?? many ?? undefined
      if (!parameter) {
        const says = `${entry.name} takes ${entry.parameters.map(p => p.name).join(', ')}, so there is one argument too many.`
        problems.push(problem('argument-unknown', arg, says))
        continue
      }
    } else {
      parameter = entry.parameters.find(p => canonical(p.name) === canonical(arg.label!))
      if (!parameter) {
        const near = nearest(
          arg.label,
          entry.parameters.map(p => p.name),
        )
        const says = `${entry.name} has no argument ${arg.label}; it takes ${entry.parameters.map(p => p.name).join(', ')}.`
        problems.push(problem('argument-unknown', arg.labelAt!, says, ...near.map(n => replacing(arg.labelAt!, n))))
        continue
      }
      if (taken.has(parameter.name)) {
        problems.push(problem('argument-twice', arg, `${parameter.name} is given twice. Keep one of them.`))
        continue
      }
    }
    taken.add(parameter.name)
    if (parameter.thing || parameter.free) {
      const { value } = arg
      const place = parameter.thing === 'part' && (value.type === 'index' || value.type === 'member')
      if (value.type === 'name') filled.push({ parameter, arg, word: { name: value.name } })
      else if (place) filled.push({ parameter, arg, word: { name: '' } })
      else problems.push(problem('argument-unknown', value, `${parameter.name} is a name: ${parameter.description}.`))
    } else if (!parameter.words) filled.push({ parameter, arg })
    else {
      const word = wordIn(arg.value, parameter)
      if ('says' in word)
        problems.push(problem('argument-unknown', arg.value, word.says, ...word.near.map(n => replacing(arg.value, n))))
      else filled.push({ parameter, arg, word })
    }
  }
  for (const [a, b] of entry.alternatives ?? []) {
    const inA = a.find(n => taken.has(n))
    const inB = b.find(n => taken.has(n))
    const both = entry.together?.some(([x, y]) => (inA === x && inB === y) || (inA === y && inB === x))
    if (inA && inB && !both) {
      const second = filled.filter(f => a.includes(f.parameter.name) || b.includes(f.parameter.name)).at(-1)
      const says = `${inA} and ${inB} mean the same. Keep one of them.`
      problems.push(problem('argument-twice', second?.arg ?? call, says))
    }
  }
  for (const p of entry.parameters) {
    if (!p.required || taken.has(p.name)) continue
    const group = entry.alternatives?.find(([a, b]) => a.includes(p.name) || b.includes(p.name))
    if (group) {
      const [a, b] = group
      const own = a.includes(p.name) ? a : b
      const other = own === a ? b : a
      // The first form is the one asked for when neither is there; the second only once it is begun.
      const begun = own.some(n => taken.has(n))
      if (!begun && (own === b || other.some(n => taken.has(n)))) continue
      const optional = own.every(n => !entry.parameters.find(t => t.name === n)!.required)
      if (!begun && optional) continue
      const or = begun || other.length > 1 ? '' : ` (or ${other[0]})`
      problems.push(problem('argument-missing', call.nameAt, `${entry.name} needs ${p.name}${or}: ${p.description}.`))
      continue
    }
    problems.push(problem('argument-missing', call.nameAt, `${entry.name} needs ${p.name}: ${p.description}.`))
  }
  return { filled, problems }
}

function wordIn(node: Node, parameter: Parameter): WordArgument | { says: string; near: string[] } {
  const words = parameter.words!()
  const written = node.type === 'name' || node.type === 'call' ? node.name : null
  const name = written === null ? undefined : words.find(w => canonical(w) === canonical(written))
  if (name === undefined && parameter.easing && node.type === 'name') return { name: node.name, curve: true }
  if (name === undefined) {
    const near = written === null ? [] : nearest(written, words)
    const list = words.length <= 6 ? ` It can be ${words.join(', ')}.` : ''
    return { says: `${written ?? 'This'} isn’t a value for ${parameter.name}.${list || meant(near)}`, near }
  }
  if (node.type !== 'call') return { name }
  const only = node.args[0]?.value
  if (!takesStrength(name)) return { says: `${name} takes no strength.`, near: [name] }
  if (node.args.length !== 1 || only?.type !== 'number' || only.unit !== '') {
    return { says: `The strength of ${name} is a plain number, such as ${name}(2).`, near: [] }
  }
  return { name, strength: Number(only.value.n) / Number(only.value.d) }
}

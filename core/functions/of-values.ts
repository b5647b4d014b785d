/** How a function is evaluated whose value depends on nothing but the values of one or two arguments at the moment. */
import { pointwise, type Column } from '../columns/column.ts'
import type { Moment } from '../time/moment.ts'
import type { CallWith } from './prepared-call.ts'

interface Lanes<N extends string> {
  readonly args: Readonly<Record<N, Column>>
  readonly lanes: number
}

export const ofOne = <const N extends string>(name: N, of: (x: number) => number) => ({
  at: (call: CallWith<N>) => {
    const { [name]: x } = call.args
    return (m: Moment) => of(x.at(m))
  },
  kernel: ({ args, lanes }: Lanes<N>) => pointwise([args[name]], lanes, x => of(x)),
})

export const ofTwo = <const A extends string, const B extends string>(
  first: A,
  second: B,
  of: (a: number, b: number) => number,
) => ({
  at: (call: CallWith<A | B>) => {
    const { [first]: a, [second]: b } = call.args
    return (m: Moment) => of(a.at(m), b.at(m))
  },
  kernel: ({ args, lanes }: Lanes<A | B>) => pointwise([args[first], args[second]], lanes, (a, b) => of(a, b)),
})

/** Easings, as the manual tells them, for the trials alone. */
import { less, mul, num, power, sub, type V } from './evaluate.ts'
import { q } from './fraction.ts'

const half = q(1, 2)

export function eased(name: string, strength: number | null, x: V): V {
  if (name === 'linear') return x
  if (name === 'smooth') return mul(mul(x, x), sub(q(3), mul(q(2), x)))
  const [, family, way] = /^(.*?)(In|Out|InOut)$/i.exec(name)!
  const whole: Readonly<Record<string, number>> = { quad: 2, cubic: 3, quart: 4, quint: 5 }
  const inward = (y: V): V => {
    if (whole[family!]) return power(y, q(whole[family!]!))
    if (family === 'pow') return num(y) ** (strength ?? 2)
    if (family === 'sine') return 1 - Math.cos((num(y) * Math.PI) / 2)
    if (family === 'circ') return 1 - Math.sqrt(1 - num(y) ** 2)
    if (family === 'back') {
      const s = strength ?? 1.70158
      return num(y) ** 2 * ((s + 1) * num(y) - s)
    }
    throw new Error(`no easing ${name}`)
  }
  const outward = (y: V): V => sub(q(1), inward(sub(q(1), y)))
  if (way!.toLowerCase() === 'in') return inward(x)
  if (way!.toLowerCase() === 'out') return outward(x)
  return less(x, half) ? mul(half, inward(mul(q(2), x))) : sub(q(1), mul(half, inward(sub(q(2), mul(q(2), x)))))
}

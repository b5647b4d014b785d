/**
 * Exponential, logarithm, power and direction in plain arithmetic, so that they are the same bits in every browser: the
 * algorithms of FDLIBM (Sun Microsystems, 1993), which are published for free use with this note kept. Within an ulp of
 * the true value. Nothing here but + − × ÷ √, comparison and the two halves of a double.
 */

const double = new Float64Array(1)
const words = new Int32Array(double.buffer)
/** Which half of a double comes first in this machine's memory. */
const HIGH = (() => {
  double[0] = 1
  return words[1] === 0x3ff00000 ? 1 : 0
})()
const LOW = 1 - HIGH

function highOf(x: number): number {
  double[0] = x
  return words[HIGH]!
}
function lowOf(x: number): number {
  double[0] = x
  return words[LOW]!
}
function withHigh(x: number, high: number): number {
  double[0] = x
  words[HIGH] = high
  return double[0]
}
function withLow0(x: number): number {
  double[0] = x
  words[LOW] = 0
  return double[0]
}
function made(high: number, low: number): number {
  words[HIGH] = high
  words[LOW] = low
  return double[0]!
}

const TWO_54 = 1.8014398509481984e16
const TINY = 1e-300
const HUGE = 1e300

/** x times a power of two. */
function scaled(x: number, n: number): number {
  let high = highOf(x)
  let k = (high & 0x7ff00000) >> 20
  if (k === 0) {
    if (((high & 0x7fffffff) | lowOf(x)) === 0) return x
    x *= TWO_54
    high = highOf(x)
    k = ((high & 0x7ff00000) >> 20) - 54
    if (n < -50000) return TINY * x
  }
  if (k === 0x7ff) return x + x
  k += n
  if (k > 0x7fe) return HUGE * (x < 0 ? -HUGE : HUGE)
  if (k > 0) return withHigh(x, (high & ~0x7ff00000) | (k << 20))
  if (k <= -54) return n > 50000 ? HUGE * (x < 0 ? -HUGE : HUGE) : TINY * (x < 0 ? -TINY : TINY)
  return withHigh(x, (high & ~0x7ff00000) | ((k + 54) << 20)) * 5.551115123125783e-17
}

const LN2_HIGH = 0.6931471803691238
const LN2_LOW = 1.9082149292705877e-10

/** e to the x. */
export function exp(x: number): number {
  if (Number.isNaN(x)) return NaN
  if (x > 709.782712893384) return Infinity
  if (x < -745.1332191019411) return 0
  const size = highOf(x) & 0x7fffffff
  let [hi, lo, k] = [0, 0, 0]
  if (size > 0x3fd62e42) {
    if (size < 0x3ff0a2b2) {
      // The rounding of e itself would be one ulp off.
      if (x === 1) return Math.E
      hi = x < 0 ? x + LN2_HIGH : x - LN2_HIGH
      lo = x < 0 ? -LN2_LOW : LN2_LOW
      k = x < 0 ? -1 : 1
    } else {
      k = Math.trunc(1.4426950408889634 * x + (x < 0 ? -0.5 : 0.5))
      hi = x - k * LN2_HIGH
      lo = k * LN2_LOW
    }
    x = hi - lo
  } else if (size < 0x3e300000) return 1 + x
  const t = x * x
  const twice = k >= -1021 ? made(0x3ff00000 + (k << 20), 0) : made(0x3ff00000 + ((k + 1000) << 20), 0)
  const c =
    x -
    t *
      (0.16666666666666602 +
        t *
          (-0.0027777777777015593 +
            t * (6.613756321437934e-5 + t * (-1.6533902205465252e-6 + t * 4.1381367970572385e-8))))
  if (k === 0) return 1 - ((x * c) / (c - 2) - x)
  const y = 1 - (lo - (x * c) / (2 - c) - hi)
  if (k >= -1021) return k === 1024 ? y * 2 * 8.98846567431158e307 : y * twice
  return y * twice * 9.332636185032189e-302
}

/** The natural logarithm. */
export function log(x: number): number {
  let high = highOf(x)
  const low = lowOf(x)
  let k = 0
  if (high < 0x00100000) {
    if (((high & 0x7fffffff) | low) === 0) return -Infinity
    if (high < 0) return NaN
    k -= 54
    x *= TWO_54
    high = highOf(x)
  }
  if (high >= 0x7ff00000) return x + x
  k += (high >> 20) - 1023
  high &= 0x000fffff
  const i = (high + 0x95f64) & 0x100000
  x = withHigh(x, high | (i ^ 0x3ff00000))
  k += i >> 20
  const f = x - 1
  if ((0x000fffff & (2 + high)) < 3) {
    if (f === 0) return k === 0 ? 0 : k * LN2_HIGH + k * LN2_LOW
    const r = f * f * (0.5 - 0.3333333333333333 * f)
    return k === 0 ? f - r : k * LN2_HIGH - (r - k * LN2_LOW - f)
  }
  const s = f / (2 + f)
  const z = s * s
  const w = z * z
  const t1 = w * (0.3999999999940942 + w * (0.22222198432149784 + w * 0.15313837699209373))
  const t2 = z * (0.6666666666666735 + w * (0.2857142874366239 + w * (0.1818357216161805 + w * 0.14798198605116586)))
  const r = t2 + t1
  if (((high - 0x6147a) | (0x6b851 - high)) > 0) {
    const half = 0.5 * f * f
    return k === 0 ? f - (half - s * (half + r)) : k * LN2_HIGH - (half - (s * (half + r) + k * LN2_LOW) - f)
  }
  return k === 0 ? f - s * (f - r) : k * LN2_HIGH - (s * (f - r) - k * LN2_LOW - f)
}

const ATAN_HIGH = [0.4636476090008061, 0.7853981633974483, 0.982793723247329, 1.5707963267948966]
const ATAN_LOW = [2.2698777452961687e-17, 3.061616997868383e-17, 1.3903311031230998e-17, 6.123233995736766e-17]
const ATAN_TERMS = [
  0.3333333333333293, -0.19999999999876483, 0.14285714272503466, -0.11111110405462356, 0.09090887133436507,
  -0.0769187620504483, 0.06661073137387531, -0.058335701337905735, 0.049768779946159324, -0.036531572744216916,
  0.016285820115365782,
] as const

function atan(x: number): number {
  const high = highOf(x)
  const size = high & 0x7fffffff
  if (size >= 0x44100000) {
    if (Number.isNaN(x)) return NaN
    return high > 0 ? ATAN_HIGH[3]! + ATAN_LOW[3]! : -ATAN_HIGH[3]! - ATAN_LOW[3]!
  }
  let id = -1
  if (size < 0x3fdc0000) {
    if (size < 0x3e400000) return x
  } else {
    x = Math.abs(x)
    if (size < 0x3ff30000) {
      if (size < 0x3fe60000) {
        id = 0
        x = (2 * x - 1) / (2 + x)
      } else {
        id = 1
        x = (x - 1) / (x + 1)
      }
    } else if (size < 0x40038000) {
      id = 2
      x = (x - 1.5) / (1 + 1.5 * x)
    } else {
      id = 3
      x = -1 / x
    }
  }
  const z = x * x
  const w = z * z
  const [a0, a1, a2, a3, a4, a5, a6, a7, a8, a9, a10] = ATAN_TERMS
  const s1 = z * (a0 + w * (a2 + w * (a4 + w * (a6 + w * (a8 + w * a10)))))
  const s2 = w * (a1 + w * (a3 + w * (a5 + w * (a7 + w * a9))))
  if (id < 0) return x - x * (s1 + s2)
  const y = ATAN_HIGH[id]! - (x * (s1 + s2) - ATAN_LOW[id]! - x)
  return high < 0 ? -y : y
}

const PI_LOW = 1.2246467991473532e-16

/** The direction of a point in radians, −π … π. */
export function atan2(y: number, x: number): number {
  if (Number.isNaN(x) || Number.isNaN(y)) return NaN
  if (x === 1) return atan(y)
  const down = y < 0 || Object.is(y, -0)
  const left = x < 0 || Object.is(x, -0)
  const signed = (a: number) => (down ? -a : a)
  if (y === 0) return left ? signed(Math.PI) : y
  if (x === 0) return signed(Math.PI / 2)
  if (!Number.isFinite(x)) {
    if (!Number.isFinite(y)) return signed(left ? (3 * Math.PI) / 4 : Math.PI / 4)
    return left ? signed(Math.PI) : signed(0)
  }
  if (!Number.isFinite(y)) return signed(Math.PI / 2)
  const k = ((highOf(y) & 0x7fffffff) - (highOf(x) & 0x7fffffff)) >> 20
  if (k > 60) return signed(Math.PI / 2 + 0.5 * PI_LOW)
  const z = left && k < -60 ? 0 : atan(Math.abs(y / x))
  if (!left) return signed(z)
  return down ? z - PI_LOW - Math.PI : Math.PI - (z - PI_LOW)
}

const BP = [1, 1.5]
const DP_HIGH = [0, 0.5849624872207642]
const DP_LOW = [0, 1.350039202129749e-8]
const TWO_53 = 9007199254740992

/** base to the exponent, both plain. */
export function pow(base: number, exponent: number): number {
  if (exponent === 0) return 1
  if (Number.isNaN(base) || Number.isNaN(exponent)) return NaN
  const [x, y] = [base, exponent]
  const [hx, lx, hy, ly] = [highOf(x), lowOf(x), highOf(y), lowOf(y)]
  let ix = hx & 0x7fffffff
  const iy = hy & 0x7fffffff
  /** Of a negative base: whether the exponent is no whole number (0), odd (1) or even (2). */
  let whole = 0
  if (hx < 0) whole = !Number.isInteger(y) ? (Number.isFinite(y) ? 0 : 2) : Math.abs(y) % 2 === 1 ? 1 : 2
  if (ly === 0) {
    if (iy === 0x7ff00000) {
      if (((ix - 0x3ff00000) | lx) === 0) return NaN
      if (ix >= 0x3ff00000) return hy >= 0 ? y : 0
      return hy < 0 ? -y : 0
    }
    if (iy === 0x3ff00000) return hy < 0 ? 1 / x : x
    if (hy === 0x40000000) return x * x
    if (hy === 0x3fe00000 && hx >= 0) return Math.sqrt(x)
  }
  const size = Math.abs(x)
  if (lx === 0 && (ix === 0x7ff00000 || ix === 0 || ix === 0x3ff00000)) {
    let z = hy < 0 ? 1 / size : size
    if (hx < 0) {
      if (((ix - 0x3ff00000) | whole) === 0) z = NaN
      else if (whole === 1) z = -z
    }
    return z
  }
  const negative = hx < 0
  if (negative && whole === 0) return NaN
  const s = negative && whole === 1 ? -1 : 1
  let t1: number
  let t2: number
  if (iy > 0x41e00000) {
    if (iy > 0x43f00000) {
      if (ix <= 0x3fefffff) return hy < 0 ? Infinity : 0
      if (ix >= 0x3ff00000) return hy > 0 ? Infinity : 0
    }
    if (ix < 0x3fefffff) return hy < 0 ? s * HUGE * HUGE : s * TINY * TINY
    if (ix > 0x3ff00000) return hy > 0 ? s * HUGE * HUGE : s * TINY * TINY
    const t = size - 1
    const w = t * t * (0.5 - t * (0.3333333333333333 - t * 0.25))
    const u = 1.4426950216293335 * t
    const v = t * 1.9259629911266175e-8 - w * 1.4426950408889634
    t1 = withLow0(u + v)
    t2 = v - (t1 - u)
  } else {
    let ax = size
    let n = 0
    if (ix < 0x00100000) {
      ax *= TWO_53
      n -= 53
      ix = highOf(ax)
    }
    n += (ix >> 20) - 0x3ff
    const j = ix & 0x000fffff
    ix = j | 0x3ff00000
    let k = 0
    if (j <= 0x3988e) k = 0
    else if (j < 0xbb67a) k = 1
    else {
      n += 1
      ix -= 0x00100000
    }
    ax = withHigh(ax, ix)
    const u = ax - BP[k]!
    const v = 1 / (ax + BP[k]!)
    const ss = u * v
    const sHigh = withLow0(ss)
    let tHigh = made(((ix >> 1) | 0x20000000) + 0x00080000 + (k << 18), 0)
    let tLow = ax - (tHigh - BP[k]!)
    const sLow = v * (u - sHigh * tHigh - sHigh * tLow)
    let s2 = ss * ss
    let r =
      s2 *
      s2 *
      (0.5999999999999946 +
        s2 *
          (0.4285714285785502 +
            s2 *
              (0.33333332981837743 + s2 * (0.272728123808534 + s2 * (0.23066074577556175 + s2 * 0.20697501780033842)))))
    r += sLow * (sHigh + ss)
    s2 = sHigh * sHigh
    tHigh = withLow0(3 + s2 + r)
    tLow = r - (tHigh - 3 - s2)
    const uu = sHigh * tHigh
    const vv = sLow * tHigh + tLow * ss
    const pHigh = withLow0(uu + vv)
    const pLow = vv - (pHigh - uu)
    const zHigh = 0.9617967009544373 * pHigh
    const zLow = -7.028461650952758e-9 * pHigh + pLow * 0.9617966939259756 + DP_LOW[k]!
    t1 = withLow0(zHigh + zLow + DP_HIGH[k]! + n)
    t2 = zLow - (t1 - n - DP_HIGH[k]! - zHigh)
  }
  const y1 = withLow0(y)
  const pLow = (y - y1) * t1 + y * t2
  let pHigh = y1 * t1
  let z = pLow + pHigh
  const j = highOf(z)
  const i = lowOf(z)
  if (j >= 0x40900000) {
    if (((j - 0x40900000) | i) !== 0) return s * HUGE * HUGE
    if (pLow + 8.008566259537294e-17 > z - pHigh) return s * HUGE * HUGE
  } else if ((j & 0x7fffffff) >= 0x4090cc00) {
    if (((j - 0xc090cc00) | i) !== 0) return s * TINY * TINY
    if (pLow <= z - pHigh) return s * TINY * TINY
  }
  const near = j & 0x7fffffff
  let k = (near >> 20) - 0x3ff
  let n = 0
  if (near > 0x3fe00000) {
    n = j + (0x00100000 >> (k + 1))
    k = ((n & 0x7fffffff) >> 20) - 0x3ff
    const t = made(n & ~(0x000fffff >> k), 0)
    n = ((n & 0x000fffff) | 0x00100000) >> (20 - k)
    if (j < 0) n = -n
    pHigh -= t
  }
  const t = withLow0(pLow + pHigh)
  const u = t * 0.6931471824645996
  const v = (pLow - (t - pHigh)) * 0.6931471805599453 + t * -1.904654299957768e-9
  z = u + v
  const w = v - (z - u)
  const q = z * z
  const p =
    z -
    q *
      (0.16666666666666602 +
        q *
          (-0.0027777777777015593 +
            q * (6.613756321437934e-5 + q * (-1.6533902205465252e-6 + q * 4.1381367970572385e-8))))
  const r = (z * p) / (p - 2) - (w + z * w)
  z = 1 - (r - z)
  const top = highOf(z) + (n << 20)
  return s * (top >> 20 <= 0 ? scaled(z, n) : withHigh(z, top))
}

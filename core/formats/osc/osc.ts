/** OSC 1.0 (Open Sound Control, CNMAT 2002): messages and bundles as bytes, and back. Numbers are 32-bit floats or integers. */

export interface Message {
  readonly address: string
  readonly values: readonly (number | string)[]
}

/** 1 January 1900 to 1970, seconds: times count from there. */
const SINCE_1900 = 2_208_988_800
const LARGEST = 65_507

/** An address without the characters that mean something in patterns. */
export const isAddress = (text: string): boolean => /^(\/[^\s#*,/?[\]{}]+)+$/.test(text) && text.length <= 200

const padded = (n: number): number => n + (4 - (n % 4))

/** Text as its bytes with at least one 0 at the end, to whole fours. */
function text(s: string): Uint8Array {
  const out = new Uint8Array(padded(s.length))
  for (let k = 0; k < s.length; k++) out[k] = s.charCodeAt(k) & 0x7f
  return out
}

function joined(parts: readonly Uint8Array[]): Uint8Array {
  const out = new Uint8Array(parts.reduce((n, p) => n + p.length, 0))
  let at = 0
  for (const p of parts) {
    out.set(p, at)
    at += p.length
  }
  return out
}

export function messageBytes({ address, values }: Message): Uint8Array {
  const tags = values.map(v => (typeof v === 'string' ? 's' : 'f')).join('')
  const body = values.map(v => {
    if (typeof v === 'string') return text(v)
    const four = new Uint8Array(4)
    new DataView(four.buffer).setFloat32(0, v)
    return four
  })
  return joined([text(address), text(`,${tags}`), ...body])
}

/** Messages that belong to one moment. @param at milliseconds since 1970; at once when it is not said */
export function bundleBytes(messages: readonly Message[], at: number | null = null): Uint8Array {
  const time = new Uint8Array(8)
  const view = new DataView(time.buffer)
  if (at === null) view.setUint32(4, 1)
  else {
    const seconds = at / 1000 + SINCE_1900
    view.setUint32(0, Math.floor(seconds))
    view.setUint32(4, Math.floor((seconds % 1) * 4_294_967_296))
  }
  const parts = messages.flatMap(m => {
    const bytes = messageBytes(m)
    const size = new Uint8Array(4)
    new DataView(size.buffer).setUint32(0, bytes.length)
    return [size, bytes]
  })
  return joined([text('#bundle'), time, ...parts])
}

/** So many messages as fit into one packet each. */
export function packets(messages: readonly Message[], at: number | null = null): Uint8Array[] {
  const whole = bundleBytes(messages, at)
  if (whole.length <= LARGEST || messages.length < 2) return [whole]
  const half = messages.length >> 1
  return [...packets(messages.slice(0, half), at), ...packets(messages.slice(half), at)]
}

/** The messages in a packet; null when it is none. Bundles in bundles are taken to a depth of eight. */
export function messagesIn(bytes: Uint8Array, depth = 0): Message[] | null {
  if (bytes.length % 4 !== 0 || bytes.length < 4 || depth > 8) return null
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength)
  const string = (from: number): readonly [string, number] | null => {
    let end = from
    while (end < bytes.length && bytes[end] !== 0) end++
    if (end >= bytes.length) return null
    return [String.fromCharCode(...bytes.subarray(from, end)), from + padded(end - from)]
  }
  const head = string(0)
  if (!head) return null
  if (head[0] === '#bundle') {
    const all: Message[] = []
    for (let at = 16; at < bytes.length;) {
      if (at + 4 > bytes.length) return null
      const size = view.getUint32(at)
      if (at + 4 + size > bytes.length) return null
      const inner = messagesIn(bytes.subarray(at + 4, at + 4 + size), depth + 1)
      if (!inner) return null
      all.push(...inner)
      at += 4 + size
    }
    return all
  }
  if (!head[0].startsWith('/')) return null
  const tags = head[1] < bytes.length ? string(head[1]) : (['', head[1]] as const)
  if (!tags) return null
  const values: (number | string)[] = []
  let at = tags[1]
  for (const tag of tags[0].slice(1)) {
    if (tag === 'T' || tag === 'F') {
      values.push(tag === 'T' ? 1 : 0)
      continue
    }
    if (tag === 's') {
      const found = at < bytes.length ? string(at) : null
      if (!found) return null
      values.push(found[0])
      at = found[1]
      continue
    }
    const size = tag === 'f' || tag === 'i' ? 4 : tag === 'd' || tag === 'h' ? 8 : 0
    if (size === 0 || at + size > bytes.length) return null
    values.push(
      tag === 'f'
        ? view.getFloat32(at)
        : tag === 'i'
          ? view.getInt32(at)
          : tag === 'd'
            ? view.getFloat64(at)
            : Number(view.getBigInt64(at)),
    )
    at += size
  }
  return [{ address: head[0], values }]
}

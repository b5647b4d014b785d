/** A glTF 2.0 file in its binary form (GLB, Khronos glTF 2.0 § 4.4): lists of numbers by reference, one piece of bytes. */

import { strToU8 } from 'fflate'

/** What a list of numbers is of, with how many each entry has. */
export type AccessorType = 'SCALAR' | 'VEC2' | 'VEC3' | 'VEC4'
const WIDTH = { SCALAR: 1, VEC2: 2, VEC3: 3, VEC4: 4 } as const

const FLOAT = 5126
const UNSIGNED = 5125
/** What a view of bytes is for: corners, or triangles. */
export const CORNERS = 34962
export const TRIANGLES = 34963

export class Bytes {
  readonly accessors: object[] = []
  readonly views: object[] = []
  private readonly parts: Uint8Array[] = []
  private size = 0

  /** Bytes as they are; gives the view's number. */
  view(bytes: Uint8Array, target?: number): number {
    const rest = (4 - (bytes.length % 4)) % 4
    this.views.push({ buffer: 0, byteOffset: this.size, byteLength: bytes.length, ...(target && { target }) })
    this.parts.push(bytes, new Uint8Array(rest))
    this.size += bytes.length + rest
    return this.views.length - 1
  }

  /** A list of numbers; gives its number. @param bounds whether least and greatest are said */
  list(
    values: readonly number[],
    type: AccessorType,
    { target, bounds = false }: { target?: number; bounds?: boolean } = {},
  ): number {
    const whole = target === TRIANGLES
    const numbers = whole ? new Uint32Array(values) : new Float32Array(values)
    const width = WIDTH[type]
    const over = (pick: (...all: number[]) => number) =>
      Array.from({ length: width }, (_, c) => {
        let found = numbers[c]!
        for (let k = c; k < numbers.length; k += width) found = pick(found, numbers[k]!)
        return found
      })
    this.accessors.push({
      bufferView: this.view(new Uint8Array(numbers.buffer), target),
      componentType: whole ? UNSIGNED : FLOAT,
      count: numbers.length / width,
      type,
      ...(bounds && { min: over(Math.min), max: over(Math.max) }),
    })
    return this.accessors.length - 1
  }

  /** The whole file. @param json all of it but buffers, views and lists */
  file(json: object): Uint8Array<ArrayBuffer> {
    const all = { ...json, buffers: [{ byteLength: this.size }], bufferViews: this.views, accessors: this.accessors }
    const text = strToU8(JSON.stringify(all))
    const head = text.length + ((4 - (text.length % 4)) % 4)
    const out = new Uint8Array(28 + head + this.size)
    const view = new DataView(out.buffer)
    const put = (at: number, ...words: number[]) => words.forEach((w, k) => view.setUint32(at + 4 * k, w, true))
    put(0, 0x46546c67, 2, out.length, head, 0x4e4f534a)
    out.fill(0x20, 20, 20 + head)
    out.set(text, 20)
    put(20 + head, this.size, 0x004e4942)
    let at = 28 + head
    for (const part of this.parts) {
      out.set(part, at)
      at += part.length
    }
    return out
  }
}

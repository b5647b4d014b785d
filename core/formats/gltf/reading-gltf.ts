/** Reads a GLB by the pages of the format alone (glTF 2.0, Khronos): tests judge what is exported by it; the page never calls it. */

type Numbers = readonly number[]
interface Node {
  readonly name: string
  readonly mesh?: number
  readonly children?: readonly number[]
  readonly translation?: Numbers
  readonly rotation?: Numbers
  readonly scale?: Numbers
}

export interface Gltf {
  readonly nodes: readonly Node[]
  readonly meshes: readonly { readonly primitives: readonly { readonly attributes: { readonly POSITION: number } }[] }[]
  readonly materials: readonly { readonly alphaMode?: string; readonly extensions?: object }[]
  readonly cameras: readonly { readonly type: string }[]
  readonly images?: readonly { readonly mimeType: string }[]
  readonly animations?: readonly {
    readonly channels: readonly {
      readonly sampler: number
      readonly target: { readonly node: number; readonly path: string }
    }[]
    readonly samplers: readonly { readonly input: number; readonly output: number }[]
  }[]
  readonly accessors: readonly { readonly bufferView: number; readonly count: number; readonly type: string }[]
  readonly bufferViews: readonly { readonly byteOffset: number; readonly byteLength: number }[]
}

export interface ReadGltf {
  readonly json: Gltf
  readonly numbers: (accessor: number) => Float32Array
  /** The corners of what a node shows, three numbers each, so many seconds on, in px of the stage. */
  readonly corners: (node: number, seconds: number) => Float64Array
}

/** @throws when it is no GLB, or not as long as it says */
export function read(bytes: Uint8Array): ReadGltf {
  const view = new DataView(bytes.buffer, bytes.byteOffset)
  if (view.getUint32(0, true) !== 0x46546c67 || view.getUint32(8, true) !== bytes.length) throw new Error('No GLB.')
  const long = view.getUint32(12, true)
  const json = JSON.parse(new TextDecoder().decode(bytes.subarray(20, 20 + long))) as Gltf
  const numbers = (k: number): Float32Array => {
    const { byteOffset, byteLength } = json.bufferViews[json.accessors[k]!.bufferView]!
    return new Float32Array(bytes.slice(28 + long + byteOffset, 28 + long + byteOffset + byteLength).buffer)
  }
  /** What a node holds at a time: its track, straight from one sample to the next, else what it holds by itself. */
  function held(node: number, path: 'translation' | 'rotation' | 'scale', seconds: number, none: Numbers): Numbers {
    const { channels = [], samplers = [] } = json.animations?.[0] ?? {}
    const channel = channels.find(c => c.target.node === node && c.target.path === path)
    if (!channel) return json.nodes[node]![path] ?? none
    const [at, rows] = [numbers(samplers[channel.sampler]!.input), numbers(samplers[channel.sampler]!.output)]
    let k = 0
    while (k < at.length - 2 && at[k + 1]! <= seconds + 1e-6) k++
    const share = Math.min(1, Math.max(0, (seconds - at[k]!) / (at[k + 1]! - at[k]!)))
    const n = none.length
    return none.map((_, c) => rows[k * n + c]! * (1 - share) + rows[(k + 1) * n + c]! * share)
  }
  function standing(node: number, seconds: number, points: Float64Array): Float64Array {
    const [tx, ty, tz] = held(node, 'translation', seconds, [0, 0, 0]) as [number, number, number]
    const [sx, sy, sz] = held(node, 'scale', seconds, [1, 1, 1]) as [number, number, number]
    const turn = held(node, 'rotation', seconds, [0, 0, 0, 1])
    const size = Math.sqrt(turn.reduce((n, v) => n + v * v, 0))
    const [x, y, z, w] = turn.map(v => v / size) as [number, number, number, number]
    const out = new Float64Array(points.length)
    for (let k = 0; k < points.length; k += 3) {
      const [a, b, c] = [points[k]! * sx, points[k + 1]! * sy, points[k + 2]! * sz]
      out[k] = (1 - 2 * (y * y + z * z)) * a + 2 * (x * y - z * w) * b + 2 * (x * z + y * w) * c + tx
      out[k + 1] = 2 * (x * y + z * w) * a + (1 - 2 * (x * x + z * z)) * b + 2 * (y * z - x * w) * c + ty
      out[k + 2] = 2 * (x * z - y * w) * a + 2 * (y * z + x * w) * b + (1 - 2 * (x * x + y * y)) * c + tz
    }
    return out
  }
  function corners(node: number, seconds: number): Float64Array {
    const { mesh, children } = json.nodes[node]!
    if (mesh === undefined) return standing(node, seconds, corners(children![0]!, seconds))
    const own = Float64Array.from(numbers(json.meshes[mesh]!.primitives[0]!.attributes.POSITION))
    return standing(node, seconds, own)
  }
  return { json, numbers, corners }
}

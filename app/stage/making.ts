/** What is made on the graphics card for a context: programs, buffers, tables, and what depth is drawn on. */
import { PER_CORNER } from '~~/core/rig/stage-mesh/mesh-sheet.ts'
import { DEEP_FRAGMENT, DEEP_VERTEX, FRAGMENT, VERTEX } from './shaders.ts'

type TableName = 'rows' | 'deep' | 'waters'

export interface Made {
  readonly deep: boolean
  readonly program: WebGLProgram
  readonly array: WebGLVertexArrayObject
  readonly buffers: {
    readonly points: WebGLBuffer
    readonly tags: WebGLBuffer
    readonly heights: WebGLBuffer | null
    readonly indices: WebGLBuffer
  }
  readonly tables: Partial<Record<TableName, WebGLTexture>>
  /** Lines that the tables have room for. */
  readonly lines: Partial<Record<TableName, number>>
  /** Room for corners and indices. */
  readonly room: { corners: number; indices: number }
  readonly at: (uniform: string) => WebGLUniformLocation | null
  readonly drop: () => void
}

/** @throws with what the card says when it refuses a shader */
export function make(gl: WebGL2RenderingContext, deep: boolean): Made {
  const program = linked(gl, deep ? [DEEP_VERTEX, DEEP_FRAGMENT] : [VERTEX, FRAGMENT])
  const array = gl.createVertexArray()
  gl.bindVertexArray(array)
  const buffer = () => gl.createBuffer()
  const buffers = { points: buffer(), tags: buffer(), heights: deep ? buffer() : null, indices: buffer() }
  const reads = (name: string, size: number, stride: number, from: number): void => {
    const at = gl.getAttribLocation(program, name)
    if (at < 0) return
    gl.enableVertexAttribArray(at)
    if (name === 'tag') gl.vertexAttribIPointer(at, 1, gl.UNSIGNED_INT, 4, 0)
    else gl.vertexAttribPointer(at, size, gl.FLOAT, false, stride, from)
  }
  gl.bindBuffer(gl.ARRAY_BUFFER, buffers.points)
  for (const [k, name] of ['point', 'before', 'after'].entries()) reads(name, 2, PER_CORNER * 4, k * 8)
  gl.bindBuffer(gl.ARRAY_BUFFER, buffers.tags)
  reads('tag', 1, 4, 0)
  if (buffers.heights) {
    gl.bindBuffer(gl.ARRAY_BUFFER, buffers.heights)
    reads('height', 3, 12, 0)
  }
  gl.bindBuffer(gl.ELEMENT_ARRAY_BUFFER, buffers.indices)
  const found = new Map<string, WebGLUniformLocation | null>()
  const tables: Made['tables'] = {}
  return {
    deep,
    program,
    array,
    buffers,
    tables,
    lines: {},
    room: { corners: 0, indices: 0 },
    at: name => {
      if (!found.has(name)) found.set(name, gl.getUniformLocation(program, name))
      return found.get(name)!
    },
    drop: () => {
      gl.deleteProgram(program)
      gl.deleteVertexArray(array)
      for (const b of Object.values(buffers)) gl.deleteBuffer(b)
      for (const t of Object.values(tables)) gl.deleteTexture(t)
    },
  }
}

function linked(gl: WebGL2RenderingContext, [vertex, fragment]: readonly [string, string]): WebGLProgram {
  const program = gl.createProgram()
  for (const [kind, text] of [
    [gl.VERTEX_SHADER, vertex],
    [gl.FRAGMENT_SHADER, fragment],
  ] as const) {
    const shader = gl.createShader(kind)!
    gl.shaderSource(shader, text)
    gl.compileShader(shader)
    gl.attachShader(program, shader)
    if (!gl.getShaderParameter(shader, gl.COMPILE_STATUS) && !gl.isContextLost())
      throw new Error(gl.getShaderInfoLog(shader) ?? 'The graphics card refused a shader.')
    gl.deleteShader(shader)
  }
  gl.linkProgram(program)
  return program
}

/** A table of numbers for the card to look things up in. */
export function table(gl: WebGL2RenderingContext): WebGLTexture {
  const made = gl.createTexture()
  gl.bindTexture(gl.TEXTURE_2D, made)
  for (const side of [gl.TEXTURE_MIN_FILTER, gl.TEXTURE_MAG_FILTER]) gl.texParameteri(gl.TEXTURE_2D, side, gl.NEAREST)
  return made
}

/** A picture for the card, with smaller ones of it for when it is seen from afar. */
export function pictured(gl: WebGL2RenderingContext, picture: ImageBitmap): WebGLTexture {
  const made = gl.createTexture()
  gl.bindTexture(gl.TEXTURE_2D, made)
  gl.pixelStorei(gl.UNPACK_PREMULTIPLY_ALPHA_WEBGL, true)
  gl.texImage2D(gl.TEXTURE_2D, 0, gl.RGBA, gl.RGBA, gl.UNSIGNED_BYTE, picture)
  gl.pixelStorei(gl.UNPACK_PREMULTIPLY_ALPHA_WEBGL, false)
  gl.generateMipmap(gl.TEXTURE_2D)
  gl.texParameteri(gl.TEXTURE_2D, gl.TEXTURE_MIN_FILTER, gl.LINEAR_MIPMAP_LINEAR)
  for (const side of [gl.TEXTURE_WRAP_S, gl.TEXTURE_WRAP_T]) gl.texParameteri(gl.TEXTURE_2D, side, gl.CLAMP_TO_EDGE)
  return made
}

/** Points in a pixel at which the edges of solids are looked at. */
const SAMPLES = 4

/** What a piece in depth is drawn on: with how near each point is, and several points a pixel. */
export class Canvas {
  private readonly frame: WebGLFramebuffer
  private readonly colour: WebGLRenderbuffer
  private readonly depth: WebGLRenderbuffer
  private width = 0
  private height = 0

  constructor(private readonly gl: WebGL2RenderingContext) {
    this.frame = gl.createFramebuffer()
    this.colour = gl.createRenderbuffer()
    this.depth = gl.createRenderbuffer()
  }

  begin(width: number, height: number): void {
    const { gl } = this
    gl.bindFramebuffer(gl.FRAMEBUFFER, this.frame)
    if (width === this.width && height === this.height) return
    this.width = width
    this.height = height
    for (const [buffer, format, place] of [
      [this.colour, gl.RGBA8, gl.COLOR_ATTACHMENT0],
      [this.depth, gl.DEPTH_COMPONENT24, gl.DEPTH_ATTACHMENT],
    ] as const) {
      gl.bindRenderbuffer(gl.RENDERBUFFER, buffer)
      gl.renderbufferStorageMultisample(gl.RENDERBUFFER, SAMPLES, format, width, height)
      gl.framebufferRenderbuffer(gl.FRAMEBUFFER, place, gl.RENDERBUFFER, buffer)
    }
  }

  /** Puts what was drawn where it is seen. */
  end(): void {
    const { gl, width, height } = this
    gl.disable(gl.SCISSOR_TEST)
    gl.bindFramebuffer(gl.READ_FRAMEBUFFER, this.frame)
    gl.bindFramebuffer(gl.DRAW_FRAMEBUFFER, null)
    gl.blitFramebuffer(0, 0, width, height, 0, 0, width, height, gl.COLOR_BUFFER_BIT, gl.NEAREST)
    gl.bindFramebuffer(gl.FRAMEBUFFER, null)
  }

  drop(): void {
    const { gl } = this
    gl.deleteFramebuffer(this.frame)
    gl.deleteRenderbuffer(this.colour)
    gl.deleteRenderbuffer(this.depth)
  }
}

/**
 * The graphics card: keeps a plate's corners, takes a table of rows a frame, draws it in one call. WebGL 2 by hand, since
 * this one call is all that is asked of it. When its context is lost, everything is sent again once it is back.
 */
import { PER_CORNER } from '~~/core/rig/pen.ts'
import type { Plate, Range } from '~~/core/rig/plate.ts'
import { ROWS_ACROSS } from '~~/core/rig/rows.ts'
import type { Rgb } from '~~/core/rig/colour.ts'
import { FITTED, type Size, type View } from './view.ts'
import { FRAGMENT, TEXELS, VERTEX } from './shaders.ts'

/** What is made on the card for a context. */
interface Made {
  readonly program: WebGLProgram
  readonly array: WebGLVertexArrayObject
  readonly points: WebGLBuffer
  readonly tags: WebGLBuffer
  readonly indices: WebGLBuffer
  readonly rows: WebGLTexture
  readonly halfSeen: WebGLUniformLocation | null
  readonly centre: WebGLUniformLocation | null
  readonly pixel: WebGLUniformLocation | null
}

export class Card {
  private readonly gl: WebGL2RenderingContext
  private made: Made | null = null
  /** Room on the card for corners and indices, and lines of the table. */
  private room = { corners: 0, indices: 0, lines: 0 }
  /** Whether everything must be sent, whatever the plate says has changed. */
  private empty = true

  /**
   * @param restored called when a lost context is there again
   * @throws when the browser has no WebGL 2
   */
  constructor(
    private readonly canvas: HTMLCanvasElement | OffscreenCanvas,
    private readonly restored: () => void,
  ) {
    const gl = canvas.getContext('webgl2', {
      alpha: true,
      antialias: false,
      depth: false,
      stencil: false,
      powerPreference: 'high-performance',
    }) as WebGL2RenderingContext | null
    if (!gl) throw new Error('This browser has no WebGL 2.')
    this.gl = gl
    canvas.addEventListener('webglcontextlost', this.lost)
    canvas.addEventListener('webglcontextrestored', this.back)
    this.made = make(gl)
  }

  private readonly lost = (e: Event): void => {
    // Without this it would never come back.
    e.preventDefault()
    this.made = null
  }

  private readonly back = (): void => {
    this.made = make(this.gl)
    this.room = { corners: 0, indices: 0, lines: 0 }
    this.empty = true
    this.restored()
  }

  /**
   * @param size of the stage, in its pixels
   * @param ground red, green, blue, 0 to 1
   * @param pixel how many stage pixels a screen pixel covers
   * @param view the window of the stage that is seen; what lies beyond the stage itself stays clear of it
   */
  draw(plate: Plate, size: Size, ground: Rgb, pixel: number, view: View = FITTED): void {
    const { gl, made } = this
    if (!made) return
    const { width, height } = this.canvas
    gl.viewport(0, 0, width, height)
    gl.disable(gl.SCISSOR_TEST)
    if (view !== FITTED) {
      gl.clearColor(0, 0, 0, 0)
      gl.clear(gl.COLOR_BUFFER_BIT)
      const [left, low] = [-size.width / 2 - view.x, -size.height / 2 - view.y]
      gl.enable(gl.SCISSOR_TEST)
      gl.scissor(
        Math.round(width / 2 + left / pixel),
        Math.round(height / 2 + low / pixel),
        Math.round(size.width / pixel),
        Math.round(size.height / pixel),
      )
    }
    gl.clearColor(ground.r, ground.g, ground.b, 1)
    gl.clear(gl.COLOR_BUFFER_BIT)
    gl.bindVertexArray(made.array)
    this.sendPlate(made, plate)
    this.sendRows(made, plate)
    gl.useProgram(made.program)
    gl.uniform2f(made.halfSeen, size.width / 2 / view.zoom, size.height / 2 / view.zoom)
    gl.uniform2f(made.centre, view.x, view.y)
    gl.uniform1f(made.pixel, pixel)
    gl.enable(gl.BLEND)
    gl.blendFunc(gl.ONE, gl.ONE_MINUS_SRC_ALPHA)
    gl.drawElements(gl.TRIANGLES, plate.count, gl.UNSIGNED_INT, 0)
  }

  private sendPlate({ points, tags, indices }: Made, { pen, changed, corners, count }: Plate): void {
    const { gl, room } = this
    const all = this.empty || changed.all
    if (corners > room.corners || count > room.indices) {
      room.corners = pen.tags.length
      room.indices = pen.indices.length
      for (const [target, buffer, bytes] of [
        [gl.ARRAY_BUFFER, points, pen.points.byteLength],
        [gl.ARRAY_BUFFER, tags, pen.tags.byteLength],
        [gl.ELEMENT_ARRAY_BUFFER, indices, pen.indices.byteLength],
      ] as const) {
        gl.bindBuffer(target, buffer)
        gl.bufferData(target, bytes, gl.DYNAMIC_DRAW)
      }
    }
    const send = (target: number, buffer: WebGLBuffer, data: Float32Array | Uint32Array, each: number, of: Range[]) => {
      if (of.length > 0) gl.bindBuffer(target, buffer)
      for (const [a, b] of of) gl.bufferSubData(target, a * each * 4, data, a * each, (b - a) * each)
    }
    const [c, i]: [Range[], Range[]] = all ? [[[0, corners]], [[0, count]]] : [changed.corners, changed.indices]
    send(gl.ARRAY_BUFFER, points, pen.points, PER_CORNER, c)
    send(gl.ARRAY_BUFFER, tags, pen.tags, 1, c)
    send(gl.ELEMENT_ARRAY_BUFFER, indices, pen.indices, 1, i)
    this.empty = false
  }

  private sendRows({ rows }: Made, plate: Plate): void {
    const { gl, room } = this
    const lines = Math.max(1, Math.ceil(plate.rows.count / ROWS_ACROSS))
    const across = ROWS_ACROSS * TEXELS
    gl.activeTexture(gl.TEXTURE0)
    gl.bindTexture(gl.TEXTURE_2D, rows)
    if (lines > room.lines) {
      room.lines = lines
      gl.texImage2D(gl.TEXTURE_2D, 0, gl.RGBA32F, across, lines, 0, gl.RGBA, gl.FLOAT, null)
    }
    gl.texSubImage2D(gl.TEXTURE_2D, 0, 0, 0, across, lines, gl.RGBA, gl.FLOAT, plate.rows.data)
  }

  stop(): void {
    this.canvas.removeEventListener('webglcontextlost', this.lost)
    this.canvas.removeEventListener('webglcontextrestored', this.back)
    const { gl, made } = this
    if (!made) return
    gl.deleteProgram(made.program)
    gl.deleteVertexArray(made.array)
    for (const buffer of [made.points, made.tags, made.indices]) gl.deleteBuffer(buffer)
    gl.deleteTexture(made.rows)
  }
}

function make(gl: WebGL2RenderingContext): Made {
  const program = gl.createProgram()
  for (const [kind, text] of [
    [gl.VERTEX_SHADER, VERTEX],
    [gl.FRAGMENT_SHADER, FRAGMENT],
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
  const array = gl.createVertexArray()
  gl.bindVertexArray(array)
  const buffer = () => gl.createBuffer()
  const [points, tags, indices] = [buffer(), buffer(), buffer()]
  gl.bindBuffer(gl.ARRAY_BUFFER, points)
  for (const [k, name] of ['point', 'before', 'after'].entries()) {
    const at = gl.getAttribLocation(program, name)
    gl.enableVertexAttribArray(at)
    gl.vertexAttribPointer(at, 2, gl.FLOAT, false, PER_CORNER * 4, k * 8)
  }
  gl.bindBuffer(gl.ARRAY_BUFFER, tags)
  const tag = gl.getAttribLocation(program, 'tag')
  gl.enableVertexAttribArray(tag)
  gl.vertexAttribIPointer(tag, 1, gl.UNSIGNED_INT, 4, 0)
  gl.bindBuffer(gl.ELEMENT_ARRAY_BUFFER, indices)
  const rows = gl.createTexture()
  gl.bindTexture(gl.TEXTURE_2D, rows)
  for (const side of [gl.TEXTURE_MIN_FILTER, gl.TEXTURE_MAG_FILTER]) gl.texParameteri(gl.TEXTURE_2D, side, gl.NEAREST)
  return {
    program,
    array,
    points,
    tags,
    indices,
    rows,
    halfSeen: gl.getUniformLocation(program, 'half_seen'),
    centre: gl.getUniformLocation(program, 'centre'),
    pixel: gl.getUniformLocation(program, 'pixel'),
  }
}

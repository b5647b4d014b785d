/**
 * The graphics card: keeps a mesh's corners, takes a table of rows a frame, draws it in one call; in depth in one call
 * a sheet. WebGL 2 by hand, since this is all that is asked of it. When its context is lost, everything is sent again
 * once it is back.
 */
import { PER_DEEP, type MeshRuns } from '~~/core/rig/stage-mesh/deep.ts'
import { inDepth, lightFor, type Eye } from '~~/core/rig/depth/eye.ts'
import { PER_CORNER } from '~~/core/rig/stage-mesh/mesh-sheet.ts'
import type { StageMesh } from '~~/core/rig/stage-mesh/stage-mesh.ts'
import { tableLines, type Range } from '~~/core/rig/stage-mesh/row-ranges.ts'
import { PER_ROW, ROWS_ACROSS } from '~~/core/rig/stage-mesh/instance-table.ts'
import { WATER_ACROSS } from '~~/core/rig/stage-mesh/waters.ts'
import type { Rgb } from '~~/core/rig/colour.ts'
import { Canvas, make, pictured, table, type Made } from './making.ts'
import type { StagePicture } from './pictures.ts'
import { FITTED, type Size, type View } from './view.ts'

export type Pictures = (hash: string) => StagePicture

export class GraphicsCard {
  private readonly gl: WebGL2RenderingContext
  /** What is made on the card: for flat pieces and, once there is one, for those in depth. */
  private flat: Made | null = null
  private deep: Made | null = null
  private target: Canvas | null = null
  private lost = false
  /** Whether everything must be sent, whatever the mesh says has changed. */
  private empty = true
  private last: Made | null = null
  private readonly textures = new Map<string, WebGLTexture>()
  private shown: readonly string[] = []

  /**
   * @param restored called when a lost context is there again
   * @param pictures gives a picture by its hash, as it is known now
   * @throws when the browser has no WebGL 2
   */
  constructor(
    private readonly canvas: HTMLCanvasElement | OffscreenCanvas,
    private readonly restored: () => void,
    private readonly pictures: Pictures,
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
    canvas.addEventListener('webglcontextlost', this.gone)
    canvas.addEventListener('webglcontextrestored', this.back)
    this.flat = make(gl, false)
  }

  private readonly gone = (e: Event): void => {
    // Without this it would never come back.
    e.preventDefault()
    this.lost = true
  }

  private readonly back = (): void => {
    this.flat = make(this.gl, false)
    this.deep = this.target = null
    this.textures.clear()
    this.lost = false
    this.empty = true
    this.restored()
  }

  /**
   * @param size of the stage, in its pixels
   * @param ground red, green, blue, 0 to 1; null for none
   * @param pixel how many stage pixels a screen pixel covers
   * @param view the window of the stage that is seen; what lies beyond the stage itself stays clear of it
   */
  draw(mesh: StageMesh, size: Size, ground: Rgb | null, pixel: number, eye: Eye, view: View = FITTED): void {
    const { gl } = this
    if (this.lost) return
    const { width, height } = this.canvas
    const made = inDepth(eye) ? (this.deep ??= make(gl, true)) : this.flat!
    if (made !== this.last) this.empty = true
    this.last = made
    if (made.deep) (this.target ??= new Canvas(gl)).begin(width, height)
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
    gl.clearColor(ground?.r ?? 0, ground?.g ?? 0, ground?.b ?? 0, ground ? 1 : 0)
    gl.clear(gl.COLOR_BUFFER_BIT)
    gl.bindVertexArray(made.array)
    gl.useProgram(made.program)
    const { rows, deep } = mesh
    const lines = Math.ceil(rows.count / ROWS_ACROSS)
    const all = this.empty || mesh.changed.all
    this.sendMesh(made, mesh)
    this.send(
      made,
      'rows',
      lines,
      rows.data,
      (ROWS_ACROSS * PER_ROW) / 4,
      all ? null : tableLines(mesh.changed.rows, ROWS_ACROSS),
    )
    gl.uniform2f(made.at('half_seen'), size.width / 2 / view.zoom, size.height / 2 / view.zoom)
    gl.uniform2f(made.at('centre'), view.x, view.y)
    gl.uniform1f(made.at('pixel'), pixel)
    gl.enable(gl.BLEND)
    gl.blendFunc(gl.ONE, gl.ONE_MINUS_SRC_ALPHA)
    this.shown = mesh.pictures
    if (!made.deep || !deep) return this.drawRuns(made, mesh.runs)
    this.send(made, 'deep', Math.ceil(rows.count / ROWS_ACROSS), deep.data, (ROWS_ACROSS * PER_DEEP) / 4)
    this.send(made, 'waters', deep.waters.count, deep.waters.data, WATER_ACROSS)
    this.drawDeep(made, deep, eye)
    this.target!.end()
  }

  /** Solids first, which hide one another; sheets and what is see-through over them, the furthest first. */
  private drawDeep(made: Made, { passes, nearest, furthest }: NonNullable<StageMesh['deep']>, eye: Eye): void {
    const { gl } = this
    const near = Math.max(eye.distance * 0.01, eye.distance - nearest - 1)
    gl.uniform1f(made.at('eye'), eye.distance)
    gl.uniform1f(made.at('even'), eye.even ? 1 : 0)
    gl.uniform2f(made.at('reach'), near, Math.max(near + 1, eye.distance - furthest + 1))
    gl.uniform3f(made.at('light'), ...lightFor(eye))
    gl.enable(gl.DEPTH_TEST)
    gl.depthFunc(gl.LEQUAL)
    gl.clear(gl.DEPTH_BUFFER_BIT)
    const all = (runs: MeshRuns, least: number, hides: boolean) => {
      gl.uniform1f(made.at('least'), least)
      gl.depthMask(hides)
      this.drawRuns(made, runs)
    }
    const hide = (runs: MeshRuns, least: number) => {
      gl.colorMask(false, false, false, false)
      all(runs, least, true)
      gl.colorMask(true, true, true, true)
    }
    for (const { is, runs } of passes) {
      if (is === 'solid') all(runs, 0.5, true)
      if (is === 'veil') hide(runs, 0.002)
      if (is !== 'solid') all(runs, 0.002, false)
      // A sheet in its plane: its colours lie over one another, then it hides what is behind it.
      if (is === 'sheet') hide(runs, 0.99)
    }
    gl.depthMask(true)
    gl.disable(gl.DEPTH_TEST)
  }

  /** Stretches one after the other, each with the picture that lies on it. */
  private drawRuns(made: Made, runs: MeshRuns): void {
    const { gl } = this
    gl.uniform1i(made.at('picture'), UNIT.picture)
    for (let k = 0; k < runs.length; k += 3) {
      const picture = runs[k + 2]!
      const kind = picture < 0 ? 0 : this.bind(this.shown[picture]!)
      // What is still coming is not drawn.
      if (kind < 0) continue
      gl.uniform1f(made.at('pictured'), kind)
      gl.drawElements(gl.TRIANGLES, runs[k + 1]!, gl.UNSIGNED_INT, runs[k]! * 4)
    }
  }

  /** Makes a picture ready to be looked up: 1 when it is there, 2 when it is gone, −1 while it comes. */
  private bind(hash: string): number {
    const { gl } = this
    gl.activeTexture(gl.TEXTURE0 + UNIT.picture)
    let texture = this.textures.get(hash)
    if (!texture) {
      const found = this.pictures(hash)
      if (found === 'coming') return -1
      if (found === 'gone') return 2
      texture = pictured(gl, found)
      this.textures.set(hash, texture)
    }
    gl.bindTexture(gl.TEXTURE_2D, texture)
    return 1
  }

  private sendMesh({ buffers, room }: Made, { pen, changed, corners, count }: StageMesh): void {
    const { gl } = this
    const all = this.empty || changed.all
    const grows = corners > room.corners || count > room.indices
    if (grows) {
      room.corners = pen.tags.length
      room.indices = pen.indices.length
    }
    const [c, i]: [Range[], Range[]] = all ? [[[0, corners]], [[0, count]]] : [changed.corners, changed.indices]
    for (const [target, buffer, data, each, of] of [
      [gl.ARRAY_BUFFER, buffers.points, pen.points, PER_CORNER, c],
      [gl.ARRAY_BUFFER, buffers.tags, pen.tags, 1, c],
      [gl.ARRAY_BUFFER, buffers.heights, pen.heights, 3, c],
      [gl.ELEMENT_ARRAY_BUFFER, buffers.indices, pen.indices, 1, i],
    ] as const) {
      if (!data || !buffer || (of.length === 0 && !grows)) continue
      gl.bindBuffer(target, buffer)
      if (grows) gl.bufferData(target, data.byteLength, gl.DYNAMIC_DRAW)
      // A length of 0 would stand for all that is left.
      for (const [a, b] of of) if (b > a) gl.bufferSubData(target, a * each * 4, data, a * each, (b - a) * each)
    }
    this.empty = false
  }

  /** Sends a table of so many lines; those alone that have changed, where they are known. */
  private send(
    made: Made,
    name: 'rows' | 'deep' | 'waters',
    count: number,
    data: Float32Array,
    across: number,
    changed: readonly Range[] | null = null,
  ): void {
    const { gl } = this
    const lines = Math.max(1, count)
    gl.activeTexture(gl.TEXTURE0 + UNIT[name])
    gl.bindTexture(gl.TEXTURE_2D, (made.tables[name] ??= table(gl)))
    gl.uniform1i(made.at(name), UNIT[name])
    const grows = lines > (made.lines[name] ?? 0)
    if (grows) {
      made.lines[name] = lines
      gl.texImage2D(gl.TEXTURE_2D, 0, gl.RGBA32F, across, lines, 0, gl.RGBA, gl.FLOAT, null)
    }
    if (count === 0) return
    for (const [from, to] of grows || !changed ? ([[0, lines]] as const) : changed)
      gl.texSubImage2D(gl.TEXTURE_2D, 0, 0, from, across, to - from, gl.RGBA, gl.FLOAT, data, from * across * 4)
  }

  stop(): void {
    this.canvas.removeEventListener('webglcontextlost', this.gone)
    this.canvas.removeEventListener('webglcontextrestored', this.back)
    if (this.lost) return
    this.flat?.drop()
    this.deep?.drop()
    this.target?.drop()
    for (const t of this.textures.values()) this.gl.deleteTexture(t)
  }
}

const UNIT = { rows: 0, deep: 1, waters: 2, picture: 3 } as const

/** Draws a piece flat with three.js: one mesh of coloured triangles, one draw call, only when something changed. */
import * as THREE from 'three'
import { rgbOf } from '~~/core/rig/colour.ts'
import { Mesh } from '~~/core/rig/mesh.ts'
import { Scene } from '~~/core/rig/scene.ts'
import type { Snapshot } from '~/player/player.ts'
import type { Program } from '~~/core/engine/program.ts'

const VERTEX = /* glsl */ `
  attribute vec4 paint;
  attribute vec4 far;
  attribute float way;
  varying vec4 vPaint;
  varying vec4 vFar;
  varying float vWay;
  void main() {
    vPaint = paint;
    vFar = far;
    vWay = way;
    gl_Position = projectionMatrix * modelViewMatrix * vec4(position.xy, 0.0, 1.0);
  }`
const FRAGMENT = /* glsl */ `
  uniform float graded;
  varying vec4 vPaint;
  varying vec4 vFar;
  varying float vWay;
  void main() { gl_FragColor = graded > 0.5 ? mix(vPaint, vFar, clamp(vWay, 0.0, 1.0)) : vPaint; }`

export class StageRenderer {
  private readonly renderer: THREE.WebGLRenderer
  private readonly space = new THREE.Scene()
  private readonly camera = new THREE.OrthographicCamera()
  private readonly geometry = new THREE.BufferGeometry()
  private readonly mesh = new Mesh()
  private readonly graded = { value: 0 }
  private scene: Scene | null = null
  /** Parts that are shown; null for all. */
  only: ReadonlySet<string> | null = null
  private room = { corners: 0, indices: 0 }
  private width = 0
  private height = 0

  constructor(canvas: HTMLCanvasElement) {
    this.renderer = new THREE.WebGLRenderer({
      canvas,
      antialias: false,
      alpha: false,
      depth: false,
      stencil: false,
      powerPreference: 'high-performance',
    })
    // One mesh: there is nothing to sort.
    this.renderer.sortObjects = false
    // Colours come as they shall be seen.
    this.renderer.outputColorSpace = THREE.LinearSRGBColorSpace
    const material = new THREE.ShaderMaterial({
      uniforms: { graded: this.graded },
      vertexShader: VERTEX,
      fragmentShader: FRAGMENT,
      transparent: true,
      depthTest: false,
      depthWrite: false,
      side: THREE.DoubleSide,
    })
    const drawn = new THREE.Mesh(this.geometry, material)
    drawn.frustumCulled = false
    this.space.add(drawn)
  }

  resize(width: number, height: number): void {
    this.width = width
    this.height = height
    this.renderer.setPixelRatio(devicePixelRatio || 1)
    this.renderer.setSize(width, height, false)
  }

  /** Whether there was more than is drawn. */
  get full(): boolean {
    return this.mesh.full
  }

  /** The scene as it was last drawn. */
  current(): Scene | null {
    return this.scene
  }

  private adopt(program: Program): Scene {
    if (!this.scene?.adopt(program)) this.scene = new Scene(program)
    this.scene.only = this.only
    const { stage } = program.piece
    this.camera.left = -stage.width / 2
    this.camera.right = stage.width / 2
    this.camera.top = stage.height / 2
    this.camera.bottom = -stage.height / 2
    this.camera.near = -1
    this.camera.far = 1
    this.camera.updateProjectionMatrix()
    const { r, g, b } = rgbOf(stage.background.lightness, stage.background.chroma, stage.background.hue / 360)
    this.renderer.setClearColor(new THREE.Color().setRGB(r, g, b, THREE.LinearSRGBColorSpace), 1)
    return this.scene
  }

  draw({ program, values, moment }: Snapshot): void {
    if (this.width === 0 || this.height === 0) return
    const scene = this.adopt(program).update(values, moment)
    const ratio = devicePixelRatio || 1
    this.mesh.build(scene, program.piece.stage.width / (this.width * ratio))
    this.upload()
    this.renderer.render(this.space, this.camera)
  }

  private upload(): void {
    const { mesh, geometry } = this
    if (mesh.positions.length / 2 !== this.room.corners || mesh.indices.length !== this.room.indices) {
      this.room = { corners: mesh.positions.length / 2, indices: mesh.indices.length }
      geometry.dispose()
      geometry.setAttribute('position', new THREE.BufferAttribute(mesh.positions, 2).setUsage(THREE.DynamicDrawUsage))
      geometry.setAttribute('paint', new THREE.BufferAttribute(mesh.colours, 4).setUsage(THREE.DynamicDrawUsage))
      geometry.setAttribute('far', new THREE.BufferAttribute(mesh.fars, 4).setUsage(THREE.DynamicDrawUsage))
      geometry.setAttribute('way', new THREE.BufferAttribute(mesh.ways, 1).setUsage(THREE.DynamicDrawUsage))
      geometry.setIndex(new THREE.BufferAttribute(mesh.indices, 1).setUsage(THREE.DynamicDrawUsage))
    }
    for (const [name, size] of [
      ['position', 2],
      ['paint', 4],
      ['far', 4],
      ['way', 1],
    ] as const) {
      // What no part has is not sent.
      if (size !== 2 && name !== 'paint' && !mesh.graded) continue
      const attribute = geometry.getAttribute(name) as THREE.BufferAttribute
      attribute.clearUpdateRanges()
      attribute.addUpdateRange(0, mesh.corners * size)
      attribute.needsUpdate = true
    }
    this.graded.value = mesh.graded ? 1 : 0
    const index = geometry.getIndex()!
    index.clearUpdateRanges()
    index.addUpdateRange(0, mesh.count)
    index.needsUpdate = true
    geometry.setDrawRange(0, mesh.count)
  }

  dispose(): void {
    this.geometry.dispose()
    this.renderer.dispose()
  }
}

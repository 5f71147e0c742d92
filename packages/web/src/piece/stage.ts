/**
 * The piece in the round: one canvas that draws a scene when something has changed and at no other time. It knows nothing of React; the
 * component beside it says what to show.
 */
import type { Scene, SceneStone } from '@tessellum/core/drawing/scene'
import type { Face } from '@tessellum/core/drawing/view'
import {
  AmbientLight,
  BackSide,
  Box3,
  type BufferGeometry,
  Color,
  DirectionalLight,
  InstancedMesh,
  type Material,
  Matrix4,
  Mesh,
  MeshBasicMaterial,
  MeshPhongMaterial,
  OrthographicCamera,
  Raycaster,
  TorusGeometry,
  Vector2,
  Vector3,
  WebGLRenderer,
  Scene as World,
} from 'three'
import { OrbitControls } from 'three/addons/controls/OrbitControls.js'
import { LineMaterial } from 'three/addons/lines/LineMaterial.js'
import { LineSegments2 } from 'three/addons/lines/LineSegments2.js'
import { LineSegmentsGeometry } from 'three/addons/lines/LineSegmentsGeometry.js'
import * as inks from './inks'
import { beadBody, finenessFor, stoneBody } from './solid-shapes'
import type { BeadLook, Dress, Eye, PieceStage } from './stage-kind'

interface Role {
  readonly letter: string
  readonly beads: readonly number[]
  readonly mesh: InstancedMesh
  /** Slightly larger and seen from inside only: an outline round beads that are picked out. */
  readonly edge: InstancedMesh
}

const paper = new Color(inks.paper)
const ink = new Color(inks.ink)
const brass = new Color(inks.brass)
const { thread, way } = inks

/** Slower than this a frame, and the piece is better drawn than turned in the round. */
const slowMs = 33

export class Stage implements PieceStage {
  private readonly renderer: WebGLRenderer
  private readonly camera = new OrthographicCamera(-1, 1, 1, -1, -500, 500)
  private readonly controls: OrbitControls
  private readonly world = new World()
  private readonly sun = new DirectionalLight('#ffffff', 2.1)
  private roles: Role[] = []
  private scene: Scene | undefined
  private others: { readonly mesh: Mesh; readonly statement: number; dispose(): void }[] = []
  private lines: LineSegments2 | undefined
  private wayLines: LineSegments2 | undefined
  private readonly lineMaterial = new LineMaterial({ color: thread, linewidth: 1.4 })
  private readonly wayMaterial = new LineMaterial({ color: way, linewidth: 3, depthTest: false, transparent: true })
  private dress: Readonly<Record<string, Dress>> = {}
  private looks: (bead: number) => BeadLook = () => 'plain'
  private passes: readonly [from: number, to: number] | undefined
  private upTo = Number.POSITIVE_INFINITY
  private threadShown = true
  private wanted = 0
  private frames: number[] = []
  onSeen: (() => void) | undefined
  private span = { middle: new Vector3(), radius: 10 }

  /**
   * @param slow told once, when it turns out to be too slow here
   * @throws when the browser cannot draw in the round
   */
  constructor(
    canvas: HTMLCanvasElement,
    private readonly slow: () => void,
  ) {
    this.renderer = new WebGLRenderer({ canvas, antialias: true, alpha: true })
    this.renderer.setPixelRatio(Math.min(2, window.devicePixelRatio))
    this.world.add(new AmbientLight('#fff6e4', 1.25), this.sun, this.sun.target)
    this.controls = new OrbitControls(this.camera, canvas)
    this.controls.enableDamping = false
    this.controls.addEventListener('change', () => this.draw())
    this.face('front')
  }

  dispose(): void {
    cancelAnimationFrame(this.wanted)
    this.controls.dispose()
    this.clear()
    this.renderer.dispose()
  }

  resize(width: number, height: number): void {
    this.renderer.setSize(width, height, false)
    this.lineMaterial.resolution.set(width, height)
    this.wayMaterial.resolution.set(width, height)
    this.fit()
  }

  show(scene: Scene, dress: Readonly<Record<string, Dress>>): void {
    const first = this.scene === undefined
    this.scene = scene
    this.dress = dress
    this.build()
    if (first) this.fit()
    else this.measure()
    this.draw()
  }

  dressed(dress: Readonly<Record<string, Dress>>): void {
    this.dress = dress
    if (this.scene) this.build()
    this.draw()
  }

  /** Where everything lies now; of the scene shown. */
  move({ poses, thread }: Pick<Scene, 'poses' | 'thread'>): void {
    if (!this.scene || poses.length !== this.scene.poses.length) return
    this.scene = { ...this.scene, poses, thread }
    this.place()
    this.layThread()
    this.layWay()
    this.draw()
  }

  /** How beads are shown, which passes of the thread are picked out, and up to which line stones have been laid in. */
  look(looks: (bead: number) => BeadLook, passes?: readonly [from: number, to: number], upTo = Infinity): void {
    this.looks = looks
    this.passes = passes
    this.upTo = upTo
    this.place()
    this.layThread()
    this.layWay()
    this.draw()
  }

  withThread(shown: boolean): void {
    this.threadShown = shown
    if (this.lines) this.lines.visible = shown
    this.draw()
  }

  face(face: Face): void {
    const { middle, radius } = this.span
    const way = face === 'front' ? [0, 0, 1] : face === 'back' ? [0, 0, -1] : [1, 0, 0]
    this.camera.up.set(0, 1, 0)
    this.camera.position
      .set(...(way as [number, number, number]))
      .multiplyScalar(radius * 4)
      .add(middle)
    this.controls.target.copy(middle)
    this.controls.update()
    this.fit()
    this.draw()
  }

  leaveRoom(mm: number): void {
    if (mm === this.room) return
    this.room = mm
    this.fit()
    this.draw()
  }

  turn(right: number, up: number): void {
    const { middle } = this.span
    const away = this.camera.position.clone().sub(middle)
    const side = new Vector3().crossVectors(this.camera.up, away).normalize()
    away.applyAxisAngle(this.camera.up, right).applyAxisAngle(side, up)
    this.camera.position.copy(middle).add(away)
    this.controls.update()
    this.draw()
  }

  zoom(by: number): void {
    this.camera.zoom = Math.min(20, Math.max(0.4, this.camera.zoom * by))
    this.camera.updateProjectionMatrix()
    this.draw()
  }

  get eye(): Eye {
    const { camera, renderer } = this
    const { width, height } = renderer.getSize(new Vector2())
    camera.updateMatrixWorld()
    return {
      size: [width, height],
      scale: (width * camera.zoom) / (camera.right - camera.left),
      project: ([x, y, z]) => {
        const at = new Vector3(x, y, z).project(camera)
        return [((at.x + 1) / 2) * width, ((1 - at.y) / 2) * height]
      },
    }
  }

  /** The bead at a point of the canvas, shares of its width and height from the upper left. */
  beadAt(x: number, y: number): number | undefined {
    const ray = new Raycaster()
    ray.setFromCamera(new Vector2(2 * x - 1, 1 - 2 * y), this.camera)
    const [hit] = ray.intersectObjects(
      this.roles.map(({ mesh }) => mesh),
      false,
    )
    if (!hit || hit.instanceId === undefined) return undefined
    return this.roles.find(({ mesh }) => mesh === hit.object)?.beads[hit.instanceId]
  }

  // --- making ---------------------------------------------------------------------------------------------------

  private clear(): void {
    for (const { mesh, edge } of this.roles) {
      this.world.remove(mesh, edge)
      mesh.geometry.dispose()
      for (const each of [mesh, edge]) {
        ;(each.material as Material).dispose()
        each.dispose()
      }
    }
    for (const other of this.others) other.dispose()
    this.others = []
    this.roles = []
    for (const line of [this.lines, this.wayLines]) {
      if (!line) continue
      this.world.remove(line)
      line.geometry.dispose()
    }
    this.lines = undefined
    this.wayLines = undefined
  }

  private build(): void {
    const { scene } = this
    if (!scene) return
    this.clear()
    const byRole = new Map<string, number[]>()
    scene.beads.forEach(({ role }, bead) => {
      const known = byRole.get(role)
      if (known) known.push(bead)
      else byRole.set(role, [bead])
    })
    const fineness = finenessFor(scene.beads.length)
    for (const [letter, beads] of byRole) {
      const first = scene.beads[beads[0] as number]
      if (!first) continue
      const body = beadBody(first, fineness)
      const mesh = new InstancedMesh(body, materialFor(this.dress[letter]), beads.length)
      const edge = new InstancedMesh(body, new MeshBasicMaterial({ side: BackSide }), beads.length)
      mesh.frustumCulled = false
      edge.frustumCulled = false
      this.world.add(mesh, edge)
      this.roles.push({ letter, beads, mesh, edge })
    }
    for (const stone of scene.stones)
      this.addSolid(
        stoneBody(stone),
        this.dress.stone ?? { colour: '#c9cfc9', finish: 'glass' },
        stone.middle,
        stone.statement,
        stone,
      )
    for (const { middle, outerMm, wireMm } of scene.rings)
      this.addSolid(
        new TorusGeometry(outerMm - wireMm / 2, wireMm / 2, 10, 60),
        { colour: '#a7abab', finish: 'metallic' },
        middle,
      )
    this.place()
    this.layThread()
    this.layWay()
  }

  private addSolid(
    body: BufferGeometry,
    dress: Dress,
    [x, y, z]: readonly [number, number, number],
    statement = -1,
    turned?: Pick<SceneStone, 'right' | 'front'>,
  ): void {
    const material = materialFor(dress)
    material.color.set(dress.colour)
    const mesh = new Mesh(body, material)
    if (turned) {
      const [right, front] = [new Vector3(...turned.right), new Vector3(...turned.front)]
      mesh.setRotationFromMatrix(new Matrix4().makeBasis(right, front.clone().cross(right), front))
    }
    mesh.position.set(x, y, z)
    this.world.add(mesh)
    this.others.push({
      mesh,
      statement,
      dispose: () => {
        this.world.remove(mesh)
        body.dispose()
        material.dispose()
      },
    })
  }

  private place(): void {
    const { scene } = this
    if (!scene) return
    const matrix = new Matrix4()
    const larger = new Matrix4()
    const [middle, axis, side, thick] = [new Vector3(), new Vector3(), new Vector3(), new Vector3()]
    const none = new Matrix4().makeScale(0, 0, 0)
    const colour = new Color()
    for (const { mesh, statement } of this.others) mesh.visible = statement <= this.upTo
    for (const { letter, beads, mesh, edge } of this.roles) {
      const own = new Color(this.dress[letter]?.colour ?? '#fffdf7')
      let edges = 0
      beads.forEach((bead, i) => {
        const look = this.looks(bead)
        if (look === 'hidden') {
          mesh.setMatrixAt(i, none)
          return
        }
        middle.fromArray(scene.poses, 9 * bead)
        axis.fromArray(scene.poses, 9 * bead + 3)
        side.fromArray(scene.poses, 9 * bead + 6)
        thick.crossVectors(side, axis)
        matrix.makeBasis(side, axis, thick).setPosition(middle)
        mesh.setMatrixAt(i, matrix)
        if (look === 'new' || look === 'passed') {
          edge.setMatrixAt(edges, larger.copy(matrix).scale(thick.setScalar(look === 'new' ? 1.13 : 1.09)))
          edge.setColorAt(edges, look === 'passed' ? brass : ink)
          edges++
        }
        colour.copy(own)
        if (look === 'quiet') colour.lerp(paper, 0.72)
        if (look === 'passed') colour.lerp(paper, 0.35)
        mesh.setColorAt(i, colour)
      })
      edge.count = edges
      edge.visible = edges > 0
      for (const each of [mesh, edge]) {
        each.instanceMatrix.needsUpdate = true
        if (each.instanceColor) each.instanceColor.needsUpdate = true
        each.boundingSphere = null
      }
    }
  }

  /** Thread between beads that are there. */
  private layThread(): void {
    const { scene } = this
    if (!scene) return
    const points: number[] = []
    for (let pass = 1; pass < scene.passes.length; pass++) {
      const [before, now] = [scene.passes[pass - 1], scene.passes[pass]]
      if (!before || !now || now.begins) continue
      if (this.looks(before.bead) === 'hidden' || this.looks(now.bead) === 'hidden') continue
      for (let k = 3; k < 9; k++) points.push(scene.thread[6 * (pass - 1) + k] as number)
    }
    this.lines = this.relay(this.lines, points, this.lineMaterial)
    if (this.lines) this.lines.visible = this.threadShown
  }

  private layWay(): void {
    const { scene, passes } = this
    const points: number[] = []
    if (scene && passes) {
      for (let pass = passes[0]; pass < passes[1]; pass++) {
        if (pass > passes[0] && !scene.passes[pass]?.begins)
          for (let k = 3; k < 9; k++) points.push(scene.thread[6 * (pass - 1) + k] as number)
        for (let k = 0; k < 6; k++) points.push(scene.thread[6 * pass + k] as number)
      }
    }
    this.wayLines = this.relay(this.wayLines, points, this.wayMaterial)
    if (this.wayLines) this.wayLines.renderOrder = 2
  }

  private relay(
    lines: LineSegments2 | undefined,
    points: readonly number[],
    material: LineMaterial,
  ): LineSegments2 | undefined {
    if (lines) {
      this.world.remove(lines)
      lines.geometry.dispose()
    }
    if (points.length === 0) return undefined
    const made = new LineSegments2(new LineSegmentsGeometry().setPositions([...points]), material)
    made.frustumCulled = false
    this.world.add(made)
    return made
  }

  // --- looking --------------------------------------------------------------------------------------------------

  private measure(): void {
    const { scene } = this
    if (!scene || scene.beads.length === 0) return
    const box = new Box3()
    const point = new Vector3()
    let widest = 1
    scene.beads.forEach((bead, i) => {
      box.expandByPoint(point.fromArray(scene.poses, 9 * i))
      widest = Math.max(widest, bead.lengthMm, bead.wideMm ?? bead.acrossMm)
    })
    for (const { middle, outline } of scene.stones)
      for (const [x, y] of outline) box.expandByPoint(point.set(middle[0] + x, middle[1] + y, middle[2]))
    box.expandByScalar(widest / 2)
    const middle = box.getCenter(new Vector3())
    const size = box.getSize(new Vector3())
    this.span = { middle, radius: Math.max(2, size.length() / 2) }
    this.extent = size
  }

  private extent = new Vector3(20, 20, 5)
  private room = 0

  private fit(): void {
    this.measure()
    const { width, height } = this.renderer.getSize(new Vector2())
    const { middle, radius } = this.span
    const away = this.camera.position.clone().sub(this.controls.target)
    const sideways = Math.abs(away.x) > Math.abs(away.z)
    const across = sideways ? this.extent.z : this.extent.x
    const aspect = width / Math.max(1, height)
    // What is seen from this side fills the plate; turned, it may run over and is zoomed out by hand.
    const half = Math.max(this.extent.y / 2 + this.room, (across / 2 + this.room) / aspect, 2) * 1.08
    Object.assign(this.camera, { left: -half * aspect, right: half * aspect, top: half, bottom: -half })
    this.camera.zoom = 1
    this.controls.target.copy(middle)
    this.camera.position.copy(middle).add(away.setLength(radius * 4))
    this.camera.updateProjectionMatrix()
    this.controls.update()
  }

  private draw(): void {
    if (this.wanted) return
    this.wanted = requestAnimationFrame(() => {
      this.wanted = 0
      const from = performance.now()
      const { camera, sun, controls } = this
      const up = camera.up
      const away = camera.position.clone().sub(controls.target).normalize()
      const right = new Vector3().crossVectors(up, away).normalize()
      sun.position.copy(controls.target).addScaledVector(away, 30).addScaledVector(right, -16).addScaledVector(up, 22)
      sun.target.position.copy(controls.target)
      this.renderer.render(this.world, camera)
      this.watch(performance.now() - from)
      this.onSeen?.()
    })
  }

  /** The first frames, in which everything is made ready, do not count. */
  private watch(ms: number): void {
    this.frames.push(ms)
    if (this.frames.length < 12) return
    const lately = this.frames.splice(0).slice(4)
    if (lately.reduce((sum, each) => sum + each, 0) / lately.length > slowMs) this.slow()
  }
}

/** Shine by the finish's words. */
function materialFor(dress: Dress | undefined): MeshPhongMaterial {
  const finish = dress?.finish ?? ''
  const [shininess, shine] = /matt|frost/.test(finish)
    ? [6, '#15130f']
    : /metal|galvan|silver|gold/.test(finish)
      ? [60, '#b8b09a']
      : /lustre|pearl|glass|transparent|cut/.test(finish)
        ? [90, '#8f8f8f']
        : [34, '#4a4a46']
  return new MeshPhongMaterial({ shininess, specular: shine })
}

/** Where beads are drawn that the piece does not hold yet: on the thread from where it leaves the piece to where it comes back. */
import type { HandPass } from '@tessellum/core/hand/hand-pass'
import { beadOf, type Hole } from '@tessellum/core/stitch/hole'
import { forceCollide, forceLink, forceSimulation, type SimulationNodeDatum } from 'd3-force'

type Place = readonly [x: number, y: number]

export interface LaidBead {
  readonly bead: number
  readonly role: string
  readonly at: Place
  /** The way of its hole, radians from the right, clockwise. */
  readonly turn: number
}

export interface HandLaid {
  readonly beads: readonly LaidBead[]
  /** The thread, from place to place. */
  readonly thread: readonly Place[]
  /** Where the needle is, and which way it points. */
  readonly needle: { readonly at: Place; readonly turn: number } | undefined
}

interface Layout {
  readonly passes: readonly HandPass[]
  /** Beads of the piece. */
  readonly beads: number
  /** Where the thread comes out of the piece. */
  readonly from: Place | undefined
  /** The ends of a hole of the piece, as the needle goes in and comes out. */
  readonly ends: (h: Hole) => readonly [Place, Place]
  /** How long a new bead is drawn along its hole, pixels. */
  readonly sizeOf: (role: string) => number
  /** The middle of what is seen of the piece: new beads lie away from it. */
  readonly middle: Place
}

interface Node extends SimulationNodeDatum {
  readonly size: number
}

const steps = 140

export function layHand({ passes, beads, from, ends, sizeOf, middle }: Layout): HandLaid {
  const nodes: Node[] = []
  const ownNode = new Map<number, number>()
  /** The nodes that the thread goes through, in order. */
  const chain: number[] = []
  const roles: string[] = []
  const fixed = ([x, y]: Place) => nodes.push({ x, y, fx: x, fy: y, size: 0 }) - 1
  if (from) chain.push(fixed(from))
  let next = beads
  for (const pass of passes) {
    if (pass.type === 'pick') {
      ownNode.set(next++, nodes.length)
      roles.push(pass.role)
      chain.push(nodes.push({ size: sizeOf(pass.role) }) - 1)
    } else if (beadOf(pass.hole) >= beads) {
      const node = ownNode.get(beadOf(pass.hole))
      if (node !== undefined) chain.push(node)
    } else for (const end of ends(pass.hole)) chain.push(fixed(end))
  }
  begin(nodes, chain, middle)
  const links = chain.slice(1).flatMap((to, i) => {
    const source = chain[i] as number
    if (source === to || (nodes[source]?.fx !== undefined && nodes[to]?.fx !== undefined)) return []
    return [{ source, target: to, length: ((nodes[source]?.size ?? 0) + (nodes[to]?.size ?? 0)) / 2 + 1 }]
  })
  const simulation = forceSimulation(nodes)
    .force(
      'thread',
      forceLink(links)
        .distance(({ length }) => length)
        .strength(0.9)
        .iterations(3),
    )
    .force('contact', forceCollide<Node>(({ size }) => size * 0.46).iterations(2))
    .stop()
  simulation.tick(steps)
  const placeOf = (node: number): Place => [nodes[node]?.x ?? 0, nodes[node]?.y ?? 0]
  const thread = chain.map(placeOf)
  const laid = [...ownNode].map(([bead, node], i): LaidBead => {
    const at = chain.indexOf(node)
    const [a, b] = [thread[Math.max(0, at - 1)] as Place, thread[Math.min(thread.length - 1, at + 1)] as Place]
    return { bead, role: roles[i] as string, at: placeOf(node), turn: Math.atan2(b[1] - a[1], b[0] - a[0]) }
  })
  const [last, before] = [thread.at(-1), thread.at(-2)]
  return {
    beads: laid,
    thread,
    needle: last && {
      at: last,
      turn: before ? Math.atan2(last[1] - before[1], last[0] - before[0]) : away(last, middle),
    },
  }
}

const away = (place: Place, middle: Place) => Math.atan2(place[1] - middle[1], place[0] - middle[0])

/** Beads between two places of the piece begin on an arc between them, bulging away from its middle; those at the end hang outward. */
function begin(nodes: Node[], chain: readonly number[], middle: Place): void {
  const placed = (node: number | undefined) => node !== undefined && nodes[node]?.x !== undefined
  for (let at = 0; at < chain.length; ) {
    if (placed(chain[at])) {
      at++
      continue
    }
    let to = at
    while (to < chain.length && !placed(chain[to])) to++
    const run = [...new Set(chain.slice(at, to))]
    const before = nodes[chain[at - 1] ?? -1]
    const after = nodes[chain[to] ?? -1]
    const length = run.reduce((sum, node) => sum + (nodes[node]?.size ?? 0), 0)
    const start: Place = before ? [before.x ?? 0, before.y ?? 0] : [middle[0] - length / 2, middle[1]]
    const outward = before ? away(start, middle) : 0
    const [ux, uy] = before || after ? [Math.cos(outward), Math.sin(outward)] : [1, 0]
    let gone = 0
    for (const node of run) {
      const own = nodes[node] as Node
      gone += own.size / 2
      if (after) {
        const share = gone / Math.max(1, length)
        const bulge = Math.sin(Math.PI * share) * Math.max(6, length / 3)
        own.x = start[0] + ((after.x ?? 0) - start[0]) * share + ux * bulge
        own.y = start[1] + ((after.y ?? 0) - start[1]) * share + uy * bulge
      } else {
        // Slightly bent, so that a strand that closes on itself knows which way to open.
        own.x = start[0] + ux * gone - uy * (gone * gone) * 0.0006
        own.y = start[1] + uy * gone + ux * (gone * gone) * 0.0006
      }
      gone += own.size / 2
    }
    at = to
  }
}

import { sceneOf } from '../src/drawing/scene'
import { viewOf } from '../src/drawing/view'
import { reckonPattern } from '../src/report/reckon-pattern'
import { usualThreadSettings } from '../src/thread/settings'
import { writePattern } from '../src/writing/write-pattern'
import { demo, demoNames, head, reckon } from './support'

const edition = { version: 1, colourway: undefined, settings: usualThreadSettings, bill: [] }
const written = (source: string, more = {}) => writePattern(reckon(source), { ...edition, ...more })
const texts = (source: string, more = {}) =>
  written(source, more).parts.flatMap((part) => part.steps.map((step) => step.text))

describe('sentences', () => {
  test('a ring, a round, a decrease and a loop', () => {
    expect(texts(`${head}ring (3A B) x 4\nround C x3, -\nloop 2C as bail\nreinforce 2`)).toEqual([
      'String 16 beads: pick up 3 A and 1 B, 4 times. Pass through all of them again to close the ring.',
      'Front round 1: pick up 1 C in each of the next 3 stitches, then pass through the next bead that stands up without picking up any (a decrease); twice round, 8 stitches in all. Step up through the first bead added. 6 beads or groups now stand up.',
      'Pick up 2 C and pass again, the same way, through the C the needle came out of, to make a loop. This is the bail.',
      'Pass through the beads of that loop twice more, without picking up any, and pull up firmly but never force the needle.',
    ])
  })

  test('the shop closes and ends in its own way, and its dangers come with it', () => {
    const settings = { ...usualThreadSettings, closing: 'stop bead' as const, ending: 'melt' as const }
    const page = written(`${head}ring 6A\nfinish`, { settings })
    expect(page.parts[0]?.steps[0]?.text).toContain('stop bead')
    expect(page.tools).toContain('a thread burner')
    expect(page.cautions.join(' ')).toContain('hair, fabric and children')
    expect(written(`${head}ring 6A\nfinish`).cautions.join(' ')).not.toContain('burner')
  })

  test('a pattern with a fault is a draft, whatever its version', () => {
    expect(written(`${head}ring 6A`).draft).toBe(false)
    expect(written(`${head}ring 6A\nrnig`)).toMatchObject({ draft: true, edition: 'Draft' })
  })
})

describe.each(demoNames)('%s', (name) => {
  const sizes = reckon(demo(name)).sizes

  test.each(sizes)('in %s: the counts told are those of the report, and they add up', (size) => {
    const report = reckon(demo(name), { size })
    const page = writePattern(report, edition)
    const told = page.parts.flatMap((part) => part.steps).filter((step) => step.added)
    const sum: Record<string, number> = {}
    for (const { added, running } of told) {
      for (const [, count, role] of added.matchAll(/(\d+) ([A-Z])/g))
        sum[role as string] = (sum[role as string] ?? 0) + Number(count)
      expect(running).toBe(
        Object.entries(sum)
          .map(([role, count]) => `${count} ${role}`)
          .join(', '),
      )
    }
    expect(sum).toEqual(Object.fromEntries(report.beads.map((bead) => [bead.role, bead.each])))
  })

  test.each(sizes)('in %s: every bead is drawn once, in the box, and the ring lies on the stone’s edge', (size) => {
    const reckoned = reckonPattern(demo(name), { size })
    const scene = sceneOf(reckoned)
    expect(scene.beads).toHaveLength(reckoned.work.beads)
    for (const face of ['front', 'back'] as const) {
      const { shapes, box } = viewOf(scene, face)
      const beads = shapes.flatMap((shape) => (shape.type === 'bead' ? [shape] : []))
      expect(new Set(beads.map((shape) => shape.bead)).size).toBe(reckoned.work.beads)
      const [left, top, width, height] = box
      for (const { cx, cy } of beads) {
        expect(cx).toBeGreaterThan(left)
        expect(cx).toBeLessThan(left + width)
        expect(cy).toBeGreaterThan(top)
        expect(cy).toBeLessThan(top + height)
      }
    }
    // The first loop hangs above everything else.
    const top = scene.beads.reduce((a, b) => (b.y > a.y ? b : a))
    expect(reckoned.work.seat(top.bead).base).toBeGreaterThanOrEqual(0)
  })
})

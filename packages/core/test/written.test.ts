import { sceneOf } from '../src/drawing/scene'
import { faces, viewOf } from '../src/drawing/view'
import { beginForm, type Form } from '../src/form/form'
import { formedPattern } from '../src/form/form-pattern'
import { reckonPattern } from '../src/report/reckon-pattern'
import { usualThreadSettings } from '../src/thread/settings'
import { toHtml } from '../src/writing/html'
import { toMarkdown } from '../src/writing/markdown'
import { plainEdition, writePattern } from '../src/writing/write-pattern'
import { allDemos, demo, head, reckon } from './support'

const edition = { ...plainEdition(usualThreadSettings), version: 1 }
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
    const page = writePattern(reckon(`${head}ring 6A\nfinish`, { settings }), { ...edition, settings })
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

describe.each(allDemos)('%s', (name) => {
  const sizes = reckon(demo(name)).sizes.length > 0 ? reckon(demo(name)).sizes : ['']

  test.each(sizes)('in size "%s": the counts told are those of the report, and they add up', (size) => {
    const report = reckon(demo(name), size ? { size } : {})
    const page = writePattern(report, edition)
    const told = page.parts.flatMap((part) => part.steps).filter((step) => step.added)
    const sum: Record<string, number> = {}
    for (const { added, running } of told) {
      for (const [, count, role] of added.matchAll(/(\d+) ([A-Z])/g)) {
        sum[role as string] = (sum[role as string] ?? 0) + Number(count)
      }
      if (running === '') continue
      expect(running).toBe(
        Object.entries(sum)
          .map(([role, count]) => `${count} ${role}`)
          .join(', '),
      )
    }
    expect(sum).toEqual(Object.fromEntries(report.beads.map((bead) => [bead.role, bead.each])))
    for (const form of [toMarkdown(page), toHtml(page)]) {
      for (const bead of report.beads) expect(form).toContain(`${bead.each} ${bead.role}`)
    }
  })

  test.each(sizes)(
    'in size "%s": every bead is drawn once and in the box, from the front and from the back',
    (size) => {
      const reckoned = reckonPattern(demo(name), size ? { size } : {})
      const scene = sceneOf(reckoned, beginForm(reckoned))
      expect(scene.beads).toHaveLength(reckoned.work.beads)
      for (const face of faces) {
        const { shapes, box } = viewOf(scene, { face })
        const beads = shapes.flatMap((shape) => (shape.type === 'bead' ? [shape] : []))
        expect(new Set(beads.map((shape) => shape.bead)).size).toBe(reckoned.work.beads)
        const [left, top, width, height] = box
        const outside = beads.filter(({ cx, cy }) => !(cx > left && cx < left + width && cy > top && cy < top + height))
        expect(outside).toEqual([])
      }
    },
  )
})

test.each(['windlass-pendant', 'heron-earrings', 'sluicegate-pendant'])(
  '%s hangs by its loop: nothing is drawn above it',
  (name) => {
    const { reckoned, form } = formedPattern(demo(name))
    const { poses } = sceneOf(reckoned, form as Form)
    const height = (bead: number) => poses[9 * bead + 1] as number
    const top = Array.from({ length: reckoned.work.beads }, (_, bead) => bead).reduce((a, b) =>
      height(b) > height(a) ? b : a,
    )
    expect(reckoned.work.seat(top).course).toBe(-1)
  },
)

test('a repeat is told once, with how many steps it holds and how often; turns that differ are told one by one', () => {
  const page = written(`${head}ring 6A\nrepeat 3\nround B\nround C\nend`)
  expect(page.parts[0]?.steps.slice(1).map(({ text, added, running }) => [text.slice(0, 57), added, running])).toEqual([
    ['Do the next 2 steps, one after the other, 3 times in all.', '', ''],
    ['Front round: pick up 1 B and pass through the next bead t', '9 B', ''],
    ['Front round: pick up 1 C and pass through the next bead t', '9 C', '6 A, 9 B, 9 C'],
  ])
  expect(texts(`${head}ring 6A\nfor k in 1 to 2\nloop k B\nend`).slice(1)).toEqual([
    'Do the next step twice in all.',
    expect.stringMatching(/^Turn 1: Pick up 1 B .* Turn 2: Pick up 2 B /),
  ])
})

test('places, turns of unlike length, and more turns than are told are all said', () => {
  const repeats = (source: string) => texts(`${head}ring 6A as base\n${source}`).slice(1)
  expect(repeats('at each A in base\nloop 2B\nend')[0]).toBe(
    'Do the next step, at each of 6 places, weaving from one to the next by the shortest way.',
  )
  expect(repeats('for k in 1 to 2\nrepeat k\nloop 2B\nend\nend')[1]).toBe(
    'Do the next step once in turn 1, twice in turn 2.',
  )
  const many = repeats('for k in 1 to 70\nloop k B\nend')[1]
  expect(many).toContain('Turn 60: Pick up 60 B')
  expect(many).toMatch(/And so on, as the numbers go: 70 turns in all\.$/)
})

test('no name breaks the page it is written on', () => {
  const page = written('pattern <b>Lock & key</b> | *Ünïcode* ποτάμι\nbead A cylinder 11/0 "<script>"\npart p\nring 6A')
  expect(toHtml(page)).toContain('&lt;b&gt;Lock &amp; key&lt;/b&gt;')
  expect(toHtml(page)).not.toContain('<script>')
  expect(toMarkdown(page)).toContain('\\<b\\>Lock & key\\</b\\> \\| \\*Ünïcode\\* ποτάμι')
})

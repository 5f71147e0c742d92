import { nominalBead } from '../src/catalogue/nominal-beads'
import { difference } from '../src/colour/difference'
import type { RoleColour } from '../src/colour/judgement'
import { paletteOf } from '../src/colour/palette'
import { formedPattern } from '../src/form/form-pattern'
import { soundForm } from '../src/report/form-report'
import { type ColourSource, type ProposalQuestion, proposeColourways } from '../src/substitute/propose'
import type { Candidate } from '../src/substitute/substitutes'
import { demo } from './support'

const { report } = formedPattern(demo('sluicegate-pendant')).evaluated
const dress: Readonly<Record<string, string>> = { A: '#2e5e4e', B: '#c9a24a', C: '#e9e1cf', D: '#7a8f86' }
const roles: RoleColour[] = report.beads
  .filter(({ total }) => total > 0)
  .map(({ role, label, kind, size, total }, i) => ({
    role,
    itemId: i,
    label,
    shape: `${kind} ${size}`,
    colourName: role,
    colour: dress[role] as string,
    finish: 'opaque',
    count: total,
  }))

/** Colours from all over, the same each time: `n` of every kind and size in the pattern. */
const shelf = (n: number, freeMg: number): Candidate[] =>
  report.beads.flatMap(({ kind, size }, k) => {
    const bead = nominalBead(kind, size) as NonNullable<ReturnType<typeof nominalBead>>
    return Array.from({ length: n }, (_, i) => {
      const id = 1000 * (k + 1) + i
      const colour = `#${((i * 2654435761 + k * 97) >>> 8).toString(16).padStart(6, '0').slice(-6)}`
      return { id, colour, finish: 'opaque', bead, kit: { id, unit: 'mg', massMg: bead.massMg, bead }, free: freeMg }
    })
  })
const candidates = shelf(400, 50_000)
const colourOf = new Map(candidates.map(({ id, colour }) => [id, colour]))

function ask(from: ColourSource, more: Partial<ProposalQuestion> = {}) {
  const question = {
    report,
    roles,
    kit: {},
    free: {},
    touching: soundForm(report)?.touching ?? [],
    thread: undefined,
    candidates,
  }
  const steps = proposeColourways({ ...question, kits: 10, from, ...more })
  const done: number[] = []
  for (;;) {
    const { value, done: ended } = steps.next()
    if (ended) return { done, proposals: value }
    done.push(value)
  }
}

test('no more kits are promised than what stays allows', () => {
  const stones = { S: { id: 9, unit: 'piece' as const } }
  const { proposals } = ask({ type: 'shelf' }, { kit: stones, free: { 9: 24 } })
  expect(proposals.length).toBeGreaterThan(0)
  for (const { kits } of proposals) expect(kits).toBeLessThanOrEqual(24)
  expect(Math.max(...ask({ type: 'shelf' }).proposals.map(({ kits }) => kits))).toBeGreaterThan(24)
})

test('proposals from the shelf fill the kits, look unlike each other, and never confuse neighbours', () => {
  const { done, proposals } = ask({ type: 'shelf' })
  expect(proposals).toHaveLength(8)
  expect(done.at(-1)).toBe(1)
  expect([...done].sort((a, b) => a - b)).toEqual(done)
  const shapes = new Map(roles.map(({ role, shape }) => [role, shape]))
  for (const { items, kits, contrastsOff } of proposals) {
    expect(Object.keys(items).sort()).toEqual(roles.map(({ role }) => role).sort())
    expect(kits).toBeGreaterThanOrEqual(10)
    expect(contrastsOff).toBeLessThan(12)
    for (const { roles: pair } of soundForm(report)?.touching ?? []) {
      const [a, b] = pair
      if (a === b || shapes.get(a) !== shapes.get(b)) continue
      expect(
        difference(colourOf.get(items[a] as number) as string, colourOf.get(items[b] as number) as string),
      ).toBeGreaterThanOrEqual(10)
    }
  }
})

test('a seed colour becomes one of the letters, the chief one in the first proposals', () => {
  const chief = [...roles].sort((a, b) => b.count - a.count)[0]?.role as string
  const { proposals } = ask({ type: 'seed', colour: '#7a2e5c' })
  const nearness = proposals.map(({ items }) =>
    Math.min(...Object.values(items).map((id) => difference('#7a2e5c', colourOf.get(id) as string))),
  )
  expect(Math.max(...nearness)).toBeLessThan(16)
  expect(
    proposals.some(({ items }) => difference('#7a2e5c', colourOf.get(items[chief] as number) as string) < 10),
  ).toBe(true)
})

test('a palette is what every letter is near to', () => {
  const colours = ['#203a5c', '#d9c7a0', '#8a3b2a']
  const { proposals } = ask({ type: 'palette', colours })
  expect(proposals.length).toBeGreaterThan(0)
  expect(proposals[0]?.away).toBeLessThan(10)
})

test('a shelf that cannot fill the kits is said, with the letter', () => {
  expect(() => ask({ type: 'shelf' }, { candidates: shelf(20, 100) })).toThrow(
    /Nothing on the shelf fills 10 kits of A/,
  )
  expect(() => ask({ type: 'shelf' }, { roles: [] })).toThrow(/Give the letters of this colourway beads first/)
})

test("a picture's palette: the colours it is made of and how much of it each is", () => {
  const parts = [
    [46, 94, 78, 600],
    [201, 162, 74, 300],
    [233, 225, 207, 100],
  ] as const
  const pixels = parts.flatMap(([r, g, b, n]) => Array.from({ length: n }, (_, i) => [r + (i % 3), g, b, 255]).flat())
  const palette = paletteOf(new Uint8ClampedArray([...pixels, ...new Array(400).fill(0)]), 3)
  expect(palette.map(({ share }) => share.toFixed(6))).toEqual(['0.600000', '0.300000', '0.100000'])
  for (const [i, [r, g, b]] of parts.entries())
    expect(difference(palette[i]?.colour as string, `rgb(${r + 1}, ${g}, ${b})`)).toBeLessThan(1)
  expect(() => paletteOf(new Uint8ClampedArray(400))).toThrow(/every part of it is clear/)
})

import { nominalBead } from '../src/catalogue/nominal-beads'
import { makersTable } from '../src/substitute/makers'
import { type Candidate, substitutesFor } from '../src/substitute/substitutes'
import { demo } from './support'

const bead = (kind: string, size: string, more = {}) => ({
  ...(nominalBead(kind, size) as NonNullable<ReturnType<typeof nominalBead>>),
  ...more,
})
const grams = (figure: number) => figure * 1000
const candidate = (
  id: number,
  colour: string,
  free: number,
  of = bead('cylinder', '11/0'),
  finish = 'opaque',
): Candidate => ({
  id,
  colour,
  finish,
  bead: of,
  kit: { id, unit: 'mg', massMg: of.massMg, bead: of },
  free,
})

const green = candidate(1, '#2e5e4e', grams(2))
const longer = bead('cylinder', '11/0', { lengthMm: 1.4, acrossMm: 1.65, maker: 'Tollhouse Beads' })
const shelf = [
  green,
  candidate(2, '#2f6152', grams(40)),
  candidate(3, '#9d3b2c', grams(40)),
  candidate(4, '#2e5e4f', grams(40), longer),
  candidate(5, '#2e5e4e', grams(40), bead('round', '15/0')),
  candidate(6, '#a37b33', grams(40)),
  candidate(7, '#2e5e4e', grams(40), bead('round', '6/0')),
  candidate(8, '#2f6152', grams(1)),
]
const question = {
  source: demo('windlass-pendant'),
  choices: { size: 'classic', beads: { A: green.bead } },
  role: 'A',
  now: green,
  candidates: shelf,
  kit: {},
  colours: { B: '#a37b32', C: '#a37b32' },
  touching: [
    { roles: ['A', 'B'] as const, places: 55 },
    { roles: ['A', 'C'] as const, places: 175 },
  ],
  kits: 20,
}

const found = substitutesFor(question)
const of = (id: number) => found.find((each) => each.id === id)

test('the same kind and size in a near colour, enough of it, comes first; what is there already and what could not stand in are left out', () => {
  expect(found[0]?.id).toBe(2)
  expect(of(1)).toBeUndefined()
  expect(of(7)).toBeUndefined()
})

test("another maker's longer bead changes counts: every line that does is shown with both numbers", () => {
  // 18 mm: 56.55 + 2.59 = 59.14 mm, / 1.4 = 42.2; in fours 40 or 44: 44 is +4.2 %, 40 -5.3 %, so 44 stay, loose.
  expect(of(4)?.consequence.fits[0]).toMatchObject({ stone: 'S', verdict: 'loose' })
  const petite = substitutesFor({ ...question, choices: { ...question.choices, size: 'petite' } }).find(
    ({ id }) => id === 4,
  )
  // 14 mm: 43.98 + 2.59 = 46.57 mm, / 1.4 = 33.3: 32 for 36, so 24 + 8 for 27 + 9, and 16 a round for 18.
  expect(petite?.consequence.counts).toEqual([
    { role: 'A', before: 63, after: 56 },
    { role: 'B', before: 9, after: 8 },
    { role: 'C', before: 81, after: 73 },
  ])
  expect(petite?.consequence.lines[0]).toMatchObject({ line: 15, before: { A: 27, B: 9 }, after: { A: 24, B: 8 } })
})

test('kits rescued are those that the bead there now cannot fill', () => {
  // 77 and 8 spare of 5.2 mg: 0.5 g a kit; 2 g fill 4 of the 20.
  expect(of(2)).toMatchObject({ kits: 80, rescued: 16 })
  expect(of(8)).toMatchObject({ kits: 2, rescued: 0 })
})

test('a colour that would be taken for its neighbour comes behind one that is told apart, however near', () => {
  expect(of(6)?.nearest).toMatchObject({ verdict: 'confuses' })
  expect(found.findIndex(({ id }) => id === 3)).toBeLessThan(found.findIndex(({ id }) => id === 6))
})

test('a shelf of five thousand is worked through by its figures, not bead by bead', () => {
  const many = Array.from({ length: 5000 }, (_, i) =>
    candidate(
      100 + i,
      `#${(i * 3001).toString(16).padStart(6, '0').slice(-6)}`,
      grams(30),
      i % 2 ? green.bead : longer,
    ),
  )
  const best = substitutesFor({ ...question, candidates: many })
  expect(best).toHaveLength(24)
  expect(best.every(({ kits }) => kits >= 20)).toBe(true)
})

test('a letter that is no bead is refused', () => {
  expect(() => substitutesFor({ ...question, role: 'S' })).toThrow('S is no bead of this pattern.')
})

test("the makers' table has each other maker of each bead once, with what changes", () => {
  const records = [
    { ...green.bead, maker: 'Brackwater Glass' },
    longer,
    { ...longer },
    bead('round', '15/0', { lengthMm: 1.05, maker: 'Tollhouse Beads' }),
    bead('round', '8/0', { maker: 'Tollhouse Beads' }),
  ]
  const beads = { A: { ...green.bead, maker: 'Brackwater Glass' }, B: { ...green.bead, maker: 'Brackwater Glass' } }
  const rows = makersTable(demo('windlass-pendant'), { size: 'petite', beads }, records)
  expect(rows.map(({ role, bead }) => `${role} ${bead.size} ${bead.maker}`)).toEqual([
    'A 11/0 Tollhouse Beads',
    'B 11/0 Tollhouse Beads',
    'C 15/0 Tollhouse Beads',
  ])
  expect(rows[0]?.consequence.counts[0]).toEqual({ role: 'A', before: 63, after: 56 })
  // The ring is sized by A: another maker's B leaves it alone.
  expect(rows[1]?.consequence.counts).toEqual([])
})

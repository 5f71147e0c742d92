/** Patterns nobody had in mind: lines over all words of the notation, of which those are kept that can be worked. */
import fc from 'fast-check'
import { evaluatePattern } from '../../src/evaluate/evaluate-pattern'

const head = [
  'pattern Trial',
  'bead A round 11/0',
  'bead B round 8/0',
  'bead C round 15/0',
  'bead T twin tile 5 x 5 x 1.9 mm',
  'thread braid 6 lb, single, needle 12',
  'part trial',
]

const count = (min: number, max: number) => fc.integer({ min, max })
const letter = fc.constantFrom('A', 'B', 'C')
const run = fc
  .array(fc.tuple(count(1, 3), letter), { minLength: 1, maxLength: 3 })
  .map((runs) => runs.map(([n, role]) => `${n}${role}`).join(' '))
const name = fc.constantFrom('wall', 'arm2')
const named = fc
  .tuple(fc.option(name, { nil: undefined, freq: 2 }), fc.constantFrom('', '', ', all'))
  .map(([each, all]) => (each ? ` as ${each}${all}` : ''))
const nth = fc.oneof(
  count(1, 3).map((n) => `[-${n}]`),
  fc.tuple(count(1, 9), count(1, 9)).map(([from, to]) => `[${from}..${to}]`),
  count(20, 40).map((n) => `[${n}]`),
  count(1, 6).map((n) => `[${n}]`),
  fc.constantFrom('.first', '.middle', '.last'),
)
const place = fc.oneof(
  fc.tuple(name, nth).map(([of, at]) => of + at),
  fc.tuple(name, letter, nth).map(([of, role, at]) => `${of}.${role}${at}`),
  fc.tuple(letter, count(1, 9)).map(([role, n]) => `${role}[${n}]`),
  fc.tuple(name, nth).map(([of, at]) => `${of}.prev${at}`),
  count(1, 3).map((n) => `new[${n}]`),
  fc.constantFrom('front[1]', 'back.first'),
)
const all = fc.oneof(
  name.map((of) => `first half of ${of}`),
  name.map((of) => `second half of ${of}`),
  fc.tuple(letter, name).map(([role, of]) => `${role} in ${of}`),
  fc.constantFrom('A in front', 'B in front', 'front', 'wall', 'arm2'),
)
const moves = fc
  .tuple(
    run,
    fc.array(
      fc.oneof(
        place.map((at) => `>${at}`),
        run,
        count(1, 2).map((n) => `<${n}`),
        fc.constantFrom('<A', '<2C'),
      ),
      { maxLength: 3 },
    ),
  )
  .map(([first, rest]) => [first, ...rest].join(' '))

const stitch = fc.oneof(
  { weight: 6, arbitrary: run },
  { weight: 1, arbitrary: fc.constant('-') },
  { weight: 1, arbitrary: fc.tuple(letter, run).map(([role, rest]) => `${role}^ ${rest}`) },
  { weight: 1, arbitrary: moves },
  { weight: 1, arbitrary: run.map((each) => `${each} over 2`) },
)
const into = fc.oneof(
  { weight: 8, arbitrary: fc.constant('') },
  { weight: 2, arbitrary: fc.constant(' into every bead') },
  { weight: 1, arbitrary: count(1, 9).map((n) => ` into ${n} beads`) },
  { weight: 1, arbitrary: fc.tuple(count(1, 9), name).map(([n, of]) => ` into ${n} beads of ${of}`) },
  { weight: 2, arbitrary: count(2, 5).map((n) => ` into every ${n}${n === 2 ? 'nd' : n === 3 ? 'rd' : 'th'} bead`) },
  { weight: 1, arbitrary: name.map((of) => ` into every bead of ${of}`) },
  { weight: 1, arbitrary: fc.tuple(count(2, 4), name).map(([n, of]) => ` into every ${n}th bead of ${of}`) },
  { weight: 2, arbitrary: fc.constant(' into middles') },
  { weight: 1, arbitrary: name.map((of) => ` into middles of ${of}`) },
  { weight: 1, arbitrary: count(1, 4).map((n) => ` into ${n}th of each`) },
  { weight: 1, arbitrary: letter.map((role) => ` into ${role}`) },
  { weight: 1, arbitrary: fc.constant(' into holes 2') },
  { weight: 1, arbitrary: fc.tuple(place, place).map(([a, b]) => ` into ${a}, ${b}`) },
  { weight: 1, arbitrary: name.map((of) => ` into ${of}[2..7]`) },
)
const list = fc.oneof(
  { weight: 3, arbitrary: run },
  {
    weight: 2,
    arbitrary: fc
      .array(fc.tuple(stitch, count(1, 3)), { minLength: 1, maxLength: 3 })
      .map((each) => each.map(([one, n]) => (n > 1 ? `${one} x${n}` : one)).join(', ')),
  },
)
const round = fc
  .tuple(list, into, named, fc.constantFrom('', '', '', ' no step'))
  .map(([...parts]) => `round ${parts.join('')}`)

const line = fc.oneof(
  { weight: 10, arbitrary: round },
  { weight: 3, arbitrary: fc.tuple(list, named).map(([each, as]) => `row ${each}${as}`) },
  {
    weight: 2,
    arbitrary: fc
      .tuple(run, fc.constantFrom('', ' over 2', ' back'), named)
      .map(([each, how, as]) => `loop ${each}${how}${as}`),
  },
  { weight: 3, arbitrary: fc.tuple(moves, named).map(([each, as]) => `pick ${each}${as}`) },
  { weight: 5, arbitrary: fc.tuple(fc.constantFrom('', '<', '>'), place).map(([way, at]) => `through ${way}${at}`) },
  { weight: 1, arbitrary: fc.tuple(name, count(1, 3)).map(([of, n]) => `through ${of} next ${n}`) },
  {
    weight: 2,
    arbitrary: fc
      .oneof(
        place,
        letter.map((role) => `any ${role}`),
      )
      .map((at) => `to ${at}`),
  },
  {
    weight: 1,
    arbitrary: fc.constantFrom(
      'other edge',
      'reinforce',
      'reinforce 2',
      'again',
      'go 2',
      'go back 1',
      'turn',
      'turn over',
      'under thread',
      'new thread',
      'new thread from tail',
    ),
  },
  {
    weight: 1,
    arbitrary: fc
      .tuple(run, fc.constantFrom('', ' end C', ' end 3C', ' keep 1'))
      .map(([each, how]) => `fringe ${each}${how}`),
  },
  { weight: 1, arbitrary: fc.tuple(run, all).map(([each, at]) => `fringe ${each} end C into ${at}`) },
  { weight: 1, arbitrary: fc.tuple(run, all).map(([each, at]) => `fringe ${each} end C between 2B into ${at}`) },
  { weight: 1, arbitrary: fc.tuple(run, named).map(([each, as]) => `square ${each}${as}`) },
  {
    weight: 1,
    arbitrary: fc
      .tuple(place, fc.constantFrom('', ' with A', ' with A, B', ' with 2A B'))
      .map(([at, how]) => `join to ${at}${how}`),
  },
  {
    weight: 2,
    arbitrary: fc
      .tuple(name, fc.oneof(all, fc.constantFrom('wall.T:2', 'wall:2', 'T', 'wall[2..5], arm2', 'edge, wall.first')))
      .map(([as, at]) => `rail ${as} = ${at}`),
  },
  {
    weight: 1,
    arbitrary: fc
      .tuple(count(1, 6), fc.constantFrom('3A', 'A B C', '2A B', '3B', '3A twice', 'A B C twice'), named)
      .map(([n, each, as]) => `weave ${n} units of ${each}${as}`),
  },
)

const block = fc.oneof(
  { weight: 8, arbitrary: line },
  {
    weight: 1,
    arbitrary: fc
      .tuple(count(2, 4), fc.array(line, { minLength: 1, maxLength: 3 }))
      .map(([n, body]) => [`repeat ${n}`, ...body, 'end'].join('\n')),
  },
  // The needle turns round, and rounds go on the way it faces.
  {
    weight: 1,
    arbitrary: fc
      .tuple(
        run,
        place,
        fc.oneof(
          place,
          letter.map((role) => `any ${role}`),
        ),
        list,
      )
      .map(([picked, back, to, each]) => `pick ${picked}\nthrough <${back}\nto ${to}\nround ${each}`),
  },
  {
    weight: 1,
    arbitrary: fc
      .tuple(
        fc.oneof(
          fc.tuple(run, place).map(([picked, at]) => `pick ${picked} >${at}`),
          run.map((each) => `loop ${each} back`),
          place.map((at) => `join to ${at} with A`),
          count(1, 4).map((n) => `go ${n}`),
        ),
        list,
      )
      .map(([before, each]) => `${before}\nround ${each}`),
  },
  // Worked by hand, line by line.
  {
    weight: 2,
    arbitrary: fc
      .tuple(
        fc.constantFrom(
          'loop 3A',
          'pick 2B\nagain',
          'through wall next 2\nloop 2C',
          'pick A\nloop B\npick C',
          'fringe 2A',
        ),
        count(2, 5),
      )
      .map(([lines, times]) => Array<string>(times).fill(lines).join('\n')),
  },
  {
    weight: 2,
    arbitrary: fc
      .tuple(
        fc.constantFrom(
          'loop NA',
          'through wall[N]',
          'pick B\nthrough wall[N]',
          'through >A[N]\nloop 2B NC\nfringe 2A',
          'go 2\npick NB',
        ),
        count(3, 9),
        count(1, 4),
        count(0, 3),
      )
      .map(([lines, times, from, step]) =>
        Array.from({ length: times }, (_, i) => lines.replaceAll('N', String(from + i * step))).join('\n'),
      ),
  },
  {
    weight: 2,
    arbitrary: fc
      .tuple(
        fc.constantFrom(
          'for X in B, C, B',
          'at each B in wall for X in A, C',
          'at each A for X in B, C',
          'at each wall for k in 2, 3',
        ),
        fc.constantFrom('loop 2X', 'pick X A', 'fringe A X', 'round X', 'loop 3C\npick X'),
      )
      .map(([head, line]) => `${head}\n${head.includes(' k ') ? 'loop k C' : line}\nend`),
  },
  {
    weight: 1,
    arbitrary: fc
      .tuple(
        count(1, 3),
        count(1, 4),
        fc.constantFrom(
          'round k A',
          'pick k B',
          'loop k C',
          'round A, B^ k C',
          'row k A',
          'fringe k A end B',
          'let m = k + 1\nround m B into every bead',
        ),
      )
      .map(([from, to, body]) => `for k in ${from} to ${to}\n${body}\nend`),
  },
  {
    weight: 1,
    arbitrary: fc
      .tuple(all, fc.array(line, { minLength: 1, maxLength: 2 }))
      .map(([at, body]) => [`at each ${at}`, ...body, 'end'].join('\n')),
  },
  {
    weight: 1,
    arbitrary: fc.constantFrom(
      'finish\npart second',
      'part third',
      'part fourth x 2',
      'finish\npart fifth x 3',
      'use motif',
      'repeat 2\nuse motif\nend',
      'use twice',
    ),
  },
  {
    weight: 1,
    arbitrary: fc.constantFrom(
      'round B\nother edge\nround C',
      'other edge\nround A',
      'to any T\nturn\nrail edge = T:2\nround C',
    ),
  },
)

const first = fc.oneof(
  { weight: 6, arbitrary: fc.tuple(count(3, 10), run, named).map(([n, each, as]) => `ring (${each}) x ${n}${as}`) },
  { weight: 2, arbitrary: fc.tuple(count(3, 24), named).map(([n, as]) => `ring ${n}A${as}`) },
  {
    weight: 1,
    arbitrary: fc.tuple(count(2, 9), run).map(([n, each]) => `ring ${2 * n + 3}A\nround A x${n}, ${each} over 2`),
  },
  { weight: 3, arbitrary: fc.tuple(count(2, 16), named).map(([n, as]) => `string ${n}A${as}`) },
  { weight: 1, arbitrary: fc.tuple(count(1, 6), named).map(([n, as]) => `weave ${n} units of 3A${as}`) },
  { weight: 1, arbitrary: fc.tuple(count(6, 14), named).map(([n, as]) => `stand A round 8 mm x ${n}${as}`) },
  { weight: 1, arbitrary: fc.tuple(count(3, 6), named).map(([n, as]) => `ring (T 2B) x ${n}${as}`) },
)

const errors = (text: string) => evaluatePattern(text).report.diagnostics.some(({ severity }) => severity === 'error')

/** Parts that others use, below everything. */
const used = [
  ['motif', 'part motif\npick 2B as arm\nloop C\n'],
  ['twice', 'part twice x 2\nloop 2A\nfor k in 0 to 1\nrepeat k\npick C\nend\nloop B\nend\n'],
] as const
const withUsed = (text: string) =>
  `${text}\n${used.map(([part, lines]) => (text.includes(`use ${part}`) ? lines : '')).join('')}`

/** What of these lines can be worked, one after the other. */
export const randomPattern: fc.Arbitrary<string> = fc
  .tuple(first, fc.array(block, { maxLength: 12 }))
  .map(([begun, blocks]) => {
    let text = [...head, begun].join('\n')
    for (const each of blocks) {
      const longer = `${text}\n${each}`
      if (!errors(withUsed(longer)) && evaluatePattern(withUsed(longer)).work.passes < 2000) text = longer
    }
    return withUsed(text)
  })

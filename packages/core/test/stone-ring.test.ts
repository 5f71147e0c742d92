import { formedPattern } from '../src/form/form-pattern'
import { soundForm } from '../src/report/form-report'
import { errorsIn, evaluate } from './support'

const head = `pattern Trial
bead A cylinder 11/0
bead C round 15/0
bead T twin oval 2.5 x 5 mm
bead B round 11/0
stone S round 14 mm, height 5 mm
stone P round 8 mm, height 4 mm
`
/** Which line's ring each stone lies in. */
function heldBy(text: string): Record<string, number | undefined> {
  const { evaluated, form } = formedPattern(head + text)
  expect(errorsIn(evaluated.report)).toEqual([])
  return Object.fromEntries(
    (form?.seats ?? []).map(({ stone, first }) => {
      const bead = form?.piece.rodOf.findIndex(
        (rod, k, all) => 2 * rod <= (first[0] as number) && (first[0] as number) < 2 * (all[k + 1] as number),
      )
      return [stone, evaluated.report.statements[evaluated.work.statementOfBead(bead as number)]?.line]
    }),
  )
}

test.each([
  ['the ring in hand', 'part p\nring 36A\nround A\nplace S', { S: 9 }],
  ['in a later part', 'part p\nring 36A\nround A\npart q\nplace S', { S: 9 }],
  [
    'of two rings the one that fits, where none is in hand',
    'part p\nring 14A\npart q\nring 36A\npart r\nplace S',
    { S: 11 },
  ],
  ['a ring by its name', 'part p\nring 36A as wall\npart q\nring 34A\nplace S in wall', { S: 9 }],
  ['each stone in a ring of its own', 'part p\nring 36A\nplace S\npart q\nring 20A\nplace P', { S: 9, P: 12 }],
  [
    'a round within a larger ring, where that fits and the ring does not',
    'part p\nring 54A\nround C into every 2nd bead\nplace P',
    { P: 10 },
  ],
])('a stone lies in %s', (_, text, held) => expect(heldBy(text)).toEqual(held))

test('a stone lies in a rail that was gathered by hand, its second holes toward the stone, and is held there', () => {
  const { evaluated, form } = formedPattern(
    `${head}part frame\nring (B T) x 16 as frame\nto any T\nturn\nrail seat = frame.T:2\nround 3C\nplace S`,
  )
  expect(errorsIn(evaluated.report)).toEqual([])
  expect(form?.seats).toHaveLength(1)
  expect(soundForm(evaluated.report)).toBeDefined()
})

test.each([
  ['part p\nstring 12A\nplace S', /no ring yet for S/],
  [
    'part p\nring 34A as one\npart q\nring 36A as two\npart r\nplace S',
    /one.*ring of 34 of line 9.*two.*ring of 36 of line 11/,
  ],
  ['part p\nring 36A\nplace S\npart q\nplace P', /holds a stone already/],
])('where no ring can be told, it is said which there are: %j', (text, message) => {
  const [fault] = errorsIn(evaluate(head + text))
  expect(fault?.message).toMatch(message)
  expect(fault?.mend).toMatch(/ring 36A/)
})

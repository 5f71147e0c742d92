import { difference, differenceOfLab, lightness } from '../src/colour/difference'
import { judge, type RoleColour, threadsFor } from '../src/colour/judgement'
import { asSeen } from '../src/colour/seen'
import { formedPattern } from '../src/form/form-pattern'
import { soundForm } from '../src/report/form-report'
import { demo } from './support'

/** Published pairs for CIEDE2000, chosen to try every branch of it: L, a, b; L, a, b; difference. */
test.each([
  [50, 2.6772, -79.7751, 50, 0, -82.7485, 2.0425],
  [50, 3.1571, -77.2803, 50, 0, -82.7485, 2.8615],
  [50, 2.8361, -74.02, 50, 0, -82.7485, 3.4412],
  [50, -1.3802, -84.2814, 50, 0, -82.7485, 1.0],
  [50, -1.1848, -84.8006, 50, 0, -82.7485, 1.0],
  [50, 0, 0, 50, -1, 2, 2.3669],
  [50, 2.49, -0.001, 50, -2.49, 0.0009, 7.1792],
  [60.2574, -34.0099, 36.2677, 60.4626, -34.1751, 39.4387, 1.2644],
  [63.0109, -31.0961, -5.8663, 62.8187, -29.7946, -4.0864, 1.263],
  [22.7233, 20.0904, -46.694, 23.0331, 14.973, -42.5619, 2.0373],
  [2.0776, 0.0795, -1.135, 0.9033, -0.0636, -0.5514, 0.9082],
])('L %d a %d b %d against %d %d %d', (l1, a1, b1, l2, a2, b2, expected) => {
  expect(differenceOfLab([l1, a1, b1], [l2, a2, b2])).toBeCloseTo(expected, 4)
})

test('the same colour differs by nothing; black and white by a hundred; what is no colour is refused', () => {
  expect(difference('#2e5e4e', '#2e5e4e')).toBe(0)
  expect(difference('#000000', '#ffffff')).toBeCloseTo(100, 1)
  expect(lightness('#ffffff')).toBeCloseTo(100, 3)
  expect(() => difference('greenish', '#000000')).toThrow('"greenish" is not a colour.')
})

/** Worked by the book: light first, the matrix over it, then back to the screen. */
function byTheBook(hex: string, rows: readonly (readonly number[])[]): string {
  const screen = [1, 3, 5].map((at) => Number.parseInt(hex.slice(at, at + 2), 16) / 255)
  const light = screen.map((v) => (v <= 0.04045 ? v / 12.92 : ((v + 0.055) / 1.055) ** 2.4))
  const seen = rows.map((row) => row.reduce((sum, by, i) => sum + by * (light[i] as number), 0))
  const back = seen.map((v) => Math.min(1, Math.max(0, v <= 0.0031308 ? 12.92 * v : 1.055 * v ** (1 / 2.4) - 0.055)))
  return `#${back
    .map((v) =>
      Math.round(v * 255)
        .toString(16)
        .padStart(2, '0'),
    )
    .join('')}`
}

test('another eye is simulated in linear light', () => {
  // Machado, Oliveira and Fernandes (2009), severity 1: who sees no green.
  const noGreen = [
    [0.367322, 0.860646, -0.227968],
    [0.280085, 0.672501, 0.047413],
    [-0.01182, 0.04294, 0.968881],
  ]
  for (const colour of ['#a03020', '#2e8b57', '#3366cc', '#c9a24a', '#101010', '#f8f4e8'])
    expect(difference(asSeen(colour, 'green-blind', 'daylight'), byTheBook(colour, noGreen))).toBeLessThan(0.6)
})

test('by warm light whites turn yellow and blues dull; the eye that sees no red takes red and olive for each other', () => {
  expect(asSeen('#ffffff', 'usual', 'warm light')).toMatch(/^#ff[ef]/)
  const [red, olive] = ['#a03020', '#5a5620']
  expect(difference(asSeen(red, 'red-blind', 'daylight'), asSeen(olive, 'red-blind', 'daylight'))).toBeLessThan(
    difference(red, olive) / 2,
  )
  expect(asSeen('#123456', 'usual', 'daylight')).toBe('#123456')
  // Weak eyes stand between the usual and those that see none of it, for every colour.
  for (const lacking of ['red', 'green', 'blue'] as const)
    for (const colour of [red, olive, '#2e8b57', '#3366cc', '#c9a24a']) {
      const [weak, blind] = [
        asSeen(colour, `${lacking}-weak`, 'daylight'),
        asSeen(colour, `${lacking}-blind`, 'daylight'),
      ]
      expect(difference(colour, weak)).toBeLessThan(difference(colour, blind) + 0.5)
    }
})

const role = (letter: string, colour: string, more: Partial<RoleColour> = {}): RoleColour => ({
  role: letter,
  itemId: letter.charCodeAt(0),
  label: '',
  shape: 'cylinder 11/0',
  colourName: letter,
  colour,
  finish: 'opaque',
  count: 10,
  ...more,
})

describe('judging a colourway', () => {
  const touching = [
    { roles: ['A', 'B'] as const, places: 40 },
    { roles: ['B', 'C'] as const, places: 12 },
    { roles: ['A', 'A'] as const, places: 80 },
  ]

  test('neighbours that confuse come first; what does not touch is not judged', () => {
    const { neighbours } = judge(
      [role('A', '#2e5e4e'), role('B', '#2c5b4e'), role('C', '#f0ead8')],
      touching,
      undefined,
    )
    expect(neighbours.map(({ roles, verdict }) => [roles.join(''), verdict])).toEqual([
      ['AB', 'confuses'],
      ['BC', 'accent'],
    ])
  })

  test('of other kinds or sizes they are told apart by that, and come after', () => {
    const { neighbours } = judge(
      [
        role('A', '#2e5e4e'),
        role('B', '#2c5b4e', { shape: 'round 15/0' }),
        role('C', '#f0ead8', { shape: 'round 15/0' }),
      ],
      touching,
      undefined,
    )
    expect(neighbours.map(({ roles, alike }) => [roles.join(''), alike])).toEqual([
      ['BC', true],
      ['AB', false],
    ])
  })

  test('roles that share an item are one heap with their counts added', () => {
    const shared = { itemId: 7, colourName: 'Lantern green' }
    const { merged, neighbours } = judge(
      [role('A', '#2e5e4e', shared), role('B', '#2e5e4e', { ...shared, count: 5 })],
      touching,
      undefined,
    )
    expect(merged).toEqual([{ roles: ['A', 'B'], colourName: 'Lantern green', count: 15 }])
    expect(neighbours).toEqual([])
  })

  test('a ramp that its labels put in order must run light to dark', () => {
    const shades = (pale: string, deep: string) =>
      judge([role('B', pale, { label: 'pale' }), role('D', deep, { label: 'deep rose' })], [], undefined).ramps[0]
    expect(shades('#f0c0c0', '#802040')).toMatchObject({ roles: ['B', 'D'], runs: true })
    expect(shades('#802040', '#f0c0c0')?.runs).toBe(false)
  })

  test('a dark thread shows through clear beads, and a thread that does not is proposed', () => {
    const clear = role('A', '#dfe8ea', { finish: 'transparent lustre' })
    expect(judge([clear], [], '#20262e').showing.map(({ role }) => role)).toEqual(['A'])
    expect(judge([clear], [], '#e2e6e6').showing).toEqual([])
    const [best] = threadsFor([clear], [{ colour: '#20262e' }, { colour: '#e2e6e6' }])
    expect(best?.thread.colour).toBe('#e2e6e6')
  })
})

test('neighbours are those that touch in the piece: the edges of the Windlass never meet its other edge, its frame meets both', () => {
  const touching = soundForm(formedPattern(demo('windlass-pendant')).evaluated.report)?.touching ?? []
  const pairs = touching.map(({ roles }) => roles.join(''))
  expect(pairs).toEqual(expect.arrayContaining(['AA', 'AB', 'AC', 'CC']))
  expect(touching.every(({ places }) => places > 0)).toBe(true)
})

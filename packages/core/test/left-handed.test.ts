import { mirroredScene } from '../src/drawing/mirror'
import { sceneOf } from '../src/drawing/scene'
import { viewOf } from '../src/drawing/view'
import { formedPattern } from '../src/form/form-pattern'
import { usualThreadSettings } from '../src/thread/settings'
import { languages } from '../src/writing/languages'
import { plainEdition, writePattern } from '../src/writing/write-pattern'
import { demo, evaluate } from './support'

/** Stones with a face, two-hole beads, drops, wire rings. */
const pieces = ['heron-earrings', 'weir-rosette', 'lockgate-cuff', 'bullseye-pendant']

describe.each(pieces)('%s for a left-handed stitcher', (name) => {
  const { evaluated, form } = formedPattern(demo(name), {})
  const scene = sceneOf(evaluated, form as NonNullable<typeof form>)
  const mirror = mirroredScene(scene)

  test('is the mirror image: what was to the left lies to the right, as high and as far in front', () => {
    for (const face of ['front', 'back', 'side'] as const) {
      const [own, other] = [viewOf(scene, { face }), viewOf(mirror, { face })]
      // Seen from the side, left and right are near and far.
      const flip = face === 'side' ? 1 : -1
      const middles = (view: typeof own, times: number) =>
        view.shapes
          .flatMap((shape) =>
            shape.type === 'bead' ? [`${(times * shape.cx).toFixed(2)} ${shape.cy.toFixed(2)}`] : [],
          )
          .map((each) => each.replace(/-0\.00/g, '0.00'))
          .sort()
      expect(middles(other, 1)).toEqual(middles(own, flip))
      const [x, y, width, height] = own.box
      const [left, top, across, down] = other.box
      expect([left, top, across, down].map((each) => Math.round(each * 50))).toEqual(
        [face === 'side' ? x : -x - width, y, width, height].map((each) => Math.round(each * 50)),
      )
    }
  })

  test('is itself again when it is mirrored twice', () => {
    expect(mirroredScene(mirror)).toEqual(scene)
  })
})

describe('what a person has written', () => {
  test.each([
    ['en', 'Fold the left edge over, to your right.', 'Fold the right edge over, to your left.'],
    [
      'en',
      'Leave the tail that is left over; a right angle stays.',
      'Leave the tail that is left over; a right angle stays.',
    ],
    ['en', 'Left-hand thread first, clockwise.', 'Right-hand thread first, anticlockwise.'],
    ['en', 'The leftmost bead is right.', 'The rightmost bead is right.'],
    ['en', 'Right-angle units: pull right away.', 'Right-angle units: pull right away.'],
    [
      'de',
      'Die linke Kante nach rechts legen, im Uhrzeigersinn.',
      'Die rechte Kante nach links legen, gegen den Uhrzeigersinn.',
    ],
    ['de', 'Im rechten Winkel, recht fest.', 'Im rechten Winkel, recht fest.'],
    ['fr', 'De la main gauche, vers le bord droit.', 'De la main droite, vers le bord gauche.'],
    [
      'fr',
      "Les perles gauches, dans le sens des aiguilles d'une montre.",
      "Les perles droites, dans le sens inverse des aiguilles d'une montre.",
    ],
    ['fr', 'Un angle droit, tout droit.', 'Un angle droit, tout droit.'],
    ['nl', 'De linkerrand naar rechts, met de klok mee.', 'De rechterrand naar links, tegen de klok in.'],
    ['nl', 'Een rechte hoek, recht naar boven.', 'Een rechte hoek, recht naar boven.'],
  ] as const)('%s: %s', (code, text, other) => {
    expect(languages[code].otherHand(text)).toBe(other)
    expect(languages[code].otherHand(other)).toBe(text)
  })

  test('is exchanged in checks and own words, and the edition says whom it is for', () => {
    const report = evaluate(
      'pattern T\nbead A cylinder 11/0\npart p\nring 12A\nround A\ncheck "The left edge curls."\n',
    )
    const words = [
      { language: 'en', part: 'p', text: 'round A', nth: 1, instead: '', also: 'Hold the left side.' },
    ] as const
    const written = writePattern(report, { ...plainEdition(usualThreadSettings), words, hand: 'left' })
    const steps = written.parts.flatMap((part) => part.steps)
    expect(steps.map(({ also }) => also)).toContain('Hold the right side.')
    expect(steps.at(-1)?.text).toBe('The right edge curls.')
    expect(written.facts).toContain('for left-handed stitchers')
  })
})

import type { Bead } from '../src/catalogue/bead'
import { nominalBead } from '../src/catalogue/nominal-beads'
import { sceneOf } from '../src/drawing/scene'
import { allStepForms } from '../src/drawing/step-views'
import { faces, viewOf } from '../src/drawing/view'
import { evaluatePattern } from '../src/evaluate/evaluate-pattern'
import { beginForm, type Form } from '../src/form/form'
import { formedPattern } from '../src/form/form-pattern'
import { looksAfter } from '../src/form/looks'
import { sayFeet } from '../src/measure/units'
import type { Consequence } from '../src/substitute/consequence'
import type { MakerRow } from '../src/substitute/makers'
import { correctionFrom, spreadOf } from '../src/thread/sampled'
import { usualThreadSettings } from '../src/thread/settings'
import { checkEdition } from '../src/writing/check'
import { type Gathered, writeEdition } from '../src/writing/edition'
import { toHtml } from '../src/writing/html'
import { languageCodes } from '../src/writing/language'
import { languages } from '../src/writing/languages'
import { toMarkdown } from '../src/writing/markdown'
import { wordsAside } from '../src/writing/step-words'
import { changesIn } from '../src/writing/turns'
import { plainEdition, stepKeys, writePattern } from '../src/writing/write-pattern'
import type { WrittenPattern as Written } from '../src/writing/written-pattern'
import { disagreements } from './read-back'
import { allDemos, demo, evaluate, head } from './support'

const edition = { ...plainEdition(usualThreadSettings), version: 1 }
const written = (source: string, more = {}) => writePattern(evaluate(source), { ...edition, ...more })
const texts = (source: string, more = {}) =>
  written(source, more).parts.flatMap((part) => part.steps.map((step) => step.text))

describe('sentences', () => {
  test('a ring, a round, a decrease and a loop', () => {
    expect(texts(`${head}ring (3A B) x 4\nround C x3, -\nloop 2C as bail\nreinforce 2`)).toEqual([
      'String 16 beads: pick up 3 A and 1 B, 4 times. Pass through all of them again to close the ring.',
      'Front round 1: 3 stitches with 1 C each, then 1 decrease; twice, 8 stitches in all. At the end of each stitch, skip one bead and pass through the next. Step up through the first bead added. 6 beads or groups now stand up.',
      'Pick up 2 C and pass again, the same way, through the C the needle came out of, to make a loop. This is the bail.',
      'Pass through the beads of that loop twice more, without picking up any, and pull up firmly but never force the needle.',
    ])
  })

  test('every pass is told: with its place, its letter, its hole and its way', () => {
    const told = `${head}bead T twin oval 2.5 x 5 mm
ring (A T) x 8 as low
pick 2A C >low[3] C <2A as hook
through low[4], <low.last
through low[2]:2
for k in 1 to 3
through low[4*k + 1]
end
to hook.first`
    expect(
      texts(told.replace('part trial\nbead T', 'bead T').replace('mm\nring', 'mm\npart trial\nring')).slice(1),
    ).toEqual([
      'Pick up 2 A and 1 C, pass through bead 3 of the low (A), pick up 1 C and go back through the last 2 A. This is the hook.',
      'Pass through bead 4 of the low (T) and back through the last bead of the low (T).',
      'Pass through bead 2 of the low (T) by its second hole.',
      'Do the next step 3 times in all.',
      'Pass through bead 5 of the low (A). From turn to turn: 5, 9, 13.',
      expect.stringMatching(/^Weave through \d+ beads? to the first bead of the hook \(A\)\.$/),
    ])
  })

  test('a first round skips beads, later ones meet those that stand up, and what comes at the end is told', () => {
    expect(texts(`${head}ring 6A\nround C\nround C no step`).slice(1)).toEqual([
      'Front round 1: pick up 1 C, skip one bead and pass through the next; 3 times in all. Step up through the first bead added.',
      'Front round 2: pick up 1 C and pass through the next bead that stands up; 3 times in all. Do not step up.',
    ])
    expect(texts(`${head}ring 7A\nround C`)[1]).toMatch(
      /4 times in all\. There is no step up: the rounds run on in a spiral\.$/,
    )
    expect(texts(`${head}string 5A\nrow A\nrow A`).slice(1)).toEqual([
      expect.stringMatching(/catch the thread at the edge and go back through it\. Turn\.$/),
      expect.stringMatching(
        /^Row 2: pick up 1 A and pass through the next bead that stands up; twice in all\. Turn\.$/,
      ),
    ])
    expect(texts(`${head}ring 12A\nround 2C`)[1]).toContain('skip 2 beads and pass through the next 2')
  })

  test('the shop closes and ends in its own way, and its dangers come with it', () => {
    const settings = { ...usualThreadSettings, closing: 'stop bead' as const, ending: 'melt' as const }
    const page = writePattern(evaluate(`${head}ring 6A\nfinish`, { settings }), { ...edition, settings })
    expect(page.parts[0]?.steps[0]?.text).toContain('stop bead')
    expect(page.tools).toContain('a thread burner')
    expect(page.cautions.join(' ')).toContain('hair, fabric and children')
    expect(written(`${head}ring 6A\nfinish`).cautions.join(' ')).not.toContain('burner')
  })

  test('a pattern or a part ends its threads in another way than the shop, with what that takes', () => {
    const page = written(
      `${head.replace(/part (\w+)\n$/, 'part $1, end glue\n')}ring 6A\nfinish\npart rest\nring 6A\nfinish\n`,
    )
    const ends = page.parts.map(({ steps }) => steps.at(-1)?.text ?? '')
    expect(ends[0]).toContain('drop of glue')
    expect(ends[1]).not.toContain('glue')
    expect(page.tools).toContain('jewellery glue')
    expect(page.cautions.join(' ')).toContain('Glue: air the room')
    const [fault] = evaluate(`${head.replace('bead A', 'thread braid 6 lb, end knots\nbead A')}ring 6A`).diagnostics
    expect([fault?.message, fault?.mend]).toEqual([
      '"end knots" is not a way to end a thread.',
      'Say end hitch and weave, end weave, end melt, end glue.',
    ])
  })

  test('a pattern with a fault is a draft, whatever its version', () => {
    expect(written(`${head}ring 6A`).draft).toBe(false)
    expect(written(`${head}ring 6A\nrnig`)).toMatchObject({ draft: true, edition: 'Draft' })
  })
})

describe.each(allDemos)('%s', (name) => {
  const sizes = evaluate(demo(name)).sizes.length > 0 ? evaluate(demo(name)).sizes : ['']

  test.each(sizes)('in size "%s": the counts told are those of the report, and they add up', (size) => {
    const report = evaluate(demo(name), size ? { size } : {})
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
    for (const bead of report.beads) expect(toMarkdown(page)).toContain(`${bead.each} ${bead.role}`)
    for (const language of languageCodes)
      expect(disagreements(toHtml(writePattern(report, { ...edition, language })), language, report)).toEqual([])
  })

  test.each(sizes)(
    'in size "%s": every bead is drawn once and in the box, from the front and from the back',
    (size) => {
      const evaluated = evaluatePattern(demo(name), size ? { size } : {})
      const scene = sceneOf(evaluated, beginForm(evaluated))
      expect(scene.beads).toHaveLength(evaluated.work.beads)
      for (const face of faces) {
        const { shapes, box } = viewOf(scene, { face })
        const beads = shapes.flatMap((shape) => (shape.type === 'bead' ? [shape] : []))
        expect(new Set(beads.map((shape) => shape.bead)).size).toBe(evaluated.work.beads)
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
    const { evaluated, form } = formedPattern(demo(name))
    const { poses } = sceneOf(evaluated, form as Form)
    const height = (bead: number) => poses[9 * bead + 1] as number
    const top = Array.from({ length: evaluated.work.beads }, (_, bead) => bead).reduce((a, b) =>
      height(b) > height(a) ? b : a,
    )
    expect(evaluated.work.seat(top).course).toBe(-1)
  },
)

test('a repeat is told once, with how many steps it holds and how often; turns that differ are told once with what changes', () => {
  const page = written(`${head}ring 6A\nrepeat 3\nround B\nround C\nend`)
  expect(page.parts[0]?.steps.slice(1).map(({ text, added, running }) => [text.slice(0, 57), added, running])).toEqual([
    ['Do the next 2 steps, one after the other, 3 times in all.', '', ''],
    ['Front round: pick up 1 B and pass through the next bead t', '9 B', ''],
    ['Front round: pick up 1 C and pass through the next bead t', '9 C', '6 A, 9 B, 9 C'],
  ])
  expect(texts(`${head}ring 6A\nfor k in 1 to 2\nloop k B\nend`).slice(1)).toEqual([
    'Do the next step twice in all.',
    expect.stringMatching(/^Pick up 1 B and .* From turn to turn: 1, 2 B\.$/),
  ])
})

test('places, turns of unlike length, and more turns than are told are all said', () => {
  const repeats = (source: string) => texts(`${head}ring 6A as base\n${source}`).slice(1)
  expect(repeats('at each A in base\nloop 2B\nend')[0]).toBe(
    'Do the next step, at each of 6 places (each A in the base), weaving from one to the next by the shortest way.',
  )
  expect(repeats('for k in 1 to 2\nrepeat k\nloop 2B\nend\nend')[1]).toBe(
    'Do the next step once in turn 1, twice in turn 2.',
  )
  const many = repeats('for k in 1 to 70\nloop k B\nend')[1]
  expect(many).toMatch(/From turn to turn: 1, 2, 3 \.\.\. 70 B\.$/)
  expect(repeats('for k in 1 to 3\nloop 2B over k\nend')[1]).toBe(
    'Turn 1: Pick up 2 B and pass again, the same way, through the A the needle came out of, to make a loop. Turns 2 to 3: Pick up 2 B and pass again, the same way, through the last 2 beads the needle came through, to make a loop. From turn to turn: 2, 3 beads.',
  )
  expect(repeats('for k in 1 to 1200\ngo k\nend')[1]?.slice(-60)).toMatch(/as the numbers go: 1200 turns in all\.$/)
})

test('what changes from turn to turn is numbers and what they count; anything more is told turn by turn', () => {
  expect(changesIn(['Pick up 1 B.', 'Pick up 2 C.'])).toBeUndefined()
  expect(changesIn(['3 A, 2 B twice', '3 A, 4 B twice', '3 A, 8 B twice'])).toEqual([{ numbers: [2, 4, 8], of: 'B' }])
})

test('no name breaks the page it is written on', () => {
  const page = written('pattern <b>Lock & key</b> | *Ünïcode* ποτάμι\nbead A cylinder 11/0 "<script>"\npart p\nring 6A')
  expect(toHtml(page)).toContain('&lt;b&gt;Lock &amp; key&lt;/b&gt;')
  expect(toHtml(page)).not.toContain('<script>')
  expect(toMarkdown(page)).toContain('\\<b\\>Lock & key\\</b\\> \\| \\*Ünïcode\\* ποτάμι')
})

test('the reader of numbers finds what has been tampered with', () => {
  const report = evaluate(demo('windlass-pendant'))
  const html = toHtml(writePattern(report, edition))
  expect(disagreements(html, 'en', report)).toEqual([])
  const slips = ['Picked up: 33 A', 'In one piece: 77 A', '>77</td>', 'So far: 55 A']
  for (const slip of slips) {
    expect(html).toContain(slip)
    const tampered = html.replace(
      slip,
      slip.replace(/\d+/, (digits) => String(Number(digits) + 1)),
    )
    expect(disagreements(tampered, 'en', report)).not.toEqual([])
  }
})

describe('languages', () => {
  test.each(languageCodes)('%s says every statement of every demo pattern, and no word of another', (code) => {
    const other = languages[code === 'en' ? 'de' : 'en']
    for (const name of allDemos) {
      const page = writePattern(evaluate(demo(name)), { ...edition, language: code })
      const foreign = writePattern(evaluate(demo(name)), { ...edition, language: other.code })
      const steps = page.parts.flatMap((part) => part.steps)
      const theirs = foreign.parts.flatMap((part) => part.steps)
      expect(steps.map(({ line }) => line)).toEqual(theirs.map(({ line }) => line))
      for (const [i, step] of steps.entries()) if (step.kind === 'stitch') expect(step.text).not.toBe(theirs[i]?.text)
    }
  })

  test.each([
    [
      'fr' as const,
      [
        "Enfiler 16 perles: prendre 3 A et 1 B, 4 fois. Repasser dans toutes pour fermer l'anneau.",
        'Tour avant 1: 3 points avec 1 C chacun; puis 1 diminution; le tout 2 fois, 8 points en tout. À la fin de chaque point, sauter une perle et passer dans la suivante. Monter dans la première perle ajoutée. 6 perles ou groupes sont maintenant en saillie.',
        'Rentrer les deux bouts avec 3 demi-clés entre les perles en chemin, et couper.',
      ],
      'perle cylindrique 11/0',
    ],
    [
      'nl' as const,
      [
        '16 kralen aanrijgen: 3 A en 1 B opnemen, 4 keer. Nogmaals door alle kralen gaan om de ring te sluiten.',
        'Voorste ronde 1: 3 steken met elk 1 C; dan 1 mindering; dat 2 keer, in totaal 8 steken. Aan het eind van elke steek één kraal overslaan en door de volgende gaan. Opstappen door de eerste toegevoegde kraal. Nu steken 6 kralen of groepen uit.',
        'Beide einden inwerken, onderweg met 3 halve steken tussen de kralen, en afknippen.',
      ],
      'cilinderkraal 11/0',
    ],
  ])('%s: whole sentences, its own numbers', (language, steps, bead) => {
    const page = writePattern(evaluate(`${head}ring (3A B) x 4\nround C x3, -\nfinish`), { ...edition, language })
    expect(page.parts[0]?.steps.map(({ text }) => text)).toEqual(steps)
    expect(page.materials[0]).toMatchObject({ name: bead, weight: '0,06 g' })
  })

  test('German: whole sentences, its own numbers', () => {
    const page = writePattern(evaluate(`${head}ring (3A B) x 4\nround C x3, -\nfinish`), { ...edition, language: 'de' })
    expect(page.parts[0]?.steps.map(({ text }) => text)).toEqual([
      '16 Perlen auffädeln: 3 A und 1 B aufnehmen, 4-mal. Nochmals durch alle gehen, um den Ring zu schliessen.',
      'Vordere Runde 1: 3 Stiche mit je 1 C; dann 1 Abnahme; das zweimal, insgesamt 8 Stiche. Am Ende jedes Stichs eine Perle überspringen und durch die nächste gehen. Durch die erste aufgenommene Perle aufsteigen. Jetzt stehen 6 Perlen oder Gruppen hoch.',
      'Beide Enden vernähen, unterwegs mit 3 halben Schlägen zwischen den Perlen, und abschneiden.',
    ])
    expect(page.thread[0]).toMatch(/^Geflochtener Faden .* abschneiden\.$/)
    expect(page.materials[0]).toMatchObject({ name: 'Zylinderperle 11/0', weight: '0,06 g' })
  })
})

test('lines that say the same again and again are told once, with how often, and their counts still add up', () => {
  const byHand = Array<string>(5).fill('through base next 2\nloop 3B\npick C').join('\n')
  const { parts, totals } = written(`${head}ring 12A as base\n${byHand}\nloop 2A`)
  const steps = parts.flatMap((part) => part.steps)
  expect(steps.map(({ number, text, added, running }) => [number, text.slice(0, 46), added, running]).slice(1)).toEqual(
    [
      [2, 'Pass through the next 2 beads of the base (2 b', '', ''],
      [3, 'Pick up 3 B and pass again, the same way, thro', '3 B', '12 A, 3 B'],
      [4, 'Pick up 1 C.', '1 C', '12 A, 3 B, 1 C'],
      [5, 'Do steps 2 to 4, one after the other, 4 more t', '12 B, 4 C', '12 A, 15 B, 5 C'],
      [6, 'Pick up 2 A and pass again, the same way, thro', '2 A', '14 A, 15 B, 5 C'],
    ],
  )
  expect(totals).toBe('14 A, 15 B, 5 C')
  // A repeat says how many steps it holds: those are told one by one.
  expect(texts(`${head}ring 12A\nrepeat 2\nloop 3B\nloop 3B\nloop 3B\nloop 3B\nend`)).toHaveLength(6)
})

test('lines of which only numbers change are told once, with the numbers', () => {
  const byHand = [2, 3, 4, 5, 6].map((n) => `loop ${n}B\nthrough base[${2 * n - 1}]`).join('\n')
  const { parts, totals } = written(`${head}ring 24A as base\n${byHand}`)
  const steps = parts.flatMap((part) => part.steps)
  expect(steps).toHaveLength(4)
  expect(steps.at(-1)).toMatchObject({
    text: 'Do steps 2 and 3, one after the other, 4 more times. In step 2, turn by turn: 2, 3, 4, 5, 6 B. In step 3, turn by turn: 3, 5, 7, 9, 11.',
    added: '18 B',
    running: '24 A, 20 B',
  })
  expect(totals).toBe('24 A, 20 B')
  // Rounds are counted one by one.
  expect(texts(`${head}ring 12A\nround B\nround B\nround B\nround B\nround B`)).toHaveLength(6)
})

test('what can be seen is said where it can first be seen, off the form of that step', () => {
  const { evaluated, form } = formedPattern(demo('windlass-pendant'))
  const looks = looksAfter(allStepForms(evaluated, form as Form))
  const { parts } = writePattern(evaluated.report, { ...edition, looks })
  const seen = parts.flatMap(({ steps }) => steps.flatMap(({ line, looks }) => (looks ? [[line, looks]] : [])))
  expect(seen.map(([line]) => line)).toEqual([16, 22, 23])
  expect(seen[0]?.[1]).toBe('It lies flat now.')
  // The front is closed first; the back when the last round is done.
  expect(seen[1]?.[1]).toMatch(/^The edge closes over the stone S now, by \d\.\d mm in front\.$/)
  expect(seen[2]?.[1]).toMatch(/^The edge closes over the stone S now, by \d\.\d mm in front and \d\.\d mm behind\.$/)
  expect(toMarkdown(writePattern(evaluated.report, { ...edition, looks }))).toContain('   It lies flat now.')
})

describe("a designer's own words", () => {
  const inPart = evaluate(`${head}ring 6A`).statements[0]?.part ?? ''
  const words = [
    { language: 'en' as const, part: inPart, text: 'round C', nth: 2, instead: '', also: 'Keep it loose.' },
    { language: 'en' as const, part: inPart, text: 'ring 12A', nth: 1, instead: 'String twelve & close.', also: '' },
    { language: 'de' as const, part: inPart, text: 'round C', nth: 1, instead: 'Nur auf Deutsch.', also: '' },
  ]
  const told = (source: string) =>
    writePattern(evaluate(source), { ...edition, words }).parts[0]?.steps.map(
      ({ text, also }) => also || text.slice(0, 22),
    )

  test('stand in or are added, in their language, and the counts are still told', () => {
    expect(told(`${head}ring 12A\nround A\nround C\nround C`)).toEqual([
      'String twelve & close.',
      'Front round 1: pick up',
      'Front round 2: pick up',
      'Keep it loose.',
    ])
    const html = toHtml(writePattern(evaluate(`${head}ring 12A`), { ...edition, words }))
    expect(html).toContain('String twelve &amp; close.')
    expect(html).toContain('Picked up: 12 A.')
  })

  test('stay with their step when lines come before it, however they are spaced; and are kept aside when it is gone', () => {
    const moved = `${head}ring   12A   # the base\nround A\nround A\nround C\nround C`
    expect(told(moved)?.[4]).toBe('Keep it loose.')
    const gone = evaluate(`${head}ring 14A\nround A\nround C`)
    expect(wordsAside(words, stepKeys(gone)).map(({ text, nth }) => `${text} ${nth}`)).toEqual([
      'round C 2',
      'ring 12A 1',
    ])
  })
})

describe('an edition', () => {
  const { sampled: _, ...thread } = usualThreadSettings
  const gathered: Gathered = {
    source: demo('windlass-pendant'),
    size: 'petite',
    version: 2,
    madeAt: '2026-11-02T09:00:00Z',
    choices: [],
    colourways: [],
    items: [],
    catalogue: [],
    words: [],
    pictures: [],
    timed: [],
    errata: [{ version: 2, corrects: 1, note: 'round 3 was told twice.' }],
    sampled: { ratio: 1, count: 0 },
    shop: {
      name: 'Merrowlock Bead Room',
      address: '3 Sluice Row',
      footer: 'Not to be taught without leave.',
      thread,
      units: 'metric',
    },
  }

  test('is measured in inches, feet and ounces in English where the shop says so', () => {
    const inches: Gathered = { ...gathered, shop: { ...gathered.shop, units: 'inches' } }
    const [metric, told] = [gathered, inches].map((each) => writeEdition(each, 'en').written) as [Written, Written]
    const numbers = (text: string) => [...text.matchAll(/\d+(?:\.\d+)?/g)].map(([digits]) => Number(digits))
    const [mm, inch] = [metric, told].map(({ sizes }) => numbers(sizes[0]?.finished ?? '')) as [number[], number[]]
    expect(metric.sizes[0]?.finished).toMatch(/^[\d.]+ x [\d.]+ x [\d.]+ mm$/)
    expect(told.sizes[0]?.finished).toMatch(/^[\d.]+ x [\d.]+ x [\d.]+ in$/)
    for (const [k, each] of inch.entries()) expect(Math.abs(25.4 * each - (mm[k] as number))).toBeLessThan(0.2)
    // Thread: 1200 mm is 47.2 in, 3 ft 11.2 in; the other system stands beside it.
    expect(told.thread[0]).toMatch(/cut \d x \d+ ft( [\d.]+ in)? \([\d.]+ cm, /)
    expect(told.materials[0]?.weight).toBe('0.012 oz')
    const figures = [
      ...told.facts,
      ...told.materials.map(({ inKit }) => inKit),
      ...told.sizes.map(({ thread }) => thread),
    ]
    expect(figures.filter((each) => /\d (mm|cm|g)\b/.test(each))).toEqual([])
    // Other languages are read with metric measures.
    expect(writeEdition(inches, 'de').written.thread[0]).toContain(' cm (')
  })

  test.each([
    [25.4, '1 in'],
    [304.8, '1 ft'],
    [304.7, '1 ft'],
    [1200, '3 ft 11.2 in'],
  ])('%d mm are %s', (mm, said) => expect(sayFeet(mm)).toBe(said))

  test('has every size, its date, its errata, its level and time', () => {
    const { written, drawings } = writeEdition(gathered, 'en')
    expect(written.facts[0]).toBe('Version 2, 2 November 2026')
    expect(written.sizes.map(({ name, counts }) => [name, ...counts])).toEqual([
      ['petite', 63, 9, 81],
      ['classic', 77, 11, 97],
    ])
    expect(written.errata).toEqual(['This corrects version 1: round 3 was told twice.'])
    // 36 strung at 3 s; 72 + 36 in rounds at 7 s, 9 in the loop at 10 s; some passing; 8 minutes for the ends.
    expect(written.effort[1]).toMatch(/^about 2\d minutes for a practised hand, 4\d minutes for a beginner$/)
    expect(Object.keys(drawings?.steps ?? {}).length).toBeGreaterThan(8)
  })

  test('samples correct thread and time, once there are enough, and say so', () => {
    const plain = writeEdition(gathered, 'en').report.thread.cuts[0] as number
    const ratios = [1.1, 1.2, 1.4]
    const sampled = correctionFrom(ratios, [])
    expect(sampled).toEqual({ ratio: 1.2, count: 3 })
    const { written, report } = writeEdition({ ...gathered, sampled, timed: [50, 40, 90] }, 'en')
    expect(report.thread.cuts[0]).toBeGreaterThanOrEqual(plain * 1.2 - 10)
    expect(report.thread.cuts[0]).toBeLessThanOrEqual(plain * 1.2 + 10)
    expect(written.thread[2]).toBe('Corrected by 3 samples, which took 20 % more than was computed.')
    expect(written.effort[1]).toContain('about 50 minutes for a practised hand')
    expect(correctionFrom([1.1, 1.2], [])).toEqual({ ratio: 1, count: 0 })
    expect(correctionFrom([1.1], [1.1, 0.9, 1, 12])).toEqual({ ratio: 1, count: 3 })
    expect(spreadOf([1.4, 1, 1.2, 1.1])).toEqual({ count: 4, median: 1.15, least: 1, most: 1.4 })
  })

  test('is looked over before it is given out: each lack with where it is mended', () => {
    const lacks = checkEdition(gathered)
    expect(lacks).toContainEqual(expect.objectContaining({ where: 'walk', weight: 'should' }))
    const faulty = gathered.source.replace('round A', 'rnig A').replace('check', '# check')
    const lost = { language: 'en' as const, part: 'bezel', text: 'round Q', nth: 1, instead: 'x', also: '' }
    const found = checkEdition({ ...gathered, source: `${faulty}\n`, words: [lost] })
    expect(found).toContainEqual(expect.objectContaining({ weight: 'must', where: 'ledger', line: 16 }))
    expect(found).toContainEqual(expect.objectContaining({ where: 'words', text: expect.stringContaining('round Q') }))
    const long = `${head}ring 12A\n${'round A\n'.repeat(9)}finish\n`
    expect(checkEdition({ ...gathered, source: long, size: '' })).toContainEqual(
      expect.objectContaining({ line: 8, text: expect.stringContaining('9 rounds without a checkpoint') }),
    )
  })

  test('a colourway whose neighbours are taken for each other, or that has nothing for a role, is named', () => {
    const item = (id: number, colour: string) => ({
      id,
      unit: 'mg' as const,
      category: 'bead',
      colour,
      finish: 'opaque',
      packs: [],
      bead: evaluate(gathered.source).beads[0]?.bead ?? null,
      kind: 'cylinder',
      size: '11/0',
      colourName: `Colour ${id}`,
      colourCode: `X${id}`,
      maker: 'Brackwater Glass',
    })
    const choice = (role: string, itemId: number) => ({ role, size: '', itemId, counting: 'all' as const })
    const items = [item(1, '#2e5e4e'), item(2, '#2e5f4f')]
    const texts = checkEdition({
      ...gathered,
      items,
      colourways: [{ name: 'Gloom', choices: [choice('A', 1), choice('B', 2)] }],
    }).map(({ text }) => text)
    expect(texts).toContainEqual(expect.stringMatching(/^Gloom: A and B are taken for each other/))
    expect(texts).toContain('Gloom: C has no item.')
  })
})

test("of other makers' beads only what was worked out is said: for these letters, and with what goes wrong", () => {
  const same: Consequence = {
    lines: [],
    counts: [],
    fits: [],
    threadMm: { before: 1000, after: 1000 },
    refilled: [],
    crowded: [],
    faults: [],
  }
  const row = (role: string, maker: string, more: Partial<Consequence> = {}): MakerRow => ({
    role,
    bead: { ...(nominalBead('round', '11/0') as Bead), maker },
    consequence: { ...same, ...more },
  })
  const { makers } = written(`${head}ring 6A`, {
    makers: [
      row('A', 'Tollhouse Beads'),
      row('B', 'Tollhouse Beads'),
      row('A', 'Brackwater Glass'),
      row('B', 'Brackwater Glass', { crowded: ['B'] }),
      row('A', 'Reedmace', { fits: [{ stone: 'S', before: 0, after: 0.12, verdict: 'too big' }] }),
      row('B', 'Reedmace', { counts: [{ role: 'B', before: 9, after: 8 }], faults: ['Line 7: no'] }),
    ],
  })
  expect(makers).toEqual([
    'B, round 11/0. Brackwater Glass: the same counts; the holes of B get too full.',
    'A, round 11/0. Reedmace: the same counts; the ring round S is too big.',
    'B, round 11/0. Reedmace: 8 B for 9; some lines do not come out with it, so keep to the bead in the list.',
    'A and B: with beads of Tollhouse Beads the counts stay as they are.',
    'A: with beads of Brackwater Glass the counts stay as they are.',
  ])
})

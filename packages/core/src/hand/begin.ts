/** The first lines of a new pattern: what it is made of, and a beginning that fits. */

export type Beginning =
  /** As it is written: "oval 13 x 18 mm, height 5 mm, domed". */
  | { readonly what: 'stone'; readonly stone: string }
  /** Beads round, or for a ring to wear its inner way round, mm. */
  | { readonly what: 'ring'; readonly aroundMm: number }
  | { readonly what: 'band'; readonly wide: number }
  | { readonly what: 'rope'; readonly core: number }
  | { readonly what: 'flower'; readonly petals: number }
  | { readonly what: 'chain' }
  | { readonly what: 'earring' }

const beads = [
  'bead  A  cylinder 11/0   "first"',
  'bead  B  cylinder 11/0   "second"',
  'bead  C  round 15/0      "edge"',
]
const round = ['bead  A  round 11/0   "first"', 'bead  B  round 11/0   "second"', 'bead  C  round 15/0   "edge"']
const thread = 'thread braid 6 lb, single, needle 12, tail 15 cm'

/**
 * @param title of the pattern
 * @throws RangeError that says what is wrong with a measure
 */
export function beginning(title: string, begin: Beginning): string {
  const { declared, part, lines } = begun(begin)
  const named = title.trim().replace(/\s+/g, ' ') || 'New pattern'
  return [
    `pattern ${named}`,
    ...(begin.what === 'earring' ? ['makes pair'] : ['makes 1']),
    '',
    ...declared,
    thread,
    '',
    `part ${part}`,
    ...lines.map((line) => `  ${line}`),
    '',
  ].join('\n')
}

function begun(begin: Beginning): { declared: readonly string[]; part: string; lines: readonly string[] } {
  switch (begin.what) {
    case 'stone':
      return {
        declared: [...beads, `stone S  ${begin.stone}   "centre"`],
        part: 'bezel',
        lines: ['let n = fit(S, A)', 'ring A x n as wall'],
      }
    case 'ring':
      if (!(begin.aroundMm >= 10 && begin.aroundMm <= 1000))
        throw new RangeError('A ring is from 10 to 1000 mm round. Give a measure between these.')
      // A cylinder is as wide across as its neighbours are apart on the first row.
      return { declared: beads, part: 'ring', lines: [`ring A x even(${begin.aroundMm} mm / L(A)) as base`] }
    case 'band':
      return { declared: beads, part: 'band', lines: [`string ${whole(begin.wide, 2, 100, 'A band')}A as start`] }
    case 'rope':
      return { declared: round, part: 'rope', lines: [`ring ${whole(begin.core, 3, 30, 'A rope')}A as core`] }
    case 'flower':
      return { declared: round, part: 'flower', lines: [`ring ${whole(begin.petals, 3, 40, 'A flower')}A as heart`] }
    case 'chain':
      return { declared: round, part: 'chain', lines: ['weave 1 unit of 3A'] }
    case 'earring':
      return {
        declared: [...round, 'item  H  ear hook x 1'],
        part: 'drop',
        lines: ['string 5A as top'],
      }
  }
}

function whole(n: number, least: number, most: number, what: string): number {
  if (Number.isInteger(n) && n >= least && n <= most) return n
  throw new RangeError(`${what} begins with ${least} to ${most} beads. Give a whole number between these.`)
}

/** What a designer reads off a form: whether the stone is held, how the work lies, and which line is too short. */

import { counted } from '../measure/counted'
import { type Finding, sayMm } from '../report/form-report'
import type { Measures, Progress, Strain } from '../report/measures'
import type { Report, StatementReport } from '../report/report'
import { heldBy } from '../sizing/stone-hold'
import { type Action, pickedIn } from '../stitch/action'
import type { Soundness } from './soundness'

/** A ring that is longer than its stone by more has play of its own. */
const longRing = 0.03
/** A stone that moves by less sits still. */
const minPlayMm = 0.3
/** Less is missing than anybody would see. */
const minSaidMm = 0.75
const minGapMm = 0.6

export function findingsOf(
  { held, lie, pitches }: Measures,
  strain: readonly Strain[],
  report: Pick<Report, 'statements' | 'beads' | 'fits'>,
): Finding[] {
  const line = (statement: number) => report.statements[statement]?.line
  return [
    ...held.flatMap((each) => heldFindings(each, report)),
    ...lieFindings(lie, held.length > 0, report),
    ...pitches.map(({ statement, pitchMm, repeats, looseMm }) => ({
      line: line(statement),
      tone: 'plain' as const,
      text: looseMm
        ? `One repeat is ${looseMm.map((mm) => mm.toFixed(2)).join(' to ')} mm long (of ${repeats}), as tightly as it is pulled. Measure your own.`
        : `One repeat is ${pitchMm.toFixed(2)} mm long (of ${repeats}).`,
    })),
    ...strain.flatMap((each) => {
      const statement = report.statements[each.statement]
      const text = statement && strainWords(each, statement, report)
      return text ? [{ line: statement.line, tone: 'trouble' as const, text }] : []
    }),
  ]
}

/** Why nothing is read off a form, in one sentence, with the lines that strain. */
export function unsoundWords(
  { strained, pressed, slipped }: Soundness,
  progress: Progress,
  strain: readonly Strain[],
  { statements }: Pick<Report, 'statements'>,
): string {
  const lines = [...new Set(strain.flatMap(({ statement }) => statements[statement]?.line ?? []))].sort((a, b) => a - b)
  const why = [
    ...(progress.settled ? [] : [`it has not come to rest after ${progress.iterations.toLocaleString('en-GB')} steps`]),
    ...(strained.threads > strained.of / 100
      ? [`${strained.threads} of ${strained.of.toLocaleString('en-GB')} threads do not close`]
      : []),
    ...(pressed > 0.1 ? ['beads are pressed into each other'] : []),
    ...slipped.map((stone) => `the stone ${stone} slips out of its ring`),
  ]
  const where = lines.length > 0 ? ` (line${lines.length === 1 ? '' : 's'} ${lines.slice(0, 6).join(', ')})` : ''
  return `The form is not sound: ${why.join(', and ')}${where}. Nothing is read off it; the plain estimates stand.`
}

function heldFindings(
  { stone, ...hold }: Measures['held'][number],
  { statements, fits }: Pick<Report, 'statements' | 'fits'>,
): Finding[] {
  const place = statements.find(({ action }) => action.type === 'place' && action.role === stone)
  const safe = hold.neededMm - 0.05
  const faces = [
    { face: 'in front', mm: heldBy(hold, 'frontMm'), edge: 'front' },
    { face: 'behind', mm: heldBy(hold, 'backMm'), edge: 'back' },
  ] as const
  const wanting = faces.filter(({ mm }) => mm === undefined || mm < safe)
  const told = faces.map(({ face, mm }) =>
    mm === undefined
      ? `has no edge ${face}`
      : mm < 0
        ? `is loose by ${sayMm(-mm)} ${face}`
        : `is held by ${mm < safe ? 'only ' : ''}${sayMm(mm)} ${face}`,
  )
  const ring = fits.find((fit) => fit.stone === stone)
  const advice = wanting.map(({ face, mm, edge }) => {
    // Wide enough, and it slips from under: the wall stands off the stone, for its ring is too long or its rows are too many.
    if (mm !== undefined && mm + hold.playMm >= safe)
      return ring && ring.ease < longRing ? `one round less ${face}` : 'a ring of fewer beads'
    const last = statements.filter(({ action }) => action.type === 'round' && action.edge === edge).at(-1)?.action
    const bead = last?.type === 'round' ? pickedIn(last.cycle.flatMap(({ moves }) => moves))[0]?.role : undefined
    return `one more round${bead ? ` of ${bead}` : ''} ${face}`
  })
  const play = hold.playMm >= minPlayMm ? `moves by ${sayMm(hold.playMm)} sideways in its ring, and then ` : ''
  const held = `${play}${told.join(' and ').replace('and is held', 'and')}`
  return [
    {
      line: place?.line,
      tone: wanting.length === 0 ? 'good' : faces.some(({ mm }) => mm === undefined || mm < 0) ? 'trouble' : 'plain',
      text:
        wanting.length > 0
          ? `The stone ${stone} ${held}; ${sayMm(hold.neededMm)} is safe: ${[...new Set(advice)].join(' and ')}.`
          : `The stone ${stone} ${held}.`,
    },
  ]
}

function lieFindings(lie: Measures['lie'], cored: boolean, { beads }: Pick<Report, 'beads'>): Finding[] {
  if (cored) return []
  const widest = beads.filter(({ each }) => each > 0).reduce((most, { bead }) => Math.max(most, bead.acrossMm), 0)
  const say = (tone: Finding['tone'], text: string) => [{ line: undefined, tone, text }]
  if (lie.ruffles >= 4)
    return say(
      'trouble',
      `The edge ruffles: it goes up and down ${lie.ruffles / 2} times. Fewer or smaller beads in the last round let it lie flat.`,
    )
  if (lie.flat) return say('good', 'It lies flat.')
  if (Math.abs(lie.cupMm) > widest)
    return say(
      'plain',
      `The edge comes ${sayMm(Math.abs(lie.cupMm))} to the ${lie.cupMm > 0 ? 'front' : 'back'} of the first ring: it is a cup or a tube.`,
    )
  return []
}

function strainWords(strain: Strain, statement: StatementReport, report: Pick<Report, 'beads'>): string | undefined {
  const { what, places, worstMm, missingMm } = strain
  const name = nameOf(statement.action) ?? `"${statement.text}"`
  if (what === 'pressed')
    return `${name}: beads are pressed by ${sayMm(worstMm)} in ${counted(places, 'place')}; there is one too many, or it is too large.`
  if (missingMm < minSaidMm) return undefined
  const mean = missingMm / places
  if (places > 4)
    return `${name}: thread shows, ${sayMm(mean)} at each of ${places} places. It is stretched over what lies beneath: one more row, or something smaller there, would ease it.`
  const lengths = Object.keys(statement.added).flatMap(
    (role) => report.beads.find((bead) => bead.role === role)?.bead.lengthMm ?? [],
  )
  const bead = lengths.length > 0 ? Math.min(...lengths) : 1.5
  const short = missingMm / bead
  return short < 0.75 || worstMm < minGapMm
    ? undefined
    : `${name} pulls in by about ${short < 1.5 ? 'one bead' : `${Math.round(short)} beads`} (${counted(places, 'gap')} of up to ${sayMm(worstMm)}).`
}

const nameOf = (action: Action): string | undefined => {
  switch (action.type) {
    case 'round':
      return `${action.closed ? `${action.edge === 'front' ? 'Front' : 'Back'} round` : 'Row'} ${action.round}`
    case 'ring':
      return `The ring of ${action.beads}`
    case 'loop':
      return `The ${action.name?.name ?? 'loop'}`
    default:
      return undefined
  }
}

import { stoneMeasures } from '../catalogue/stone-size'
import type { Hand } from '../drawing/mirror'
import type { Look } from '../form/looks'
import type { BillLine } from '../kit/bill'
import { threadRole } from '../kit/bill'
import type { Mm, UnitSystem } from '../measure/units'
import { extentsTold, sayAlong, soundForm } from '../report/form-report'
import { levelOf } from '../report/level'
import { minutesOf } from '../report/minutes'
import type { Report, StatementReport } from '../report/report'
import type { Action } from '../stitch/action'
import { isTrouble, troublesIn } from '../substitute/consequence'
import type { MakerRow } from '../substitute/makers'
import type { ThreadSettings } from '../thread/settings'
import { foldedSteps, type Told } from './fold-steps'
import { type Endings, type Language, type LanguageCode, sayCounts } from './language'
import { languageIn } from './languages'
import { picturesOf, type ShownPicture } from './pictures'
import { keysOf, type StepKey, type StepWords, sameStep } from './step-words'
import { techniquesIn } from './techniques'
import { sayChanging, stretchesOf } from './turns'
import type { ColourwayRow, MaterialRow, SizeRow, Step, WrittenPattern } from './written-pattern'

/** What a thing of a colourway is called on paper. */
export interface Named {
  readonly kind: string
  readonly size: string
  readonly colourName: string
  readonly colourCode: string
  readonly maker: string
  readonly colour: string
}

/** What the pattern is written for, beside its report. */
export interface Edition {
  readonly language: LanguageCode
  readonly units: UnitSystem
  readonly hand: Hand
  /** Undefined for a draft. */
  readonly version: number | undefined
  /** When the version was made, as an ISO date. */
  readonly madeAt?: string | undefined
  readonly colourway: string | undefined
  readonly settings: ThreadSettings
  /** The kit's bill, with what its items are; empty when no colourway is chosen. */
  readonly bill: readonly (BillLine & { readonly item: Named })[]
  /** Every size's report, for the table of sizes. */
  readonly sizes: readonly Report[]
  /** Every colourway there is, by role. */
  readonly colourways: readonly {
    readonly name: string
    readonly choices: readonly { readonly role: string; readonly item: Named }[]
  }[]
  readonly makers: readonly MakerRow[]
  readonly words: readonly StepWords[]
  readonly pictures: readonly ShownPicture[]
  /** By statement: what the form of that step shows. */
  readonly looks: ReadonlyMap<number, Look>
  /** Minutes that samples of this size took. */
  readonly timed: readonly number[]
  /** Versions that corrected others, up to this one. */
  readonly errata: readonly { readonly version: number; readonly corrects: number; readonly note: string }[]
  readonly shop: { readonly name: string; readonly address: string; readonly footer: string }
}

/** An edition of nothing but the pattern's own text. */
export const plainEdition = (settings: ThreadSettings, language: LanguageCode = 'en'): Edition => ({
  language,
  units: 'metric',
  hand: 'right',
  version: undefined,
  colourway: undefined,
  settings,
  bill: [],
  sizes: [],
  colourways: [],
  makers: [],
  words: [],
  pictures: [],
  looks: new Map(),
  timed: [],
  errata: [],
  shop: { name: '', address: '', footer: '' },
})

/** Tells a report as a pattern a person can follow. A report with errors is written as a draft, whatever the edition. */
export function writePattern(report: Report, edition: Edition): WrittenPattern {
  const language = languageIn(edition.language, edition.units)
  const draft = edition.version === undefined || !report.sound
  const version = draft || edition.version === undefined ? language.draft : language.version(edition.version)
  const named = !draft && edition.madeAt ? `${version}, ${language.date(edition.madeAt)}` : version
  const makes = language.makes(report.makes, report.pair)
  const roles = report.beads.filter(({ total }) => total > 0).map(({ role }) => role)
  const finished = finishedWords(report, language)
  const endings = endingsIn(report)
  return {
    language: language.code,
    words: language.words,
    title: report.pattern || 'Pattern without a name',
    facts: [
      named,
      report.size && language.size(report.size),
      edition.colourway && language.colourway(edition.colourway),
      makes,
      finished && language.finished(finished),
      edition.hand === 'left' && language.leftHanded,
    ].flatMap((fact) => (fact ? [fact] : [])),
    effort: effort(report, edition, language),
    edition: named,
    draft,
    size: report.size,
    colourway: edition.colourway ?? '',
    makes,
    materials: [
      ...(edition.bill.length > 0
        ? edition.bill.map((line) => materialFromBill(line, report, language))
        : nominalMaterials(report, language)),
      ...findings(report),
    ],
    roles,
    sizes: edition.sizes.length > 1 ? edition.sizes.map((each) => sizeRow(each, roles, language)) : [],
    colourways: edition.colourways.map((each) => colourwayRow(each, language)),
    makers: makerRows(edition.makers, language),
    thread: threadWords(report, edition.settings, language),
    tools: language.tools(report.threadChoice.needle, endings),
    cautions: language.cautions(endings, report.stones.length > 0, report.items.length > 0),
    marks: language.marks,
    techniques: techniquesIn(report).map((name) => ({ name, ...language.techniques[name] })),
    parts: partsOf(report, edition, language),
    totals: sayCounts(
      Object.fromEntries(report.beads.filter((bead) => bead.each > 0).map((bead) => [bead.role, bead.each])),
    ),
    pictures: {
      finished: edition.pictures.filter(({ kind }) => kind === 'finished'),
      faults: edition.pictures.filter(({ kind, step }) => kind === 'fault' && step === null),
    },
    wear: language.wear,
    errata: edition.errata.map(({ corrects, note }) => language.corrects(corrects, note)),
    shop: [edition.shop.name, edition.shop.address, edition.shop.footer].flatMap(linesIn),
  }
}

/** A text that ends no thread is worked on, and will be ended in its own way or the shop's. */
function endingsIn({ statements, threadSettings }: Report): Endings {
  const endings = statements.flatMap(({ action }) => (action.type === 'finish' ? [action.ending] : []))
  return new Set(endings.length > 0 ? endings : [threadSettings.ending])
}

/** The steps' keys, in the order they are written. */
export const stepKeys = (report: Report): StepKey[] => keysOf(report.statements)

function finishedWords(report: Report, language: Language): string {
  const form = soundForm(report)
  if (!form) return ''
  const { figures, about } = extentsTold(form, language.units)
  const extents = language.extents(figures, about)
  return form.along && sayAlong(form) ? `${extents}, ${language.along(form.along)}` : extents
}

function effort(report: Report, { timed }: Edition, language: Language): string[] {
  const evaluated = minutesOf(report)
  const sorted = [...timed].sort((a, b) => a - b)
  const median = sorted[Math.floor((sorted.length - 1) / 2)]
  // Whoever stitches a sample is practised; a beginner's share stays as computed.
  const minutes =
    median === undefined
      ? evaluated
      : { practised: Math.round(median), beginner: Math.round((median * evaluated.beginner) / evaluated.practised) }
  return [language.level(levelOf(report)), language.time(minutes, timed.length)]
}

const named = ({ kind, size, colourName, colourCode, maker }: Named, language: Language) =>
  `${language.kind(kind)} ${size} ${colourName}${colourCode ? ` (${colourCode})` : ''}, ${maker}`

const rolesWords = (roles: readonly string[], language: Language) =>
  roles.map((role) => (role === threadRole ? language.words.thread : role)).join(' + ')

function sizeRow(report: Report, roles: readonly string[], language: Language): SizeRow {
  return {
    name: report.size,
    counts: roles.map((role) => report.beads.find((bead) => bead.role === role)?.total ?? 0),
    thread: language.length(total(report.thread.cuts) * report.makes),
    finished: finishedWords(report, language) || language.words.notSettled,
    ring: report.stones
      .filter(({ total }) => total > 0)
      .map(({ role, stone: { outline } }) => {
        const stone = `${role}, ${language.kind(`${outline.shape} stone`)} ${stoneMeasures(outline)}`.trim()
        const rings = report.fits.filter((fit) => fit.stone === role)
        return [stone, ...rings.map(({ beads, verdict }) => language.ring(beads, verdict))].join(': ')
      })
      .join('; '),
  }
}

const total = (lengths: readonly Mm[]) => lengths.reduce((sum, each) => sum + each, 0)

function colourwayRow({ name, choices }: Edition['colourways'][number], language: Language): ColourwayRow {
  const items = new Map<Named, string[]>()
  for (const { role, item } of choices) items.set(item, [...(items.get(item) ?? []), role])
  return {
    name,
    choices: [...items].map(([item, roles]) => ({
      roles: rolesWords(roles, language),
      name: named(item, language),
      colour: item.colour,
    })),
  }
}

function makerRows(rows: readonly MakerRow[], language: Language): string[] {
  const alike = rows.filter(({ consequence }) => consequence.counts.length === 0 && !isTrouble(troublesIn(consequence)))
  // Roles of one maker, then makers of the same roles: nothing is said of a pair that was not looked at.
  const rolesOf = new Map<string, string[]>()
  for (const { role, bead } of alike) rolesOf.set(bead.maker ?? '', [...(rolesOf.get(bead.maker ?? '') ?? []), role])
  const makersOf = new Map<string, string[]>()
  for (const [maker, roles] of rolesOf) {
    const key = [...new Set(roles)].join(' ')
    makersOf.set(key, [...(makersOf.get(key) ?? []), maker])
  }
  return [
    ...rows
      .filter((row) => !alike.includes(row))
      .map(
        ({ role, bead, consequence }) =>
          `${role}, ${language.kind(bead.kind)} ${bead.size}. ${language.maker(bead.maker ?? '', consequence.counts, troublesIn(consequence))}`,
      ),
    ...[...makersOf].map(([roles, makers]) => language.makersAlike(roles.split(' '), makers)),
  ]
}

function materialFromBill(line: Edition['bill'][number], report: Report, language: Language): MaterialRow {
  const row = { roles: rolesWords(line.roles, language), name: named(line.item, language), colour: line.item.colour }
  if (line.unit === 'mm')
    return { ...row, exact: language.length(line.exact), inKit: language.length(line.quantity), weight: '' }
  const mg = report.beads.filter(({ role }) => line.roles.includes(role)).reduce((sum, bead) => sum + bead.totalMg, 0)
  const weighed = line.unit === 'mg'
  const inKit = weighed ? language.weighed(line.quantity, line.standsFor) : language.pieces(line.quantity)
  return { ...row, exact: String(line.exact), inKit, weight: mg > 0 ? language.mass(mg) : '' }
}

/** Without a colourway the pattern's own words stand for the beads. */
function nominalMaterials(report: Report, language: Language): MaterialRow[] {
  const labelled = (name: string, label: string) => (label ? `${name}, ${label}` : name)
  return [
    ...report.beads
      .filter((bead) => bead.total > 0)
      .map((bead) => ({
        roles: bead.role,
        name: labelled(`${language.kind(bead.kind)} ${bead.size}`, bead.label),
        colour: undefined,
        exact: String(bead.total),
        inKit: language.mass(bead.totalMg),
        weight: language.mass(bead.totalMg),
      })),
    ...report.stones
      .filter((stone) => stone.total > 0)
      .map((stone) => ({
        roles: stone.role,
        name: labelled(language.stone, stone.label),
        colour: undefined,
        exact: String(stone.total),
        inKit: String(stone.total),
        weight: '',
      })),
  ]
}

/** Findings are not kept as colours, so the pattern's own words stand for them. */
const findings = (report: Report): MaterialRow[] =>
  report.items
    .filter((item) => item.total > 0)
    .map(({ role, name, label, total }) => ({
      roles: role,
      name: label ? `${name}, ${label}` : name,
      colour: undefined,
      exact: String(total),
      inKit: String(total),
      weight: '',
    }))

function threadWords(report: Report, settings: ThreadSettings, language: Language): readonly string[] {
  const { thread, strands } = report.threadChoice
  const own = report.threadSettings
  const times = new Map<Mm, number>()
  for (const cut of report.thread.cuts) times.set(cut, (times.get(cut) ?? 0) + 1)
  if (times.size === 0) return []
  return language.thread({
    kind: thread.kind,
    size: thread.size,
    doubled: strands === 2,
    cuts: [...times].map(([mm, many]) => ({ mm, times: many })),
    each: report.makes > 1,
    tailMm: own.tailMm,
    weaveInMm: own.weaveInMm,
    tension: own.tension,
    start: own.start,
    parts: report.parts.flatMap(({ name, threadSettings }) => (threadSettings ? [{ name, ...threadSettings }] : [])),
    spanMm: settings.spanMm,
    sampled: settings.sampled.count > 0 ? settings.sampled : undefined,
  })
}

/**
 * Lines of a repeat that other lines of it follow: how many beads there are after them is different each time, so only the last
 * of a repeat tells it.
 */
function partlyDone({ statements }: Report): Set<StatementReport> {
  const partly = new Set<StatementReport>()
  for (const [i, { action }] of statements.entries()) {
    if (action.type !== 'repeat') continue
    const adding = statements.slice(i + 1, i + 1 + action.held).filter(({ added }) => Object.keys(added).length > 0)
    for (const each of adding.slice(0, -1)) partly.add(each)
  }
  return partly
}

const courses: ReadonlySet<Action['type']> = new Set(['ring', 'string', 'round', 'square', 'weave', 'stand', 'fringe'])

const lookWords = (look: Look | undefined, language: Language) => (look ? language.look(look) : '')

/** A round that is done again and again has another number each time, so it is told without one. */
const unnumbered = (action: Action): Action => (action.type === 'round' ? { ...action, round: 0 } : action)

/** A line in words: once, or turn by turn where its turns differ; the head of a repeat says how many steps it holds. */
function textOf(
  statement: StatementReport,
  report: Report,
  settings: ThreadSettings,
  language: Language,
): string | undefined {
  const { action, turns } = statement
  const more = statement.times > turns.length && turns.length > 0 ? ` ${language.andSoOn(statement.times)}` : ''
  if (action.type === 'repeat') {
    const first = report.statements.indexOf(statement) + 1
    const held = report.statements.slice(first, first + action.held)
    const steps = held.filter((each) => textOf(each, report, settings, language) !== undefined)
    if (steps.length === 0) return undefined
    const times = turns.length > 0 ? turns.map((turn) => (turn.type === 'repeat' ? turn.times : 0)) : [action.times]
    return action.of === 'part'
      ? language.repeatPart(steps.length, action.times)
      : language.repeat(steps.length, times, action.at) + more
  }
  if (turns.length === 0) return language.sentence(statement.times > 1 ? unnumbered(action) : action, settings)
  const told = turns.flatMap((turn) => language.sentence(unnumbered(turn), settings) ?? [])
  if (told.length < turns.length) return undefined
  const stretches = stretchesOf(told)
  const said = stretches.map(({ from, to, first, changing }) => {
    const text = changing.length === 0 ? first : `${first} ${language.fromTurnToTurn(changing.map(sayChanging))}`
    return stretches.length === 1 ? text : language.turns(from + 1, to + 1, text)
  })
  return said.join(' ') + more
}

function partsOf(
  report: Report,
  { settings, words, looks, pictures, hand }: Edition,
  language: Language,
): { name: string; steps: Step[] }[] {
  const parts: { name: string; told: Told[] }[] = []
  const partly = partlyDone(report)
  const keys = stepKeys(report)
  const counted = countedByRepeats(report)
  for (const [i, statement] of report.statements.entries()) {
    const said = textOf(statement, report, settings, language)
    if (said === undefined) continue
    const { type } = statement.action
    // Of what a person has written it is not known which side is meant, but by their words.
    const toHand = (text: string) => (hand === 'left' ? language.otherHand(text) : text)
    const told = type === 'check' || type === 'note' ? toHand(said) : said
    const key = keys[i] as StepKey
    const own = words.find((each) => each.language === language.code && sameStep(each, key))
    let part = parts[parts.length - 1]
    let begins = ''
    if (!part || part.name !== statement.part) {
      // Of a part that is made more than once only the first could be told so.
      const before = statement.times === 1 ? report.statements[i - 1] : undefined
      if (before?.needleIn && before.action.type !== 'finish') begins = language.needleIn(before.needleIn)
      part = { name: statement.part, told: [] }
      parts.push(part)
    }
    const adds = Object.keys(statement.added).length > 0
    const shown = picturesOf(pictures, key)
    part.told.push({
      line: statement.line,
      key,
      text: own?.instead ? toHand(own.instead) : told,
      begins,
      replaced: own?.instead ? told : undefined,
      also: toHand(own?.also ?? ''),
      added: adds ? sayCounts(statement.added) : '',
      running: adds && !partly.has(statement) ? sayCounts(statement.totals) : '',
      looks: lookWords(looks.get(i), language),
      pictures: shown,
      kind: type === 'check' || type === 'note' ? type : 'stitch',
      times: statement.times,
      course: courses.has(type),
      counts: statement.added,
      free: !own && shown.length === 0 && !counted.has(i),
      plain: statement.turns.length === 0,
    })
  }
  let number = 1
  return parts.map(({ name, told }) => {
    const steps = foldedSteps(told, number, language)
    number += steps.length
    return { name, steps }
  })
}

/** Heads of repeats and what they hold, which they count by steps. */
function countedByRepeats({ statements }: Report): Set<number> {
  const counted = new Set<number>()
  for (const [i, { action }] of statements.entries())
    if (action.type === 'repeat') for (let k = i; k <= i + action.held; k++) counted.add(k)
  return counted
}

const linesIn = (text: string) =>
  text
    .split('\n')
    .map((line) => line.trim())
    .filter(Boolean)

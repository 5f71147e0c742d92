/** An edition written from what was gathered for it: the same on the page, in a PDF and in a file. */
import { type Hand, sceneFor } from '../drawing/mirror'
import { roleColours } from '../drawing/role-colours'
import { sceneOf } from '../drawing/scene'
import { allStepForms, type StepView, stepViews } from '../drawing/step-views'
import { svgOf } from '../drawing/svg'
import { type View, viewOf } from '../drawing/view'
import type { Choices } from '../evaluate/evaluate-pattern'
import { formedPattern } from '../form/form-pattern'
import { looksAfter } from '../form/looks'
import { billOf } from '../kit/bill'
import { asBead, type Choice, type ChoosableItem, type Chosen, chosenIn } from '../kit/choice'
import type { UnitSystem } from '../measure/units'
import type { Report } from '../report/report'
import { makersTable } from '../substitute/makers'
import type { ShopThread, ThreadSettings } from '../thread/settings'
import type { Setting } from './html'
import type { LanguageCode } from './language'
import type { ShownPicture } from './pictures'
import type { StepWords } from './step-words'
import { type TechniqueName, techniqueColours, techniqueView } from './techniques'
import { type Edition, type Named, writePattern } from './write-pattern'
import type { WrittenPattern } from './written-pattern'

type Item = ChoosableItem & Named

export interface Gathered {
  readonly source: string
  readonly size: string
  readonly version?: number | undefined
  readonly madeAt?: string | undefined
  readonly colourway?: string | undefined
  readonly choices: readonly Choice[]
  readonly colourways: readonly { readonly name: string; readonly choices: readonly Choice[] }[]
  readonly items: readonly Item[]
  readonly catalogue: readonly NonNullable<ChoosableItem['bead']>[]
  readonly words: readonly StepWords[]
  readonly pictures: readonly ShownPicture[]
  readonly timed: readonly number[]
  readonly errata: Edition['errata']
  readonly sampled: ThreadSettings['sampled']
  /** How the shop works with thread, and what stands beneath its patterns. */
  readonly shop: {
    readonly thread: ShopThread
    readonly units: UnitSystem
    readonly name: string
    readonly address: string
    readonly footer: string
  }
}

export interface WrittenEdition {
  readonly written: WrittenPattern
  readonly report: Report
  readonly drawings:
    | {
        readonly piece: View
        readonly steps: Readonly<Record<number, StepView>>
        readonly techniques: Readonly<Partial<Record<TechniqueName, StepView>>>
      }
    | undefined
  readonly colours: Readonly<Record<string, string>>
  /** Why the form has not come to rest, where it has not. */
  readonly why: string | undefined
}

const settingsOf = ({ sampled, shop }: Gathered): ThreadSettings => ({ ...shop.thread, sampled })

/** How an edition is made in a size, in its own colourway or another. */
export function madeIn(
  gathered: Gathered,
  size: string,
  choices: readonly Choice[] = gathered.choices,
): { chosen: Chosen<Item>; choices: Choices } {
  const chosen = chosenIn(choices, size, gathered.items)
  const { beads, counting } = chosen
  return { chosen, choices: { ...(size ? { size } : {}), beads, counting, settings: settingsOf(gathered) } }
}

export function writeEdition(gathered: Gathered, language: LanguageCode, hand: Hand = 'right'): WrittenEdition {
  const { source, items } = gathered
  const settings = settingsOf(gathered)
  const { chosen, choices: here } = madeIn(gathered, gathered.size)
  const { evaluated, form, unformed } = formedPattern(source, here)
  const { report } = evaluated
  const steps = form ? allStepForms(evaluated, form) : []
  const byId = new Map(items.map((item) => [item.id, item]))
  const written = writePattern(report, {
    language,
    units: gathered.shop.units,
    hand,
    version: gathered.version,
    madeAt: gathered.madeAt,
    colourway: gathered.colourway,
    settings,
    bill: billOf(report, chosen.kit).lines.map((line) => ({ ...line, item: byId.get(line.itemId) as Item })),
    sizes: report.sizes.map((size) =>
      size === report.size ? report : formedPattern(source, madeIn(gathered, size).choices).evaluated.report,
    ),
    colourways: gathered.colourways.map((each) => ({
      name: each.name,
      choices: each.choices
        .filter(({ size }) => size === '' || size === report.size)
        .flatMap(({ role, itemId }) => {
          const item = byId.get(itemId)
          return item ? [{ role, item }] : []
        }),
    })),
    makers: makersTable(source, here, gathered.catalogue.map(asBead)),
    words: gathered.words,
    pictures: gathered.pictures,
    looks: looksAfter(steps),
    timed: gathered.timed,
    errata: gathered.errata,
    shop: gathered.shop,
  })
  const scene = form && sceneFor(hand, sceneOf(evaluated, form))
  return {
    written,
    report,
    drawings: scene && {
      piece: viewOf(scene),
      steps: stepViews(steps, report.statements, hand),
      techniques: techniqueViews(written, hand),
    },
    colours: { ...roleColours(report.beads.map(({ role }) => role)), ...chosen.colours },
    why: unformed?.why,
  }
}

const techniqueViews = ({ techniques }: WrittenPattern, hand: Hand) =>
  Object.fromEntries(
    techniques.flatMap(({ name }) => {
      const view = techniqueView(name, hand)
      return view ? [[name, view] as const] : []
    }),
  )

/** Its drawings as SVG, for HTML. */
export function drawingsAsSvg({ drawings, colours, written }: WrittenEdition): Setting['drawings'] {
  if (!drawings) return undefined
  const steps = Object.entries(drawings.steps).map(([line, { view, face }]) => [
    line,
    { svg: svgOf(view, { title: `${written.title}, ${line}`, colours }), behind: face === 'back' },
  ])
  const techniques = written.techniques.flatMap(({ name, title }) => {
    const shown = drawings.techniques[name]
    return shown ? [[name, svgOf(shown.view, { title, colours: techniqueColours })]] : []
  })
  return {
    piece: svgOf(drawings.piece, { title: written.title, colours }),
    steps: Object.fromEntries(steps),
    techniques: Object.fromEntries(techniques),
  }
}

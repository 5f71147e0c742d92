import { usualWristEase } from '@tessellum/core/desk/wearer'
import { usualSpares } from '@tessellum/core/kit/spares'
import { unitSystems } from '@tessellum/core/measure/units'
import { fingerSystems } from '@tessellum/core/sizing/finger'
import { usualThreadSettings } from '@tessellum/core/thread/settings'
import { languageCodes } from '@tessellum/core/writing/language'
import { textSizes, usualDocumentStyle } from '@tessellum/core/writing/layout'
import { day } from './fields'
import { newPassword, newPerson } from './people'
import { z } from './zod'

/** Money of a hundred parts: the books are kept in them. */
export const currencies = ['GBP', 'EUR', 'USD', 'AUD', 'CAD', 'CHF', 'CZK', 'DKK', 'NOK', 'NZD', 'PLN', 'SEK'] as const

/** A host and a port, or nothing. */
export const deviceAddress = /^([\w.-]+:\d{1,5})?$/

export const papers = ['A4', 'LETTER'] as const

const mm = (most: number) =>
  z.number('Give a length.').min(0, 'A length cannot be below 0.').max(most, `At most ${most} mm.`)
const text = (most: number) => z.string().trim().max(most, `At most ${most} letters.`)

export const timeZones: readonly string[] = ['UTC', ...Intl.supportedValuesOf('timeZone')]

/** Who the shop is: told on its pages and in what it gives out. */
const profile = z.object({
  name: z.string('Give the shop a name.').trim().min(1, 'Give the shop a name.').max(80, 'At most 80 letters.'),
  address: text(300),
  /** Stands at the end of every written pattern: copyright, and what may be done with it. */
  footer: text(400),
  /** Of IANA's names: what day it is. */
  timeZone: z.string().refine((zone) => timeZones.includes(zone), 'Choose one of the time zones.'),
})

const taxShare = z.number('A share, such as 0.2.').min(0, 'It cannot be below 0.').max(1, 'At most 100 %.').default(0)

const money = z.object({
  currency: z.enum(currencies, `The currency is one of ${currencies.join(', ')}.`),
  /** Of a price that has it in it, as a share of what is left without it: by what is sold. */
  taxGoods: taxShare,
  taxKits: taxShare,
  taxPatterns: taxShare,
  /** Orders of stock above this are for the owner to place, in minor units; 0 where there is no such limit. */
  orderLimit: z
    .number('In pence or cents.')
    .int('In pence or cents.')
    .min(0, 'It cannot be below 0.')
    .max(100_000_000)
    .default(0),
})

/** What a document is written in and printed on, unless something else is chosen. */
const documents = z.object({
  language: z.enum(languageCodes),
  paper: z.enum(papers, 'Paper is A4 or LETTER.'),
  /** Of documents in English. */
  units: z.enum(unitSystems, `Measures are ${unitSystems.join(' or ')}.`).default('metric'),
  textSize: z.enum(textSizes, `Text is ${textSizes.join(', ')}.`).default(usualDocumentStyle.textSize),
  headings: z
    .string()
    .regex(/^#[0-9a-f]{6}$/i, 'A colour is written like #22302b.')
    .default(usualDocumentStyle.headings),
})

const takeUp = z.number('A share, such as 0.08.').min(0, 'It cannot be below 0.').max(1, 'At most as much again.')

/** How thread is worked with here; lengths in mm. */
const thread = z.object({
  tension: z.enum(['firm', 'usual', 'relaxed']),
  takeUpFirm: takeUp.default(usualThreadSettings.takeUpFirm),
  takeUpUsual: takeUp.default(usualThreadSettings.takeUpUsual),
  takeUpRelaxed: takeUp.default(usualThreadSettings.takeUpRelaxed),
  tailMm: mm(1000),
  weaveInMm: mm(1000),
  hitchesPerEnd: z.number().int('Hitches are whole.').min(0).max(20),
  hitchMm: mm(50),
  comfortableMm: mm(10_000).min(300, 'At least 300 mm.'),
  spanMm: mm(2500).min(800, 'At least 800 mm.'),
  cutStepMm: mm(500).min(1, 'At least 1 mm.'),
  start: z.enum(['end', 'middle']),
  closing: z.enum(['pass again', 'knot', 'knot and pass again', 'stop bead']),
  ending: z.enum(['hitch and weave', 'weave', 'melt', 'glue']),
})

const kits = z.object({
  /** Of small beads: at least this share more, and at least so many. */
  smallShare: z.number('A share, such as 0.1.').min(0, 'It cannot be below 0.').max(1, 'At most as many again.'),
  smallLeast: z.number().int('Beads are whole.').min(0).max(200),
  /** Of large beads: one more for each so many begun. */
  largeEvery: z.number().int('Beads are whole.').min(1).max(1000),
  /** From where on beads are large. */
  largeMm: mm(100).default(usualSpares.largeMm),
  /** A weighed bag may hold so much more than it should, as a share. */
  overShare: z
    .number('A share, such as 0.1.')
    .min(0, 'It cannot be below 0.')
    .max(1, 'At most as much again.')
    .default(usualSpares.overShare),
  /** What goes into a bag is rounded up to these. */
  scaleStepMg: z
    .number()
    .int('Give whole milligrams.')
    .min(1, 'At least 0.001 g.')
    .max(10_000, 'At most 10 g.')
    .default(usualSpares.scaleStepMg),
  threadStepMm: mm(1000).int('Give whole millimetres.').min(1, 'At least 1 mm.').default(usualSpares.threadStepMm),
  threadOverMm: mm(10_000).int('Give whole millimetres.').default(usualSpares.threadOverMm),
  /** Days between what arrives and what must be packed by. */
  packingDays: z.number().int('Days are whole.').min(0).max(60),
})

const pace = z
  .number('Give a figure.')
  .min(1, 'At least as long as a practised hand.')
  .max(10, 'At most ten times as long.')

/** How a class's hours are reckoned with. */
const teaching = z.object({
  welcomeMinutes: z
    .number('Give the minutes.')
    .int('Give whole minutes.')
    .min(0, 'It cannot be below 0.')
    .max(120, 'At most 120.'),
  easyPace: pace,
  beginnerPace: pace,
})

/** What screens say and people type; records are in milligrams and millimetres whatever it is. */
const measures = z.object({
  units: z.enum(unitSystems, `Measures are ${unitSystems.join(' or ')}.`),
  fingers: z.enum(fingerSystems, `Finger sizes are ${fingerSystems.join(', ')}.`),
  /** Added to a wrist, by how a bracelet is to sit. */
  snugMm: mm(100).default(usualWristEase.snug),
  usualMm: mm(100).default(usualWristEase.usual),
  looseMm: mm(100).default(usualWristEase.loose),
})

/** Days of the week by their numbers, Sunday 0, and single days, on which nobody packs or orders. */
const days = z.object({
  closed: z.array(z.number().int().min(0).max(6)).max(6, 'At least one day of the week is a working day.'),
  off: z.array(day('Give the day.')).max(366, 'At most 366 days.'),
})
export type ShopDays = z.output<typeof days>

const daysAhead = (most: number) =>
  z.number('Give the days.').int('Days are whole.').min(1, 'At least 1 day.').max(most, `At most ${most} days.`)

/** How far ahead the shop looks, in days. */
const ahead = z.object({
  /** Classes and orders that have no batch yet come up so long before. */
  unplannedDays: daysAhead(366),
  /** What packing takes is fetched from the shelf for so many days at once. */
  fetchDays: daysAhead(90),
  /** The kits of a class, or of an order, are to be planned so long before its day. */
  classDays: daysAhead(366),
  orderDays: daysAhead(366),
})

/** Who may come in. */
const access = z.object({
  /** How long the link is good with which somebody chooses a password. */
  linkDays: daysAhead(30),
})

const address = z
  .string()
  .trim()
  .max(200, 'At most 200 letters.')
  .regex(deviceAddress, 'An address is a name and a port, such as 192.168.0.20:4800.')

/** Where devices and the suppliers' service are; where one is empty, as the server was told when it was started. */
const devices = z.object({ scale: address, printer: address, scanner: address, supplier: address })

/** How this shop does things. */
export const settings = z.object({
  profile,
  money,
  documents,
  measures,
  thread,
  kits,
  days,
  ahead,
  teaching,
  access,
  devices,
})
export type Settings = z.infer<typeof settings>

/** Only the parts that are named are changed, each as a whole. */
export const changeSettings = settings.partial().refine((parts) => Object.keys(parts).length > 0, 'Nothing is changed.')
export type ChangeSettings = z.input<typeof changeSettings>
export type SettingsParts = z.output<typeof changeSettings>

/** The shop's sign, in pixels; another has another digest. */
export const logo = z.object({ digest: z.string(), width: z.number(), height: z.number() })
export type Logo = z.infer<typeof logo>

export const shopLogo = z.object({ logo: logo.nullable() })

/** What anybody may know who comes to the door. */
export const shopDoor = z.object({
  name: z.string(),
  /** Nobody has begun it yet: its first owner is to. */
  empty: z.boolean(),
})

/** The first owner of an empty shop, and how the shop begins. */
export const beginShop = z.object({
  token: z
    .string('The address is not whole.')
    .min(1, 'The address is not whole.')
    .max(100, 'The address is not whole.'),
  owner: newPerson.omit({ roles: true }).extend({ password: newPassword }),
  settings: settings.pick({ profile: true, money: true, documents: true }),
  /** Add two patterns to learn with. */
  examples: z.boolean(),
})
export type BeginShop = z.input<typeof beginShop>

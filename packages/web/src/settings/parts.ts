/** What a shop settles, part by part: each field with what it changes. */
import { currencies, papers, type Settings, timeZones } from '@tessellum/contract/settings'
import { usualSettings } from '@tessellum/contract/usual-settings'
import { signOf } from '@tessellum/core/measure/money'
import { languages } from '@tessellum/core/writing/languages'
import { textSizes } from '@tessellum/core/writing/layout'

export type PartName = keyof Settings

interface Choice {
  readonly value: string | number
  readonly label: string
}

export interface Field {
  readonly label: string
  /** What it changes. */
  readonly says: string
  readonly kind: 'line' | 'lines' | 'choice' | 'choices' | 'days' | 'figure' | 'colour'
  readonly choices?: readonly Choice[]
  /** What a figure is counted in. */
  readonly unit?: string
  /** So many of what is kept are one of what is said: 10 mm a cm, 0.01 of a share a per cent. */
  readonly each?: number
  readonly step?: number
  readonly most?: number
}

export interface Part<Name extends PartName = PartName> {
  readonly name: Name
  readonly title: string
  readonly about?: string
  readonly fields: Readonly<Record<keyof Settings[Name] & string, Field>>
}

const weekdays = ['Sunday', 'Monday', 'Tuesday', 'Wednesday', 'Thursday', 'Friday', 'Saturday']

const same = (values: readonly string[]): Choice[] => values.map((value) => ({ value, label: value }))
const figureField = (
  label: string,
  says: string,
  unit: string,
  most: number,
  more: Pick<Field, 'each' | 'step'> = {},
): Field => ({ label, says, kind: 'figure', unit, step: 1, most, ...more })

/** Kept as a share, told as a per cent. */
const shareField = (label: string, says: string): Field => figureField(label, says, '%', 100, { each: 0.01 })

/** @param most in mm */
const lengthField = (label: string, says: string, most: number): Field =>
  figureField(label, says, 'cm', most / 10, { each: 10 })

const unitChoices: readonly Choice[] = [
  { value: 'metric', label: 'Millimetres and grams' },
  { value: 'inches', label: 'Inches and ounces' },
]

const takeUpField = (tension: string): Field =>
  shareField(`Take-up when ${tension}`, 'Added to the cut of a thread for what the work takes up.')

const easeField = (sits: string): Field =>
  figureField(
    `A ${sits} bracelet`,
    'How much longer than the wrist it is made, for orders and on the sizing desk.',
    'mm',
    100,
  )

const daysField = (label: string, says: string, most = 366): Field => figureField(label, says, 'days', most)

const paceField = (label: string, tells: string): Field =>
  figureField(label, `Times as long as a practised hand. A class page tells by it ${tells}.`, 'times', 10, {
    step: 0.1,
  })

const addressField = (label: string, says: string): Field => ({
  label,
  says,
  kind: 'line',
})

const taxField = (label: string): Field =>
  shareField(
    label,
    'It is in the price: receipts and the CSV of sales tell how much of it is tax. Ask your bookkeeper for the rate.',
  )

export const parts: { readonly [Name in PartName]: Part<Name> } = {
  profile: {
    name: 'profile',
    title: 'The shop',
    fields: {
      name: { label: 'Name', says: 'Stands on the sign-in page and at the end of written patterns.', kind: 'line' },
      address: { label: 'Address', says: 'Stands beneath the name at the end of written patterns.', kind: 'lines' },
      timeZone: {
        label: 'Time zone',
        says: 'What day it is: for the bench, what arrives and is ordered, and the sales of a day.',
        kind: 'choice',
        choices: timeZones.map((value) => ({ value, label: value })),
      },
      footer: {
        label: 'Beneath every pattern',
        says: 'Copyright, and what may be done with a pattern: the last lines of what is given out.',
        kind: 'lines',
      },
    },
  },
  money: {
    name: 'money',
    title: 'Money',
    fields: {
      currency: {
        label: 'Currency',
        says: 'Of all prices and costs. Figures stay as they are when it is changed: nothing is converted. Prices that suppliers quote in another currency are not taken.',
        kind: 'choice',
        choices: currencies.map((value) => ({
          value,
          label: signOf(value) === value ? value : `${value}, ${signOf(value)}`,
        })),
      },
      taxGoods: taxField('Tax on beads, stones and thread'),
      taxKits: taxField('Tax on kits'),
      taxPatterns: taxField('Tax on patterns'),
      orderLimit: {
        label: 'Orders above this are for the owner',
        says: 'Of stock, whoever else may order it. 0 is no limit.',
        kind: 'figure',
        each: 100,
        step: 10,
        most: 1_000_000,
      },
    },
  },
  documents: {
    name: 'documents',
    title: 'Documents',
    fields: {
      language: {
        label: 'Language',
        says: 'Of written patterns, unless another is chosen.',
        kind: 'choice',
        choices: Object.values(languages).map(({ code, name }) => ({ value: code, label: name })),
      },
      paper: {
        label: 'Paper',
        says: 'Of PDFs, unless another is chosen.',
        kind: 'choice',
        choices: papers.map((value) => ({ value, label: value === 'A4' ? 'A4' : 'US Letter' })),
      },
      units: {
        label: 'Measures',
        says: 'Of patterns in English: inches come with feet of thread and ounces. Beads are told in millimetres everywhere, and other languages are metric.',
        kind: 'choice',
        choices: unitChoices,
      },
      textSize: {
        label: 'Text',
        says: 'How large written patterns are set.',
        kind: 'choice',
        choices: same(textSizes),
      },
      headings: {
        label: 'Colour of headings',
        says: 'Of written patterns. Choose one that is dark enough to read, and prints well in grey.',
        kind: 'colour',
      },
    },
  },
  measures: {
    name: 'measures',
    title: 'Measures',
    fields: {
      units: {
        label: 'On screens',
        says: 'Sizes of finished work, thread and stock. Beads are told in millimetres everywhere; packing, counting and price lists stay in grams and metres, as scales tell them.',
        kind: 'choice',
        choices: unitChoices,
      },
      fingers: {
        label: 'Finger sizes',
        says: 'Of customers and orders.',
        kind: 'choice',
        choices: [
          { value: 'ISO', label: 'ISO: millimetres round the inside' },
          { value: 'US', label: 'US' },
          { value: 'UK', label: 'UK: letters' },
          { value: 'Japan', label: 'Japan' },
        ],
      },
      snugMm: easeField('snug'),
      usualMm: easeField('usual'),
      looseMm: easeField('loose'),
    },
  },
  thread: {
    name: 'thread',
    title: 'Thread',
    fields: {
      tension: {
        label: 'Tension',
        says: 'How firmly work is pulled up. A pattern may say otherwise.',
        kind: 'choice',
        choices: same(['firm', 'usual', 'relaxed']),
      },
      takeUpFirm: takeUpField('firm'),
      takeUpUsual: takeUpField('usual'),
      takeUpRelaxed: takeUpField('relaxed'),
      tailMm: lengthField(
        'Tail',
        'Left hanging where a thread begins, and added to its cut. A pattern may say otherwise.',
        1000,
      ),
      weaveInMm: lengthField(
        'Woven in',
        'Woven back into the work at the end of a thread, and added to its cut.',
        1000,
      ),
      hitchesPerEnd: figureField('Half hitches', 'Tied as a thread is ended, and added to its cut.', 'at each end', 20),
      hitchMm: figureField('A half hitch takes', 'Of thread.', 'mm', 50),
      comfortableMm: lengthField(
        'Longest working thread',
        'A piece that takes more is worked with several, and the written pattern says so.',
        10_000,
      ),
      spanMm: lengthField('Arm span', 'Fingertip to fingertip: long threads are told in arm-spans too.', 2500),
      cutStepMm: lengthField('Cuts are rounded up to', 'So that they can be measured off.', 500),
      start: {
        label: 'A thread begins',
        says: 'From its middle, half of it is laid aside as the tail, and worked later. A pattern may say otherwise.',
        kind: 'choice',
        choices: [
          { value: 'end', label: 'at its end' },
          { value: 'middle', label: 'in its middle' },
        ],
      },
      closing: {
        label: 'A ring is closed',
        says: 'What written patterns tell the stitcher to do.',
        kind: 'choice',
        choices: [
          { value: 'pass again', label: 'by passing through again' },
          { value: 'knot', label: 'with a knot' },
          { value: 'knot and pass again', label: 'with a knot, and passing through again' },
          { value: 'stop bead', label: 'against a stop bead' },
        ],
      },
      ending: {
        label: 'A thread is ended',
        says: 'What written patterns tell the stitcher to do.',
        kind: 'choice',
        choices: [
          { value: 'hitch and weave', label: 'with half hitches, and woven in' },
          { value: 'weave', label: 'woven in' },
          { value: 'melt', label: 'melted' },
          { value: 'glue', label: 'glued' },
        ],
      },
    },
  },
  kits: {
    name: 'kits',
    title: 'Kits',
    fields: {
      smallShare: shareField(
        'Spare small beads',
        'Put into a bag beyond the count, for spills and culls. Kits that are reserved keep what they have until their batch is changed.',
      ),
      smallLeast: figureField('At least', 'So many spare of each small bead.', 'beads', 200),
      largeEvery: figureField('One spare large bead for every', 'For each so many begun.', 'beads', 1000),
      largeMm: figureField(
        'Beads are large from',
        'Long or across: they have the spares of large beads, and smaller ones those of small beads.',
        'mm',
        100,
        { step: 0.5 },
      ),
      overShare: shareField(
        'A weighed bag may be over by',
        'The packing bench calls a bag full up to there. Two of the scale’s steps are always allowed. Bags that are laid out keep what they have.',
      ),
      scaleStepMg: figureField(
        'Weighed beads are rounded up to',
        'What the scale can tell. Kits that are reserved keep what they have until their batch is changed.',
        'g',
        10,
        { each: 1000, step: 0.1 },
      ),
      threadStepMm: lengthField(
        'Thread is rounded up to',
        'What goes into a kit of all its cuts together. Kits that are reserved keep what they have until their batch is changed.',
        1000,
      ),
      threadOverMm: lengthField(
        'Thread may be over by',
        'The packing bench takes so much more in a bag. Bags that are laid out keep what they have.',
        10_000,
      ),
      packingDays: daysField(
        'Days to pack',
        'Between a delivery and the day a batch is due: the buy list, the diary and the bench go by it.',
        60,
      ),
    },
  },
  days: {
    name: 'days',
    title: 'Days off',
    about:
      'When nobody packs and nothing is ordered. What must be packed or ordered by when, on the bench, in the diary and on the buy list, goes round these days.',
    fields: {
      closed: {
        label: 'Closed every',
        says: 'Days of the week.',
        kind: 'choices',
        choices: weekdays.map((label, value) => ({ value, label })),
      },
      off: { label: 'Days off', says: 'Single days, such as holidays.', kind: 'days' },
    },
  },
  ahead: {
    name: 'ahead',
    title: 'Looking ahead',
    about: 'How long before its day something comes up on the bench.',
    fields: {
      unplannedDays: daysField(
        'Without a batch yet',
        'How long before its day a class or an order that has no batch comes up on the bench.',
      ),
      classDays: daysField('Plan the kits of a class', 'How long before its first day the bench says by when.'),
      orderDays: daysField('Plan the kit of an order', 'How long before the day it is wanted.'),
      fetchDays: daysField(
        'Fetch from the shelf',
        'For how many days of packing the bench lists what to fetch, for one walk.',
        90,
      ),
    },
  },
  teaching: {
    name: 'teaching',
    title: 'Teaching',
    fields: {
      welcomeMinutes: figureField(
        'Coming in',
        'Of a class, until the thread is cut: what is left is for the piece.',
        'minutes',
        120,
        { step: 5 },
      ),
      easyPace: paceField('An easy pace takes', 'what fits into its hours'),
      beginnerPace: paceField('Beginners take', 'what is homework'),
    },
  },
  access: {
    name: 'access',
    title: 'Access',
    fields: {
      linkDays: daysField(
        'A link for a password is good for',
        'The one that you send to whoever is new, or has forgotten theirs. Links that were made before keep their day.',
        30,
      ),
    },
  },
  devices: {
    name: 'devices',
    title: 'Devices',
    about:
      'Where the shop has its devices: a name and a port each, such as 192.168.0.20:4800. One that is left empty stays where the server was told when it was started.',
    fields: {
      scale: addressField('Scale', 'Where its readings come from, for the packing bench and for counting.'),
      printer: addressField('Label printer', 'Where labels of kits, bags, lots and seats go.'),
      scanner: addressField('Scanner', 'Where scanned barcodes come from.'),
      supplier: addressField('Suppliers’ service', 'Where quotes are asked for.'),
    },
  },
}

/** As a person says a value: in the field's unit. */
export const spoken = ({ each = 1 }: Field, value: unknown): unknown =>
  typeof value === 'number' ? Number((value / each).toFixed(6)) : value
/** As it is kept. */
export const unspoken = ({ each = 1 }: Field, value: unknown): unknown =>
  typeof value === 'number' ? Number((value * each).toFixed(6)) : (value ?? '')

/** "Usually 15 cm." Empty for what no shop has in common, and where a choice says so itself. */
export function usually(part: PartName, name: string): string {
  if (
    part === 'profile' ||
    part === 'devices' ||
    part === 'days' ||
    name === 'tension' ||
    name.startsWith('tax') ||
    name === 'orderLimit'
  )
    return ''
  const field = (parts[part].fields as Readonly<Record<string, Field>>)[name] as Field
  const value = spoken(field, (usualSettings[part] as Readonly<Record<string, unknown>>)[name])
  const said = field.choices?.find((each) => each.value === value)?.label ?? `${value} ${field.unit ?? ''}`.trim()
  return `Usually ${said}.`
}

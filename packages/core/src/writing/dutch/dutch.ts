import { mmPerInch, trim } from '../../measure/units'
import type { Language } from '../language'
import { cautions, marks, tools, wear } from './care'
import { list, sayTimes } from './moves'
import { otherHand } from './other-hand'
import { repeatSentence, sentenceFor } from './sentences'
import { techniques } from './techniques'

const comma = (figure: string) => figure.replace('.', ',')
const decimal = (value: number, places: number) => comma(trim(value, places))
const length = (mm: number) => (mm >= 100 ? `${decimal(mm / 10, 1)} cm` : `${decimal(mm, 1)} mm`)
const mass = (mg: number) => `${decimal(mg / 1000, 2)} g`

const kinds: Readonly<Record<string, string>> = {
  round: 'rocaille',
  cylinder: 'cilinderkraal',
  bugle: 'staafkraal',
  bicone: 'dubbele kegel',
  'faceted round': 'rond met facetten',
  'pearl round': 'ronde parel',
  cube: 'kubuskraal',
  'twin oval': 'ovaal met twee gaten',
  'twin tile': 'vierkant met twee gaten',
  'twin half tile': 'rechthoek met twee gaten',
  'twin crescent': 'halve maan met twee gaten',
  'twin triangle': 'driehoek met twee gaten',
  'twin lentil': 'lens met twee gaten',
  drop: 'druppelkraal',
  dagger: 'dolkkraal',
  'cross drilled round': 'rond, kruiselings geboord',
  'round stone': 'ronde steen',
  'oval stone': 'ovale steen',
  'square stone': 'vierkante steen',
  'triangle stone': 'driehoekige steen',
  'rectangle stone': 'rechthoekige steen',
  'navette stone': 'spitsovale steen',
  'drop stone': 'druppelvormige steen',
  'girth stone': 'steen',
}
const threads: Readonly<Record<string, string>> = {
  braid: 'Gevlochten draad',
  nylon: 'Nylondraad',
  monofilament: 'Monofilament',
}
const tensions = { firm: 'vaste', usual: 'gewone', relaxed: 'losse' } as const
const verdicts = { 'too tight': 'te krap', snug: 'passend', loose: 'los', 'too big': 'te ruim' } as const

export const dutch: Language = {
  code: 'nl',
  units: 'metric',
  name: 'Nederlands',
  words: {
    materials: 'Materiaal',
    item: 'Artikel',
    exact: 'Precies',
    inKit: 'In het pakket',
    weight: 'Gewicht',
    thread: 'Draad',
    tools: 'Gereedschap',
    takeCare: 'Pas op',
    wordsUsed: 'Gebruikte woorden',
    steps: 'Stappen',
    check: 'Nakijken:',
    contents: 'Inhoud',
    techniques: 'Technieken',
    tickOff: 'Om af te vinken',
    step: 'Stap',
    fromTheShop: 'Van de winkel',
    sizes: 'Maten',
    size: 'Maat',
    finished: 'Klaar',
    ring: 'Steen en ring',
    colourways: 'Kleurstellingen',
    makers: 'Kralen van andere makers',
    wear: 'Dragen en bewaren',
    errata: 'Verbeteringen',
    draftMark: 'CONCEPT: niet voor verkoop of les',
    fromBehind: 'van achteren',
    finishedPiece: 'Het voltooide stuk',
    thisStep: 'Deze stap',
    notLikeThis: 'Niet zo',
    faultsToAvoid: 'Fouten om te vermijden',
    notSettled: 'niet gemeten',
    seat: 'Plaats',
    colours: 'Kleuren',
    notation: 'Notatie',
    count: 'Opgenomen',
    soFar: 'Tot nu toe',
    unprinted: 'Letters die dit lettertype mist, staan er als «?»; de schermpagina en het HTML-bestand hebben ze.',
  },
  list,
  length,
  mass,
  pieces: String,
  weighed: (mg, standsFor) => `${mass(mg)} (ongeveer ${standsFor})`,
  along: (along) =>
    along.type === 'band'
      ? `${comma(along.innerRoundMm.toFixed(1))} mm omtrek aan de binnenkant`
      : `${along.straightMm.toFixed(0)} mm lang, recht gelegd`,
  extents: (figures, about) => `${about ? 'ongeveer ' : ''}${figures.map(comma).join(' x ')} mm`,
  date: (iso) => new Intl.DateTimeFormat('nl-NL', { dateStyle: 'long', timeZone: 'UTC' }).format(new Date(iso)),
  version: (number) => `Versie ${number}`,
  draft: 'Concept',
  size: (name) => `maat ${name}`,
  colourway: (name) => `in ${name}`,
  makes: (count, pair) => `geeft ${pair ? 'een paar' : count === 1 ? 'één stuk' : `${count} stuks`}`,
  finished: (extents) => `klaar ${extents}`,
  leftHanded: 'voor linkshandigen',
  otherHand,
  level: (level) =>
    ({
      'first piece': 'geschikt als eerste stuk',
      'some practice': 'voor handen met wat oefening',
      experienced: 'voor geoefende handen',
    })[level],
  time({ practised, beginner }, sampled) {
    const said = `met oefening ongeveer ${sayTime(practised)}, voor een beginner ${sayTime(beginner)}`
    return sampled > 0 ? `${said} (gemeten aan ${sampled === 1 ? 'één proef' : `${sampled} proeven`})` : said
  },
  page: (number, of) => `pagina ${number} van ${of}`,
  inOnePiece: (counts) => `In één stuk: ${counts}.`,
  kind: (kind) => kinds[kind] ?? threads[kind] ?? kind,
  stone: 'steen',
  sentence: sentenceFor,
  repeat: repeatSentence,
  repeatPart: (steps, times) =>
    `${times} stuks hiervan maken: elk bestaat uit ${steps === 1 ? 'de volgende stap' : `de volgende ${steps} stappen na elkaar`}.`,
  turns: (from, to, sentence) => `${from === to ? `${from}e` : `${from}e tot en met ${to}e`} keer: ${sentence}`,
  fromTurnToTurn: (changes) => `Van keer tot keer: ${changes.join('; ')}.`,
  andSoOn: (turns) => `En zo verder, zoals de getallen gaan: in totaal ${sayTimes(turns)}.`,
  needleIn: (role) => `De naald komt uit een ${role}.`,
  again: (from, to, times, changing) =>
    `${from === to ? `Stap ${from}` : `Stap ${from} ${to === from + 1 ? 'en' : 'tot en met'} ${to} na elkaar`} nog ${sayTimes(times)} uitvoeren.` +
    changing.map(({ step, changes }) => ` In stap ${step} van keer tot keer: ${changes.join('; ')}.`).join(''),
  look(look) {
    switch (look.type) {
      case 'flat':
        return 'Nu ligt het werk plat.'
      case 'ruffles':
        return `Nu golft de rand: hij gaat ${sayTimes(look.times)} op en neer.`
      case 'cup':
        return `Het werk wordt hol: de rand staat nu ${length(look.mm)} naar ${look.face === 'front' ? 'voren' : 'achteren'}.`
      case 'closes':
        return `Nu sluit de rand over de steen ${look.stone}: ${list([
          ...(look.frontMm === undefined ? [] : [`${length(look.frontMm)} aan de voorkant`]),
          ...(look.backMm === undefined ? [] : [`${length(look.backMm)} aan de achterkant`]),
        ])}.`
    }
  },
  picked: (added, running) => `Opgenomen: ${added}.${running ? ` Tot nu toe: ${running}.` : ''}`,
  thread({ kind, size, doubled, cuts, each, tailMm, weaveInMm, tension, start, parts, spanMm, sampled }) {
    const say = (mm: number) =>
      `${length(mm)} (${decimal(mm / mmPerInch, 1)} inch, ${decimal(mm / spanMm, 1)} armlengtes)`
    const cutWords = cuts.map(({ mm, times }) => `${times} x ${say(mm)}`).join(' en ')
    return [
      `${threads[kind] ?? kind} ${size}, ${doubled ? 'dubbel' : 'enkel'}: ${cutWords} afknippen${each ? ', voor elk stuk' : ''}.`,
      `Daarin zit ${length(tailMm)} voor het begin en ${length(weaveInMm)} om in te werken, voor een ${tensions[tension]} draadspanning.`,
      ...(start === 'middle' ? ['In het midden van de draad beginnen en de andere helft opzij leggen.'] : []),
      ...parts
        .map(
          (part) =>
            `Bij «${part.name}»: ${list([
              ...(part.tailMm === tailMm ? [] : [`${length(part.tailMm)} draadeinde laten staan`]),
              ...(part.start === start
                ? []
                : [
                    part.start === 'middle'
                      ? 'in het midden van de draad beginnen'
                      : 'aan het eind van de draad beginnen',
                  ]),
              ...(part.tension === tension ? [] : [`met een ${tensions[part.tension]} hand aantrekken`]),
            ])}.`,
        )
        .filter((told) => !told.endsWith(': .')),
      ...(sampled
        ? [
            `Bijgesteld naar ${sampled.count} proeven, die ${decimal(Math.abs(sampled.ratio - 1) * 100, 1)} % ${sampled.ratio >= 1 ? 'meer' : 'minder'} nodig hadden dan berekend.`,
          ]
        : []),
    ]
  },
  tools,
  cautions,
  marks,
  techniques,
  wear,
  ring: (beads, verdict) => `${beads} kralen, ${verdicts[verdict]}`,
  makersAlike: (roles, makers) => `${list(roles)}: met kralen van ${list(makers)} blijven de aantallen gelijk.`,
  maker(maker, changes, { rings, crowded, faults }) {
    const clauses = [
      `${maker}: ${changes.length > 0 ? list(changes.map(({ role, before, after }) => `${after} ${role} in plaats van ${before}`)) : 'dezelfde aantallen'}`,
      ...rings.map(({ stone, verdict }) => `de ring rond ${stone} is ${verdicts[verdict]}`),
      ...(crowded.length > 0 ? [`de gaten van ${list(crowded)} worden te vol`] : []),
      ...(faults.length > 0 ? ['sommige regels komen er niet mee uit: houd de kraal van de lijst aan'] : []),
    ]
    return `${clauses.join('; ')}.`
  },
  corrects: (version, note) => `Verbetert versie ${version}: ${note}`,
}

function sayTime(minutes: number): string {
  if (minutes < 90) return `${minutes} minuten`
  return `${decimal(Math.round(minutes / 30) / 2, 1)} uur`
}

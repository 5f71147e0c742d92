import { mmPerInch, trim } from '../../measure/units'
import type { Language } from '../language'
import { cautions, marks, tools, wear } from './care'
import { list } from './moves'
import { otherHand } from './other-hand'
import { repeatSentence, sentenceFor } from './sentences'
import { techniques } from './techniques'

const decimal = (value: number, places: number) => trim(value, places).replace('.', ',')
const length = (mm: number) => (mm >= 100 ? `${decimal(mm / 10, 1)} cm` : `${decimal(mm, 1)} mm`)
const mass = (mg: number) => `${decimal(mg / 1000, 2)} g`

const kinds: Readonly<Record<string, string>> = {
  round: 'Rocailles',
  cylinder: 'Zylinderperle',
  bugle: 'Stiftperle',
  bicone: 'Doppelkegel',
  'faceted round': 'Schliffperle rund',
  'pearl round': 'Wachsperle rund',
  cube: 'Würfelperle',
  'twin oval': 'Zweilochperle oval',
  'twin tile': 'Zweilochperle quadratisch',
  'twin half tile': 'Zweilochperle rechteckig',
  'twin crescent': 'Zweilochperle halbmondförmig',
  'twin triangle': 'Zweilochperle dreieckig',
  'twin lentil': 'Zweilochperle linsenförmig',
  drop: 'Tropfenperle',
  dagger: 'Lanzenperle',
  'cross drilled round': 'Rundperle kreuzgebohrt',
  'round stone': 'Stein rund',
  'oval stone': 'Stein oval',
  'square stone': 'Stein quadratisch',
  'triangle stone': 'Stein dreieckig',
  'rectangle stone': 'Stein rechteckig',
  'navette stone': 'Stein spitzoval',
  'drop stone': 'Stein tropfenförmig',
  'girth stone': 'Stein',
}
const threads: Readonly<Record<string, string>> = {
  braid: 'Geflochtener Faden',
  nylon: 'Nylonfaden',
  monofilament: 'Monofil',
}
const tensions = { firm: 'feste', usual: 'übliche', relaxed: 'lockere' } as const
const verdicts = { 'too tight': 'zu eng', snug: 'sitzt gut', loose: 'locker', 'too big': 'zu weit' } as const

export const german: Language = {
  code: 'de',
  units: 'metric',
  name: 'Deutsch',
  words: {
    materials: 'Material',
    item: 'Artikel',
    exact: 'Genau',
    inKit: 'In der Packung',
    weight: 'Gewicht',
    thread: 'Faden',
    tools: 'Werkzeug',
    takeCare: 'Vorsicht',
    wordsUsed: 'Verwendete Wörter',
    steps: 'Schritte',
    check: 'Prüfen:',
    contents: 'Inhalt',
    techniques: 'So wird gearbeitet',
    tickOff: 'Zum Abhaken',
    step: 'Schritt',
    fromTheShop: 'Vom Laden',
    sizes: 'Grössen',
    size: 'Grösse',
    finished: 'Fertig',
    ring: 'Stein und Ring',
    colourways: 'Farbstellungen',
    makers: 'Perlen anderer Hersteller',
    wear: 'Tragen und aufbewahren',
    errata: 'Berichtigungen',
    draftMark: 'ENTWURF: nicht für Verkauf oder Unterricht',
    fromBehind: 'von hinten',
    finishedPiece: 'Das fertige Stück',
    thisStep: 'Dieser Schritt',
    notLikeThis: 'So nicht',
    faultsToAvoid: 'Fehler, die man vermeidet',
    notSettled: 'nicht gemessen',
    seat: 'Platz',
    colours: 'Farben',
    notation: 'Notation',
    count: 'Aufgenommen',
    soFar: 'Bisher',
    unprinted:
      'Buchstaben, die dieser Schrift fehlen, stehen als «?» da; die Bildschirmseite und die HTML-Datei haben sie.',
  },
  list,
  length,
  mass,
  pieces: String,
  weighed: (mg, standsFor) => `${mass(mg)} (etwa ${standsFor})`,
  along: (along) =>
    along.type === 'band'
      ? `innen ${along.innerRoundMm.toFixed(1).replace('.', ',')} mm Umfang`
      : `gestreckt ${along.straightMm.toFixed(0)} mm lang`,
  extents: (figures, about) => `${about ? 'etwa ' : ''}${figures.join(' x ').replaceAll('.', ',')} mm`,
  date: (iso) => new Intl.DateTimeFormat('de-CH', { dateStyle: 'long', timeZone: 'UTC' }).format(new Date(iso)),
  version: (number) => `Ausgabe ${number}`,
  draft: 'Entwurf',
  size: (name) => `Grösse ${name}`,
  colourway: (name) => `in ${name}`,
  makes: (count, pair) => `ergibt ${pair ? 'ein Paar' : count === 1 ? 'ein Stück' : `${count} Stück`}`,
  finished: (extents) => `fertig ${extents}`,
  leftHanded: 'für Linkshänder',
  otherHand,
  level: (level) =>
    ({
      'first piece': 'geeignet als erstes Stück',
      'some practice': 'für Hände mit etwas Übung',
      experienced: 'für geübte Hände',
    })[level],
  time({ practised, beginner }, sampled) {
    const said = `mit Übung etwa ${sayTime(practised)}, als Anfang ${sayTime(beginner)}`
    return sampled > 0 ? `${said} (an ${sampled === 1 ? 'einer Probe' : `${sampled} Proben`} gemessen)` : said
  },
  page: (number, of) => `Seite ${number} von ${of}`,
  inOnePiece: (counts) => `In einem Stück: ${counts}.`,
  kind: (kind) => kinds[kind] ?? threads[kind] ?? kind,
  stone: 'Stein',
  sentence: sentenceFor,
  repeat: repeatSentence,
  repeatPart: (steps, times) =>
    `${times} Stück davon anfertigen: jedes besteht aus ${steps === 1 ? 'dem nächsten Schritt' : `den nächsten ${steps} Schritten hintereinander`}.`,
  turns: (from, to, sentence) => `${from === to ? `${from}. Mal` : `${from}. bis ${to}. Mal`}: ${sentence}`,
  fromTurnToTurn: (changes) => `Von Mal zu Mal: ${changes.join('; ')}.`,
  andSoOn: (turns) => `Und so weiter, wie die Zahlen gehen: insgesamt ${turns}-mal.`,
  needleIn: (role) => `Die Nadel kommt aus einer ${role}.`,
  again: (from, to, times, changing) =>
    `${from === to ? `Schritt ${from}` : `Die Schritte ${from} ${to === from + 1 ? 'und' : 'bis'} ${to} hintereinander`} noch ${times === 1 ? 'einmal' : times === 2 ? 'zweimal' : `${times}-mal`} ausführen.` +
    changing.map(({ step, changes }) => ` In Schritt ${step} von Mal zu Mal: ${changes.join('; ')}.`).join(''),
  look(look) {
    switch (look.type) {
      case 'flat':
        return 'Jetzt liegt die Arbeit flach.'
      case 'ruffles':
        return `Jetzt kräuselt sich der Rand: Er geht ${look.times}-mal auf und ab.`
      case 'cup':
        return `Die Arbeit wölbt sich: Der Rand steht jetzt ${length(look.mm)} nach ${look.face === 'front' ? 'vorn' : 'hinten'}.`
      case 'closes':
        return `Jetzt greift der Rand über den Stein ${look.stone}: ${list([
          ...(look.frontMm === undefined ? [] : [`${length(look.frontMm)} vorn`]),
          ...(look.backMm === undefined ? [] : [`${length(look.backMm)} hinten`]),
        ])}.`
    }
  },
  picked: (added, running) => `Aufgenommen: ${added}.${running ? ` Bisher: ${running}.` : ''}`,
  thread({ kind, size, doubled, cuts, each, tailMm, weaveInMm, tension, start, parts, spanMm, sampled }) {
    const say = (mm: number) =>
      `${length(mm)} (${decimal(mm / mmPerInch, 1)} Zoll, ${decimal(mm / spanMm, 1)} Armspannen)`
    const cutWords = cuts.map(({ mm, times }) => `${times} x ${say(mm)}`).join(' und ')
    return [
      `${threads[kind] ?? kind} ${size}, ${doubled ? 'doppelt' : 'einfach'}: ${cutWords} abschneiden${each ? ', für jedes Stück' : ''}.`,
      `Darin sind ${length(tailMm)} für den Anfang und ${length(weaveInMm)} zum Vernähen enthalten, für eine ${tensions[tension]} Fadenspannung.`,
      ...(start === 'middle' ? ['In der Mitte des Fadens beginnen und die andere Hälfte beiseite legen.'] : []),
      ...parts
        .map(
          (part) =>
            `Bei «${part.name}»: ${list([
              ...(part.tailMm === tailMm ? [] : [`${length(part.tailMm)} Fadenende stehen lassen`]),
              ...(part.start === start
                ? []
                : [part.start === 'middle' ? 'in der Mitte des Fadens beginnen' : 'am Ende des Fadens beginnen']),
              ...(part.tension === tension ? [] : [`mit ${tensions[part.tension].replace(/e$/, 'er')} Hand anziehen`]),
            ])}.`,
        )
        .filter((told) => !told.endsWith(': .')),
      ...(sampled
        ? [
            `Nach ${sampled.count} Proben berichtigt, die ${decimal(Math.abs(sampled.ratio - 1) * 100, 1)} % ${sampled.ratio >= 1 ? 'mehr' : 'weniger'} brauchten als gerechnet.`,
          ]
        : []),
    ]
  },
  tools,
  cautions,
  marks,
  techniques,
  wear,
  ring: (beads, verdict) => `${beads} Perlen, ${verdicts[verdict]}`,
  makersAlike: (roles, makers) => `${list(roles)}: mit Perlen von ${list(makers)} bleiben die Zahlen gleich.`,
  maker(maker, changes, { rings, crowded, faults }) {
    const clauses = [
      `${maker}: ${changes.length > 0 ? list(changes.map(({ role, before, after }) => `${after} ${role} statt ${before}`)) : 'gleiche Zahlen'}`,
      ...rings.map(({ stone, verdict }) => `der Ring um ${stone} ist ${verdicts[verdict]}`),
      ...(crowded.length > 0 ? [`die Löcher von ${list(crowded)} werden zu voll`] : []),
      ...(faults.length > 0 ? ['einige Zeilen gehen damit nicht auf, also bei der Perle aus der Liste bleiben'] : []),
    ]
    return `${clauses.join('; ')}.`
  },
  corrects: (version, note) => `Berichtigt Ausgabe ${version}: ${note}`,
}

function sayTime(minutes: number): string {
  if (minutes < 90) return `${minutes} Minuten`
  return `${decimal(Math.round(minutes / 30) / 2, 1)} Stunden`
}

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
const nth = (number: number) => (number === 1 ? '1re' : `${number}e`)

const kinds: Readonly<Record<string, string>> = {
  round: 'rocaille',
  cylinder: 'perle cylindrique',
  bugle: 'tube',
  bicone: 'toupie',
  'faceted round': 'ronde à facettes',
  'pearl round': 'ronde nacrée',
  cube: 'cube',
  'twin oval': 'ovale à deux trous',
  'twin tile': 'carré à deux trous',
  'twin half tile': 'rectangle à deux trous',
  'twin crescent': 'croissant à deux trous',
  'twin triangle': 'triangle à deux trous',
  'twin lentil': 'lentille à deux trous',
  drop: 'goutte',
  dagger: 'dague',
  'cross drilled round': 'ronde à trous croisés',
  'round stone': 'pierre ronde',
  'oval stone': 'pierre ovale',
  'square stone': 'pierre carrée',
  'triangle stone': 'pierre triangulaire',
  'rectangle stone': 'pierre rectangulaire',
  'navette stone': 'pierre navette',
  'drop stone': 'pierre en goutte',
  'girth stone': 'pierre',
}
const threads: Readonly<Record<string, string>> = {
  braid: 'Fil tressé',
  nylon: 'Fil de nylon',
  monofilament: 'Monofilament',
}
const tensions = { firm: 'ferme', usual: 'habituelle', relaxed: 'souple' } as const
const verdicts = { 'too tight': 'trop serré', snug: 'bien ajusté', loose: 'lâche', 'too big': 'trop grand' } as const

export const french: Language = {
  code: 'fr',
  units: 'metric',
  name: 'Français',
  words: {
    materials: 'Matériel',
    item: 'Article',
    exact: 'Exact',
    inKit: 'Dans le kit',
    weight: 'Poids',
    thread: 'Fil',
    tools: 'Outils',
    takeCare: 'Attention',
    wordsUsed: 'Mots employés',
    steps: 'Étapes',
    check: 'Vérifier:',
    contents: 'Contenu',
    techniques: 'Techniques',
    tickOff: 'À cocher',
    step: 'Étape',
    fromTheShop: 'De la boutique',
    sizes: 'Tailles',
    size: 'Taille',
    finished: 'Terminé',
    ring: 'Pierre et anneau',
    colourways: 'Coloris',
    makers: "Perles d'autres fabricants",
    wear: 'Porter et conserver',
    errata: 'Corrections',
    draftMark: "ÉBAUCHE: ni pour la vente ni pour l'enseignement",
    fromBehind: 'de dos',
    finishedPiece: 'La pièce terminée',
    thisStep: 'Cette étape',
    notLikeThis: 'Pas ainsi',
    faultsToAvoid: 'Fautes à éviter',
    notSettled: 'non mesuré',
    seat: 'Place',
    colours: 'Couleurs',
    notation: 'Notation',
    count: 'Prises',
    soFar: "Jusqu'ici",
    unprinted:
      "Les lettres qui manquent à cette police sont remplacées par «?»; la page à l'écran et le fichier HTML les montrent.",
  },
  list,
  length,
  mass,
  pieces: String,
  weighed: (mg, standsFor) => `${mass(mg)} (environ ${standsFor})`,
  along: (along) =>
    along.type === 'band'
      ? `${comma(along.innerRoundMm.toFixed(1))} mm de tour intérieur`
      : `${along.straightMm.toFixed(0)} mm de long, à plat`,
  extents: (figures, about) => `${about ? 'environ ' : ''}${figures.map(comma).join(' x ')} mm`,
  date: (iso) => new Intl.DateTimeFormat('fr-CH', { dateStyle: 'long', timeZone: 'UTC' }).format(new Date(iso)),
  version: (number) => `Version ${number}`,
  draft: 'Ébauche',
  size: (name) => `taille ${name}`,
  colourway: (name) => `en ${name}`,
  makes: (count, pair) => `donne ${pair ? 'une paire' : count === 1 ? 'une pièce' : `${count} pièces`}`,
  finished: (extents) => `terminé ${extents}`,
  leftHanded: 'pour gauchers',
  otherHand,
  level: (level) =>
    ({
      'first piece': 'convient comme première pièce',
      'some practice': 'pour des mains qui ont un peu de pratique',
      experienced: 'pour des mains exercées',
    })[level],
  time({ practised, beginner }, sampled) {
    const said = `environ ${sayTime(practised)} avec de la pratique, ${sayTime(beginner)} pour commencer`
    return sampled > 0 ? `${said} (mesuré sur ${sampled === 1 ? 'un essai' : `${sampled} essais`})` : said
  },
  page: (number, of) => `page ${number} de ${of}`,
  inOnePiece: (counts) => `Dans une pièce: ${counts}.`,
  kind: (kind) => kinds[kind] ?? threads[kind] ?? kind,
  stone: 'pierre',
  sentence: sentenceFor,
  repeat: repeatSentence,
  repeatPart: (steps, times) =>
    `En faire ${times}: chaque pièce se compose ${steps === 1 ? "de l'étape suivante" : `des ${steps} étapes suivantes, l'une après l'autre`}.`,
  turns: (from, to, sentence) => `${from === to ? nth(from) : `${nth(from)} à ${nth(to)}`} fois: ${sentence}`,
  fromTurnToTurn: (changes) => `D'une fois à l'autre: ${changes.join('; ')}.`,
  andSoOn: (turns) => `Et ainsi de suite, comme vont les nombres: ${sayTimes(turns)} en tout.`,
  needleIn: (role) => `L'aiguille sort d'une ${role}.`,
  again: (from, to, times, changing) =>
    `Refaire encore ${sayTimes(times)} ${from === to ? `l'étape ${from}` : `les étapes ${from} ${to === from + 1 ? 'et' : 'à'} ${to}, l'une après l'autre`}.` +
    changing.map(({ step, changes }) => ` À l'étape ${step}, d'une fois à l'autre: ${changes.join('; ')}.`).join(''),
  look(look) {
    switch (look.type) {
      case 'flat':
        return "Maintenant l'ouvrage est plat."
      case 'ruffles':
        return `Maintenant le bord ondule: il monte et descend ${sayTimes(look.times)}.`
      case 'cup':
        return `L'ouvrage se creuse: le bord dépasse maintenant de ${length(look.mm)} vers ${look.face === 'front' ? "l'avant" : "l'arrière"}.`
      case 'closes':
        return `Maintenant le bord recouvre la pierre ${look.stone}: ${list([
          ...(look.frontMm === undefined ? [] : [`${length(look.frontMm)} devant`]),
          ...(look.backMm === undefined ? [] : [`${length(look.backMm)} derrière`]),
        ])}.`
    }
  },
  picked: (added, running) => `Prises: ${added}.${running ? ` Jusqu'ici: ${running}.` : ''}`,
  thread({ kind, size, doubled, cuts, each, tailMm, weaveInMm, tension, start, parts, spanMm, sampled }) {
    const say = (mm: number) =>
      `${length(mm)} (${decimal(mm / mmPerInch, 1)} pouces, ${decimal(mm / spanMm, 1)} longueurs de bras)`
    const cutWords = cuts.map(({ mm, times }) => `${times} x ${say(mm)}`).join(' et ')
    return [
      `${threads[kind] ?? kind} ${size}, ${doubled ? 'double' : 'simple'}: couper ${cutWords}${each ? ', pour chaque pièce' : ''}.`,
      `Cela laisse un bout de ${length(tailMm)} pour commencer et ${length(weaveInMm)} à rentrer, pour une tension ${tensions[tension]}.`,
      ...(start === 'middle' ? ["Commencer au milieu du fil et mettre l'autre moitié de côté."] : []),
      ...parts
        .map(
          (part) =>
            `Pour «${part.name}»: ${list([
              ...(part.tailMm === tailMm ? [] : [`laisser un bout de ${length(part.tailMm)}`]),
              ...(part.start === start
                ? []
                : [part.start === 'middle' ? 'commencer au milieu du fil' : 'commencer au bout du fil']),
              ...(part.tension === tension ? [] : [`serrer avec une tension ${tensions[part.tension]}`]),
            ])}.`,
        )
        .filter((told) => !told.endsWith(': .')),
      ...(sampled
        ? [
            `Corrigé d'après ${sampled.count} essais, qui ont demandé ${decimal(Math.abs(sampled.ratio - 1) * 100, 1)} % de ${sampled.ratio >= 1 ? 'plus' : 'moins'} que le calcul.`,
          ]
        : []),
    ]
  },
  tools,
  cautions,
  marks,
  techniques,
  wear,
  ring: (beads, verdict) => `${beads} perles, ${verdicts[verdict]}`,
  makersAlike: (roles, makers) => `${list(roles)}: avec les perles de ${list(makers)}, les nombres restent les mêmes.`,
  maker(maker, changes, { rings, crowded, faults }) {
    const clauses = [
      `${maker}: ${changes.length > 0 ? list(changes.map(({ role, before, after }) => `${after} ${role} au lieu de ${before}`)) : 'mêmes nombres'}`,
      ...rings.map(({ stone, verdict }) => `l'anneau autour de ${stone} est ${verdicts[verdict]}`),
      ...(crowded.length > 0 ? [`les trous de ${list(crowded)} deviennent trop pleins`] : []),
      ...(faults.length > 0 ? ['certaines lignes ne tombent plus juste: garder la perle de la liste'] : []),
    ]
    return `${clauses.join('; ')}.`
  },
  corrects: (version, note) => `Corrige la version ${version}: ${note}`,
}

function sayTime(minutes: number): string {
  if (minutes < 90) return `${minutes} minutes`
  return `${decimal(Math.round(minutes / 30) / 2, 1)} heures`
}

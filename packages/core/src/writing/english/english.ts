import { counted } from '../../measure/counted'
import {
  type Mm,
  sayDuration,
  sayFeet,
  sayInches,
  sayLength,
  sayMass,
  sayOunces,
  saySpans,
  trim,
  type UnitSystem,
} from '../../measure/units'
import { saySize } from '../../report/form-report'
import { verdictWords } from '../../sizing/ring-fit'
import { capital, type Language } from '../language'
import { cautions, marks, tools, wear } from './care'
import { list } from './moves'
import { otherHand } from './other-hand'
import { repeatSentence, sentenceFor } from './sentences'
import { techniques } from './techniques'

/** English is read with metric measures and with inches, feet and ounces. */
export function englishIn(units: UnitSystem): Language {
  const metric = units === 'metric'
  const length = metric ? sayLength : sayFeet
  const mass = metric ? sayMass : sayOunces
  const size = (mm: Mm) => saySize(mm, units)
  return {
    code: 'en',
    units,
    name: 'English',
    words: {
      materials: 'Materials',
      item: 'Item',
      exact: 'Exact',
      inKit: 'In the kit',
      weight: 'Weight',
      thread: 'Thread',
      tools: 'Tools',
      takeCare: 'Take care',
      wordsUsed: 'Words used',
      steps: 'Steps',
      check: 'Check:',
      contents: 'Contents',
      techniques: 'Techniques used here',
      tickOff: 'Tick off what is done',
      step: 'Step',
      fromTheShop: 'From the shop',
      sizes: 'Sizes',
      size: 'Size',
      finished: 'Finished',
      ring: 'Stone and ring',
      colourways: 'Colourways',
      makers: "Other makers' beads",
      wear: 'To wear and keep',
      errata: 'Errata',
      draftMark: 'DRAFT: not for sale or teaching',
      fromBehind: 'from behind',
      finishedPiece: 'The finished piece',
      thisStep: 'This step',
      notLikeThis: 'Not like this',
      faultsToAvoid: 'Mistakes to avoid',
      notSettled: 'not measured',
      seat: 'Seat',
      colours: 'Colours',
      notation: 'Notation',
      count: 'Picked up',
      soFar: 'So far',
      unprinted: 'Characters missing from the font print as "?"; the page on the screen and the HTML file have them.',
    },
    list,
    length,
    mass,
    pieces: String,
    weighed: (mg, standsFor) => `${mass(mg)} (about ${standsFor})`,
    along: (along) =>
      along.type === 'band'
        ? `${size(along.innerRoundMm)} round inside`
        : `${metric ? `${along.straightMm.toFixed(0)} mm` : sayFeet(along.straightMm)} long laid straight`,
    extents: (figures, about) => `${about ? 'about ' : ''}${figures.join(' x ')} ${metric ? 'mm' : 'in'}`,
    date: (iso) => new Intl.DateTimeFormat('en-GB', { dateStyle: 'long', timeZone: 'UTC' }).format(new Date(iso)),
    version: (number) => `Version ${number}`,
    draft: 'Draft',
    size: (name) => `size ${name}`,
    colourway: (name) => `in ${name}`,
    makes: (count, pair) => `makes ${pair ? 'a pair' : count === 1 ? 'one piece' : `${count} pieces`}`,
    finished: (extents) => `finished ${extents}`,
    leftHanded: 'for left-handed stitchers',
    otherHand,
    level: (level) =>
      ({
        'first piece': 'fit for a first piece',
        'some practice': 'for hands with some practice',
        experienced: 'for experienced hands',
      })[level],
    time({ practised, beginner }, sampled) {
      const said = `about ${sayDuration(practised)} for a practised hand, ${sayDuration(beginner)} for a beginner`
      return sampled > 0 ? `${said} (timed on ${counted(sampled, 'sample')})` : said
    },
    page: (number, of) => `Page ${number} of ${of}`,
    inOnePiece: (counts) => `In one piece: ${counts}.`,
    kind: (kind) => kind,
    stone: 'stone',
    sentence: sentenceFor,
    repeat: repeatSentence,
    repeatPart: (steps, times) =>
      `Make ${times} of these: each is the next ${steps === 1 ? 'step' : `${steps} steps, one after the other`}.`,
    turns: (from, to, sentence) => `${from === to ? `Turn ${from}` : `Turns ${from} to ${to}`}: ${sentence}`,
    fromTurnToTurn: (changes) => `From turn to turn: ${changes.join('; ')}.`,
    andSoOn: (turns) => `And so on, as the numbers go: ${turns} turns in all.`,
    needleIn: (role) => `The needle comes out of ${/^[AEFHILMNORSX]$/.test(role) ? 'an' : 'a'} ${role}.`,
    again: (from, to, times, changing) =>
      `Do ${from === to ? `step ${from}` : `steps ${from} ${to === from + 1 ? 'and' : 'to'} ${to}, one after the other,`} ${times === 1 ? 'once more' : times === 2 ? 'twice more' : `${times} more times`}.` +
      changing.map(({ step, changes }) => ` In step ${step}, turn by turn: ${changes.join('; ')}.`).join(''),
    look(look) {
      switch (look.type) {
        case 'flat':
          return 'It lies flat now.'
        case 'ruffles':
          return `The edge ruffles now: it goes up and down ${look.times} times.`
        case 'cup':
          return `It cups: the edge stands ${size(look.mm)} to the ${look.face} now.`
        case 'closes':
          return `The edge closes over the stone ${look.stone} now, by ${list([
            ...(look.frontMm === undefined ? [] : [`${size(look.frontMm)} in front`]),
            ...(look.backMm === undefined ? [] : [`${size(look.backMm)} behind`]),
          ])}.`
      }
    },
    picked: (added, running) => `Picked up: ${added}.${running ? ` So far: ${running}.` : ''}`,
    thread({ kind, size, doubled, cuts, each, tailMm, weaveInMm, tension, start, parts, spanMm, sampled }) {
      const say = (mm: number) =>
        metric
          ? `${length(mm)} (${sayInches(mm)}, ${saySpans(mm, spanMm)})`
          : `${length(mm)} (${sayLength(mm)}, ${saySpans(mm, spanMm)})`
      const cutWords = cuts.map(({ mm, times }) => `${times} x ${say(mm)}`).join(' and ')
      return [
        `${capital(kind)} ${size}, ${doubled ? 'doubled' : 'single'}: cut ${cutWords}${each ? ' for each piece' : ''}.`,
        `That leaves a tail of ${length(tailMm)} to begin with and ${length(weaveInMm)} to weave in, for a ${tension} hand.`,
        ...(start === 'middle' ? ['Begin in the middle of the thread, and lay the other half aside.'] : []),
        ...parts
          .map(
            (part) =>
              `In ${part.name}: ${list([
                ...(part.tailMm === tailMm ? [] : [`leave a tail of ${length(part.tailMm)}`]),
                ...(part.start === start
                  ? []
                  : [part.start === 'middle' ? 'begin in the middle of the thread' : 'begin at the end of the thread']),
                ...(part.tension === tension ? [] : [`pull up with a ${part.tension} hand`]),
              ])}.`,
          )
          .filter((told) => !told.endsWith(': .')),
        ...(sampled
          ? [
              `Corrected by ${sampled.count} samples, which took ${trim(Math.abs(sampled.ratio - 1) * 100, 1)} % ${sampled.ratio >= 1 ? 'more' : 'less'} than was computed.`,
            ]
          : []),
      ]
    },
    tools,
    cautions,
    marks,
    techniques,
    wear,
    ring: (beads, verdict) => `${beads} beads, ${verdictWords[verdict].split(':')[0]}`,
    makersAlike: (roles, makers) => `${list(roles)}: with beads of ${list(makers)} the counts stay as they are.`,
    maker(maker, changes, { rings, crowded, faults }) {
      const clauses = [
        `${maker}: ${changes.length > 0 ? list(changes.map(({ role, before, after }) => `${after} ${role} for ${before}`)) : 'the same counts'}`,
        ...rings.map(({ stone, verdict }) => `the ring round ${stone} is ${verdict}`),
        ...(crowded.length > 0 ? [`the holes of ${list(crowded)} get too full`] : []),
        ...(faults.length > 0 ? ['some lines do not come out with it, so keep to the bead in the list'] : []),
      ]
      return `${clauses.join('; ')}.`
    },
    corrects: (version, note) => `This corrects version ${version}: ${note}`,
  }
}

export const english = englishIn('metric')

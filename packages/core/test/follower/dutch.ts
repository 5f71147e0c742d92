/** Reads the steps of a pattern written in Dutch. */
import {
  type Instruction,
  type Move,
  type Name,
  NotUnderstood,
  type PassOn,
  type Place,
  type Reader,
  type Stitch,
} from './instructions'
import { changingSteps, type EndingWords, readBeads, readEnding, stitchesOf, told } from './reading'

const times = (text: string): number => (text === 'één keer' ? 1 : Number.parseInt(text, 10))
const often = String.raw`(?:één keer|\d+ keer)`
const beads = (text: string) => readBeads(text, 'en')
const ordinals = { eerste: 'first', middelste: 'middle', laatste: 'last' } as const

function place(text: string): Place {
  const found = (pattern: RegExp) => pattern.exec(text)?.slice(1) as [string, string, string] | undefined
  const plain = text.replace(/ \((?:\d+ kralen|1 kraal|\p{Lu}\w*)\)/gu, '')
  if (plain !== text) return place(plain)
  let it = found(/^(.+?)(?:, elk)? via het (eerste|tweede) gat$/)
  if (it) return { type: 'hole', second: it[1] === 'tweede', of: place(it[0]) }
  it = found(/^kraal (\d+) van (.+)$/)
  if (it) return { type: 'nth', nth: Number(it[0]), of: place(it[1]) }
  it = found(/^(\p{Lu}\w*) (\d+) van (.+)$/u)
  if (it) return { type: 'nth', nth: Number(it[1]), of: { type: 'letters of', letter: it[0], of: place(it[2]) } }
  it = found(/^(\p{Lu}\w*) nummer (\d+)$/u)
  if (it) return { type: 'nth', nth: Number(it[1]), of: { type: 'letter', letter: it[0] } }
  const one = /^de (eerste|middelste|laatste) (kraal|\p{Lu}\w*)(?: van (.+))?$/u.exec(text)
  if (one) {
    const [, which, letter, of] = one as unknown as [string, keyof typeof ordinals, string, string | undefined]
    const whole: Place | undefined = of === undefined ? undefined : place(of)
    const all: Place | undefined =
      letter === 'kraal' ? whole : whole ? { type: 'letters of', letter, of: whole } : { type: 'letter', letter }
    if (!all) throw new NotUnderstood(text)
    return { type: 'nth', nth: ordinals[which], of: all }
  }
  const range = /^(kralen|\p{Lu}\w*) (\d+) tot en met (\d+) van (.+)$/u.exec(text)
  if (range) {
    const [, what, from, to, of] = range as unknown as [string, string, string, string, string]
    return {
      type: 'range',
      from: Number(from),
      to: Number(to),
      of: what === 'kralen' ? place(of) : { type: 'letters of', letter: what, of: place(of) },
    }
  }
  it = found(/^de (eerste|tweede) helft van (.+)$/)
  if (it) return { type: 'half', second: it[0] === 'tweede', of: place(it[1]) }
  it = found(/^de volgende (?:(\d+) kralen|kraal) van (.+)$/)
  if (it) return { type: 'next', count: Number(it[0] ?? 1), of: place(it[1]) }
  it = found(/^(.+) ervoor$/)
  if (it) {
    const of = place(it[0])
    if (of.type !== 'named') throw new NotUnderstood(text)
    return { ...of, before: of.before + 1 }
  }
  it = found(/^(?:elke )?(\p{Lu}\w*) (?:van|in) (.+)$/u)
  if (it) return { type: 'letters of', letter: it[0], of: place(it[1]) }
  it = found(/^(?:de dichtstbijzijnde |de |elke )?(\p{Lu}\w*)$/u)
  if (it) return { type: 'letter', letter: it[0] }
  it = found(/^«(\w+)» \((\w+)\)$/)
  if (it) return { type: 'part edge', part: it[0], edge: it[1] }
  const own = {
    '«zojuist opgenomen»': 'those just picked up',
    '«voorste rand»': 'front',
    '«achterste rand»': 'back',
  }
  it = found(/^«(\w+)»$/)
  const name = own[text as keyof typeof own] ?? it?.[0]
  if (name) return { type: 'named', name, before: 0 }
  throw new NotUnderstood(text)
}

function move(text: string): Move {
  let it = /^(.+) opnemen$/.exec(text)
  if (it) return { type: 'pick', beads: beads(it[1] as string) }
  it = /^terug door de (?:laatste (\d+) )?zojuist opgenomen (?:kraal|kralen|(\p{Lu}\w*)) gaan$/iu.exec(text)
  if (it) return { type: 'back', count: Number(it[1] ?? 1), letter: it[2] }
  it = /^(?:(terug )|(in de richting van de eerste keer ))?door (.+?)(?: gaan)?$/i.exec(text)
  if (it) return { type: 'pass', way: it[1] ? 'back' : it[2] ? 'straight' : 'near', place: place(it[3] as string) }
  throw new NotUnderstood(text)
}

const edges = new Set(['de ring', 'de rij', 'de laatste ronde', 'deze rand'])
const along = (words: string) => (edges.has(words) ? 'edge' : place(words))

function passOn(text: string): PassOn {
  if (text === 'één kraal overslaan en door de volgende gaan') return { type: 'skipping', wide: 1 }
  let it = /^(\d+) kralen overslaan en door de volgende \1 gaan$/.exec(text)
  if (it) return { type: 'skipping', wide: Number(it[1]) }
  it =
    /^door de volgende (?:(\d+) uitstekende kralen|uitstekende kraal) gaan(, of door alle waar er meer bij elkaar uitsteken)?$/.exec(
      text,
    )
  if (it) return { type: 'standing', wide: it[2] ? 'all' : Number(it[1] ?? 1) }
  it = /^op de kralen van (.+) verder tellen en door de kraal gaan waar je uitkomt: (.+)$/.exec(text)
  if (it) {
    const steps = (it[2] as string).split(', dan ').flatMap((each) => {
      const [, often, count] = /^(?:(\d+ keer) )?(\d+) (?:kraal|kralen)$/.exec(each) ?? []
      return Array<number>(often ? times(often) : 1).fill(Number(count))
    })
    return { type: 'counting', steps, of: along(it[1] as string) }
  }
  it = /^door de middelste kraal van de volgende groep(?: van «(\w+)»)? gaan$/.exec(text)
  if (it) return { type: 'group', nth: 'middle', name: it[1] }
  it = /^door kraal (\d+) van de volgende groep(?: van \d+)?(?: van «(\w+)»)? gaan$/.exec(text)
  if (it) return { type: 'group', nth: Number(it[1]), name: it[2] }
  if (text === 'door het andere gat van de volgende kraal gaan') return { type: 'other hole' }
  it = /^(?:één kraal|(\d+) kralen) van (.+) overslaan en door de volgende gaan$/.exec(text)
  if (it) return { type: 'every', each: Number(it[1] ?? 1) + 1, of: along(it[2] as string) }
  it = /^door de volgende kraal van (.+) gaan$/.exec(text)
  if (it) return { type: 'every', each: 1, of: along(it[1] as string) }
  it = /^door de volgende (.+) gaan$/.exec(text)
  if (it)
    return {
      type: 'next of',
      places: (it[1] as string).split(', daarna ').map((each) => place(each.replace(/^van /, ''))),
    }
  throw new NotUnderstood(text)
}

const onlyStanding = / \(daarvan (?:steekt alleen kraal|steken alleen kralen) (.+) uit\)$/

function picking(text: string): Pick<Stitch, 'moves' | 'standing'> {
  const only = onlyStanding.exec(text)
  const said = only ? text.slice(0, only.index) : text
  return { moves: said.split(', dan ').map(move), standing: only?.[1]?.split(/, | en /).map(Number) }
}

function stitch(text: string): { stitch: Stitch; times: number } {
  const skipping = /, waarvoor (\d+) kralen worden overgeslagen$/.exec(text)
  const taken = skipping ?? /, over (\d+) heen \(langs .+\)$/.exec(text)
  const said = taken ? text.slice(0, taken.index) : text
  const over = skipping ? 1 : Number(taken?.[1] ?? 1)
  const skips = skipping ? Number(skipping[1]) : undefined
  let it = /^(\d+) mindering(?:en)?$/.exec(said)
  if (it) return { stitch: { moves: [], standing: undefined, over, skips }, times: Number(it[1]) }
  it = /^(\d+) (?:steek|steken): (.+)$/.exec(said)
  if (it) return { stitch: { ...picking(it[2] as string), over, skips }, times: Number(it[1]) }
  const only = onlyStanding.exec(said)
  it = /^(\d+) (?:steek|steken) met (?:elk )?(.+)$/.exec(only ? said.slice(0, only.index) : said)
  if (!it) throw new NotUnderstood(text)
  return { stitch: { ...picking(`${it[2]} opnemen${only?.[0] ?? ''}`), over, skips }, times: Number(it[1]) }
}

const ending: EndingWords = {
  standing: / Nu steken \d+ kralen of groepen uit\.$/,
  endings: [
    [/ Opstappen door de eerste (?:toegevoegde kraal|(\d+) toegevoegde kralen)\.$/, 'steps up'],
    [
      / Opstappen: nogmaals gaan door wat de eerste (?:steek doorliep|(\d+) steken doorliepen), en door de eerste (?:toegevoegde kraal|(\d+) toegevoegde kralen)\.$/,
      'past, then up',
    ],
    [/ Niet opstappen\.$/, 'stays'],
    [/ Er wordt niet opgestapt: de rondes lopen door als spiraal\.$/, 'runs on'],
    [
      / Voor de laatste is er geen kraal om door te gaan: pak de draad aan de rand en ga er terug door\. Keren\.$/,
      'turned in',
    ],
    [/ Keren\.$/, 'turns'],
  ],
  firstTime: / De eerste keer in plaats daarvan (.+)\.$/,
}

function round(text: string, name: Name | undefined): Instruction {
  const { rest, first, ...ends } = readEnding(text, ending)
  const common = { type: 'round' as const, ...ends, firstTime: first ? passOn(first) : undefined, name }
  let it = new RegExp(
    `^(.+); (?:dat (${often}), )?in totaal (\\d+) steken\\. Aan het eind van elke steek (.+)\\.$`,
  ).exec(rest)
  if (it) {
    const stitches = stitchesOf((it[1] as string).split('; dan ').map(stitch), it[2] ? times(it[2]) : 1)
    if (stitches.length !== Number(it[3])) throw new Error(`Dit zijn ${stitches.length} steken: ${text}`)
    return { ...common, stitches, on: passOn(it[4] as string) }
  }
  it = new RegExp(`^(.+); in totaal (${often})\\.$`).exec(rest)
  if (!it) throw new NotUnderstood(text)
  const said = it[1] as string
  const at = said.lastIndexOf(', dan ')
  return {
    ...common,
    stitches: stitchesOf([{ stitch: { ...picking(said.slice(0, at)), over: 1 }, times: 1 }], times(it[2] as string)),
    on: passOn(said.slice(at + 6)),
  }
}

function read(text: string): Instruction {
  const named = / Dit (alles )?is «(\w+)»\.$/.exec(text)
  const name = named ? { name: named[2] as string, all: named[1] !== undefined } : undefined
  const said = named ? text.slice(0, named.index) : text
  const found = (pattern: RegExp) => pattern.exec(said)?.slice(1) as string[] | undefined
  let it = found(/^(?:Voorste ronde|Achterste ronde|Rij)(?: \d+)?: (.+)$/s)
  if (it) return round(it[0] as string, name)
  it = found(new RegExp(`^(\\d+) (?:kraal|kralen) aanrijgen: (.+?) opnemen(?:, (${often}))?\\. (.+)$`))
  if (it) {
    const each = beads(it[1] as string)
    const all = Array.from({ length: it[2] ? times(it[2]) : 1 }, () => each).flat()
    if (all.length !== Number(it[0])) throw new Error(`Dit zijn ${all.length} kralen: ${text}`)
    return { type: 'ring', beads: all, again: /nogmaals door alle kralen gaan/i.test(it[3] as string), name }
  }
  it = found(/^(.+) aanrijgen en met een stopkraal vasthouden\.$/)
  if (it) return { type: 'string', beads: beads(it[0] as string), name }
  it = found(/^De aanwezige draad volgend door (\d+) (?:kraal|kralen) naar de (voorste|achterste) rand rijgen/)
  if (it) return { type: 'other edge', beads: Number(it[0]), edge: it[1] === 'voorste' ? 'front' : 'back' }
  it = found(/^Door (\d+) (?:kraal|kralen) naar (.+) rijgen\.$/)
  if (it) return { type: 'to', beads: Number(it[0]), place: place(it[1] as string) }
  it = found(/^De naald is al bij (.+)\.$/)
  if (it) return { type: 'to', beads: 0, place: place(it[0] as string) }
  it = found(
    /^(.+) opnemen en (terug|nogmaals in dezelfde richting) door de (?:laatste (\d+) kralen waar de naald door kwam|\p{Lu}\w* waar de naald uit kwam) gaan, zodat er een lus ontstaat\.$/u,
  )
  if (it)
    return { type: 'loop', beads: beads(it[0] as string), back: it[1] === 'terug', over: Number(it[2] ?? 1), name }
  it = found(new RegExp(`^Nog (${often}) door de kralen van (?:deze|dit) \\S+ gaan, zonder er op te nemen`))
  if (it) return { type: 'again', times: times(it[0] as string) }
  it = found(/^Verbinden met (.+?): (.+)\.$/)
  if (it) {
    const moves = (it[1] as string).split(', dan ')
    const at = moves.findIndex((each) => /^er (?:achterwaarts )?doorheen gaan$/.test(each))
    if (at < 0 || moves.at(-1) !== 'nogmaals door de kraal gaan waar de naald uit kwam') throw new NotUnderstood(text)
    const picked = (list: string[]) => list.flatMap((each) => beads(each.replace(/ opnemen$/, '')))
    return {
      type: 'join',
      back: moves[at] === 'er achterwaarts doorheen gaan',
      place: place(it[0] as string),
      first: picked(moves.slice(0, at)),
      second: picked(moves.slice(at + 1, -1)),
    }
  }
  it = found(
    /^(\d+) (?:eenheid|eenheden) in rechte hoek maken: (?:eerst 1 (\p{Lu}\w*) opnemen, die bij de eerste eenheid hoort; )?voor elke (.+?) opnemen, nogmaals door de gedeelde kraal van de eenheid ervoor gaan(, al deze kralen nog eens rondgaan)? en door de eerste (\d+) (?:kraal|kralen) van de zojuist opgenomen verder gaan\.( Voor elke tweede eenheid .+)?$/u,
  )
  if (it)
    return {
      type: 'weave',
      units: Number(it[0]),
      begins: it[1],
      beads: beads(it[2] as string),
      on: Number(it[4]),
      twice: it[3] !== undefined,
      turned: it[5] !== undefined,
      name,
    }
  it = found(
    new RegExp(
      `^Rij \\d+ in vierkantsteek, (\\d+) (?:steek|steken): (.+?) opnemen(?:; (${often}) op rij)?\\. Na elke steek door evenveel kralen van de rij eronder in hun werkrichting gaan en nogmaals door de zojuist opgenomen kralen\\. Keren\\.$`,
    ),
  )
  if (it) {
    const cycle = (it[1] as string).split(', dan ').map(beads)
    const stitches = Array.from({ length: it[2] ? times(it[2]) : 1 }, () => cycle).flat()
    if (stitches.length !== Number(it[0])) throw new Error(`Dit zijn ${stitches.length} steken: ${text}`)
    return { type: 'square', stitches, name }
  }
  it = found(/^(\d+) (\p{Lu}\w*) (?:op de rij eronder|rond de kern) zetten: /u)
  if (it) return { type: 'stand', count: Number(it[0]), letter: it[1] as string, name }
  it = found(
    /^(?:(\d+) (?:franje|franjes) hangen(?:, een op elke plaats \((.+?)\)(, van de laatste naar de eerste)?, via de kortste weg (?:erheen|naar de eerste) rijgen)?(?:, van de ene naar de volgende (.+?) opnemen(?: en door de kraal gaan waar ze aan hangt)?)?\. )?(.+) opnemen; langs de (?:eindkraal|eindkralen|laatste kraal) door de franje teruggaan(?:, zonder de bovenste (\d+))?\.$/,
  )
  if (it) {
    const told = it[4] as string
    const strand = (words: string) => {
      const [own, end] = words.split(', dan ') as [string, string | undefined]
      return { beads: beads(own), end: end === undefined ? [] : beads(end) }
    }
    return {
      type: 'fringe',
      strands: /^1: /.test(told)
        ? told.split('; ').map((words) => strand(words.replace(/^\d+: /, '')))
        : Array.from({ length: Number(it[0] ?? 1) }, () => strand(told)),
      keep: Number(it[5] ?? 0),
      between: it[3] === undefined ? [] : beads(it[3]),
      from: it[1] === undefined ? undefined : place(it[1]),
      lastFirst: it[2] !== undefined,
      name,
    }
  }
  it = found(/^Door (\d+) (?:kraal|kralen) daarvan verder gaan\.$/)
  if (it) return { type: 'go', beads: Number(it[0]), back: false }
  it = found(
    /^Om de kraal heen waar de naald uit kwam, en door de (?:kraal|(\d+) kralen) ervoor langs de weg van de draad teruggaan\.$/,
  )
  if (it) return { type: 'go', beads: Number(it[0] ?? 1), back: true }
  it = found(/^De volgende rondes gaan vanaf de naald door (.+)\.$/)
  if (it) return { type: 'rail', places: (it[0] as string).split(', dan ').map(place), name }
  it = found(new RegExp(`^Stap (\\d+)(?: (?:tot en met|en) (\\d+) na elkaar)? nog (${often}) uitvoeren\\.`))
  if (it)
    return {
      type: 'steps again',
      from: Number(it[0]),
      to: Number(it[1] ?? it[0]),
      times: times(it[2] as string),
      changing: changingSteps(said, / In stap (\d+) van keer tot keer: ((?:[^.]|\.\.\.)+)\./g),
    }
  if (/^Deze draad laten hangen, /.test(said)) return { type: 'tail' }
  if (/^Deze draad afhechten en een nieuwe beginnen door de kraal waar hij uit kwam\.$/.test(said))
    return { type: 'new thread', place: undefined }
  it = found(/^Deze draad afhechten en een nieuwe beginnen door (.+)\.$/)
  if (it) return { type: 'new thread', place: place(it[0] as string) }
  const steps = /^De volgende (?:stap|(\d+) stappen na elkaar)/
  const held = Number(steps.exec(said)?.[1] ?? 1)
  it = found(new RegExp(`${steps.source} in totaal (${often}) uitvoeren\\.$`))
  if (it) return { type: 'repeat', steps: held, times: [times(it[1] as string)], at: undefined }
  it = found(new RegExp(`${steps.source} uitvoeren: (.+)\\.$`))
  if (it)
    return {
      type: 'repeat',
      steps: held,
      times: (it[1] as string).split(', ').map((words) => times(words.replace(/ bij de \d+e keer$/, ''))),
      at: undefined,
    }
  it = found(new RegExp(`${steps.source} op elk van ([\\d, en]+) plaatsen uitvoeren \\((.+)\\); van de ene`))
  if (it)
    return {
      type: 'repeat',
      steps: held,
      times: (it[1] as string).split(/, | en /).map(Number),
      at: place(it[2] as string),
    }
  it = found(/^(\d+) stuks hiervan maken: elk bestaat uit (?:de volgende stap|de volgende (\d+) stappen na elkaar)\.$/)
  if (it) return { type: 'repeat', steps: Number(it[1] ?? 1), times: [Number(it[0])], at: undefined, part: true }
  if (/^Van gat wisselen: /.test(said)) return { type: 'turn' }
  if (/^Beide einden /.test(said)) return { type: 'finish' }
  if (
    /^(?:De steen|Ook deze ring van |Het werk omkeren|Het stuk hangt|De draadbrug|Voorzichtig: |\p{Lu}\w* aan .+ bevestigen\.$)/u.test(
      said,
    )
  )
    return { type: 'nothing' }
  const moves = said.replace(/\.$/, '')
  if (
    /^(?:terug |in de richting van de eerste keer )?door .+ gaan$/i.test(moves) &&
    !/ opnemen|zojuist opgenomen \p{L}+ gaan$/u.test(moves)
  ) {
    const each = moves
      .replace(/ gaan$/, '')
      .split(', dan ')
      .map(move)
    // Back through beads of its own: a line of picking up that begins so says nothing else.
    return { type: 'through', passes: each as Extract<Move, { type: 'pass' }>[] }
  }
  return { type: 'pick', moves: moves.split(', dan ').map(move), name }
}

const turns = (text: string): readonly string[] =>
  told(text, /(?:^| )(\d+)e(?: tot en met (\d+)e)? keer: /g, /^(.*) Van keer tot keer: (.+)\.$/s)

function needle(text: string): string {
  const letter = /^De naald komt uit een (\p{Lu}\w*)\.$/u.exec(text)?.[1]
  if (!letter) throw new NotUnderstood(text)
  return letter
}

export const dutch: Reader = { read, turns, needle }

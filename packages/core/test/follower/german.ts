/** Reads the steps of a pattern written in German. */
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

const times = (text: string): number => (text === 'einmal' ? 1 : text === 'zweimal' ? 2 : Number.parseInt(text, 10))
const often = String.raw`(?:einmal|zweimal|\d+-mal)`
const beads = (text: string) => readBeads(text, 'und')
const ordinals = { erste: 'first', mittlere: 'middle', letzte: 'last' } as const

function place(text: string): Place {
  const found = (pattern: RegExp) => pattern.exec(text)?.slice(1) as [string, string, string] | undefined
  const plain = text.replace(/ \((?:\d+ Perlen?|\p{Lu}\w*)\)/gu, '')
  if (plain !== text) return place(plain)
  let it = found(/^(.+?), (?:jeweils )?(erstes|zweites) Loch$/)
  if (it) return { type: 'hole', second: it[1] === 'zweites', of: place(it[0]) }
  it = found(/^Perle (\d+) von (.+)$/)
  if (it) return { type: 'nth', nth: Number(it[0]), of: place(it[1]) }
  it = found(/^(\p{Lu}\w*) (\d+) von (.+)$/u)
  if (it) return { type: 'nth', nth: Number(it[1]), of: { type: 'letters of', letter: it[0], of: place(it[2]) } }
  it = found(/^(\p{Lu}\w*) Nummer (\d+)$/u)
  if (it) return { type: 'nth', nth: Number(it[1]), of: { type: 'letter', letter: it[0] } }
  it = found(/^(?:(.+), )?(erste|mittlere|letzte) Perle(?: (\p{Lu}\w*))?$/u)
  if (it) {
    const [of, which, letter] = it as [string | undefined, keyof typeof ordinals, string | undefined]
    const whole: Place | undefined = of === undefined ? undefined : place(of)
    const all: Place | undefined =
      letter === undefined ? whole : whole ? { type: 'letters of', letter, of: whole } : { type: 'letter', letter }
    if (!all) throw new NotUnderstood(text)
    return { type: 'nth', nth: ordinals[which], of: all }
  }
  it = found(/^(Perlen|\p{Lu}\w*) (\d+) bis (\d+) von (.+)$/u)
  if (it) {
    const [what, from, to, of] = it as unknown as [string, string, string, string]
    const whole = place(of)
    return {
      type: 'range',
      from: Number(from),
      to: Number(to),
      of: what === 'Perlen' ? whole : { type: 'letters of', letter: what, of: whole },
    }
  }
  it = found(/^(erste|zweite) Hälfte von (.+)$/)
  if (it) return { type: 'half', second: it[0] === 'zweite', of: place(it[1]) }
  it = found(/^(.+), nächste (?:(\d+) Perlen|Perle)$/)
  if (it) return { type: 'next', count: Number(it[1] ?? 1), of: place(it[0]) }
  it = found(/^(.+) davor$/)
  if (it) {
    const of = place(it[0])
    if (of.type !== 'named') throw new NotUnderstood(text)
    return { ...of, before: of.before + 1 }
  }
  it = found(/^(\p{Lu}\w*) (?:von|in) (.+)$/u)
  if (it) return { type: 'letters of', letter: it[0], of: place(it[1]) }
  it = found(/^(?:nächste[nr]? Perle |jede )?(\p{Lu}\w*)$/u)
  if (it) return { type: 'letter', letter: it[0] }
  it = found(/^«(\w+)» \((\w+)\)$/)
  if (it) return { type: 'part edge', part: it[0], edge: it[1] }
  const own = { '«eben aufgenommen»': 'those just picked up', '«vorderer Rand»': 'front', '«hinterer Rand»': 'back' }
  it = found(/^«(\w+)»$/)
  const name = own[text as keyof typeof own] ?? it?.[0]
  if (name) return { type: 'named', name, before: 0 }
  throw new NotUnderstood(text)
}

function move(text: string): Move {
  let it = /^(.+) aufnehmen$/.exec(text)
  if (it) return { type: 'pick', beads: beads(it[1] as string) }
  it = /^zurück durch die letzten? (?:(\d+) )?(?:Perlen?|(\p{Lu}\w*)) gehen$/iu.exec(text)
  if (it) return { type: 'back', count: Number(it[1] ?? 1), letter: it[2] }
  it = /^(?:(zurück )|(in der Richtung des ersten Durchgangs ))?durch (?:die )?(.+?)(?: gehen)?$/i.exec(text)
  if (it) return { type: 'pass', way: it[1] ? 'back' : it[2] ? 'straight' : 'near', place: place(it[3] as string) }
  throw new NotUnderstood(text)
}

const edges = new Set(['des Rings', 'der Reihe', 'der letzten Runde', 'dieser Kante'])

function passOn(text: string): PassOn {
  if (text === 'eine Perle überspringen und durch die nächste gehen') return { type: 'skipping', wide: 1 }
  let it = /^(\d+) Perlen überspringen und durch die nächsten \1 gehen$/.exec(text)
  if (it) return { type: 'skipping', wide: Number(it[1]) }
  it =
    /^durch die nächsten? (?:(\d+) hochstehenden Perlen|hochstehende Perle) gehen(, oder durch alle, wo mehrere beisammen hochstehen)?$/.exec(
      text,
    )
  if (it) return { type: 'standing', wide: it[2] ? 'all' : Number(it[1] ?? 1) }
  it = /^auf den Perlen (.+) weiterzählen und durch die gehen, bei der man ankommt: (.+)$/.exec(text)
  if (it) {
    const of = it[1] as string
    const steps = (it[2] as string).split(', dann ').flatMap((each) => {
      const [, often, count] = /^(?:(\S+) )?(\d+) Perlen?$/.exec(each) ?? []
      return Array<number>(often ? times(often) : 1).fill(Number(count))
    })
    return { type: 'counting', steps, of: edges.has(of) ? 'edge' : place(of.replace(/^von /, '')) }
  }
  it = /^durch die mittlere Perle der nächsten Gruppe(?: von «(\w+)»)? gehen$/.exec(text)
  if (it) return { type: 'group', nth: 'middle', name: it[1] }
  it = /^durch Perle (\d+) der nächsten Gruppe(?: von \d+)?(?: von «(\w+)»)? gehen$/.exec(text)
  if (it) return { type: 'group', nth: Number(it[1]), name: it[2] }
  if (text === 'durch das andere Loch der nächsten Perle gehen') return { type: 'other hole' }
  it =
    /^(?:(?:eine Perle|(\d+) Perlen) (.+) überspringen und durch die nächste|durch die nächste Perle (.+)) gehen$/.exec(
      text,
    )
  if (it) {
    const of = (it[2] ?? it[3]) as string
    return {
      type: 'every',
      each: it[2] ? Number(it[1] ?? 1) + 1 : 1,
      of: edges.has(of) ? 'edge' : place(of.replace(/^von /, '')),
    }
  }
  it = /^durch die nächste (.+) gehen$/.exec(text)
  if (it)
    return {
      type: 'next of',
      places: (it[1] as string).split(', danach ').map((each) => place(each.replace(/^von /, ''))),
    }
  throw new NotUnderstood(text)
}

const onlyStanding = / \(davon stehe?(?:n|t) nur (?:die Perlen|Perle) (.+) hoch\)$/

function picking(text: string): Pick<Stitch, 'moves' | 'standing'> {
  const only = onlyStanding.exec(text)
  const said = only ? text.slice(0, only.index) : text
  return { moves: said.split(', dann ').map(move), standing: only?.[1]?.split(/, | und /).map(Number) }
}

function stitch(text: string): { stitch: Stitch; times: number } {
  const skipping = /, wofür (\d+) Perlen übersprungen werden$/.exec(text)
  const taken = skipping ?? /, über (\d+) geführt \(an .+ vorbei\)$/.exec(text)
  const said = taken ? text.slice(0, taken.index) : text
  const over = skipping ? 1 : Number(taken?.[1] ?? 1)
  const skips = skipping ? Number(skipping[1]) : undefined
  let it = /^(\d+) Abnahmen?$/.exec(said)
  if (it) return { stitch: { moves: [], standing: undefined, over, skips }, times: Number(it[1]) }
  it = /^(\d+) Stiche?: (.+)$/.exec(said)
  if (it) return { stitch: { ...picking(it[2] as string), over, skips }, times: Number(it[1]) }
  const only = onlyStanding.exec(said)
  it = /^(\d+) Stiche? mit (?:je )?(.+)$/.exec(only ? said.slice(0, only.index) : said)
  if (!it) throw new NotUnderstood(text)
  return { stitch: { ...picking(`${it[2]} aufnehmen${only?.[0] ?? ''}`), over, skips }, times: Number(it[1]) }
}

const ending: EndingWords = {
  standing: / Jetzt stehen \d+ Perlen oder Gruppen hoch\.$/,
  endings: [
    [/ Durch die (?:erste aufgenommene Perle|ersten (\d+) aufgenommenen Perlen) aufsteigen\.$/, 'steps up'],
    [
      / Aufsteigen: nochmals durch das gehen, was (?:der erste Stich|die ersten (\d+) Stiche) durchfädelt ha(?:t|ben), und durch die (?:erste aufgenommene Perle|ersten (\d+) aufgenommenen Perlen)\.$/,
      'past, then up',
    ],
    [/ Nicht aufsteigen\.$/, 'stays'],
    [/ Es wird nicht aufgestiegen: Die Runden laufen als Spirale weiter\.$/, 'runs on'],
    [
      / Für die letzte gibt es keine Perle, durch die es weitergeht: den Faden am Rand fassen und durch sie zurückgehen\. Wenden\.$/,
      'turned in',
    ],
    [/ Wenden\.$/, 'turns'],
  ],
  firstTime: / Beim ersten Mal stattdessen (.+)\.$/,
}

function round(text: string, name: Name | undefined): Instruction {
  const { rest, first, ...ends } = readEnding(text, ending)
  const common = { type: 'round' as const, ...ends, firstTime: first ? passOn(first) : undefined, name }
  let it = new RegExp(`^(.+); (?:das (${often}), )?insgesamt (\\d+) Stiche\\. Am Ende jedes Stichs (.+)\\.$`).exec(rest)
  if (it) {
    const stitches = stitchesOf((it[1] as string).split('; dann ').map(stitch), it[2] ? times(it[2]) : 1)
    if (stitches.length !== Number(it[3])) throw new Error(`Das sind ${stitches.length} Stiche: ${text}`)
    return { ...common, stitches, on: passOn(it[4] as string) }
  }
  it = new RegExp(`^(.+); insgesamt (${often})\\.$`).exec(rest)
  if (!it) throw new NotUnderstood(text)
  const said = it[1] as string
  const at = said.lastIndexOf(', dann ')
  return {
    ...common,
    stitches: stitchesOf([{ stitch: { ...picking(said.slice(0, at)), over: 1 }, times: 1 }], times(it[2] as string)),
    on: passOn(said.slice(at + 7)),
  }
}

function read(text: string): Instruction {
  const named = / Das (alles )?ist «(\w+)»\.$/.exec(text)
  const name = named ? { name: named[2] as string, all: named[1] !== undefined } : undefined
  const said = named ? text.slice(0, named.index) : text
  const found = (pattern: RegExp) => pattern.exec(said)?.slice(1) as string[] | undefined
  let it = found(/^(?:Vordere Runde|Hintere Runde|Reihe)(?: \d+)?: (.+)$/s)
  if (it) return round(it[0] as string, name)
  it = found(new RegExp(`^(\\d+) Perlen auffädeln: (.+?) aufnehmen(?:, (${often}))?\\. (.+)$`))
  if (it) {
    const each = beads(it[1] as string)
    const all = Array.from({ length: it[2] ? times(it[2]) : 1 }, () => each).flat()
    if (all.length !== Number(it[0])) throw new Error(`Das sind ${all.length} Perlen: ${text}`)
    return { type: 'ring', beads: all, again: /nochmals durch alle gehen/i.test(it[3] as string), name }
  }
  it = found(/^(.+) auffädeln und mit einer Stopperperle halten\.$/)
  if (it) return { type: 'string', beads: beads(it[0] as string), name }
  it = found(/^Dem vorhandenen Faden nach durch (\d+) Perlen? zum (vorderen|hinteren) Rand durchfädeln/)
  if (it) return { type: 'other edge', beads: Number(it[0]), edge: it[1] === 'vorderen' ? 'front' : 'back' }
  it = found(/^Durch (\d+) Perlen? zu(?:r)? (.+) durchfädeln\.$/)
  if (it) return { type: 'to', beads: Number(it[0]), place: place(it[1] as string) }
  it = found(/^Die Nadel ist schon an (?:der )?(.+)\.$/)
  if (it) return { type: 'to', beads: 0, place: place(it[0] as string) }
  it = found(
    /^(.+) aufnehmen und (zurück|nochmals in gleicher Richtung) durch (?:die letzten (\d+) Perlen, durch die die Nadel kam|die Perle \p{Lu}\w*, aus der die Nadel kam), gehen, so dass eine Schlinge entsteht\.$/u,
  )
  if (it)
    return { type: 'loop', beads: beads(it[0] as string), back: it[1] === 'zurück', over: Number(it[2] ?? 1), name }
  it = found(new RegExp(`^Noch (${often}) durch die Perlen diese[rs] \\S+ gehen, ohne welche aufzunehmen`))
  if (it) return { type: 'again', times: times(it[0] as string) }
  it = found(/^An (?:der )?(.+) verbinden: (.+)\.$/)
  if (it) {
    const moves = (it[1] as string).split(', dann ')
    const at = moves.findIndex((each) => /^dort (?:rückwärts )?hindurchgehen$/.test(each))
    if (at < 0 || moves.at(-1) !== 'nochmals durch die Perle gehen, aus der die Nadel kam')
      throw new NotUnderstood(text)
    const picked = (list: string[]) => list.flatMap((each) => beads(each.replace(/ aufnehmen$/, '')))
    return {
      type: 'join',
      back: moves[at] === 'dort rückwärts hindurchgehen',
      place: place(it[0] as string),
      first: picked(moves.slice(0, at)),
      second: picked(moves.slice(at + 1, -1)),
    }
  }
  it = found(
    /^(\d+) Rechtwinkeleinheit(?:en)? fädeln: (?:zuerst 1 (\p{Lu}\w*) aufnehmen, die zur ersten Einheit gehört; )?für jede (.+) aufnehmen, nochmals durch die gemeinsame Perle der Einheit davor gehen(, alle diese noch einmal umrunden)? und durch die ersten (\d+) Perlen? der eben aufgenommenen weitergehen\.( Für jede zweite Einheit .+)?$/u,
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
      `^Reihe \\d+ im Quadratstich, (\\d+) Stiche?: (.+?) aufnehmen(?:; (${often}) der Reihe nach)?\\. Nach jedem Stich durch ebenso viele Perlen der Reihe darunter in deren Arbeitsrichtung und nochmals durch die eben aufgenommenen gehen\\. Wenden\\.$`,
    ),
  )
  if (it) {
    const cycle = (it[1] as string).split(', dann ').map(beads)
    const stitches = Array.from({ length: it[2] ? times(it[2]) : 1 }, () => cycle).flat()
    if (stitches.length !== Number(it[0])) throw new Error(`Das sind ${stitches.length} Stiche: ${text}`)
    return { type: 'square', stitches, name }
  }
  it = found(/^(\d+) (\p{Lu}\w*) (?:auf die Reihe darunter|rund um den Kern) stellen: /u)
  if (it) return { type: 'stand', count: Number(it[0]), letter: it[1] as string, name }
  it = found(
    /^(?:(\d+) Fransen? hängen(?:, je eine an (?:der )?(.+?)(, von der letzten zur ersten)?, auf dem kürzesten Weg (?:dorthin|zur ersten) durchfädeln)?(?:, von einer zur nächsten (.+?) aufnehmen(?: und durch die Perle gehen, an der sie hängt)?)?\. )?(.+) aufnehmen; an (?:den Endperlen|der Endperle|der letzten Perle) vorbei durch die Franse zurückgehen(?:, ohne die obersten (\d+))?\.$/,
  )
  if (it) {
    const told = it[4] as string
    const strand = (words: string) => {
      const [own, end] = words.split(', dann ') as [string, string | undefined]
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
  it = found(/^Durch (\d+) Perlen? davon weitergehen\.$/)
  if (it) return { type: 'go', beads: Number(it[0]), back: false }
  it = found(
    /^Um die Perle herum, aus der die Nadel kam, und durch die (?:Perle|(\d+) Perlen) davor auf dem Weg des Fadens zurückgehen\.$/,
  )
  if (it) return { type: 'go', beads: Number(it[0] ?? 1), back: true }
  it = found(/^Die nächsten Runden gehen von der Nadel an durch (.+)\.$/)
  if (it) return { type: 'rail', places: (it[0] as string).split(', dann ').map(place), name }
  it = found(
    new RegExp(
      `^(?:Schritt (\\d+)|Die Schritte (\\d+) (?:bis|und) (\\d+) hintereinander) noch (${often}) ausführen\\.`,
    ),
  )
  if (it)
    return {
      type: 'steps again',
      from: Number(it[0] ?? it[1]),
      to: Number(it[0] ?? it[2]),
      times: times(it[3] as string),
      changing: changingSteps(said, / In Schritt (\d+) von Mal zu Mal: ((?:[^.]|\.\.\.)+)\./g),
    }
  if (said === 'Diesen Faden hängen lassen, sein Anfangsende in die Nadel fädeln und mit diesem weiterarbeiten.')
    return { type: 'tail' }
  if (/^Diesen Faden beenden und einen neuen durch die Perle beginnen, aus der er herauskam\.$/.test(said))
    return { type: 'new thread', place: undefined }
  it = found(/^Diesen Faden beenden und einen neuen durch (.+) beginnen\.$/)
  if (it) return { type: 'new thread', place: place(it[0] as string) }
  const steps = /^(?:Den nächsten Schritt|Die nächsten (\d+) Schritte hintereinander)/
  const held = Number(steps.exec(said)?.[1] ?? 1)
  it = found(new RegExp(`${steps.source} insgesamt (${often}) ausführen\\.$`))
  if (it) return { type: 'repeat', steps: held, times: [times(it[1] as string)], at: undefined }
  it = found(new RegExp(`${steps.source} ausführen: (.+)\\.$`))
  if (it)
    return {
      type: 'repeat',
      steps: held,
      times: (it[1] as string).split(', ').map((words) => times(words.replace(/ beim \d+\. Mal$/, ''))),
      at: undefined,
    }
  it = found(new RegExp(`${steps.source} an jeder von ([\\d, und]+) Stellen ausführen \\((.+)\\); von einer`))
  if (it)
    return {
      type: 'repeat',
      steps: held,
      times: (it[1] as string).split(/, | und /).map(Number),
      at: place(it[2] as string),
    }
  it = found(
    /^(\d+) Stück davon anfertigen: jedes besteht aus (?:dem nächsten Schritt|den nächsten (\d+) Schritten hintereinander)\.$/,
  )
  if (it) return { type: 'repeat', steps: Number(it[1] ?? 1), times: [Number(it[0])], at: undefined, part: true }
  if (/^Wenden: in das andere Loch/.test(said)) return { type: 'turn' }
  if (/^Beide Enden /.test(said)) return { type: 'finish' }
  if (
    /^(?:Den Stein|Auch diesen Ring aus |Die Arbeit umdrehen|Das Stück hängt|Die Fadenbrücke|Vorsicht: |\p{Lu}\w* an .+ befestigen\.$)/u.test(
      said,
    )
  )
    return { type: 'nothing' }
  const moves = said.replace(/\.$/, '')
  if (/^(?:zurück |in der Richtung des ersten Durchgangs )?durch .+ gehen$/i.test(moves) && !/ aufnehmen/.test(moves)) {
    const each = moves
      .replace(/ gehen$/, '')
      .split(', dann ')
      .map(move)
    // Back through beads of its own: a line of picking up that begins so says nothing else.
    return { type: 'through', passes: each as Extract<Move, { type: 'pass' }>[] }
  }
  return { type: 'pick', moves: moves.split(', dann ').map(move), name }
}

const turns = (text: string): readonly string[] =>
  told(text, /(?:^| )(\d+)\.(?: bis (\d+)\.)? Mal: /g, /^(.*) Von Mal zu Mal: (.+)\.$/s)

function needle(text: string): string {
  const letter = /^Die Nadel kommt aus einer (\p{Lu}\w*)\.$/u.exec(text)?.[1]
  if (!letter) throw new NotUnderstood(text)
  return letter
}

export const german: Reader = { read, turns, needle }

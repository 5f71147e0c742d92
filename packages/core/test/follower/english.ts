/** Reads the steps of a pattern written in English. */
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

const times = (text: string): number => (text === 'once' ? 1 : text === 'twice' ? 2 : Number.parseInt(text, 10))
const often = String.raw`(?:once|twice|\d+ times)`

const beads = (text: string) => readBeads(text, 'and')

export function place(text: string): Place {
  const found = (pattern: RegExp) => pattern.exec(text)?.slice(1) as [string, string, string] | undefined
  const whole = text.replace(/ \((?:\d+ beads?|\p{Lu}\w*)\)/gu, '')
  if (whole !== text) return place(whole)
  let it = found(/^(.+?)(?:, each)? by its (first|second) hole$/)
  if (it) return { type: 'hole', second: it[1] === 'second', of: place(it[0]) }
  if (text === 'those just picked up') return { type: 'named', name: text, before: 0 }
  it = found(/^the (front|back) edge$/)
  if (it) return { type: 'named', name: it[0], before: 0 }
  it = found(/^bead (\d+) of (.+)$/)
  if (it) return { type: 'nth', nth: Number(it[0]), of: place(it[1]) }
  it = found(/^(\p{Lu}\w*) (\d+) of (.+)$/u)
  if (it) return { type: 'nth', nth: Number(it[1]), of: { type: 'letters of', letter: it[0], of: place(it[2]) } }
  it = found(/^(\p{Lu}\w*) number (\d+)$/u)
  if (it) return { type: 'nth', nth: Number(it[1]), of: { type: 'letter', letter: it[0] } }
  it = found(/^the (first|middle|last) bead of (.+)$/)
  if (it) return { type: 'nth', nth: it[0] as 'first', of: place(it[1]) }
  it = found(/^the (first|middle|last) (\p{Lu}\w*) of (.+)$/u)
  if (it) return { type: 'nth', nth: it[0] as 'first', of: { type: 'letters of', letter: it[1], of: place(it[2]) } }
  it = found(/^the (first|middle|last) (\p{Lu}\w*)$/u)
  if (it) return { type: 'nth', nth: it[0] as 'first', of: { type: 'letter', letter: it[1] } }
  it = found(/^(beads|\p{Lu}\w*) (\d+) to (\d+) of (.+)$/u)
  if (it) {
    const [what, from, to, of] = it as unknown as [string, string, string, string]
    const whole = place(of)
    return {
      type: 'range',
      from: Number(from),
      to: Number(to),
      of: what === 'beads' ? whole : { type: 'letters of', letter: what, of: whole },
    }
  }
  it = found(/^the (first|second) half of (.+)$/)
  if (it) return { type: 'half', second: it[0] === 'second', of: place(it[1]) }
  it = found(/^the next (?:(\d+) beads|bead) of (.+)$/)
  if (it) return { type: 'next', count: Number(it[0] ?? 1), of: place(it[1]) }
  it = found(/^(?:the|each) (\p{Lu}\w*) (?:of|in) (.+)$/u)
  if (it) return { type: 'letters of', letter: it[0], of: place(it[1]) }
  it = found(/^(?:each|the(?: nearest)?) (\p{Lu}\w*)$/u)
  if (it) return { type: 'letter', letter: it[0] }
  it = found(/^(.+) before it$/)
  if (it) {
    const of = place(it[0])
    if (of.type !== 'named') throw new NotUnderstood(text)
    return { ...of, before: of.before + 1 }
  }
  it = found(/^the (\p{Ll}\w*) \((\w+)\)$/u)
  if (it) return { type: 'part edge', part: it[0], edge: it[1] }
  it = found(/^the (\p{Ll}\w*)$/u)
  if (it) return { type: 'named', name: it[0], before: 0 }
  throw new NotUnderstood(text)
}

function move(text: string): Move {
  let it = /^pick up (.+)$/i.exec(text)
  if (it) return { type: 'pick', beads: beads(it[1] as string) }
  it = /^pass (back )?through (.+?)( the way (?:it was|they were) first passed)?$/i.exec(text)
  if (it) return { type: 'pass', way: it[1] ? 'back' : it[3] ? 'straight' : 'near', place: place(it[2] as string) }
  it = /^go back through the last (?:(\d+) )?(?:beads?|(\p{Lu}\w*))$/iu.exec(text)
  if (it) return { type: 'back', count: Number(it[1] ?? 1), letter: it[2] }
  throw new NotUnderstood(text)
}

const verbs = /(?:, | and )(?=pick up |pass |go back |skip )/

const edges = new Set(['the ring', 'the row', 'the last round', 'this edge'])

function passOn(text: string): PassOn {
  if (text === 'skip one bead and pass through the next') return { type: 'skipping', wide: 1 }
  let it = /^skip (\d+) beads and pass through the next \1$/.exec(text)
  if (it) return { type: 'skipping', wide: Number(it[1]) }
  it =
    /^pass through the next (?:(\d+) beads that stand|bead that stands) up(, or through all of them where several stand up together)?$/.exec(
      text,
    )
  if (it) return { type: 'standing', wide: it[2] ? 'all' : Number(it[1] ?? 1) }
  it = /^count on along (.+) and pass through the bead that you come to: (.+)$/.exec(text)
  if (it) {
    const of = it[1] as string
    const steps = (it[2] as string).split(', then ').flatMap((each) => {
      const [, often, count] = /^(?:(\w+(?: times)?) )?(\d+) beads?$/.exec(each) ?? []
      return Array<number>(often ? times(often) : 1).fill(Number(count))
    })
    return { type: 'counting', steps, of: edges.has(of) ? 'edge' : place(of) }
  }
  it = /^pass through the middle bead of the next group(?: of the (\w+))?$/.exec(text)
  if (it) return { type: 'group', nth: 'middle', name: it[1] }
  it = /^pass through bead (\d+) of the next group(?: of \d+)?(?: of the (\w+))?$/.exec(text)
  if (it) return { type: 'group', nth: Number(it[1]), name: it[2] }
  if (text === 'pass through the other hole of the next bead') return { type: 'other hole' }
  it = /^(?:skip (?:one bead|(\d+) beads) of (.+) and pass through the next|pass through the next bead of (.+))$/.exec(
    text,
  )
  if (it) {
    const of = (it[2] ?? it[3]) as string
    return { type: 'every', each: it[2] ? Number(it[1] ?? 1) + 1 : 1, of: edges.has(of) ? 'edge' : place(of) }
  }
  it = /^pass through the next (.+)$/.exec(text)
  if (it)
    return {
      type: 'next of',
      places: (it[1] as string)
        .split(', after those ')
        .map((each) => place(each.startsWith('of ') ? each.slice(3) : `the ${each}`)),
    }
  throw new NotUnderstood(text)
}

const onlyStanding = / \(of these only beads? (.+) stands? up\)$/

function picking(text: string): Pick<Stitch, 'moves' | 'standing'> {
  const only = onlyStanding.exec(text)
  const said = only ? text.slice(0, only.index) : text
  return { moves: said.split(verbs).map(move), standing: only?.[1]?.split(/, | and /).map(Number) }
}

function stitch(text: string): { stitch: Stitch; times: number } {
  const skipping = /, for which you skip (\d+) beads$/.exec(text)
  const taken = skipping ?? /, taken over (\d+) \(pass the first (?:\d+ )?by\)$/.exec(text)
  const said = taken ? text.slice(0, taken.index) : text
  const over = skipping ? 1 : Number(taken?.[1] ?? 1)
  const skips = skipping ? Number(skipping[1]) : undefined
  let it = /^(\d+) decreases?$/.exec(said)
  if (it) return { stitch: { moves: [], standing: undefined, over, skips }, times: Number(it[1]) }
  it = /^(\d+) stitch(?:es)? in which you (.+)$/.exec(said)
  if (it) return { stitch: { ...picking(it[2] as string), over, skips }, times: Number(it[1]) }
  const only = onlyStanding.exec(said)
  it = /^(\d+) stitch(?:es)? with (.+?)(?: each)?$/.exec(only ? said.slice(0, only.index) : said)
  if (!it) throw new NotUnderstood(text)
  return {
    stitch: { ...picking(`pick up ${it[2]}${only?.[0] ?? ''}`), over, skips },
    times: Number(it[1]),
  }
}

const ending: EndingWords = {
  standing: / \d+ beads or groups now stand up\.$/,
  endings: [
    [/ Step up through the first (?:bead|(\d+) beads) added\.$/, 'steps up'],
    [
      / Step up: pass again through what the first (?:stitch|(\d+) stitches) passed, and through the first (?:bead|(\d+) beads) added\.$/,
      'past, then up',
    ],
    [/ Do not step up\.$/, 'stays'],
    [/ There is no step up: the rounds run on in a spiral\.$/, 'runs on'],
    [/ The last has no bead to go into: catch the thread at the edge and go back through it\. Turn\.$/, 'turned in'],
    [/ Turn\.$/, 'turns'],
  ],
  firstTime: / The first time, (.+) instead\.$/,
}

function round(text: string, name: Name | undefined): Instruction {
  const { rest, first, ...ends } = readEnding(text, ending)
  const common = { type: 'round' as const, ...ends, firstTime: first ? passOn(first) : undefined, name }
  let it = new RegExp(`^(.+); (?:(${often}), )?(\\d+) stitches in all\\. At the end of each stitch, (.+)\\.$`).exec(
    rest,
  )
  if (it) {
    const list = (it[1] as string).split(', then ').map(stitch)
    const stitches = stitchesOf(list, it[2] ? times(it[2]) : 1)
    if (stitches.length !== Number(it[3])) throw new Error(`These are ${stitches.length} stitches: ${text}`)
    return { ...common, stitches, on: passOn(it[4] as string) }
  }
  it = new RegExp(`^(.+); (${often}) in all\\.$`).exec(rest)
  if (!it) throw new NotUnderstood(text)
  const said = it[1] as string
  const skips = said.lastIndexOf(', skip ')
  const at = skips >= 0 ? skips : ([...said.matchAll(/(?:, | and )(?=pass through )/g)].at(-1)?.index ?? 0)
  return {
    ...common,
    stitches: stitchesOf([{ stitch: { ...picking(said.slice(0, at)), over: 1 }, times: 1 }], times(it[2] as string)),
    on: passOn(said.slice(at).replace(/^(?:, | and )/, '')),
  }
}

function read(text: string): Instruction {
  const named = / (?:This is|(All) of these are) the (\w+)\.$/.exec(text)
  const name = named ? { name: named[2] as string, all: named[1] !== undefined } : undefined
  const said = named ? text.slice(0, named.index) : text
  const found = (pattern: RegExp) => pattern.exec(said)?.slice(1) as string[] | undefined
  let it = found(/^(?:Front round|Back round|Row)(?: \d+)?: (.+)$/s)
  if (it) return round(it[0] as string, name)
  it = found(new RegExp(`^String (\\d+) beads: pick up (.+?)(?:, (${often}))?\\. (.+)$`))
  if (it) {
    const each = beads(it[1] as string)
    const all = Array.from({ length: it[2] ? times(it[2]) : 1 }, () => each).flat()
    if (all.length !== Number(it[0])) throw new Error(`These are ${all.length} beads: ${text}`)
    return { type: 'ring', beads: all, again: /pass through all of them again/i.test(it[3] as string), name }
  }
  it = found(/^String (.+), and hold them with a stop bead\.$/)
  if (it) return { type: 'string', beads: beads(it[0] as string), name }
  it = found(/^Weave through (\d+) beads? to the (front|back) edge, following/)
  if (it) return { type: 'other edge', beads: Number(it[0]), edge: it[1] as 'front' }
  it = found(/^Weave through (\d+) beads? to (.+)\.$/)
  if (it) return { type: 'to', beads: Number(it[0]), place: place(it[1] as string) }
  it = found(/^The needle is at (.+) already\.$/)
  if (it) return { type: 'to', beads: 0, place: place(it[0] as string) }
  it = found(
    /^Pick up (.+) and pass (back down|again, the same way, through) (?:the last (\d+) beads the needle came through|the \p{Lu}\w* the needle came out of), to make a loop\.$/u,
  )
  if (it)
    return { type: 'loop', beads: beads(it[0] as string), back: it[1] === 'back down', over: Number(it[2] ?? 1), name }
  it = found(new RegExp(`^Pass through the beads of that \\w+ (${often}) more, without picking up any`))
  if (it) return { type: 'again', times: times(it[0] as string) }
  it = found(/^Join to (.+): (.+)\.$/)
  if (it) {
    const moves = (it[1] as string).split(verbs)
    const at = moves.findIndex((each) => /^pass (?:back )?through it$/.test(each))
    if (at < 0 || moves.at(-1) !== 'pass again through the bead the needle came out of') throw new NotUnderstood(text)
    const picked = (list: string[]) => list.flatMap((each) => beads(each.replace(/^pick up /, '')))
    return {
      type: 'join',
      back: moves[at] === 'pass back through it',
      place: place(it[0] as string),
      first: picked(moves.slice(0, at)),
      second: picked(moves.slice(at + 1, -1)),
    }
  }
  it = found(
    /^Weave (\d+) right-angle units?: (?:first pick up 1 (\p{Lu}\w*), which the first unit shares; )?for each pick up (.+), pass again through the bead shared with the unit before, (go round all of these once more, )?and go on through the first (\d+) beads? of those just picked up\.( For every second unit .+)?$/u,
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
      `^Row \\d+ in square stitch, (\\d+) stitch(?:es)?: pick up (.+?)(?:; (${often}) in turn)?\\. After each stitch, go through as many beads of the row below, the way that row was worked, and again through what you have just picked up\\. Turn\\.$`,
    ),
  )
  if (it) {
    const cycle = (it[1] as string).split(', then ').map(beads)
    const stitches = Array.from({ length: it[2] ? times(it[2]) : 1 }, () => cycle).flat()
    if (stitches.length !== Number(it[0])) throw new Error(`These are ${stitches.length} stitches: ${text}`)
    return { type: 'square', stitches, name }
  }
  it = found(/^Stand (\d+) (\p{Lu}\w*) (?:on the row below|round the core): /u)
  if (it) return { type: 'stand', count: Number(it[0]), letter: it[1] as string, name }
  it = found(
    /^(?:Hang (\d+) strands?(?:, one at each of (.+?)(, from the last to the first)?, weaving to (?:it|the first) by the shortest way)?(?:, from one to the next picking up (.+?)(?: and passing through the bead it hangs from)?)?\. )?Pick up (.+); go back up the strand past the (?:end beads?|last bead)(?:, leaving out the top (\d+))?\.$/,
  )
  if (it) {
    const told = it[4] as string
    const strand = (words: string) => {
      const [own, end] = words.split(', then ') as [string, string | undefined]
      return { beads: beads(own), end: end === undefined ? [] : beads(end) }
    }
    const each = /^1: /.test(told)
      ? told.split('; ').map((words) => strand(words.replace(/^\d+: /, '')))
      : Array.from({ length: Number(it[0] ?? 1) }, () => strand(told))
    return {
      type: 'fringe',
      strands: each,
      keep: Number(it[5] ?? 0),
      between: it[3] === undefined ? [] : beads(it[3]),
      from: it[1] === undefined ? undefined : place(it[1]),
      lastFirst: it[2] !== undefined,
      name,
    }
  }
  it = found(/^Step on through the next (?:bead|(\d+) beads) of it\.$/)
  if (it) return { type: 'go', beads: Number(it[0] ?? 1), back: false }
  it = found(
    /^Go round the bead the needle came out of and back through the (?:bead|(\d+) beads) before it, the way the thread came\.$/,
  )
  if (it) return { type: 'go', beads: Number(it[0] ?? 1), back: true }
  it = found(/^The next rounds go into (.+), from the needle on\.$/)
  if (it) return { type: 'rail', places: (it[0] as string).split(', then ').map(place), name }
  it = found(/^Do (?:step (\d+)|steps (\d+) (?:to|and) (\d+), one after the other,) (once|twice|\d+) more(?: times)?\./)
  if (it) {
    const often = it[3] as string
    return {
      type: 'steps again',
      from: Number(it[0] ?? it[1]),
      to: Number(it[0] ?? it[2]),
      times: often === 'once' ? 1 : often === 'twice' ? 2 : Number(often),
      changing: changingSteps(said, / In step (\d+), turn by turn: ((?:[^.]|\.\.\.)+)\./g),
    }
  }
  if (said === 'Leave this thread hanging, thread the needle with its tail, and go on with that.')
    return { type: 'tail' }
  it = found(/^End this thread and begin a new one through (.+)\.$/)
  if (it)
    return { type: 'new thread', place: it[0] === 'the bead where it came out' ? undefined : place(it[0] as string) }
  it = found(new RegExp(`^Do the next (?:step|(\\d+) steps, one after the other),? (${often}) in all\\.$`))
  if (it) return { type: 'repeat', steps: Number(it[0] ?? 1), times: [times(it[1] as string)], at: undefined }
  it = found(/^Do the next (?:step|(\d+) steps, one after the other),? (.+ in turn 1, .+)\.$/)
  if (it) {
    const each = (it[1] as string).split(', ').map((words) => times(words.replace(/ in turn \d+$/, '')))
    return { type: 'repeat', steps: Number(it[0] ?? 1), times: each, at: undefined }
  }
  it = found(/^Do the next (?:step|(\d+) steps, one after the other), at each of ([\d, and]+) places \((.+)\), weaving/)
  if (it)
    return {
      type: 'repeat',
      steps: Number(it[0] ?? 1),
      times: (it[1] as string).split(/, | and /).map(Number),
      at: place(it[2] as string),
    }
  it = found(/^Make (\d+) of these: each is the next (?:step|(\d+) steps, one after the other)\.$/)
  if (it) return { type: 'repeat', steps: Number(it[1] ?? 1), times: [Number(it[0])], at: undefined, part: true }
  it = found(/^Turn: go over into the other hole/)
  if (it) return { type: 'turn' }
  if (/^Weave in both ends/.test(said)) return { type: 'finish' }
  if (
    /^(?:Lay the stone|Draw this ring of |Turn the work over|It hangs from|Catch the bridge|Attach |Take care: )/.test(
      said,
    )
  )
    return { type: 'nothing' }
  if (/^Pass (?:back )?through /.test(said)) {
    const passes = said
      .replace(/\.$/, '')
      .replace(/^Pass /, '')
      .split(/(?:, | and )(?=(?:back )?through )/)
    return { type: 'through', passes: passes.map((each) => move(`pass ${each}`) as Extract<Move, { type: 'pass' }>) }
  }
  if (/^(?:Pick up|Pass|Go back) /.test(said))
    return { type: 'pick', moves: said.replace(/\.$/, '').split(verbs).map(move), name }
  throw new NotUnderstood(text)
}

const turns = (text: string): readonly string[] =>
  told(text, /(?:^| )Turns? (\d+)(?: to (\d+))?: /g, /^(.*) From turn to turn: (.+)\.$/s)

function needle(text: string): string {
  const letter = /^The needle comes out of an? (\p{Lu}\w*)\.$/u.exec(text)?.[1]
  if (!letter) throw new NotUnderstood(text)
  return letter
}

export const english: Reader = { read, turns, needle }

/** Reads the steps of a pattern written in French. */
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

const times = (text: string): number => (text === 'une fois' ? 1 : Number.parseInt(text, 10))
const often = String.raw`(?:une fois|\d+ fois)`
const beads = (text: string) => readBeads(text, 'et')

function place(text: string): Place {
  const found = (pattern: RegExp) => pattern.exec(text)?.slice(1) as [string, string, string] | undefined
  const plain = text.replace(/ \((?:\d+ perles?|\p{Lu}\w*)\)/gu, '')
  if (plain !== text) return place(plain)
  let it = found(/^(.+?)(?:, chacune)? par son (premier|second) trou$/)
  if (it) return { type: 'hole', second: it[1] === 'second', of: place(it[0]) }
  // "Des trois premières" is "de les trois premières".
  const belongs = '(?:de|(?=des )) ?(.+)'
  const of = (words: string) => place(words.replace(/^des /, 'les '))
  it = found(new RegExp(`^la perle (\\d+) ${belongs}$`))
  if (it) return { type: 'nth', nth: Number(it[0]), of: of(it[1]) }
  it = found(new RegExp(`^la (\\p{Lu}\\w*) (\\d+) ${belongs}$`, 'u'))
  if (it) return { type: 'nth', nth: Number(it[1]), of: { type: 'letters of', letter: it[0], of: of(it[2]) } }
  it = found(/^la (\p{Lu}\w*) numéro (\d+)$/u)
  if (it) return { type: 'nth', nth: Number(it[1]), of: { type: 'letter', letter: it[0] } }
  const one = /^la (première |dernière )?(perle|\p{Lu}\w*)( du milieu)?(?: (?:de|(?=des )) ?(.+))?$/u.exec(text)
  if (one && (one[1] || one[3])) {
    const whole = one[4] === undefined ? undefined : of(one[4])
    const letter = one[2] as string
    const all: Place | undefined =
      letter === 'perle' ? whole : whole ? { type: 'letters of', letter, of: whole } : { type: 'letter', letter }
    if (!all) throw new NotUnderstood(text)
    return { type: 'nth', nth: one[3] ? 'middle' : one[1] === 'première ' ? 'first' : 'last', of: all }
  }
  const range = new RegExp(`^les (perles|\\p{Lu}\\w*) (\\d+) à (\\d+) ${belongs}$`, 'u').exec(text)
  if (range) {
    const [, what, from, to, whole] = range as unknown as [string, string, string, string, string]
    return {
      type: 'range',
      from: Number(from),
      to: Number(to),
      of: what === 'perles' ? of(whole) : { type: 'letters of', letter: what, of: of(whole) },
    }
  }
  it = found(new RegExp(`^la (première|seconde) moitié ${belongs}$`))
  if (it) return { type: 'half', second: it[0] === 'seconde', of: of(it[1]) }
  it = found(new RegExp(`^(?:la perle suivante|les (\\d+) perles suivantes) ${belongs}$`))
  if (it) return { type: 'next', count: Number(it[0] ?? 1), of: of(it[1]) }
  it = found(/^(.+) précédent$/)
  if (it) {
    const before = place(it[0])
    if (before.type !== 'named') throw new NotUnderstood(text)
    return { ...before, before: before.before + 1 }
  }
  it = found(new RegExp(`^(?:la|les|chaque) (\\p{Lu}\\w*) ${belongs}$`, 'u'))
  if (it) return { type: 'letters of', letter: it[0], of: of(it[1]) }
  it = found(/^(?:la|les|chaque) (\p{Lu}\w*) dans (.+)$/u)
  if (it) return { type: 'letters of', letter: it[0], of: place(it[1]) }
  it = found(/^(?:la |chaque )?(\p{Lu}\w*)(?: la plus proche)?$/u)
  if (it) return { type: 'letter', letter: it[0] }
  it = found(/^«(\w+)» \((\w+)\)$/)
  if (it) return { type: 'part edge', part: it[0], edge: it[1] }
  const own = { '«dernières prises»': 'those just picked up', '«bord avant»': 'front', '«bord arrière»': 'back' }
  it = found(/^«(\w+)»$/)
  const name = own[text as keyof typeof own] ?? it?.[0]
  if (name) return { type: 'named', name, before: 0 }
  throw new NotUnderstood(text)
}

function move(text: string): Move {
  let it = /^prendre (.+)$/i.exec(text)
  if (it) return { type: 'pick', beads: beads(it[1] as string) }
  it = /^repasser dans (?:la dernière|les (\d+) dernières) (?:perles?|(\p{Lu}\w*))$/iu.exec(text)
  if (it) return { type: 'back', count: Number(it[1] ?? 1), letter: it[2] }
  it = /^(?:passer )?(?:(en sens inverse )|(dans le sens du premier passage ))?dans (.+)$/i.exec(text)
  if (it) return { type: 'pass', way: it[1] ? 'back' : it[2] ? 'straight' : 'near', place: place(it[3] as string) }
  throw new NotUnderstood(text)
}

const edges = new Set(["de l'anneau", 'du rang', 'du dernier tour', 'de ce bord'])
const along = (words: string) => (edges.has(words) ? 'edge' : place(words.replace(/^de /, '').replace(/^des /, 'les ')))

function passOn(text: string): PassOn {
  if (text === 'sauter une perle et passer dans la suivante') return { type: 'skipping', wide: 1 }
  let it = /^sauter (\d+) perles et passer dans les \1 suivantes$/.exec(text)
  if (it) return { type: 'skipping', wide: Number(it[1]) }
  it =
    /^passer dans (?:la prochaine perle|les (\d+) prochaines perles) en saillie(, ou dans toutes si plusieurs le sont ensemble)?$/.exec(
      text,
    )
  if (it) return { type: 'standing', wide: it[2] ? 'all' : Number(it[1] ?? 1) }
  it = /^avancer en comptant les perles (.+) et passer dans celle où l'on arrive: (.+)$/.exec(text)
  if (it) {
    const steps = (it[2] as string).split(', puis ').flatMap((each) => {
      const [, often, count] = /^(?:(\d+ fois) )?(\d+) perles?$/.exec(each) ?? []
      return Array<number>(often ? times(often) : 1).fill(Number(count))
    })
    return { type: 'counting', steps, of: along(it[1] as string) }
  }
  it = /^passer dans la perle du milieu du prochain groupe(?: de «(\w+)»)?$/.exec(text)
  if (it) return { type: 'group', nth: 'middle', name: it[1] }
  it = /^passer dans la perle (\d+) du prochain groupe(?: de \d+)?(?: de «(\w+)»)?$/.exec(text)
  if (it) return { type: 'group', nth: Number(it[1]), name: it[2] }
  if (text === "passer dans l'autre trou de la perle suivante") return { type: 'other hole' }
  it = /^sauter (?:une perle|(\d+) perles) (.+) et passer dans la suivante$/.exec(text)
  if (it) return { type: 'every', each: Number(it[1] ?? 1) + 1, of: along(it[2] as string) }
  it = /^passer dans la perle suivante (.+)$/.exec(text)
  if (it) return { type: 'every', each: 1, of: along(it[1] as string) }
  it = /^passer dans la prochaine (.+)$/.exec(text)
  if (it)
    return {
      type: 'next of',
      places: (it[1] as string)
        .split(', après celles-ci ')
        .map((each) => place(each.replace(/^de /, '').replace(/^des /, 'les '))),
    }
  throw new NotUnderstood(text)
}

const onlyStanding = / \(dont (?:seule la perle|seules les perles) (.+) (?:est|sont) en saillie\)$/

function picking(text: string): Pick<Stitch, 'moves' | 'standing'> {
  const only = onlyStanding.exec(text)
  const said = only ? text.slice(0, only.index) : text
  return { moves: said.split(', puis ').map(move), standing: only?.[1]?.split(/, | et /).map(Number) }
}

function stitch(text: string): { stitch: Stitch; times: number } {
  const skipping = /, en sautant (\d+) perles$/.exec(text)
  const taken = skipping ?? /, par-dessus (\d+) \(en laissant .+\)$/.exec(text)
  const said = taken ? text.slice(0, taken.index) : text
  const over = skipping ? 1 : Number(taken?.[1] ?? 1)
  const skips = skipping ? Number(skipping[1]) : undefined
  let it = /^(\d+) diminutions?$/.exec(said)
  if (it) return { stitch: { moves: [], standing: undefined, over, skips }, times: Number(it[1]) }
  it = /^(\d+) points?: (.+)$/.exec(said)
  if (it) return { stitch: { ...picking(it[2] as string), over, skips }, times: Number(it[1]) }
  const only = onlyStanding.exec(said)
  it = /^(\d+) points? avec (.+?)(?: chacun)?$/.exec(only ? said.slice(0, only.index) : said)
  if (!it) throw new NotUnderstood(text)
  return { stitch: { ...picking(`prendre ${it[2]}${only?.[0] ?? ''}`), over, skips }, times: Number(it[1]) }
}

const ending: EndingWords = {
  standing: / \d+ perles ou groupes sont maintenant en saillie\.$/,
  endings: [
    [/ Monter dans (?:la première perle ajoutée|les (\d+) premières perles ajoutées)\.$/, 'steps up'],
    [
      / Monter: repasser dans ce que (?:le premier point a|les (\d+) premiers points ont) traversé, puis dans (?:la première perle ajoutée|les (\d+) premières perles ajoutées)\.$/,
      'past, then up',
    ],
    [/ Ne pas monter\.$/, 'stays'],
    [/ On ne monte pas: les tours continuent en spirale\.$/, 'runs on'],
    [
      / La dernière n'a pas de perle où passer: attraper le fil au bord et y repasser\. Faire demi-tour\.$/,
      'turned in',
    ],
    [/ Faire demi-tour\.$/, 'turns'],
  ],
  firstTime: / La première fois, plutôt (.+)\.$/,
}

function round(text: string, name: Name | undefined): Instruction {
  const { rest, first, ...ends } = readEnding(text, ending)
  const common = { type: 'round' as const, ...ends, firstTime: first ? passOn(first) : undefined, name }
  let it = new RegExp(
    `^(.+); (?:le tout (${often}), )?(\\d+) points en tout\\. À la fin de chaque point, (.+)\\.$`,
  ).exec(rest)
  if (it) {
    const stitches = stitchesOf((it[1] as string).split('; puis ').map(stitch), it[2] ? times(it[2]) : 1)
    if (stitches.length !== Number(it[3])) throw new Error(`Cela fait ${stitches.length} points: ${text}`)
    return { ...common, stitches, on: passOn(it[4] as string) }
  }
  it = new RegExp(`^(.+); (${often}) en tout\\.$`).exec(rest)
  if (!it) throw new NotUnderstood(text)
  const said = it[1] as string
  const at = said.lastIndexOf(', puis ')
  return {
    ...common,
    stitches: stitchesOf([{ stitch: { ...picking(said.slice(0, at)), over: 1 }, times: 1 }], times(it[2] as string)),
    on: passOn(said.slice(at + 7)),
  }
}

function read(text: string): Instruction {
  const named = / (?:Ceci|(Tout cela)) est «(\w+)»\.$/.exec(text)
  const name = named ? { name: named[2] as string, all: named[1] !== undefined } : undefined
  const said = named ? text.slice(0, named.index) : text
  const found = (pattern: RegExp) => pattern.exec(said)?.slice(1) as string[] | undefined
  let it = found(/^(?:Tour avant|Tour arrière|Rang)(?: \d+)?: (.+)$/s)
  if (it) return round(it[0] as string, name)
  it = found(new RegExp(`^Enfiler (\\d+) perles?: prendre (.+?)(?:, (${often}))?\\. (.+)$`))
  if (it) {
    const each = beads(it[1] as string)
    const all = Array.from({ length: it[2] ? times(it[2]) : 1 }, () => each).flat()
    if (all.length !== Number(it[0])) throw new Error(`Cela fait ${all.length} perles: ${text}`)
    return { type: 'ring', beads: all, again: /repasser dans toutes/i.test(it[3] as string), name }
  }
  it = found(/^Enfiler (.+) et les retenir avec une perle d'arrêt\.$/)
  if (it) return { type: 'string', beads: beads(it[0] as string), name }
  it = found(/^En suivant le fil déjà posé, cheminer dans (\d+) perles? jusqu'au bord (avant|arrière) et sortir/)
  if (it) return { type: 'other edge', beads: Number(it[0]), edge: it[1] === 'avant' ? 'front' : 'back' }
  it = found(/^Cheminer dans (\d+) perles? jusque dans (.+)\.$/)
  if (it) return { type: 'to', beads: Number(it[0]), place: place(it[1] as string) }
  it = found(/^L'aiguille est déjà dans (.+)\.$/)
  if (it) return { type: 'to', beads: 0, place: place(it[0] as string) }
  it = found(
    /^Prendre (.+) et (passer en sens inverse|repasser dans le même sens) dans (?:les (\d+) dernières perles traversées|la \p{Lu}\w* d'où sort l'aiguille), pour former une boucle\.$/u,
  )
  if (it)
    return {
      type: 'loop',
      beads: beads(it[0] as string),
      back: it[1] === 'passer en sens inverse',
      over: Number(it[2] ?? 1),
      name,
    }
  it = found(new RegExp(`^Repasser encore (${often}) dans les perles de (?:cet|ce|cette) \\S+, sans en prendre`))
  if (it) return { type: 'again', times: times(it[0] as string) }
  it = found(/^Relier avec (.+?): (.+)\.$/)
  if (it) {
    const moves = (it[1] as string).split(', puis ')
    const at = moves.findIndex((each) => /^y passer(?: en sens inverse)?$/.test(each))
    if (at < 0 || moves.at(-1) !== "repasser dans la perle d'où sortait l'aiguille") throw new NotUnderstood(text)
    const picked = (list: string[]) => list.flatMap((each) => beads(each.replace(/^prendre /, '')))
    return {
      type: 'join',
      back: moves[at] === 'y passer en sens inverse',
      place: place(it[0] as string),
      first: picked(moves.slice(0, at)),
      second: picked(moves.slice(at + 1, -1)),
    }
  }
  it = found(
    /^Faire (\d+) unités? en angle droit: (?:prendre d'abord 1 (\p{Lu}\w*), qui appartient à la première unité; )?pour chacune prendre (.+?), repasser dans la perle partagée avec l'unité d'avant(, refaire le tour de toutes ces perles)? et continuer dans (?:la première perle|les (\d+) premières perles) de celles qui viennent d'être prises\.( Une unité sur deux.+)?$/u,
  )
  if (it)
    return {
      type: 'weave',
      units: Number(it[0]),
      begins: it[1],
      beads: beads(it[2] as string),
      on: Number(it[4] ?? 1),
      twice: it[3] !== undefined,
      turned: it[5] !== undefined,
      name,
    }
  it = found(
    new RegExp(
      `^Rang \\d+ en point carré, (\\d+) points?: prendre (.+?)(?:; (${often}) à la suite)?\\. Après chaque point, passer dans autant de perles du rang du dessous, dans leur sens, et de nouveau dans celles qui viennent d'être prises\\. Faire demi-tour\\.$`,
    ),
  )
  if (it) {
    const cycle = (it[1] as string).split(', puis ').map(beads)
    const stitches = Array.from({ length: it[2] ? times(it[2]) : 1 }, () => cycle).flat()
    if (stitches.length !== Number(it[0])) throw new Error(`Cela fait ${stitches.length} points: ${text}`)
    return { type: 'square', stitches, name }
  }
  it = found(/^Dresser (\d+) (\p{Lu}\w*) (?:sur le rang du dessous|autour du noyau): /u)
  if (it) return { type: 'stand', count: Number(it[0]), letter: it[1] as string, name }
  it = found(
    /^(?:Suspendre (\d+) franges?(?:, une à chaque place \((.+?)\)(, de la dernière à la première)?, en cheminant (?:de place en place|jusqu'à la première) par le plus court chemin)?(?:, en prenant de l'une à la suivante (.+?)(?: et en passant dans la perle qui la porte)?)?\. )?Prendre (.+); remonter dans la frange sans (?:la perle du bout|les perles du bout|la dernière perle)(?: ni les (\d+) du haut)?\.$/,
  )
  if (it) {
    const told = it[4] as string
    const strand = (words: string) => {
      const [own, end] = words.split(', puis ') as [string, string | undefined]
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
  it = found(/^Continuer dans (\d+) perles? de ce passage\.$/)
  if (it) return { type: 'go', beads: Number(it[0]), back: false }
  it = found(
    /^Contourner la perle d'où sort l'aiguille et revenir dans (?:la perle|les (\d+) perles) d'avant, sur le chemin du fil\.$/,
  )
  if (it) return { type: 'go', beads: Number(it[0] ?? 1), back: true }
  it = found(/^À partir de l'aiguille, les prochains tours vont dans (.+)\.$/)
  if (it) return { type: 'rail', places: (it[0] as string).split(', puis ').map(place), name }
  it = found(
    new RegExp(
      `^Refaire encore (${often}) (?:l'étape (\\d+)|les étapes (\\d+) (?:à|et) (\\d+), l'une après l'autre)\\.`,
    ),
  )
  if (it)
    return {
      type: 'steps again',
      from: Number(it[1] ?? it[2]),
      to: Number(it[1] ?? it[3]),
      times: times(it[0] as string),
      changing: changingSteps(said, / À l'étape (\d+), d'une fois à l'autre: ((?:[^.]|\.\.\.)+)\./g),
    }
  if (/^Laisser ce fil en attente, enfiler son bout de départ/.test(said)) return { type: 'tail' }
  if (/^Terminer ce fil et en commencer un nouveau dans la perle d'où il sortait\.$/.test(said))
    return { type: 'new thread', place: undefined }
  it = found(/^Terminer ce fil et en commencer un nouveau dans (.+)\.$/)
  if (it) return { type: 'new thread', place: place(it[0] as string) }
  const steps = /^Faire (?:l'étape suivante|les (\d+) étapes suivantes l'une après l'autre)/
  const held = Number(steps.exec(said)?.[1] ?? 1)
  it = found(new RegExp(`${steps.source}, (${often}) en tout\\.$`))
  if (it) return { type: 'repeat', steps: held, times: [times(it[1] as string)], at: undefined }
  it = found(new RegExp(`${steps.source}: (.+)\\.$`))
  if (it)
    return {
      type: 'repeat',
      steps: held,
      times: (it[1] as string).split(', ').map((words) => times(words.replace(/ la \d+e fois$/, ''))),
      at: undefined,
    }
  it = found(new RegExp(`${steps.source} à chacune des ([\\d, et]+) places \\((.+)\\); cheminer`))
  if (it)
    return {
      type: 'repeat',
      steps: held,
      times: (it[1] as string).split(/, | et /).map(Number),
      at: place(it[2] as string),
    }
  it = found(
    /^En faire (\d+): chaque pièce se compose (?:de l'étape suivante|des (\d+) étapes suivantes, l'une après l'autre)\.$/,
  )
  if (it) return { type: 'repeat', steps: Number(it[1] ?? 1), times: [Number(it[0])], at: undefined, part: true }
  if (/^Changer de trou: /.test(said)) return { type: 'turn' }
  if (/^Rentrer les deux bouts /.test(said)) return { type: 'finish' }
  if (
    /^(?:Poser la pierre|Serrer aussi autour|Retourner l'ouvrage|La pièce est suspendue|Attraper le pont de fil|Attention: |Fixer )/.test(
      said,
    )
  )
    return { type: 'nothing' }
  const moves = said.replace(/\.$/, '')
  if (/^Passer /.test(moves) && !/prendre /.test(moves))
    // Back through beads of its own: a line of picking up that begins so says nothing else.
    return { type: 'through', passes: moves.split(', puis ').map(move) as Extract<Move, { type: 'pass' }>[] }
  return { type: 'pick', moves: moves.split(', puis ').map(move), name }
}

const turns = (text: string): readonly string[] =>
  told(text, /(?:^| )(\d+)(?:re|e)(?: à (\d+)e)? fois: /g, /^(.*) D'une fois à l'autre: (.+)\.$/s)

function needle(text: string): string {
  const letter = /^L'aiguille sort d'une (\p{Lu}\w*)\.$/u.exec(text)?.[1]
  if (!letter) throw new NotUnderstood(text)
  return letter
}

export const french: Reader = { read, turns, needle }

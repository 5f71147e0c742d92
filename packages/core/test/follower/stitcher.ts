/**
 * Stitches what instructions say, with beads and thread of its own: it knows what stands up, what an edge is and what has been given a name,
 * and nothing of the notation or the engine. A way through the work that is only told by its end and its length is taken as the engine takes
 * it, and must be a way along the thread that comes to that end.
 */
import type { Beads, Instruction, Move, Name, PassOn, Place, Stitch } from './instructions'

/** A bead by one of its bores, from one end or the other. */
interface Pass {
  readonly bead: number
  readonly bore: 0 | 1
  readonly back: boolean
}

interface Group {
  readonly beads: readonly Pass[]
  readonly standing: readonly Pass[]
}

interface Edge {
  readonly closed: boolean
  /** In the order in which they come, from the needle on. */
  readonly groups: readonly Group[]
  /** Nothing has been stitched on it. */
  readonly fresh: boolean
  /** Its beads stand on end, and say nothing of the way round. */
  readonly upright?: boolean
}

type Edges = { readonly [side in 'front' | 'back']?: Edge }

const flip = (pass: Pass): Pass => ({ ...pass, back: !pass.back })
const same = (a: Pass, b: Pass) => a.bead === b.bead && a.bore === b.bore && a.back === b.back
const endIn = ({ bead, bore, back }: Pass) => `${bead}.${bore}.${back ? 1 : 0}`
const endOut = (pass: Pass) => endIn(flip(pass))
const plain = (beads: readonly Pass[]): Group => ({ beads, standing: beads })
const backward = ({ beads, standing }: Group): Group => ({
  beads: [...beads].reverse().map(flip),
  standing: [...standing].reverse().map(flip),
})

export class Stitcher {
  readonly done: string[] = []
  private readonly passes: Pass[] = []
  private readonly letters: string[] = []
  private readonly joined = new Map<string, Set<string>>()
  private readonly names = new Map<string, (readonly Pass[])[]>()
  private readonly groupsOf = new Map<string, readonly Group[]>()
  private readonly stepped = new Map<string, number>()
  private edges: Edges = {}
  private edge: 'front' | 'back' = 'front'
  private past: Edges[] = []
  private part = ''
  /** What comes round to its beginning. */
  private readonly comingRound = new WeakSet<readonly Pass[]>()
  private threadFrom = 0
  private finished = false
  /** Where the thread hangs out with which the needle goes on, as long as nothing has been passed with it. */
  private tail: Pass | undefined
  /** What was made last, and how far `go` has gone along it. */
  private made = { from: 0, to: 0 }
  private along = 0

  /** @param ways the engine's passes, for ways of which only the end is told */
  constructor(private readonly ways: readonly string[]) {}

  beginPart(name: string): void {
    for (const [side, edge] of Object.entries(this.edges))
      if (this.part) this.names.set(`${this.part}.${side}`, [edge.groups.flatMap(({ beads }) => beads)])
    if (Object.keys(this.edges).length > 0) this.past.push(this.edges)
    this.part = name
    this.edges = {}
    this.edge = 'front'
    if (this.finished) this.cut()
  }

  /** @throws Error where the needle does not come out of a bead of this letter */
  checkNeedle(letter: string): void {
    if (this.letters[this.needle.bead] !== letter) throw new Error(`The needle does not come out of ${letter}.`)
  }

  do(told: Exclude<Instruction, { type: 'repeat' | 'steps again' }>, time: number): void {
    const from = this.passes.length
    switch (told.type) {
      case 'ring': {
        const beads = this.pickAll(told.beads)
        const closed = this.passes.length
        if (told.again) for (const pass of beads) this.pass(pass)
        this.standOn({ closed: true, groups: beads.map((bead) => plain([bead])), fresh: true })
        this.call(told.name, beads, true)
        this.made = told.again ? { from: closed, to: this.passes.length } : { from, to: closed }
        return
      }
      case 'string': {
        const beads = this.pickAll(told.beads)
        this.standOn({ closed: false, groups: beads.map((bead) => plain([bead])), fresh: true })
        this.call(told.name, beads)
        this.made = { from, to: this.passes.length }
        return
      }
      case 'round':
        this.round(told, time)
        return
      case 'square': {
        const edge = some(this.edges[this.edge], 'There is no row to work on.')
        const below = edge.groups.flatMap(({ beads }) => beads).reverse()
        const made: Pass[] = []
        for (const stitch of told.stitches) {
          const under = below.slice(made.length, made.length + stitch.length).reverse()
          const picked = this.pickAll(stitch)
          for (const pass of [...under, ...picked]) this.pass(pass)
          made.push(...picked)
        }
        if (made.length !== below.length) throw new Error('The row does not come to its end.')
        this.edges = {
          ...this.edges,
          [this.edge]: { ...edge, fresh: false, groups: made.map((bead) => plain([bead])) },
        }
        this.call(told.name, made)
        this.made = { from, to: this.passes.length }
        return
      }
      case 'other edge': {
        const other = this.edges[told.edge] as Edge
        this.weave(told.beads)
        const at = other.groups.findIndex(({ standing }) => same(standing.at(-1) as Pass, this.needle))
        if (at < 0) throw new Error(`This does not come to the ${told.edge} edge.`)
        this.edge = told.edge
        this.edges = { ...this.edges, [told.edge]: turned(other, at + 1) }
        return
      }
      case 'to': {
        const beads = new Set(this.at(told.place).map(({ bead }) => bead))
        this.weave(told.beads)
        if (!beads.has(this.needle.bead)) throw new Error('This does not come to the place that is named.')
        this.standHere()
        return
      }
      case 'loop': {
        const left = this.tail ? [this.tail] : this.passes.slice(from - told.over)
        if (!this.tail && from - told.over < this.threadFrom)
          throw new Error('The thread has not passed so many beads.')
        const beads = this.pickAll(told.beads)
        for (const pass of told.back ? [...left].reverse().map(flip) : left) this.pass(pass)
        this.call(told.name, beads)
        this.make(from)
        this.standHere()
        return
      }
      case 'again': {
        const again = this.passes.slice(this.made.from, this.made.to)
        for (let turn = 0; turn < told.times; turn++) for (const pass of again) this.pass(pass)
        return
      }
      case 'pick':
        this.call(told.name, this.moves(told.moves))
        this.make(from)
        this.standHere()
        return
      case 'through':
        this.moves(told.passes)
        this.standHere()
        this.made = { from, to: this.passes.length }
        return
      case 'turn':
        this.pass({ bead: this.needle.bead, bore: this.needle.bore === 0 ? 1 : 0, back: !this.needle.back })
        return
      case 'go':
        if (told.back) {
          for (let i = 2; i <= told.beads + 1; i++) this.pass(flip(this.passes[from - i] as Pass))
        } else {
          const all = this.passes.slice(this.made.from, this.made.to)
          for (let i = 0; i < told.beads; i++) this.pass(all[(this.along + i) % all.length] as Pass)
          this.along = (this.along + told.beads) % all.length
        }
        this.standHere()
        return
      case 'weave': {
        const made: Pass[] = []
        if (told.begins) made.push(this.pick(told.begins))
        for (let unit = 0; unit < told.units; unit++) {
          const shared = this.needle
          const picked = this.pickAll(told.turned && unit % 2 === 1 ? [...told.beads].reverse() : told.beads)
          this.pass(shared)
          if (told.twice) for (const pass of [...picked, shared]) this.pass(pass)
          for (const pass of picked.slice(0, told.on)) this.pass(pass)
          made.push(...picked)
        }
        this.call(told.name, made)
        this.edges = {}
        this.make(from)
        return
      }
      case 'join': {
        const came = this.needle
        const [to] = this.at(told.place)
        const first = this.pickAll(told.first)
        this.pass(told.back ? flip(to as Pass) : (to as Pass))
        const second = this.pickAll(told.second)
        this.pass(came)
        this.call(undefined, [...first, ...second])
        this.make(from)
        this.standHere()
        return
      }
      case 'stand': {
        const beads = Array.from({ length: told.count }, () => {
          // Down through it when it is picked up, and up again.
          const up = flip(this.pick(told.letter))
          this.pass(up)
          return up
        })
        const [first] = beads as [Pass]
        this.pass(flip(first))
        this.pass(first)
        this.edges = {
          front: { closed: true, upright: true, groups: beads.map((bead) => plain([bead])), fresh: false },
        }
        this.edge = 'front'
        this.call(told.name, beads)
        this.made = { from, to: this.passes.length }
        return
      }
      case 'fringe': {
        const places = told.from && this.at(told.from)
        const order = places && told.lastFirst ? [...places].reverse() : places
        const all: Pass[] = []
        for (const [i, { beads, end }] of told.strands.entries()) {
          const at = order?.[i]
          if (i > 0) all.push(...this.pickAll(told.between))
          if (at) {
            if (i > 0 && told.between.length > 0) this.pass(told.lastFirst ? flip(at) : at)
            else this.weaveTo(at)
          }
          const down = this.pickAll(beads)
          const tip = this.pickAll(end)
          for (const pass of down.slice(told.keep, down.length - (tip.length > 0 ? 0 : 1)).reverse())
            this.pass(flip(pass))
          all.push(...down, ...tip)
        }
        this.call(told.name, all)
        this.made = { from, to: this.passes.length }
        return
      }
      case 'rail': {
        const beads = this.inLine(told.places.flatMap((place) => this.at(place)))
        this.call(told.name, beads, true)
        this.standOn({ closed: true, groups: beads.map((bead) => plain([bead])), fresh: false })
        return
      }
      case 'tail': {
        const first = this.passes[this.threadFrom] as Pass
        this.cut()
        this.tail = flip(first)
        return
      }
      case 'new thread': {
        const at = told.place ? (this.at(told.place)[0] as Pass) : this.needle
        this.cut()
        this.pass(at)
        this.standHere()
        return
      }
      case 'finish':
        this.finished = true
        return
      case 'nothing':
        return
    }
  }

  /** By the shortest way to a bead; nothing where the needle is there. */
  weaveTo({ bead }: Pass): void {
    while (this.needle.bead !== bead) this.weave(1)
  }

  /** The beads of a place. */
  at(place: Place): readonly Pass[] {
    switch (place.type) {
      case 'letter':
        return this.letters.flatMap((letter, bead) =>
          letter === place.letter ? [{ bead, bore: 0, back: false } as Pass] : [],
        )
      case 'named': {
        const edge = (this.edges as Record<string, Edge | undefined>)[place.name]
        const known = edge ? [edge.groups.flatMap(({ beads }) => beads)] : (this.names.get(place.name) ?? [])
        return some(known[known.length - 1 - place.before], `Nothing is called ${place.name}.`)
      }
      case 'part edge':
        return some(this.names.get(`${place.part}.${place.edge}`)?.at(-1), `${place.part} has no edge ${place.edge}.`)
      case 'letters of':
        return this.at(place.of).filter(({ bead }) => this.letters[bead] === place.letter)
      case 'nth': {
        const all = this.at(place.of)
        const { nth } = place
        const index =
          nth === 'first'
            ? 0
            : nth === 'last'
              ? all.length - 1
              : nth === 'middle'
                ? Math.floor((all.length - 1) / 2)
                : nth - 1
        return some(all[index] && [all[index] as Pass], `There is no bead ${nth}.`)
      }
      case 'range': {
        const all = this.at(place.of)
        const { from, to } = place
        if (from <= to) return all.slice(from - 1, to)
        return this.comingRound.has(all)
          ? [...all.slice(from - 1), ...all.slice(0, to)]
          : all.slice(to - 1, from).reverse()
      }
      case 'half': {
        const all = this.at(place.of)
        const half = Math.ceil(all.length / 2)
        return place.second ? all.slice(half) : all.slice(0, half)
      }
      case 'next': {
        const all = this.at(place.of)
        const key = JSON.stringify(place.of)
        const from = this.stepped.get(key) ?? 0
        this.stepped.set(key, (from + place.count) % all.length)
        return Array.from({ length: place.count }, (_, i) => all[(from + i) % all.length] as Pass)
      }
      case 'hole':
        return this.at(place.of).map((pass) => ({ ...pass, bore: place.second ? 1 : 0 }))
    }
  }

  private round(told: Extract<Instruction, { type: 'round' }>, time: number): void {
    if (!this.edges[this.edge]) this.standOnNamed(told.on)
    const side = this.edge
    const edge = some(this.edges[side], 'There is no edge to work on.')
    const from = this.passes.length
    const on = (time === 0 ? told.firstTime : undefined) ?? told.on
    const { anchors, left } = this.anchorsOf(edge, on, told.stitches)
    let taken = 0
    const passed: (readonly Pass[])[] = []
    const added: Group[] = []
    let firstDone = -1
    for (const [i, { moves, over, standing }] of told.stitches.entries()) {
      const picked = this.moves(moves)
      const group: Group = {
        beads: picked,
        standing: standing ? standing.map((nth) => picked[nth - 1] as Pass) : picked,
      }
      if (picked.length > 0) {
        added.push(group)
        if (firstDone < 0) firstDone = this.passes.length
      }
      if (told.ends === 'turned in' && i === told.stitches.length - 1) {
        for (const pass of [...picked].reverse()) this.pass(flip(pass))
        continue
      }
      let anchor: readonly Pass[] | undefined
      for (let k = 0; k < over; k++, taken++) anchor = anchors[taken]
      // Round and round the next to stand up may be what this round has added.
      if (told.ends === 'runs on') anchor ??= added[taken - 1 - anchors.length]?.standing
      for (const pass of some(anchor, 'There is no bead left to pass.')) this.pass(pass)
      passed.push(anchor as readonly Pass[])
    }
    const [first, ...rest] = added
    if (!first) throw new Error('This round adds nothing.')
    let groups = added
    if (told.ends === 'steps up') {
      for (const anchor of passed.slice(0, told.upPast)) for (const pass of anchor) this.pass(pass)
      for (const pass of first.beads.slice(0, told.upThrough)) this.pass(pass)
      groups = [...rest, first]
    }
    if (told.ends === 'runs on') {
      const more = Math.max(0, taken - anchors.length)
      groups = [...(edge.fresh ? [] : edge.groups.slice(taken)), ...added.slice(more)]
    }
    const other = side === 'front' ? 'back' : 'front'
    // A ring of which nothing has been told to be skipped is its other edge itself.
    const beyond =
      edge.fresh && edge.closed && !this.edges[other]
        ? { ...edge, ...(left ? { fresh: false, groups: left } : {}) }
        : undefined
    this.edges = { ...this.edges, ...(beyond ? { [other]: beyond } : {}), [side]: { ...edge, fresh: false, groups } }
    if (told.name) {
      const { name, all } = told.name
      this.call(
        told.name,
        added.flatMap(({ beads }) => beads),
        edge.closed,
      )
      this.groupsOf.set(name, [...(all ? (this.groupsOf.get(name) ?? []) : []), ...added])
    }
    this.made = { from: firstDone, to: this.passes.length }
    if (from === this.passes.length) throw new Error('This round does nothing.')
  }

  /** What the stitches of a round pass, one after the other; and what a fresh ring leaves for its other edge. */
  private anchorsOf(
    edge: Edge,
    on: PassOn,
    stitches: readonly Stitch[],
  ): { anchors: (readonly Pass[])[]; left?: Group[] } {
    const groups = edge.closed ? edge.groups : [...edge.groups].reverse().map(backward)
    const beads = groups.flatMap((group) => group.beads)
    const single = (passes: readonly Pass[]) => ({ anchors: passes.map((pass) => [pass]) })
    const orBack = (passes: readonly Pass[]) => (edge.closed ? passes : [...passes].reverse().map(flip))
    const walked = (places: readonly Place[]) => {
      const passes = places.flatMap((place) => this.at(place))
      return this.fromNeedle(edge, edge.closed ? this.inLine(passes) : passes)
    }
    switch (on.type) {
      case 'skipping': {
        const anchors: (readonly Pass[])[] = []
        const skipped: (readonly Pass[])[] = []
        let at = 0
        const step = (skips: number) => {
          skipped.push(beads.slice(at, at + skips))
          const anchor = beads.slice(at + skips, at + skips + on.wide)
          if (anchor.length > 0) anchors.push(anchor)
          at += skips + on.wide
        }
        for (const { over, skips } of stitches) for (let k = 0; k < over; k++) step(skips ?? on.wide)
        while (at < beads.length) step(on.wide)
        return edge.closed ? { anchors, left: skipped.filter(({ length }) => length > 0).map(plain) } : { anchors }
      }
      case 'standing': {
        const standing = groups.map((group) => group.standing)
        const each = on.wide === 1 ? standing.flatMap((all) => all.map((pass) => [pass])) : standing
        // What the needle has come out of is not the next.
        const out = !edge.closed && each[0]?.some(({ bead }) => bead === this.needle.bead)
        return { anchors: out ? each.slice(1) : each }
      }
      case 'every': {
        const all = on.of === 'edge' ? beads : orBack(walked([on.of]))
        return single(all.filter((_, i) => (i + 1) % on.each === 0))
      }
      case 'counting': {
        const all = on.of === 'edge' ? beads : orBack(walked([on.of]))
        let at = -1
        return single(
          on.steps.map((step) => {
            at += step
            return some(all[at], 'There are not so many beads.')
          }),
        )
      }
      case 'group': {
        const named =
          on.name === undefined ? undefined : some(this.groupsOf.get(on.name), `No round is called ${on.name}.`)
        const passes = (named ?? edge.groups).map(({ beads: own }) =>
          some(own[on.nth === 'middle' ? Math.floor((own.length - 1) / 2) : on.nth - 1], 'A group has no such bead.'),
        )
        return single(orBack(named ? this.fromNeedle(edge, passes) : passes))
      }
      case 'other hole':
        return single(beads.map((pass) => ({ ...pass, bore: 1 })))
      case 'next of':
        return single(orBack(walked(on.places)))
    }
  }

  /** Where the part has no edge yet, the beads that are named are one. */
  private standOnNamed(on: PassOn): void {
    const places =
      on.type === 'next of'
        ? on.places
        : (on.type === 'every' || on.type === 'counting') && on.of !== 'edge'
          ? [on.of]
          : []
    const groups = on.type === 'group' && on.name ? this.groupsOf.get(on.name) : undefined
    const beads = groups
      ? groups.flatMap((group) => group.beads)
      : this.inLine(places.flatMap((place) => this.at(place)))
    if (beads.length > 0) this.standOn({ closed: true, groups: beads.map((bead) => plain([bead])), fresh: false })
  }

  private fromNeedle({ closed }: Edge, passes: readonly Pass[]): readonly Pass[] {
    const at = passes.findIndex(({ bead }) => bead === this.needle.bead)
    return closed && at >= 0 ? [...passes.slice(at + 1), ...passes.slice(0, at + 1)] : passes
  }

  private moves(moves: readonly Move[]): Pass[] {
    const own: Pass[] = []
    for (const move of moves)
      switch (move.type) {
        case 'pick':
          own.push(...this.pickAll(move.beads))
          break
        case 'pass': {
          const passes = this.at(move.place)
          for (const pass of move.way === 'back' ? [...passes].reverse().map(flip) : passes)
            this.pass(move.way === 'near' ? this.nearEnd(pass) : pass)
          break
        }
        case 'back': {
          const of = move.letter === undefined ? own : own.filter(({ bead }) => this.letters[bead] === move.letter)
          for (const pass of of.slice(-move.count).reverse()) this.pass(flip(pass))
          break
        }
      }
    return own
  }

  /** A bead is gone into at the end that the thread leads to from here; as it was first passed, where it leads to neither. */
  private nearEnd(pass: Pass): Pass {
    const near = this.joined.get(endOut(this.needle))
    return near && !near.has(endIn(pass)) && near.has(endOut(pass)) ? flip(pass) : pass
  }

  private get needle(): Pass {
    if (this.passes.length === this.threadFrom && this.tail) return this.tail
    return some(this.passes[this.passes.length - 1], 'There is nothing on the needle.')
  }

  private cut(): void {
    this.finished = false
    this.threadFrom = this.passes.length
    this.tail = undefined
  }

  private pickAll = (letters: Beads): Pass[] => letters.map((letter) => this.pick(letter))

  private pick(letter: string): Pass {
    const pass: Pass = { bead: this.letters.length, bore: 0, back: false }
    this.letters.push(letter)
    this.lay(pass, `+${letter}`)
    return pass
  }

  private pass(pass: Pass): void {
    this.lay(pass, '')
  }

  private lay(pass: Pass, fresh: string): void {
    if (this.passes.length > this.threadFrom || this.tail) {
      const [a, b] = [endOut(this.needle), endIn(pass)]
      this.joined.set(a, (this.joined.get(a) ?? new Set()).add(b))
      this.joined.set(b, (this.joined.get(b) ?? new Set()).add(a))
    }
    this.tail = undefined
    this.passes.push(pass)
    this.done.push(`${fresh}${pass.bead}${pass.bore === 1 ? ':2' : ''}${pass.back ? '<' : ''}`)
  }

  private weave(beads: number): void {
    for (let i = 0; i < beads; i++) {
      const told = /^(\d+)(:2)?(<)?$/.exec(this.ways[this.passes.length] ?? '')
      if (!told) throw new Error('There is no way of so many beads.')
      const next: Pass = { bead: Number(told[1]), bore: told[2] ? 1 : 0, back: told[3] !== undefined }
      if (!this.joined.get(endOut(this.needle))?.has(endIn(next)))
        throw new Error('This way does not follow the thread.')
      this.pass(next)
    }
  }

  private call(called: Name | undefined, beads: readonly Pass[], comesRound = false): void {
    if (comesRound) this.comingRound.add(beads)
    if (called) {
      const known = this.names.get(called.name) ?? []
      // What is gathered does not come round to its beginning.
      const gathered = [...(known.at(-1) ?? []), ...beads]
      this.names.set(called.name, called.all ? [...known.slice(0, -1), gathered] : [...known, beads])
    }
    this.names.set('those just picked up', [beads])
  }

  private make(from: number): void {
    this.made = { from, to: this.passes.length }
    this.along = 0
  }

  private standOn(edge: Edge): void {
    this.edges = { front: edge }
    this.edge = 'front'
    this.standHere()
  }

  /** Rounds go on from the bead that the needle has come to. */
  private standHere(): void {
    if (this.passes.length === 0) return
    const at = this.needle.bead
    const here = ({ standing }: Group) => standing.at(-1)?.bead === at
    if (Object.keys(this.edges).length === 0)
      this.edges = this.past.findLast((edges) => Object.values(edges).some(({ groups }) => groups.some(here))) ?? {}
    for (const side of ['front', 'back'] as const) {
      const edge = this.edges[side]
      if (!edge?.groups.some(here)) continue
      const turnedRound = edge.closed
        ? !edge.upright && edge.groups.some(({ beads }) => beads.some((pass) => same(flip(pass), this.needle)))
        : edge.groups.length > 1 && edge.groups.findIndex(here) === 0
      const way = turnedRound ? { ...edge, groups: [...edge.groups].reverse().map(backward) } : edge
      this.edge = side
      this.edges = { ...this.edges, [side]: turned(way, way.groups.findIndex(here) + 1) }
      return
    }
  }

  /** Each turned so that it can be gone through to the next. */
  private inLine(passes: readonly Pass[]): readonly Pass[] {
    const far = (a: Pass, b: Pass) => {
      const out = this.joined.get(endOut(a)) ?? new Set()
      if (out.has(endIn(b))) return 0
      return [...(this.joined.get(endIn(b)) ?? [])].some((end) => out.has(end)) ? 1 : 2
    }
    const [first, ...rest] = passes
    if (!first) return passes
    const ways = [first, flip(first)].map((begin) => {
      let [before, steps] = [begin, 0]
      const line = [begin]
      for (const pass of rest) {
        const next = far(before, flip(pass)) < far(before, pass) ? flip(pass) : pass
        steps += far(before, next)
        line.push(next)
        before = next
      }
      return { line, steps }
    })
    const [as, other] = ways as [(typeof ways)[number], (typeof ways)[number]]
    return other.steps < as.steps ? other.line : as.line
  }
}

/** Begun behind a place; a row begins at its end. */
const turned = (edge: Edge, by: number): Edge =>
  edge.closed ? { ...edge, groups: [...edge.groups.slice(by), ...edge.groups.slice(0, by)] } : edge

function some<T>(found: T | undefined, otherwise: string): T {
  if (found === undefined) throw new Error(otherwise)
  return found
}

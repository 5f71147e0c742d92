/** What a pattern gives a name to, `as NAME`, so that it can be found again. */
import type { Hole } from './hole'
import type { Mark } from './mark'
import type { Group } from './rail'

/** The most holes that one step along a mark takes: a bound on what a slip in a number can cost. */
const maxAtOnce = 1_000_000

export class Marks {
  /** Newest last; more than one where a repeat marks again. */
  private marks = new Map<string, (readonly Hole[])[]>()
  /** What still grows: it is added to in place, and handed out as it is then. */
  private collecting = new WeakSet<readonly Hole[]>()
  private readonly closed: WeakSet<readonly Hole[]>
  /** Where the last step along a mark ended. */
  private stepped = new Map<string, number>()
  /** The groups of a round that was marked, for `middles of NAME`. */
  groupsOf = new Map<string, readonly Group[]>()

  constructor(closed = new WeakSet<readonly Hole[]>()) {
    this.closed = closed
  }

  copy(): Marks {
    const copy = new Marks(this.closed)
    for (const [name, known] of this.marks)
      copy.marks.set(
        name,
        known.map((holes) => {
          if (!this.collecting.has(holes)) return holes
          const own = [...holes]
          copy.collecting.add(own)
          return own
        }),
      )
    copy.stepped = new Map(this.stepped)
    copy.groupsOf = new Map(this.groupsOf)
    return copy
  }

  /** @param closed they come round to their beginning, so that places beyond the last are counted on from the first */
  add(mark: Mark | undefined, holes: readonly Hole[], closed = false): void {
    if (closed) this.closed.add(holes)
    this.marks.set('new', [holes])
    if (!mark) return
    const known = this.marks.get(mark.name) ?? []
    this.marks.set(mark.name, known)
    const last = known.at(-1)
    if (!mark.all) known.push(holes)
    else if (last && this.collecting.has(last)) for (const h of holes) (last as Hole[]).push(h)
    else {
      const together = [...(last ?? []), ...holes]
      this.collecting.add(together)
      known.splice(-1, 1, together)
    }
  }

  /** The groups of a round that is marked. */
  addGroups({ name, all }: Mark, groups: readonly Group[]): void {
    this.groupsOf.set(name, all ? [...(this.groupsOf.get(name) ?? []), ...groups] : groups)
  }

  /** Keeps the edges of a part under its name, as `bezel.front`. */
  keepEdge(name: string, holes: readonly Hole[]): void {
    this.marks.set(name, [holes])
  }

  comesRound = (holes: readonly Hole[]): boolean => this.closed.has(holes)

  /** What bears a name, or bore it before the last `before` times. */
  get(name: string, before = 0): readonly Hole[] | undefined {
    const known = this.marks.get(name)
    const holes = known?.[known.length - 1 - before]
    return holes && this.collecting.has(holes) ? [...holes] : holes
  }

  /** The next holes of a mark, from where the last such step along it ended; round again at its end. */
  nextOf(name: string, holes: readonly Hole[], count: number): Hole[] {
    const from = this.stepped.get(name) ?? 0
    this.stepped.set(name, (from + count) % holes.length)
    return Array.from({ length: Math.min(count, maxAtOnce) }, (_, i) => holes[(from + i) % holes.length] as Hole)
  }

  names = (): string[] => [...this.marks.keys()].filter((name) => name !== 'new')
}

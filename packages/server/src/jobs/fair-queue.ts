/** Quick work is over in a moment; long work may take minutes. */
export type Pace = 'quick' | 'long'

/** Work that waits for a thread. Of each pace, people take turns: who asks for fifty things waits no less for their second than others for their first. */
export class FairQueue<Work> {
  private readonly waiting: Readonly<Record<Pace, Map<number, Work[]>>> = { quick: new Map(), long: new Map() }

  /** @param whose number of whoever waits for it; 0 is the shop itself */
  add(whose: number, pace: Pace, work: Work): void {
    const own = this.waiting[pace].get(whose)
    if (own) own.push(work)
    else this.waiting[pace].set(whose, [work])
  }

  /** What is next of a pace; the shop's own work comes after everybody's. */
  take(pace: Pace): Work | undefined {
    const turns = this.waiting[pace]
    const whose = [...turns.keys()].find((each) => each !== 0) ?? (turns.has(0) ? 0 : undefined)
    if (whose === undefined) return undefined
    const own = turns.get(whose) as Work[]
    const work = own.shift()
    // Whoever has had a turn goes behind the others.
    turns.delete(whose)
    if (own.length > 0) turns.set(whose, own)
    return work
  }

  /** Takes out what nobody waits for any more. @returns whether it still waited */
  remove(whose: number, pace: Pace, work: Work): boolean {
    const own = this.waiting[pace].get(whose)
    const at = own?.indexOf(work) ?? -1
    if (!own || at < 0) return false
    own.splice(at, 1)
    if (own.length === 0) this.waiting[pace].delete(whose)
    return true
  }

  /** How much is taken before the last that somebody waits for: others' work in their turns, and their own before it. */
  ahead(whose: number): number {
    const before = (turns: ReadonlyMap<number, readonly Work[]>) => {
      const order = [...turns.keys()].filter((each) => each !== 0)
      const place = order.indexOf(whose)
      if (place < 0) return 0
      const own = turns.get(whose)?.length ?? 0
      // Those before them in the round have had one turn more by then.
      const others = order.map((each, at) => Math.min(turns.get(each)?.length ?? 0, at < place ? own : own - 1))
      return own - 1 + others.reduce((sum, n, at) => sum + (at === place ? 0 : n), 0)
    }
    return before(this.waiting.quick) + before(this.waiting.long)
  }

  lengthOf(whose: number): number {
    return (this.waiting.quick.get(whose)?.length ?? 0) + (this.waiting.long.get(whose)?.length ?? 0)
  }

  get length(): number {
    return [...this.waiting.quick.values(), ...this.waiting.long.values()].reduce((sum, { length }) => sum + length, 0)
  }
}

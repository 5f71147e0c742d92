/** What a scale would show: what lies on its pan, as it settles, drifts and shakes. */

export type Fault = 'rubbish' | 'silent' | 'half-line' | 'drift' | 'shaking' | 'overload'
export const faults: readonly Fault[] = ['rubbish', 'silent', 'half-line', 'drift', 'shaking', 'overload']

/** Grams that it cannot carry. */
const most = 500
/** So many looks until it has settled. */
const settling = 4

export class Pan {
  private on = 0
  private before = 0
  private since = settling
  private tare = 0
  private drifted = 0
  readonly faults = new Set<Fault>()

  put(grams: number): void {
    this.before = this.shown
    this.on = grams
    this.since = 0
  }

  zero(): void {
    this.tare = this.on + this.drifted
    this.since = 0
  }

  get grams(): number {
    return this.on
  }

  private get shown(): number {
    const way = Math.min(1, this.since / settling)
    return this.before + (this.on - this.before) * way - this.tare + this.drifted
  }

  /** The next line it sends; undefined where it sends none. @param random 0..1 */
  next(random: () => number): string | undefined {
    if (this.faults.has('silent')) return undefined
    if (this.faults.has('rubbish'))
      return Array.from({ length: 12 }, () => String.fromCharCode(33 + random() * 90)).join('')
    if (this.faults.has('overload') || this.on > most) return 'over'
    this.since++
    if (this.faults.has('drift')) this.drifted += 0.003
    const shake = this.faults.has('shaking') ? (random() - 0.5) * 0.1 : 0
    const steady = this.since > settling && !this.faults.has('shaking') && !this.faults.has('drift')
    return `${(this.shown + shake).toFixed(3)} g ${steady ? 'steady' : 'moving'}`
  }
}

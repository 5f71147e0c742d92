import type { Mm } from '../measure/units'

/** How firmly the work is pulled up; scales the gaps and the allowance. */
export type Tension = 'firm' | 'usual' | 'relaxed'

/** The shop's school of thread: what is added to the path, and how it is cut. All lengths mm. */
export interface ThreadSettings {
  readonly tension: Tension
  /** Added for take-up, as a share, by how firmly the work is pulled up: a relaxed hand lays in a little more than a firm one. */
  readonly takeUpFirm: number
  readonly takeUpUsual: number
  readonly takeUpRelaxed: number
  /** Left hanging where a thread begins. */
  readonly tailMm: Mm
  /** Woven back into the work where a thread ends. */
  readonly weaveInMm: Mm
  readonly hitchesPerEnd: number
  readonly hitchMm: Mm
  /** The longest working thread that does not tangle. */
  readonly comfortableMm: Mm
  readonly spanMm: Mm
  /** Cuts are rounded up to this. */
  readonly cutStepMm: Mm
  /** A thread begun in its middle is cut once for two working halves, the second laid aside as the tail. */
  readonly start: 'end' | 'middle'
  /** How a ring is closed. */
  readonly closing: 'pass again' | 'knot' | 'knot and pass again' | 'stop bead'
  /** What stitched samples have shown thread really to take, times what is computed; and how many samples have. */
  readonly sampled: { readonly ratio: number; readonly count: number }
  /** How a thread is ended. */
  readonly ending: 'hitch and weave' | 'weave' | 'melt' | 'glue'
}

/** What a shop settles once, for all patterns; what samples have shown belongs to one. */
export type ShopThread = Omit<ThreadSettings, 'sampled'>

export const usualThreadSettings: ThreadSettings = {
  tension: 'usual',
  takeUpFirm: 0.05,
  takeUpUsual: 0.08,
  takeUpRelaxed: 0.11,
  tailMm: 150,
  weaveInMm: 150,
  hitchesPerEnd: 3,
  hitchMm: 6,
  comfortableMm: 1800,
  spanMm: 1600,
  cutStepMm: 10,
  start: 'end',
  closing: 'pass again',
  ending: 'hitch and weave',
  sampled: { ratio: 1, count: 0 },
}

/** The share added for take-up. */
export const allowanceIn = ({ tension, takeUpFirm, takeUpUsual, takeUpRelaxed }: ThreadSettings): number =>
  ({ firm: takeUpFirm, usual: takeUpUsual, relaxed: takeUpRelaxed })[tension]

import type { Mm } from '../measure/units'

/**
 * The gap between one pass and the next, by stitch, as a share of the beads' width `d` (the mean of the two beads it joins).
 * Used until the computed shape gives the true gaps.
 */
export const jogShare = {
  ring: 0.1,
  peyote: 0.5,
  'right angle': 0.4,
  brick: 1,
  netting: 0.2,
  'fringe turn': 1,
  travel: 0.2,
} as const

export type Jog = keyof typeof jogShare

/** Index by number, so that a pass can keep its jog in a byte. */
export const jogs: readonly Jog[] = Object.keys(jogShare) as Jog[]
export const jogNumber: Readonly<Record<Jog, number>> = Object.fromEntries(jogs.map((jog, i) => [jog, i])) as Record<
  Jog,
  number
>

export const jogLength = (jog: Jog, acrossBefore: Mm, acrossAfter: Mm): Mm =>
  (jogShare[jog] * (acrossBefore + acrossAfter)) / 2

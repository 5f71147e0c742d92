/** A pattern against the hours of a class: what fits, in the order in which it is made, and what is homework. */

export interface TimedPart {
  readonly name: string
  /** For a practised hand. */
  readonly practised: number
}

export interface PlannedPart {
  readonly name: string
  /** For this class. */
  readonly minutes: number
  /** From the beginning of the class; undefined where it is homework. */
  readonly from: number | undefined
  /** 0 to 1: how much of it fits. */
  readonly fits: number
}

export interface TimePlan {
  readonly welcome: number
  readonly parts: readonly PlannedPart[]
  readonly needed: number
  /** Minutes that are left over, or that lack when below 0. */
  readonly left: number
}

export const paces = ['practised', 'easy', 'beginner'] as const
export type Pace = (typeof paces)[number]

/** How a shop teaches. */
export interface TeachingSettings {
  /** Coming in, bags out, thread cut; and a look round at the end. */
  readonly welcomeMinutes: number
  /** An easy hand takes so many times as long as a practised one, and so does a beginner. */
  readonly easyPace: number
  readonly beginnerPace: number
}

export const usualTeaching: TeachingSettings = { welcomeMinutes: 15, easyPace: 1.6, beginnerPace: 2.2 }

/** @param minutes of the class @throws RangeError for a class of no time */
export function timePlan(
  parts: readonly TimedPart[],
  minutes: number,
  pace: Pace,
  { welcomeMinutes, easyPace, beginnerPace }: TeachingSettings = usualTeaching,
): TimePlan {
  if (!(minutes > 0)) throw new RangeError('A class has some time.')
  const welcome = Math.min(welcomeMinutes, Math.round(minutes / 6))
  const times = { practised: 1, easy: easyPace, beginner: beginnerPace }[pace]
  let at = welcome
  const planned = parts.map(({ name, practised }): PlannedPart => {
    const takes = Math.round(practised * times)
    const room = Math.max(0, minutes - at)
    const from = room > 0 ? at : undefined
    at += takes
    return { name, minutes: takes, from, fits: takes === 0 ? 1 : Math.min(1, room / takes) }
  })
  return { welcome, parts: planned, needed: at, left: minutes - at }
}

/** What a stream of changes may tell besides: devices at the packing bench. */
export const newsTopics = ['scale', 'scanner'] as const
export type NewsTopic = (typeof newsTopics)[number]

/** A page reads what it shows before it listens. Whoever begins to listen is told what changed in so long before: longer than a slow machine takes for that. */
export const missedMs = 10_000

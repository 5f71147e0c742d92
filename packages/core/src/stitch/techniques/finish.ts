import type { Technique } from '../technique'

/** `finish`: ends the thread in the shop's way. */
export const finishTechnique: Technique<null> = {
  word: 'finish',
  read: () => null,
  work(_, bench, span) {
    bench.needle('finish', span)
    bench.finished = true
    return { type: 'finish' }
  },
}

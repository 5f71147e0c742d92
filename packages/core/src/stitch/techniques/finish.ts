import type { Technique } from '../technique'

/** `finish`: ends the thread, in the shop's way unless the pattern or the part says another. */
export const finishTechnique: Technique<null> = {
  word: 'finish',
  read: () => null,
  work(_, machine, span) {
    machine.needle('finish', span)
    machine.finished = true
    return { type: 'finish', ending: machine.settings.ending }
  },
}

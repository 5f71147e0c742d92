/** Every word that does something, in one list. */
import { Cursor } from '../notation/cursor'
import type { Line } from '../notation/line'
import type { StitchWord } from '../notation/words'
import { readStatement, type Statement, type Technique } from './technique'
import { finishTechnique } from './techniques/finish'
import { letTechnique } from './techniques/let'
import { loopTechnique } from './techniques/loop'
import { otherEdgeTechnique } from './techniques/other-edge'
import { placeTechnique } from './techniques/place'
import { reinforceTechnique } from './techniques/reinforce'
import { ringTechnique } from './techniques/ring'
import { roundTechnique } from './techniques/round'
import { checkTechnique, noteTechnique } from './techniques/spoken'
import { toTechnique } from './techniques/to'

type Reader = (line: Line) => Statement

const reads =
  <Words>(technique: Technique<Words>): Reader =>
  (line) =>
    readStatement(technique, new Cursor(line.items, line), line)

const readers: Readonly<Record<StitchWord, Reader>> = {
  let: reads(letTechnique),
  ring: reads(ringTechnique),
  round: reads(roundTechnique),
  other: reads(otherEdgeTechnique),
  to: reads(toTechnique),
  place: reads(placeTechnique),
  loop: reads(loopTechnique),
  reinforce: reads(reinforceTechnique),
  check: reads(checkTechnique),
  note: reads(noteTechnique),
  finish: reads(finishTechnique),
}

export const readStitchLine = (line: Line): Statement => readers[line.keyword as StitchWord](line)

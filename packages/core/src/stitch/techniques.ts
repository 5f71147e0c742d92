/** Every word that does something, in one list. */
import { Cursor } from '../notation/cursor'
import type { Line } from '../notation/line'
import type { StitchWord } from '../notation/words'
import { readStatement, type Statement, type Technique } from './technique'
import { finishTechnique } from './techniques/finish'
import { fringeTechnique } from './techniques/fringe'
import { goTechnique } from './techniques/go'
import { hangsTechnique } from './techniques/hangs'
import { letTechnique } from './techniques/let'
import { loopTechnique } from './techniques/loop'
import { otherEdgeTechnique } from './techniques/other-edge'
import { pickTechnique } from './techniques/pick'
import { placeTechnique } from './techniques/place'
import { againTechnique, reinforceTechnique } from './techniques/reinforce'
import { ringTechnique } from './techniques/ring'
import { roundTechnique, rowTechnique } from './techniques/round'
import { attachTechnique, cautionTechnique, newThreadTechnique, railTechnique } from './techniques/small'
import { checkTechnique, noteTechnique } from './techniques/spoken'
import { squareTechnique } from './techniques/square'
import { standTechnique } from './techniques/stand'
import { stringTechnique } from './techniques/string'
import { throughTechnique } from './techniques/through'
import { toTechnique } from './techniques/to'
import { turnTechnique, underTechnique } from './techniques/turn'
import { joinTechnique, weaveTechnique } from './techniques/weave'

type Reader = (line: Line) => Statement

const reads =
  <Words>(technique: Technique<Words>): Reader =>
  (line) =>
    readStatement(technique, new Cursor(line.items, line), line)

const readers: Readonly<Record<StitchWord, Reader>> = {
  let: reads(letTechnique),
  ring: reads(ringTechnique),
  string: reads(stringTechnique),
  pick: reads(pickTechnique),
  round: reads(roundTechnique),
  row: reads(rowTechnique),
  square: reads(squareTechnique),
  other: reads(otherEdgeTechnique),
  to: reads(toTechnique),
  through: reads(throughTechnique),
  again: reads(againTechnique),
  turn: reads(turnTechnique),
  under: reads(underTechnique),
  place: reads(placeTechnique),
  loop: reads(loopTechnique),
  go: reads(goTechnique),
  weave: reads(weaveTechnique),
  join: reads(joinTechnique),
  stand: reads(standTechnique),
  fringe: reads(fringeTechnique),
  reinforce: reads(reinforceTechnique),
  rail: reads(railTechnique),
  attach: reads(attachTechnique),
  hangs: reads(hangsTechnique),
  check: reads(checkTechnique),
  note: reads(noteTechnique),
  caution: reads(cautionTechnique),
  new: reads(newThreadTechnique),
  finish: reads(finishTechnique),
}

export const readStitchLine = (line: Line): Statement => readers[line.keyword as StitchWord](line)

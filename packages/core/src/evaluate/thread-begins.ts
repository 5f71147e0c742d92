import type { Mm } from '../measure/units'
import type { StitchMachine } from '../stitch/stitch-machine'

/**
 * The statements at which further lengths of a thread begin, when its path is shared evenly between `lengths` of them.
 *
 * @param from @param to the passes of the thread
 */
export function furtherLengthsBegin(
  machine: StitchMachine,
  from: number,
  to: number,
  pathMm: Mm,
  lengths: number,
): number[] {
  const begins: number[] = []
  let laid = 0
  for (let pass = from; pass < to && begins.length < lengths - 1; ) {
    const statement = machine.work.statementAt(pass)
    const began = pass
    while (pass < to && machine.work.statementAt(pass) === statement) pass++
    laid += machine.pathMm(began, pass)
    while (begins.length < lengths - 1 && laid >= (pathMm * (begins.length + 1)) / lengths - 1e-6)
      begins.push(statement)
  }
  return begins
}

/** "fit 14 mm round with cylinder 11/0": a question of the sizing desk, asked in a line. */
import { evaluatePattern } from '../evaluate/evaluate-pattern'
import { verdictWords } from '../sizing/ring-fit'

const asked = /^fit\s+(?:an?\s+|the\s+)?(.+?)\s+(?:with|in)\s+(.+)$/i
/** "14 mm round" as the notation writes it: "round 14 mm". */
const measureFirst = /^([\d.]+(?:\s*x\s*[\d.]+)?\s*mm)\s+(\w+)(.*)$/i

/** @returns the answer, or what is wrong with the question; undefined where none is asked */
export function quickFit(text: string): string | undefined {
  const [, stone, bead] = asked.exec(text.trim()) ?? []
  if (!stone || !bead) return undefined
  const written = stone.replace(measureFirst, '$2 $1$3')
  const source = `pattern Asked\nbead A ${bead}\nstone S ${written}\npart p\nlet n = fit(S, A)\nring A x n\nplace S\n`
  const { report } = evaluatePattern(source)
  const fault = report.diagnostics.find(({ severity, line }) => severity === 'error' && line <= 3)
  if (fault) return `${fault.message} ${fault.mend ?? ''}`.trim()
  const [fit] = report.fits
  return fit && `A ring of ${fit.beads} ${bead} on a stone "${written}": ${verdictWords[fit.verdict]}.`
}

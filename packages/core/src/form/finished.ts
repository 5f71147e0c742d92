import type { Report } from '../report/report'
import type { FormReport } from './form-report'

/** What a piece comes to when it has come to rest. */
export type Finished = Pick<FormReport, 'widthMm' | 'heightMm' | 'depthMm' | 'findings'>

/** Undefined where there is no form, or it has not come to rest. */
export function finishedIn({ form }: Report): Finished | undefined {
  if (!form?.progress.settled) return undefined
  const { widthMm, heightMm, depthMm, findings } = form
  return { widthMm, heightMm, depthMm, findings }
}

import { type SoundForm, soundForm } from '../report/form-report'
import type { Report } from '../report/report'

/** What a piece comes to when it has come to rest. */
export type Finished = Pick<SoundForm, 'widthMm' | 'heightMm' | 'depthMm' | 'spreadMm' | 'findings'>

/** Undefined where there is no form, or it is not sound. */
export function finishedIn(report: Report): Finished | undefined {
  const form = soundForm(report)
  if (!form) return undefined
  const { widthMm, heightMm, depthMm, spreadMm, findings } = form
  return { widthMm, heightMm, depthMm, spreadMm, findings }
}

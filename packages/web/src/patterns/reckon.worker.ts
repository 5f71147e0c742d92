/** Reckons patterns off the page's own thread, so that typing is never held up. */

import { sceneOf } from '@tessellum/core/drawing/scene'
import { type View, viewOf } from '@tessellum/core/drawing/view'
import { type Choices, reckonPattern } from '@tessellum/core/report/reckon-pattern'
import type { Report } from '@tessellum/core/report/report'
import { expose } from 'comlink'

export interface Shown {
  readonly report: Report
  readonly front: View
  readonly back: View
}

const bench = {
  reckon(source: string, choices: Choices): Shown {
    const reckoned = reckonPattern(source, choices)
    const scene = sceneOf(reckoned)
    return { report: reckoned.report, front: viewOf(scene, 'front'), back: viewOf(scene, 'back') }
  },
}

export type ReckonBench = typeof bench

expose(bench)

/** Computes forms off the page's own thread, and shows the piece while it settles. */

import { stoneDesk } from '@tessellum/core/desk/stone-desk'
import { posesOf, type Scene, sceneOf } from '@tessellum/core/drawing/scene'
import { type View, viewOf } from '@tessellum/core/drawing/view'
import type { Choices } from '@tessellum/core/evaluate/evaluate-pattern'
import type { Form } from '@tessellum/core/form/form'
import { formedPattern, formPattern, lastForms } from '@tessellum/core/form/form-pattern'
import { stepForms } from '@tessellum/core/form/step-forms'
import type { Progress } from '@tessellum/core/report/measures'
import type { Report } from '@tessellum/core/report/report'
import { transfer } from 'comlink'
import { FormsOfServer } from './forms-of-server'

export type Told =
  /** Laid out, and about to settle. Another piece may begin where a pitch was read off the first. */
  | { readonly type: 'begun'; readonly report: Report; readonly scene: Scene }
  | {
      readonly type: 'moved'
      readonly poses: Float32Array
      readonly thread: Float32Array
      readonly progress: Progress
    }
  | {
      readonly type: 'done'
      readonly report: Report
      readonly scene: Scene | undefined
      /** Why the plain estimates stand, where they do. */
      readonly why: string | undefined
    }

export type Done = Extract<Told, { type: 'done' }>

/** Long enough to get on, short enough for more than 20 looks a second. */
const sliceMs = 25

const left = new Set<number>()
const channel = new MessageChannel()
/** First in, first out. */
const waiting: (() => void)[] = []
channel.port1.onmessage = () => waiting.shift()?.()

/** Lets messages in: that the piece is no longer wanted. */
const breathe = () =>
  new Promise<void>((resolve) => {
    waiting.push(resolve)
    channel.port2.postMessage(null)
  })

/** The piece at a step of the way. */
export interface StepPoses {
  /** The thread has been laid up to this pass. */
  readonly passes: number
  readonly poses: Float32Array
  readonly thread: Float32Array
}

/** The last value of some work, between whose parts messages are let in; undefined when it is no longer wanted. */
async function through<Value>(job: number, work: Generator<unknown, Value>): Promise<Value | undefined> {
  for (;;) {
    const until = performance.now() + sliceMs
    let next = work.next()
    while (!next.done && performance.now() < until) next = work.next()
    if (next.done) return next.value
    await breathe()
    if (left.delete(job)) return undefined
  }
}

/** The page numbers its jobs from 1. */
const warmUpJob = 0
/** Goes through every stage of settling in a second or two. */
const smallPiece = `pattern Small\nbead A cylinder 11/0\npart tube\nring 12A\n${'round A\n'.repeat(8)}finish\n`

export const tasks = {
  /** @param address where the server has a form that is called DIGEST */
  askAt(address: string): void {
    lastForms.behind = new FormsOfServer((digest) => address.replace('DIGEST', digest))
  },

  /** Settles a small piece, only so that the browser compiles the code: the first form takes a quarter less then. Stops as soon as a form is asked for. */
  async warmUp(): Promise<void> {
    await through(warmUpJob, formPattern(smallPiece, {}, 2))
  },

  async form(job: number, source: string, choices: Choices, tell: (told: Told) => void): Promise<void> {
    left.add(warmUpJob)
    const working = formPattern(source, choices, 2)
    let shown: Form | undefined
    for (;;) {
      const until = performance.now() + sliceMs
      let next = working.next()
      while (!next.done && next.value.form === shown && performance.now() < until) next = working.next()
      if (next.done) {
        const { evaluated, form, unformed } = next.value
        const scene = form && sceneOf(evaluated, form)
        tell({ type: 'done', report: evaluated.report, scene, why: unformed?.why })
        return
      }
      const { form, evaluated, progress } = next.value
      if (form === shown && !form.settling.checking) {
        const { poses, thread } = posesOf(form)
        tell(transfer({ type: 'moved', poses, thread, progress }, [poses.buffer, thread.buffer]))
      } else if (form !== shown) tell({ type: 'begun', report: evaluated.report, scene: sceneOf(evaluated, form) })
      shown = form
      await breathe()
      if (left.delete(job)) return
    }
  },

  /** How a piece lies after each step; undefined when that is no longer wanted. */
  async steps(job: number, source: string, choices: Choices): Promise<StepPoses[] | undefined> {
    const formed = await through(job, formPattern(source, choices, 2))
    if (!formed) return undefined
    const { evaluated, form } = formed
    if (!form) return []
    const steps: StepPoses[] = []
    const work = (function* () {
      for (const step of stepForms(evaluated, form, undefined, lastForms)) {
        if (step) steps.push({ passes: step.passes, ...posesOf(step.form) })
        yield
      }
      return steps
    })()
    return through(job, work)
  },

  leaveOff(job: number): void {
    left.add(job)
  },

  stoneDesk,

  /** Small drawings of short patterns. */
  sketch(sources: readonly string[]): (View | undefined)[] {
    return sources.map((source) => {
      const { evaluated, form } = formedPattern(source)
      return form && viewOf(sceneOf(evaluated, form))
    })
  },
}

export type FormTasks = typeof tasks

/**
 * The one worker that computes forms for the page: a job at a time, in the order asked for. What has been computed is kept, by the page and by
 * the browser.
 */
import type { StoneAnswer, StoneQuestion } from '@tessellum/core/desk/stone-desk'
import type { View } from '@tessellum/core/drawing/view'
import type { Choices } from '@tessellum/core/evaluate/evaluate-pattern'
import { proxy } from 'comlink'
import { addressOf } from '../shop/api'
import { TaskWorker } from '../worker/begin-worker'
import type { Done, FormTasks, StepPoses, Told } from './form-tasks'
import { keepPiece, keptPiece } from './kept-pieces'

/** A worker that says nothing for so long hangs, however slow the machine: it is ended and begun again. */
const patienceMs = 180_000
const maxKept = 40

class FormClient {
  private readonly worker = new TaskWorker<FormTasks>('form', (remote) => {
    void remote.askAt(addressOf('GET /api/forms/:digest', { params: { digest: 'DIGEST' } }))
  })
  private last: Promise<void> = Promise.resolve()
  private jobs = 0
  private readonly kept = new Map<string, Done>()
  private isWarm = false

  /** For a page that will need a form soon: the first takes longer than those after it. Does nothing once one has been computed. */
  warmUp(): void {
    if (this.isWarm) return
    this.isWarm = true
    // If the worker fails, whoever asks for a form next is told.
    this.worker.ask((remote) => remote.warmUp()).catch(() => undefined)
  }

  known(source: string, choices: Choices): Done | undefined {
    return this.kept.get(keyOf(source, choices))
  }

  /** What this browser has computed before. */
  async recall(source: string, choices: Choices): Promise<Done | undefined> {
    const key = keyOf(source, choices)
    const known = this.kept.get(key) ?? (await keptPiece<Done>(key))
    if (known) this.keep(key, known)
    return known
  }

  /** @returns leaves off; nothing more is told then */
  form(source: string, choices: Choices, tell: (told: Told) => void, fail: (words: string) => void): () => void {
    const job = ++this.jobs
    let wanted = true
    const run = async () => {
      if (!wanted) return
      const key = keyOf(source, choices)
      const known = await this.recall(source, choices)
      if (!wanted) return
      if (known) return tell(known)
      this.isWarm = true
      let timer: ReturnType<typeof setTimeout> | undefined
      const ended = new Promise<void>((resolve) => {
        const wait = () => {
          clearTimeout(timer)
          timer = setTimeout(() => {
            this.worker.end(
              new Error(
                'The form of this pattern takes too long. Make it smaller, or in parts; the last good one is shown.',
              ),
            )
          }, patienceMs)
        }
        wait()
        this.worker
          .ask((remote) =>
            remote.form(
              job,
              source,
              choices,
              proxy((told: Told) => {
                wait()
                if (told.type === 'done') {
                  this.keep(key, told)
                  void keepPiece(key, told)
                }
                if (wanted) tell(told)
              }),
            ),
          )
          .catch((error: unknown) => {
            if (wanted) fail(error instanceof Error ? error.message : String(error))
          })
          .finally(resolve)
      })
      await ended
      clearTimeout(timer)
    }
    this.last = this.last.then(run, run)
    return () => {
      wanted = false
      this.worker.tell((remote) => void remote.leaveOff(job))
    }
  }

  /**
   * How a piece lies after each step, told once; never where it could not be computed.
   *
   * @returns leaves off
   */
  steps(source: string, choices: Choices, tell: (steps: StepPoses[]) => void): () => void {
    const job = ++this.jobs
    let wanted = true
    const key = `steps ${keyOf(source, choices)}`
    const run = async () => {
      const known = wanted ? await keptPiece<StepPoses[]>(key) : undefined
      // Without them the finished piece stands at every step.
      const computed = () => this.worker.ask((remote) => remote.steps(job, source, choices)).catch(() => undefined)
      const steps = known ?? (wanted ? await computed() : undefined)
      if (!steps) return
      if (!known) void keepPiece(key, steps)
      if (wanted) tell(steps)
    }
    this.last = this.last.then(run, run)
    return () => {
      wanted = false
      this.worker.tell((remote) => void remote.leaveOff(job))
    }
  }

  sketch = (sources: readonly string[]): Promise<(View | undefined)[]> =>
    this.worker.ask((remote) => remote.sketch(sources))

  stoneDesk = (question: StoneQuestion): Promise<StoneAnswer> => this.worker.ask((remote) => remote.stoneDesk(question))

  private keep(key: string, done: Done): void {
    this.kept.set(key, done)
    const [oldest] = this.kept.keys()
    if (this.kept.size > maxKept && oldest !== undefined) this.kept.delete(oldest)
  }
}

const keyOf = (source: string, choices: Choices) => JSON.stringify([source, choices])

export const formClient = new FormClient()

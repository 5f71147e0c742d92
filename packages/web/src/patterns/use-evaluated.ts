import type { Bead } from '@tessellum/core/catalogue/bead'
import type { Grade } from '@tessellum/core/desk/grade'
import type { Choices } from '@tessellum/core/evaluate/evaluate-pattern'
import type { Brush } from '@tessellum/core/hand/brush'
import type { HandPass } from '@tessellum/core/hand/hand-pass'
import type { Report } from '@tessellum/core/report/report'
import type { MakerRow } from '@tessellum/core/substitute/makers'
import type { Candidate, Question, Substitute } from '@tessellum/core/substitute/substitutes'
import type { Ways } from '@tessellum/core/substitute/ways'
import type { Remote } from 'comlink'
import { useCallback, useEffect, useRef, useState } from 'react'
import { TaskWorker } from '../worker/begin-worker'
import type { Draft } from './draft'
import type { EvaluateTasks } from './evaluate-tasks'

/** The work of a pattern is counted, and ends; a worker that says nothing for so long hangs, however slow the machine: it is ended and begun again. */
const patienceMs = 60_000
/** For what has to be settled several times over. */
const longPatienceMs = 240_000

const tooLongToStitch = 'This pattern is too large to stitch on by hand. Go on in the text.'

/** Said to those whose pattern was waiting behind one that had to be given up. */
class BegunAgain extends Error {}

/** One worker for many questions, begun again when something in it does not come to an end. */
class EvaluateClient {
  constructor(private readonly patienceMs: number) {}

  private readonly worker = new TaskWorker<EvaluateTasks>('evaluate')

  evaluate = (source: string, choices: Choices): Promise<Report> =>
    this.ask(
      (evaluateClient) => evaluateClient.evaluate(source, choices),
      'This pattern takes too long to evaluate. Make it smaller, or in parts.',
    )

  stitch = (source: string, choices: Choices, passes: readonly HandPass[], drawn: Int32Array) =>
    this.ask(async (evaluateClient) => evaluateClient.stitch(source, choices, passes, drawn), tooLongToStitch)

  wayThere = (source: string, choices: Choices, passes: readonly HandPass[], bead: number) =>
    this.ask(async (evaluateClient) => evaluateClient.wayThere(source, choices, passes, bead), tooLongToStitch)

  rolledOut = (source: string, choices: Choices) =>
    this.ask(async (evaluateClient) => evaluateClient.rolledOut(source, choices), tooLongToStitch)

  mirrored = (source: string, choices: Choices, first: number, last: number) =>
    this.ask(async (evaluateClient) => evaluateClient.mirrored(source, choices, first, last), tooLongToStitch)

  paint = (source: string, choices: Choices, bead: number, brush: Brush, letter: string, drawn?: Int32Array) =>
    this.ask(
      async (evaluateClient) => evaluateClient.paint(source, choices, bead, brush, letter, drawn),
      tooLongToStitch,
    )

  substitutes = (question: Question): Promise<Substitute[]> =>
    this.ask(
      (evaluateClient) => evaluateClient.substitutes(question),
      'Working out what could stand in takes too long for this pattern.',
    )

  grade = (source: string, choices: Choices, name: string, values: readonly number[]): Promise<Grade[]> =>
    this.ask(
      (evaluateClient) => evaluateClient.grade(source, choices, name, values),
      'Grading takes too long for this pattern. Give fewer measures.',
    )

  makers = (source: string, choices: Choices, records: readonly Bead[]): Promise<MakerRow[]> =>
    this.ask(
      (evaluateClient) => evaluateClient.makers(source, choices, records),
      "Working out the makers' beads takes too long for this pattern.",
    )

  private ask<Answer>(
    what: (evaluateClient: Remote<EvaluateTasks>) => Promise<Answer>,
    tooLong: string,
  ): Promise<Answer> {
    return new Promise<Answer>((resolve, reject) => {
      const timer = setTimeout(() => {
        reject(new Error(tooLong))
        this.worker.end(new BegunAgain())
      }, this.patienceMs)
      this.worker
        .ask(what)
        .then(resolve, reject)
        .finally(() => clearTimeout(timer))
    })
  }

  ways = (
    question: Omit<Question, 'candidates' | 'touching' | 'colours' | 'kits'>,
    candidate: Candidate,
  ): Promise<Ways> =>
    this.ask(
      (evaluateClient) => evaluateClient.ways(question, candidate),
      'Comparing the ways takes too long for this pattern.',
    )
}

export const evaluateClient = new EvaluateClient(patienceMs)
/** For what takes a while, so that typing never waits behind it. */
export const patientClient = new EvaluateClient(longPatienceMs)

export interface Evaluation {
  /** The text that was evaluated. */
  readonly of: string | undefined
  /** What was found in it; its counts may be partial where lines are at fault. */
  readonly now: Report | undefined
  /** The newest that had no line at fault: shown, marked as old, while the text is being mended. */
  readonly lastGood: Report | undefined
  readonly trouble: string | undefined
}

/** Evaluates a pattern as it changes; of many keystrokes only the newest counts. `undefined` waits. */
export function useEvaluated(source: string | undefined, choices: Choices): Evaluation {
  const { evaluation, ask } = useNewest()
  useEffect(() => {
    if (source !== undefined) ask({ source, choices })
  }, [ask, source, choices])
  return evaluation
}

/** Evaluates a draft as it is typed: it is sent off at once, and the page is rendered when the figures are there. */
export function useEvaluatedDraft(draft: Pick<Draft, 'subscribe' | 'current'>, choices: Choices): Evaluation {
  const { evaluation, ask } = useNewest()
  useEffect(() => {
    const look = () => ask({ source: draft.current().text, choices })
    look()
    return draft.subscribe(look)
  }, [ask, draft, choices])
  return evaluation
}

interface Asked {
  readonly source: string
  readonly choices: Choices
}

/** Of what is asked, one after the other, the newest. */
function useNewest(): { readonly evaluation: Evaluation; readonly ask: (asked: Asked) => void } {
  const [evaluation, setEvaluation] = useState<Evaluation>({
    of: undefined,
    now: undefined,
    lastGood: undefined,
    trouble: undefined,
  })
  const newest = useRef<Asked>(undefined)
  const waiting = useRef<Asked>(undefined)
  const busy = useRef(false)
  const ask = useCallback((asked: Asked) => {
    if (newest.current?.source === asked.source && newest.current.choices === asked.choices) return
    newest.current = asked
    waiting.current = asked
    if (busy.current) return
    const work = async () => {
      busy.current = true
      while (waiting.current) {
        const asked = waiting.current
        waiting.current = undefined
        try {
          const now = await evaluateClient.evaluate(asked.source, asked.choices)
          if (waiting.current) continue
          setEvaluation((before) => ({
            of: asked.source,
            now,
            lastGood: now.sound ? now : before.lastGood,
            trouble: undefined,
          }))
        } catch (error) {
          if (error instanceof BegunAgain) waiting.current ??= asked
          else
            setEvaluation((before) => ({
              ...before,
              trouble: error instanceof Error ? error.message : String(error),
            }))
        }
      }
      busy.current = false
    }
    void work()
  }, [])
  return { evaluation, ask }
}

/** A hand's work on a pattern: every pass is written into the text at once, and undone with it. */
import type { Choices } from '@tessellum/core/evaluate/evaluate-pattern'
import { withLines } from '@tessellum/core/hand/edit-text'
import type { HandPass } from '@tessellum/core/hand/hand-pass'
import type { HandState, Proposal } from '@tessellum/core/hand/stitching'
import { useCallback, useEffect, useRef, useState } from 'react'
import { evaluateClient } from '../patterns/use-evaluated'

/** A text, and which part of it a hand is still at. */
interface AtWork {
  readonly text: string
  /** The text without what is in hand. */
  readonly base: string
  readonly passes: readonly HandPass[]
}

export interface Hand extends AtWork {
  /** Of what is in hand now; undefined until it is worked out. */
  readonly state: HandState | undefined
  /** Why nothing can be stitched here, or why the last thing was not done. */
  readonly why: string | undefined
  /** A line with which it would go on, where nothing can be stitched. */
  readonly mend: string | undefined
  add(passes: readonly HandPass[]): void
  /** Takes back the last pass. */
  back(): void
  /** Is done with the line in hand. */
  end(): void
  take(proposal: Proposal): void
  /** Writes a line behind the last. */
  write(line: string): void
  /** The text has been typed in, or a step undone: what was in hand with that text is in hand again. */
  follow(text: string): void
}

/** Texts that are remembered with what was in hand then, so that undoing them brings it back. */
const maxRemembered = 500

/**
 * @param write makes the text another one, as one step that can be undone
 * @param drawn the holes of the passes that are drawn
 * @param active nothing is worked out while nobody stitches
 */
export function useHand(
  text: string,
  choices: Choices,
  write: (text: string) => void,
  drawn: Int32Array,
  active: boolean,
): Hand {
  const [atWork, setAtWork] = useState<AtWork>({ text, base: text, passes: [] })
  const [told, setTold] = useState<{
    readonly of: AtWork
    readonly drawn: Int32Array
    readonly state?: HandState
    readonly why?: string
    readonly mend?: string | undefined
  }>()
  const remembered = useRef(new Map<string, AtWork>())
  const live = useRef(atWork)
  const busy = useRef(Promise.resolve())

  // While nobody stitches, what is typed is remembered, and the page is not rendered for it.
  if (active && atWork !== live.current) setAtWork(live.current)
  const isActive = useRef(active)
  isActive.current = active

  const become = useCallback((next: AtWork) => {
    live.current = next
    if (isActive.current) setAtWork(next)
    remembered.current.delete(next.text)
    remembered.current.set(next.text, next)
    const [oldest] = remembered.current.keys()
    if (remembered.current.size > maxRemembered && oldest !== undefined) remembered.current.delete(oldest)
  }, [])

  const follow = useCallback(
    (now: string) => {
      if (now !== live.current.text) become(remembered.current.get(now) ?? { text: now, base: now, passes: [] })
    },
    [become],
  )

  useEffect(() => {
    if (!active || (told?.of === atWork && told.drawn === drawn)) return
    let gone = false
    evaluateClient.stitch(atWork.base, choices, atWork.passes, drawn).then(
      (answer) => !gone && setTold({ of: atWork, drawn, ...('why' in answer ? answer : { state: answer }) }),
      (error: unknown) => !gone && setTold({ of: atWork, drawn, why: sayError(error) }),
    )
    return () => {
      gone = true
    }
  }, [active, atWork, told, choices, drawn])

  /** One thing after the other, however fast they come. */
  const act = useCallback(
    (what: () => Promise<void>) => {
      busy.current = busy.current
        .then(what)
        .catch((error: unknown) => setTold({ of: live.current, drawn, why: sayError(error) }))
    },
    [drawn],
  )

  const hold = useCallback(
    (change: (passes: readonly HandPass[]) => readonly HandPass[]) =>
      act(async () => {
        const { base, passes } = live.current
        const next = change(passes)
        const answer = await evaluateClient.stitch(base, choices, next, drawn)
        if ('why' in answer) return setTold({ of: live.current, drawn, why: answer.why })
        if (!answer.lines)
          return setTold((before) => ({
            ...before,
            of: live.current,
            drawn,
            why: 'The needle cannot go there like this. Go into the bead from its other end, or finish the line first.',
          }))
        const made = { text: answer.text, base, passes: next }
        become(made)
        setTold({ of: made, drawn, state: answer })
        write(answer.text)
      }),
    [act, become, choices, write, drawn],
  )
  const settle = useCallback(
    (next: string) => {
      become({ text: next, base: next, passes: [] })
      write(next)
    },
    [become, write],
  )
  const state = told?.of === atWork || told?.of.base === atWork.base ? told?.state : undefined
  return {
    ...atWork,
    follow,
    state,
    why: told?.of === atWork ? told.why : undefined,
    mend: told?.of === atWork ? told.mend : undefined,
    add: (passes) => hold((before) => [...before, ...passes]),
    back: () => hold((before) => before.slice(0, -1)),
    end: () =>
      act(async () => {
        const { base, passes } = live.current
        if (passes.length === 0) return
        const answer = await evaluateClient.stitch(base, choices, passes, drawn)
        if (!('why' in answer) && answer.ended) settle(answer.ended.text)
      }),
    write: (line) => act(async () => settle(withLines(live.current.base, [line]))),
    take: (proposal) => act(async () => settle(proposal.text)),
  }
}

const sayError = (error: unknown) => (error instanceof Error ? error.message : String(error))

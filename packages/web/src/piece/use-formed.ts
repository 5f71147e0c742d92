import type { Scene } from '@tessellum/core/drawing/scene'
import type { Choices } from '@tessellum/core/evaluate/evaluate-pattern'
import type { Progress } from '@tessellum/core/report/measures'
import type { Report } from '@tessellum/core/report/report'
import { useCallback, useEffect, useRef, useState } from 'react'
import { formClient } from './form-client'
import type { Done, Told } from './form-tasks'

/** Where everything lies. */
export type Lying = Pick<Scene, 'poses' | 'thread'>

/** A piece while it settles. It goes past React state, so that the page is not rendered again at every step. */
export class Moving {
  private readonly listeners = new Set<(moved: Lying) => void>()
  private readonly watchers = new Set<() => void>()
  /** How far it is; undefined while nothing settles. */
  progress: Progress | undefined

  subscribe(listener: (moved: Lying) => void): () => void {
    this.listeners.add(listener)
    return () => this.listeners.delete(listener)
  }

  /** For `useSyncExternalStore`: calls back when `progress` has changed. */
  readonly watch = (watcher: () => void): (() => void) => {
    this.watchers.add(watcher)
    return () => this.watchers.delete(watcher)
  }

  move(moved: Lying): void {
    for (const listener of this.listeners) listener(moved)
  }

  setProgress(progress: Progress | undefined): void {
    this.progress = progress
    for (const watcher of this.watchers) watcher()
  }
}

export interface Formed {
  /** The newest piece there is: the last finished one, or, where there is none yet, the one that settles. */
  readonly scene: Scene | undefined
  /** Of the text that this piece is of, which may be as it was before the last edit. */
  readonly statements: Report['statements']
  /** Of the text as it is, once its form is there. */
  readonly report: Report | undefined
  readonly settling: boolean
  /** Why the plain estimates stand. */
  readonly why: string | undefined
  readonly trouble: string | undefined
  readonly moving: Moving
  /** Leaves off settling: the piece stays as it is, and the plain estimates stand. */
  stop(): void
}

/** Nobody is shown a form for every keystroke. */
const pauseMs = 220

/** The form of a pattern as it changes; `undefined` waits, and the last one stays. */
export function useFormed(source: string | undefined, choices: Choices): Formed {
  const [moving] = useState(() => new Moving())
  const [state, setState] = useState<Shown>(nothing)
  const leave = useRef(() => {})
  /** A finished piece is shown: it stands until the next one is finished. */
  const stands = useRef(false)
  useEffect(() => {
    if (source === undefined) return
    const of = { source, choices }
    const known = formClient.known(source, choices)
    const setDone = ({ report, scene, why }: Done) => {
      stands.current = scene !== undefined
      setState({ ...nothing, of, report, ...pieceOf(scene, report), why })
    }
    if (known) return setDone(known)
    // Whoever comes back to a text whose form was stopped or failed has it computed again.
    setState((before) => (isOf(before, source, choices) ? justThePiece(before) : before))
    let leaveOff = () => {}
    const tell = (told: Told) => {
      if (told.type === 'moved') {
        if (!stands.current) moving.move(told)
        moving.setProgress(told.progress)
      } else if (told.type === 'done') setDone(told)
      else if (!stands.current) setState({ ...nothing, of, ...pieceOf(told.scene, told.report), settling: true })
    }
    const fail = (trouble: string) => setState((before) => ({ ...justThePiece(before), of, trouble }))
    let timer: ReturnType<typeof setTimeout> | undefined
    let gone = false
    void formClient.recall(source, choices).then((kept) => {
      if (gone) return
      if (kept) setDone(kept)
      else
        timer = setTimeout(() => {
          leaveOff = formClient.form(source, choices, tell, fail)
        }, pauseMs)
    })
    const left = () => {
      gone = true
      moving.setProgress(undefined)
      clearTimeout(timer)
      leaveOff()
    }
    leave.current = left
    return left
  }, [source, choices, moving])
  const stop = useCallback(() => {
    leave.current()
    if (source !== undefined) setState((before) => ({ ...justThePiece(before), of: { source, choices }, why: stopped }))
  }, [source, choices])
  // Worked out while rendering instead of set by the effect: the page would be rendered once more for each key.
  const { of: _, ...shown } =
    source === undefined || isOf(state, source, choices) ? state : { ...justThePiece(state), settling: true }
  return { ...shown, moving, stop }
}

interface Shown extends Omit<Formed, 'moving' | 'stop'> {
  /** Which text's it is, but for the piece. */
  readonly of?: { readonly source: string; readonly choices: Choices }
}

const isOf = ({ of }: Shown, source: string, choices: Choices): boolean =>
  of?.source === source && of.choices === choices

const stopped = 'Settling was stopped: the piece is shown as it was then, and the plain estimates stand.'

const pieceOf = (scene: Scene | undefined, { statements }: Report) => ({ scene, statements })

const justThePiece = ({ scene, statements }: Shown): Shown => ({ ...nothing, scene, statements })

const nothing: Shown = {
  scene: undefined,
  statements: [],
  report: undefined,
  settling: false,
  why: undefined,
  trouble: undefined,
}

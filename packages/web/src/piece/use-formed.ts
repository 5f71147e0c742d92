import type { Scene } from '@tessellum/core/drawing/scene'
import type { Choices } from '@tessellum/core/evaluate/evaluate-pattern'
import type { Progress } from '@tessellum/core/report/measures'
import type { Report } from '@tessellum/core/report/report'
import { useCallback, useEffect, useRef, useState } from 'react'
import { formClient } from './form-client'
import type { Done, Told } from './form-tasks'

/** Where everything lies. */
export type Lying = Pick<Scene, 'poses' | 'thread'>

/** The same as it moves: past React, which need not know of every step. */
export class Poses {
  private readonly listeners = new Set<(moved: Lying) => void>()
  subscribe(listener: (moved: Lying) => void): () => void {
    this.listeners.add(listener)
    return () => this.listeners.delete(listener)
  }
  tell(moved: Lying): void {
    for (const listener of this.listeners) listener(moved)
  }
}

export interface Formed {
  /** The newest piece there is: the last finished one, or, where there is none yet, the one that settles. */
  readonly scene: Scene | undefined
  /** Of the text as it is, once its form is there. */
  readonly report: Report | undefined
  /** While it settles. */
  readonly progress: Progress | undefined
  readonly settling: boolean
  /** Why the plain estimates stand. */
  readonly why: string | undefined
  readonly trouble: string | undefined
  readonly poses: Poses
  /** Leaves off settling: the piece stays as it is, and the plain estimates stand. */
  stop(): void
}

/** Nobody is shown a form for every keystroke. */
const pauseMs = 220

/** The form of a pattern as it changes; `undefined` waits, and the last one stays. */
export function useFormed(source: string | undefined, choices: Choices): Formed {
  const poses = useRef<Poses>(undefined)
  poses.current ??= new Poses()
  const feed = poses.current
  const [state, setState] = useState<Shown>(nothing)
  const leave = useRef(() => {})
  /** A finished piece is shown: it stands until the next one is finished. */
  const stands = useRef(false)
  useEffect(() => {
    if (source === undefined) return
    const known = formClient.known(source, choices)
    if (known) {
      stands.current = known.scene !== undefined
      setState(doneWith(known))
      return
    }
    setState((before) => ({ ...before, report: undefined, settling: true, trouble: undefined, why: undefined }))
    let leaveOff = () => {}
    const tell = (told: Told) => {
      if (told.type === 'moved') {
        if (!stands.current) feed.tell(told)
        setState((before) => ({ ...before, progress: told.progress }))
      } else if (told.type === 'begun') {
        if (!stands.current) setState((before) => ({ ...before, scene: told.scene, settling: true }))
      } else setDone(told)
    }
    const setDone = (done: Done) => {
      stands.current = done.scene !== undefined
      setState(doneWith(done))
    }
    const fail = (trouble: string) =>
      setState((before) => ({ ...before, settling: false, progress: undefined, trouble }))
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
      clearTimeout(timer)
      leaveOff()
    }
    leave.current = left
    return left
  }, [source, choices, feed])
  const stop = useCallback(() => {
    leave.current()
    setState((before) => ({ ...before, settling: false, progress: undefined, why: stopped }))
  }, [])
  return { ...state, poses: feed, stop }
}

type Shown = Omit<Formed, 'poses' | 'stop'>
const stopped = 'Settling was stopped: the piece is shown as it was then, and the plain estimates stand.'

const nothing: Shown = {
  scene: undefined,
  report: undefined,
  progress: undefined,
  settling: false,
  why: undefined,
  trouble: undefined,
}

const doneWith = ({ report, scene, why }: Extract<Told, { type: 'done' }>): Shown => ({
  ...nothing,
  report,
  scene,
  why,
})

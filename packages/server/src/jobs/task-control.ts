import type { HttpProblem } from '../problem'
import type { TaskName, Tasks } from './tasks'

/** Shared with the server while a thread works: whether it is to stop, and how much it has done, in thousandths. */
export type TaskControl = Int32Array

const stopAt = 0
const doneAt = 1

export const newTaskControl = (): TaskControl => new Int32Array(new SharedArrayBuffer(8))

export interface Job<Name extends TaskName = TaskName> {
  readonly name: Name
  readonly input: Tasks[Name]['input']
  readonly control: TaskControl
}

/** What a thread sends back: a refusal crosses as what it says. */
export type Answered<Output> =
  | { readonly done: Output }
  | { readonly refused: Pick<HttpProblem, 'status' | 'code' | 'message' | 'path' | 'hint'> }

/** Work that was stopped between two of its steps. */
export class Stopped extends Error {}

export const requestStop = (control: TaskControl): void => void Atomics.store(control, stopAt, 1)
export const isStopRequested = (control: TaskControl): boolean => Atomics.load(control, stopAt) !== 0
export const progressOf = (control: TaskControl): number => Atomics.load(control, doneAt) / 1000

/**
 * Between two steps of some work.
 *
 * @param done how much of it is done, from 0 to 1, where that is known
 * @throws Stopped when nobody waits any more
 */
export function checkpoint(control: TaskControl | undefined, done?: number): void {
  if (!control) return
  if (isStopRequested(control)) throw new Stopped('Nobody waits for this any more.')
  if (done !== undefined) Atomics.store(control, doneAt, Math.round(1000 * Math.min(1, done)))
}

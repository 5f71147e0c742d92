import type { TaskName, Tasks } from './tasks'

/** Set by the server when nobody waits for the work any more. */
export type Stop = Int32Array

export interface Job<Name extends TaskName = TaskName> {
  readonly name: Name
  readonly input: Tasks[Name]['input']
  readonly stop: Stop
}

/** Work that was stopped between two of its steps. */
export class Stopped extends Error {}

/** @throws Stopped when nobody waits any more */
export function goOn(stop: Stop | undefined): void {
  if (stop && Atomics.load(stop, 0) !== 0) throw new Stopped('Nobody waits for this any more.')
}

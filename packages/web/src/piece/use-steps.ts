import type { Scene } from '@tessellum/core/drawing/scene'
import type { Choices } from '@tessellum/core/evaluate/evaluate-pattern'
import { useEffect, useMemo, useState } from 'react'
import { formClient } from './form-client'
import type { StepPoses } from './form-tasks'
import type { Lying } from './use-formed'

/** The piece as it lies after each step of the way; none until they have been computed, and the finished piece is shown. */
export function useSteps(source: string, choices: Choices, wanted: boolean): readonly StepPoses[] {
  const [steps, setSteps] = useState<readonly StepPoses[]>([])
  useEffect(() => {
    setSteps([])
    return wanted ? formClient.steps(source, choices, setSteps) : undefined
  }, [source, choices, wanted])
  return steps
}

/** As it lies when the thread has been laid up to a pass; what is not there yet lies as it will in the end. */
export function useLying(scene: Scene, steps: readonly StepPoses[], pass: number): Lying | undefined {
  const step = steps.find(({ passes }) => passes >= pass)
  return useMemo(() => {
    if (!step || step.poses.length > scene.poses.length || step.thread.length > scene.thread.length) return undefined
    const poses = Float32Array.from(scene.poses)
    const thread = Float32Array.from(scene.thread)
    poses.set(step.poses)
    thread.set(step.thread)
    return { poses, thread }
  }, [scene, step])
}

/** Follows a written pattern step by step. */
import type { WrittenPattern } from '../../src/writing/written-pattern'
import type { Instruction, Reader } from './instructions'
import { changed } from './reading'
import { Stitcher } from './stitcher'

/**
 * @param ways the engine's passes; see Stitcher
 * @returns every pass in order: "+3" picks up bead 3, "3" passes it, "3<" from its other end, "3:2" by its second hole
 */
export function follow(written: WrittenPattern, reader: Reader, ways: readonly string[]): readonly string[] {
  const steps = written.parts.flatMap(({ name, steps: own }) =>
    own.map((step, i) => ({
      ...step,
      part: i === 0 ? name : undefined,
      told: step.kind === 'stitch' ? reader.turns(step.text) : [],
      done: 0,
    })),
  )
  const stitcher = new Stitcher(ways)
  const run = (from: number, to: number) => {
    for (let at = from; at < to; at++) {
      const step = steps[at] as (typeof steps)[number]
      if (step.part !== undefined && step.done === 0) stitcher.beginPart(step.part)
      if (step.begins && step.done === 0) stitcher.checkNeedle(reader.needle(step.begins))
      const time = step.done++
      if (step.told.length === 0) continue
      const text = step.told[Math.min(time, step.told.length - 1)] as string
      try {
        const told: Instruction = reader.read(text)
        if (told.type === 'steps again') {
          const [first, last] = [told.from, told.to].map((number) => steps.findIndex((each) => each.number === number))
          for (const { step: number, changes } of told.changing) {
            const again = steps.find((each) => each.number === number) as (typeof steps)[number]
            again.told = changed(again.told[0] as string, changes)
          }
          for (let turn = 0; turn < told.times; turn++) run(first as number, (last as number) + 1)
        } else if (told.type !== 'repeat') stitcher.do(told, time)
        else {
          const inner = at + 1
          const places = told.at ? stitcher.at(told.at) : undefined
          const times = places?.length ?? told.times[Math.min(time, told.times.length - 1)] ?? 1
          for (let turn = 0; turn < times; turn++) {
            if (told.part && turn > 0) stitcher.beginPart(step.part as string)
            if (places) stitcher.weaveTo(places[turn] as never)
            run(inner, inner + told.steps)
          }
          at += told.steps
        }
      } catch (error) {
        if (error instanceof Stuck) throw error
        throw new Stuck(`Step ${step.number}, "${text}": ${(error as Error).message}`, stitcher.done)
      }
    }
  }
  run(0, steps.length)
  return stitcher.done
}

/** The text could not be followed further than this. */
export class Stuck extends Error {
  constructor(
    message: string,
    readonly done: readonly string[],
  ) {
    super(message)
  }
}

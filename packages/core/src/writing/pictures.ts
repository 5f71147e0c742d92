import { type StepKey, sameStep } from './step-words'

/** What a picture shows: the piece as it will be, one step, or what it should not look like. */
export const pictureKinds = ['finished', 'step', 'fault'] as const
export type PictureKind = (typeof pictureKinds)[number]

export interface ShownPicture {
  readonly id: number
  readonly kind: PictureKind
  /** Of the finished piece none; of a fault that can happen anywhere none. */
  readonly step: StepKey | null
  readonly caption: string
  /** In pixels. */
  readonly width: number
  readonly height: number
}

/** Those that stand beside a step, in their order. */
export const picturesOf = (pictures: readonly ShownPicture[], step: StepKey): ShownPicture[] =>
  pictures.filter((each) => each.kind !== 'finished' && each.step !== null && sameStep(each.step, step))

/** Pictures whose step is gone: not shown until they are given another. */
export const picturesAside = <T extends ShownPicture>(pictures: readonly T[], steps: readonly StepKey[]): T[] =>
  pictures.filter(
    ({ kind, step }) => kind !== 'finished' && step !== null && !steps.some((each) => sameStep(each, step)),
  )

import { pictureKinds } from '@tessellum/core/writing/pictures'
import { recordId } from './fields'
import { stepKey } from './words'
import { z } from './zod'

/** How large a file may be, in bytes: what a camera makes today. */
export const maxPictureBytes = 25 * 1024 * 1024
/** Of one pattern. */
export const maxPictures = 60

/** The longer side at most, in pixels. The whole is what it is cropped from. */
export const pictureSizes = { small: 320, medium: 960, large: 2000, whole: 3000 } as const
export type PictureSize = keyof typeof pictureSizes
export const pictureSize = z.enum(Object.keys(pictureSizes) as [PictureSize, ...PictureSize[]])

const part = z.number().min(0).max(1)

/** The part of a picture that is shown, as fractions of its width and height. */
export const crop = z
  .object({ x: part, y: part, width: part, height: part })
  .refine(({ x, y, width, height }) => width >= 0.02 && height >= 0.02 && x + width <= 1.0001 && y + height <= 1.0001, {
    message: 'Crop to a part of the picture.',
  })
export type Crop = z.infer<typeof crop>

/** A picture as a written pattern shows it. */
export const shownPicture = z.object({
  id: z.number(),
  kind: z.enum(pictureKinds),
  step: stepKey.nullable(),
  caption: z.string(),
  /** Of the large size, in pixels. */
  width: z.number(),
  height: z.number(),
})

export const picture = shownPicture.extend({
  crop: crop.nullable(),
  addedAt: z.string(),
  addedBy: z.string(),
})
export type Picture = z.infer<typeof picture>

export const pictures = z.object({
  pictures: z.array(picture),
  /** Removed, and there to be put back for thirty days; the last one removed first. */
  removed: z.array(picture),
})
export type Pictures = z.infer<typeof pictures>

export const describePicture = z
  .object({
    kind: z.enum(pictureKinds, 'A picture is of the finished piece, of a step, or of a mistake.'),
    step: stepKey.nullable().default(null),
    caption: z.string().trim().max(300, 'A caption has at most 300 letters.').default(''),
  })
  .refine(({ kind, step }) => kind !== 'step' || step !== null, {
    message: 'Choose the step that it shows.',
    path: ['step'],
  })
export type DescribePicture = z.input<typeof describePicture>

export const orderPictures = z.object({ ids: z.array(recordId()).max(maxPictures) })

export const cropPicture = z.object({ crop: crop.nullable() })

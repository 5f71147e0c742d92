import { countings } from '@tessellum/core/sizing/counting'
import { pictureKinds } from '@tessellum/core/writing/pictures'
import { maxPictureBytes, maxPictures } from './pictures'
import { stepKey, stepWords } from './words'
import { z } from './zod'

/** The file form of a pattern: JSON, with everything that makes it up. Its schema stands in docs/formats/pattern.schema.json. */
export const patternFormat = 'tessellum pattern'
export const patternFormatVersion = 1

/** What a colourway chose, told so that another shop can find the like of it. */
const fileItem = z.object({
  code: z.string().max(60),
  maker: z.string().max(120),
  kind: z.string().max(60),
  size: z.string().max(60),
  colourCode: z.string().max(60),
  colourName: z.string().max(120),
  finish: z.string().max(60),
  colour: z.string().regex(/^#[0-9a-f]{6}$/, 'A colour is written like "#2f5d50".'),
})
export type FileItem = z.infer<typeof fileItem>

/** A picture as it is shown, in a JPEG. */
export const filePicture = z.object({
  kind: z.enum(pictureKinds),
  step: stepKey.nullable(),
  caption: z.string().max(300),
  jpeg: z.base64().max(Math.ceil((maxPictureBytes * 4) / 3) + 4),
})
export type FilePicture = z.infer<typeof filePicture>

export const patternFile = z.object({
  format: z.literal(patternFormat),
  formatVersion: z.literal(patternFormatVersion),
  /** The notation, exactly as it was typed. */
  source: z.string().max(2_000_000),
  words: z.array(stepWords).max(5000),
  colourways: z
    .array(
      z.object({
        name: z.string().trim().min(1).max(80),
        choices: z
          .array(
            z.object({
              role: z.string().min(1).max(40),
              size: z.string().max(60),
              counting: z.enum(countings),
              /** 0 for what is chosen; then what may stand in for it. */
              rank: z.number().int().min(0).max(9).default(0),
              item: fileItem,
            }),
          )
          .max(500),
      }),
    )
    .max(100),
  /** In their order; files of before there were any have none. */
  pictures: z.array(filePicture).max(maxPictures).default([]),
})
export type PatternFile = z.infer<typeof patternFile>

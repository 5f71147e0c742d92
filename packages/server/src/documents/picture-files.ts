/** A photograph made fit to be kept and shown: turned as it was taken, without what the camera wrote into it, in every size. */
import { type Crop, type PictureSize, pictureSizes } from '@tessellum/contract/pictures'
import sharp, { type OutputInfo } from 'sharp'
import { HttpProblem } from '../problem'

/** What unpacks to more than this is refused by its head alone, in pixels. */
const maxPixels = 100_000_000
const quality = 84

export interface PictureFile {
  /** In pixels. */
  readonly width: number
  readonly height: number
  readonly bytes: Uint8Array
}

export interface PictureFiles {
  readonly files: Readonly<Record<PictureSize, PictureFile>>
}

sharp.cache(false)
sharp.concurrency(1)

const bad = (message: string, hint = 'Choose a JPEG, PNG or WebP file.') =>
  new HttpProblem(422, 'bad-picture', message, { hint })

/**
 * Told by its first bytes, before any of it is unpacked: only these are handed on.
 *
 * @throws HttpProblem where it is no photograph
 */
function demandPhotograph(bytes: Uint8Array): void {
  if (bytes.length === 0) throw bad('The file is empty.')
  const text = (from: number, to: number) => String.fromCharCode(...bytes.subarray(from, to))
  const known =
    (bytes[0] === 0xff && bytes[1] === 0xd8 && bytes[2] === 0xff) ||
    text(1, 4) === 'PNG' ||
    (text(0, 4) === 'RIFF' && text(8, 12) === 'WEBP') ||
    (text(4, 8) === 'ftyp' && ['avif', 'avis', 'heic', 'heix', 'mif1'].includes(text(8, 12)))
  if (!known) throw bad('This file is not a photograph.')
}

/** @throws HttpProblem where it cannot be read, is cut short, or unpacks to too much */
export async function pictureFiles(bytes: Uint8Array, crop: Crop | null): Promise<PictureFiles> {
  demandPhotograph(bytes)
  const opened = () => sharp(bytes, { limitInputPixels: maxPixels, sequentialRead: true, failOn: 'error' })
  const head = await opened()
    .metadata()
    .catch(() => {
      throw bad('This picture cannot be read.')
    })
  if (head.width * head.height > maxPixels)
    throw bad(
      `This picture is ${head.width} by ${head.height} pixels, which is more than can be unpacked here.`,
      'Make it smaller first: 100 megapixels at most.',
    )
  const whole = await opened()
    .autoOrient()
    .resize({ width: pictureSizes.whole, height: pictureSizes.whole, fit: 'inside', withoutEnlargement: true })
    .flatten({ background: '#ffffff' })
    .jpeg({ quality: 90 })
    .toBuffer({ resolveWithObject: true })
    .catch(() => {
      throw head.format === 'heif'
        ? bad('Pictures of this kind (HEIC) cannot be read here.', 'Save it as JPEG, and add it again.')
        : bad('This picture is damaged or cut short.', 'Take it from the camera again.')
    })
  const { data, info } = whole
  const box = crop && {
    left: Math.round(crop.x * info.width),
    top: Math.round(crop.y * info.height),
    width: Math.max(1, Math.min(Math.round(crop.width * info.width), info.width - Math.round(crop.x * info.width))),
    height: Math.max(
      1,
      Math.min(Math.round(crop.height * info.height), info.height - Math.round(crop.y * info.height)),
    ),
  }
  const fileOf = ({ data: bytes, info: { width, height } }: { data: Buffer; info: OutputInfo }): PictureFile => ({
    width,
    height,
    bytes,
  })
  const sized = async (side: number) => {
    const image = box ? sharp(data).extract(box) : sharp(data)
    return fileOf(
      await image
        .resize({ width: side, height: side, fit: 'inside', withoutEnlargement: true })
        .jpeg({ quality, mozjpeg: true })
        .toBuffer({ resolveWithObject: true }),
    )
  }
  return {
    files: {
      whole: fileOf(whole),
      large: await sized(pictureSizes.large),
      medium: await sized(pictureSizes.medium),
      small: await sized(pictureSizes.small),
    },
  }
}

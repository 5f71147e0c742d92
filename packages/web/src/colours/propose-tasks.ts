/** Proposes colourways, and reads pictures' palettes, off the page's own thread. Ending the worker leaves off. */
import { type PaletteColour, paletteOf } from '@tessellum/core/colour/palette'
import { type Proposal, type ProposalQuestion, proposeColourways } from '@tessellum/core/substitute/propose'
import { imageSize } from 'image-size'

/** Decoded, a picture takes four bytes a pixel; beyond this it may take the page with it. */
const maxMegapixels = 40
/** A palette needs no more. */
const thumbnail = 160

export const tasks = {
  propose(question: ProposalQuestion, onProgress: (done: number) => void): Proposal[] {
    const steps = proposeColourways(question)
    for (;;) {
      const { value, done } = steps.next()
      if (done) return value
      onProgress(value)
    }
  },

  async palette(file: File): Promise<PaletteColour[]> {
    const { width, height } = sizeOf(new Uint8Array(await file.arrayBuffer()), file.name)
    const megapixels = (width * height) / 1e6
    if (megapixels > maxMegapixels)
      throw new RangeError(
        `${file.name} has ${Math.round(megapixels)} megapixels; ${maxMegapixels} are the most. A small copy has the same colours.`,
      )
    const times = Math.min(1, thumbnail / Math.max(width, height))
    const [w, h] = [Math.max(1, Math.round(width * times)), Math.max(1, Math.round(height * times))]
    const picture = await createImageBitmap(file, { resizeWidth: w, resizeHeight: h }).catch(() => {
      throw new RangeError(`${file.name} cannot be read: it is damaged, or of a kind this browser does not show.`)
    })
    const context = new OffscreenCanvas(w, h).getContext('2d')
    if (!context) throw new Error('This browser cannot read pictures here.')
    context.drawImage(picture, 0, 0)
    picture.close()
    return paletteOf(context.getImageData(0, 0, w, h).data)
  },
}

/** From the file's head, before anything is decoded. */
function sizeOf(bytes: Uint8Array, name: string): { width: number; height: number } {
  try {
    return imageSize(bytes)
  } catch {
    throw new RangeError(`${name} is not a picture. Choose a PNG, JPEG or WebP file.`)
  }
}

export type ProposeTasks = typeof tasks

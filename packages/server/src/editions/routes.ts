import { Readable } from 'node:stream'
import { pipeline } from 'node:stream/promises'
import {
  type FilePicture,
  type PatternFile,
  patternFormat,
  patternFormatVersion,
} from '@tessellum/contract/pattern-file'
import { fileName } from '@tessellum/core/writing/file-name'
import type { ShownPicture } from '@tessellum/core/writing/pictures'
import { Router } from 'express'
import { listColourways } from '../colourways/store'
import type { Database } from '../database/connect'
import { mount, sent } from '../http/mount'
import { readPicture, shownPictures } from '../patterns/pictures'
import { findPattern, wordsOf } from '../patterns/store'
import { shopSettings } from '../settings/store'
import type { Shop } from '../shop'
import { listItems } from '../stock/store'
import { gather } from './gather'

export function editionRoutes(shop: Shop): Router {
  const { db, jobs } = shop
  const router = Router()

  mount(router, 'GET /api/patterns/:id/edition', ({ params, query }) => gather(shop, params.id, query))

  mount(router, 'GET /api/patterns/:id/document.pdf', async ({ params, query, response }) => {
    const { sheet, seat, chosen, buyer, drawings: density, hand, ...asked } = query
    const { documents } = await shopSettings(db)
    const { textSize, headings } = documents
    const { paper = documents.paper, language = documents.language, ...wanted } = asked
    const edition = await gather(shop, params.id, wanted)
    const task = {
      edition,
      paper,
      language,
      sheet,
      density,
      hand,
      style: { textSize, headings },
      buyer,
      seat: seat ? { name: seat, chosen } : undefined,
    }
    const pdf = await jobs.run('document', task)
    response.attachment(fileName(edition.title, 'pdf'))
    response.type('application/pdf').send(pdf)
    return sent
  })

  mount(router, 'GET /api/patterns/:id/pattern.json', async ({ params, response }) => {
    const pattern = await findPattern(db, params.id)
    const colourways = await listColourways(db, pattern.id)
    const items = await listItems(db, [
      ...new Set(colourways.flatMap(({ choices }) => choices.map(({ itemId }) => itemId))),
    ])
    const file: Omit<PatternFile, 'pictures'> = {
      format: patternFormat,
      formatVersion: patternFormatVersion,
      source: pattern.source,
      words: await wordsOf(db, pattern.id),
      colourways: colourways.map(({ name, choices }) => ({
        name,
        choices: choices.flatMap(({ role, size, counting, rank, itemId }) => {
          const found = items.find((each) => each.id === itemId)
          if (!found) return []
          const { code, maker, kind, size: itemSize, colourCode, colourName, finish, colour } = found
          return [
            {
              role,
              size,
              counting,
              rank,
              item: { code, maker, kind, size: itemSize, colourCode, colourName, finish, colour },
            },
          ]
        }),
      })),
    }
    const shown = await shownPictures(db, pattern.id)
    response.attachment(fileName(pattern.title, 'json'))
    response.type('application/json')
    await pipeline(Readable.from(fileText(file, picturesIn(db, shown))), response)
    return sent
  })

  return router
}

/** One picture in memory at a time: a pattern may have sixty of half a megabyte each. */
async function* picturesIn(db: Database, shown: readonly ShownPicture[]): AsyncGenerator<FilePicture> {
  for (const { id, kind, step, caption } of shown)
    yield { kind, step, caption, jpeg: (await readPicture(db, id, 'large')).toString('base64') }
}

async function* fileText(
  file: Omit<PatternFile, 'pictures'>,
  pictures: AsyncIterable<FilePicture>,
): AsyncGenerator<string> {
  yield `${JSON.stringify(file, null, 2).slice(0, -'\n}'.length)},\n  "pictures": [`
  let before = '\n'
  for await (const picture of pictures) {
    yield `${before}    ${JSON.stringify(picture)}`
    before = ',\n'
  }
  yield `${before === '\n' ? '' : '\n  '}]\n}\n`
}

import { Router } from 'express'
import { z } from 'zod'
import { findColourway } from '../colourways/store'
import { notFound, readId, readInput } from '../http/refusal'
import { mount, type Shop } from '../http/route'
import { findPattern, findVersion } from '../patterns/store'
import { listItems } from '../stock/store'

const wanted = z.object({
  /** A version's number; the draft when absent. */
  version: z.coerce.number().int().min(1).optional(),
  size: z.string().max(60).default(''),
  colourway: z.coerce.number().int().optional(),
  /** The newest when absent. */
  colourwayVersion: z.coerce.number().int().min(1).optional(),
  paper: z.enum(['A4', 'LETTER'], 'Paper is A4 or LETTER.').default('A4'),
})

export function documentRoutes({ db, workers }: Shop): Router {
  const router = Router()

  mount(router, 'GET /api/patterns/:id/document.pdf', async (request, response) => {
    const id = readId(request.params.id, 'pattern')
    const { version, size, colourway, colourwayVersion, paper } = readInput(wanted, request.query)
    const { source, title } = await textOf(id, version)
    const chosen = colourway === undefined ? undefined : await findColourway(db, colourway, colourwayVersion)
    if (chosen && chosen.patternId !== id) throw notFound('colourway')
    const choices = chosen?.choices ?? []
    const items = await listItems(db, [...new Set(choices.map((choice) => choice.itemId))])
    const pdf = await workers.run('document', { source, size, choices, items, version, colourway: chosen?.name, paper })
    const name = title.replace(/[^\p{L}\p{N}]+/gu, '-').replace(/^-|-$/g, '') || 'pattern'
    response.attachment(`${name}.pdf`)
    response.type('application/pdf').send(Buffer.from(pdf))
    return undefined
  })

  async function textOf(id: number, version: number | undefined): Promise<{ source: string; title: string }> {
    const pattern = await findPattern(db, id)
    if (version === undefined) return pattern
    return { source: (await findVersion(db, id, version)).source, title: pattern.title }
  }

  return router
}

import type { Choice } from '@tessellum/contract/colourways'
import { addVersion, explain, lockColourwayOf } from '../colourways/store'
import type { Session } from '../database/connect'
import type { BatchActor } from './batch-actor'

/** A version of a colourway with other choices, for this batch and nobody else. @returns its id */
export async function ownColourway(
  tx: Session,
  colourwayVersionId: number,
  choices: readonly Choice[],
  { batchId, personId }: Pick<BatchActor, 'batchId' | 'personId'>,
): Promise<number> {
  try {
    return await addVersion(tx, await lockColourwayOf(tx, colourwayVersionId), choices, personId, batchId)
  } catch (error) {
    throw explain(error, '')
  }
}

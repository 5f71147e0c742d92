import type { Choice, Colourway, SaveColourway } from '@tessellum/contract/colourways'
import { asc, desc, eq, inArray } from 'drizzle-orm'
import type { Session } from '../database/connect'
import { brokenConstraint } from '../database/trouble'
import { notFound, Refusal } from '../http/refusal'
import { colourway, colourwayChoice, colourwayVersion } from './schema'

/** Each colourway's newest version. */
async function newestVersions(
  db: Session,
  where: ReturnType<typeof eq>,
): Promise<(Colourway & { versionId: number })[]> {
  const rows = await db
    .selectDistinctOn([colourway.id], {
      id: colourway.id,
      patternId: colourway.patternId,
      name: colourway.name,
      version: colourwayVersion.number,
      versionId: colourwayVersion.id,
    })
    .from(colourway)
    .innerJoin(colourwayVersion, eq(colourwayVersion.colourwayId, colourway.id))
    .where(where)
    .orderBy(colourway.id, desc(colourwayVersion.number))
  const choices = await choicesOf(
    db,
    rows.map((row) => row.versionId),
  )
  return rows.map((row) => ({ ...row, choices: choices.get(row.versionId) ?? [] }))
}

export async function listColourways(db: Session, patternId: number): Promise<Colourway[]> {
  const found = await newestVersions(db, eq(colourway.patternId, patternId))
  return found.map(({ versionId: _, ...rest }) => rest)
}

export async function findColourway(db: Session, id: number): Promise<Colourway & { versionId: number }> {
  const [found] = await newestVersions(db, eq(colourway.id, id))
  if (!found) throw notFound('colourway')
  return found
}

/** Choices by colourway version. */
export async function choicesOf(db: Session, versionIds: readonly number[]): Promise<Map<number, Choice[]>> {
  const found = new Map<number, Choice[]>()
  if (versionIds.length === 0) return found
  const rows = await db
    .select()
    .from(colourwayChoice)
    .where(inArray(colourwayChoice.colourwayVersionId, [...versionIds]))
    .orderBy(asc(colourwayChoice.role), asc(colourwayChoice.size))
  for (const { colourwayVersionId, ...row } of rows) {
    const list = found.get(colourwayVersionId)
    if (list) list.push(row)
    else found.set(colourwayVersionId, [row])
  }
  return found
}

/** Keeps a colourway's choices as its next version. */
export async function addVersion(
  tx: Session,
  colourwayId: number,
  number: number,
  choices: readonly Choice[],
  madeBy: number,
): Promise<void> {
  const [version] = await tx
    .insert(colourwayVersion)
    .values({ colourwayId, number, madeBy })
    .returning({ id: colourwayVersion.id })
  const colourwayVersionId = (version as { id: number }).id
  if (choices.length > 0)
    await tx.insert(colourwayChoice).values(choices.map((each) => ({ ...each, colourwayVersionId })))
}

/** Turns the database's word for a wrong choice into the maker's. */
export function explain(error: unknown, name: SaveColourway['name']): unknown {
  const constraint = brokenConstraint(error)
  if (constraint === 'colourway_name') {
    return new Refusal(409, 'name-taken', `This pattern has a colourway called "${name}" already.`, {
      path: 'name',
      hint: 'Give it another name.',
    })
  }
  if (constraint?.includes('colourway_choice')) {
    return constraint.includes('item')
      ? new Refusal(422, 'no-such-item', 'One of the chosen items is not on the shelf list any more.', {
          path: 'choices',
          hint: 'Choose another.',
        })
      : new Refusal(422, 'chosen-twice', 'A role has been given two items for the same size.', {
          path: 'choices',
          hint: 'Keep one of them.',
        })
  }
  if (constraint?.includes('pattern_id')) return notFound('pattern')
  return error
}

export const renameColourway = (tx: Session, id: number, name: string) =>
  tx.update(colourway).set({ name }).where(eq(colourway.id, id))

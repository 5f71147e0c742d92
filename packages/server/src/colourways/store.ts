import type { Choice, Colourway, SaveColourway } from '@tessellum/contract/colourways'
import { and, asc, desc, eq, inArray, isNull, type SQL, sql } from 'drizzle-orm'
import type { Session } from '../database/connect'
import { brokenConstraint } from '../database/errors'
import { HttpProblem, notFound } from '../problem'
import { batchColourway } from '../schema/batches'
import { colourway, colourwayChoice, colourwayVersion } from '../schema/colourways'

/** Each colourway's newest version of those asked for. */
async function versionsWhere(db: Session, where: SQL | undefined): Promise<(Colourway & { versionId: number })[]> {
  const rows = await db
    .selectDistinctOn([colourway.id], {
      id: colourway.id,
      patternId: colourway.patternId,
      name: colourway.name,
      version: colourwayVersion.number,
      versionId: colourwayVersion.id,
      batchId: batchColourway.batchId,
    })
    .from(colourway)
    .innerJoin(colourwayVersion, eq(colourwayVersion.colourwayId, colourway.id))
    .leftJoin(batchColourway, eq(batchColourway.colourwayVersionId, colourwayVersion.id))
    .where(where)
    .orderBy(colourway.id, desc(colourwayVersion.number))
  const choices = await choicesOf(
    db,
    rows.map((row) => row.versionId),
  )
  return rows.map((row) => ({ ...row, choices: choices.get(row.versionId) ?? [] }))
}

export async function listColourways(db: Session, patternId: number): Promise<Colourway[]> {
  const found = await versionsWhere(db, and(eq(colourway.patternId, patternId), isNull(batchColourway.batchId)))
  return found.map(({ versionId: _, ...rest }) => rest)
}

/** @param number the newest of everybody's when absent; one that was made for a batch is found by its number only */
export async function findColourway(
  db: Session,
  id: number,
  number?: number,
): Promise<Colourway & { versionId: number }> {
  const which = number === undefined ? isNull(batchColourway.batchId) : eq(colourwayVersion.number, number)
  const [found] = await versionsWhere(db, and(eq(colourway.id, id), which))
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
    .orderBy(asc(colourwayChoice.role), asc(colourwayChoice.size), asc(colourwayChoice.rank))
  for (const { colourwayVersionId, ...row } of rows) {
    const list = found.get(colourwayVersionId)
    if (list) list.push(row)
    else found.set(colourwayVersionId, [row])
  }
  return found
}

/**
 * Keeps a colourway's choices as its next version. The colourway's row must be locked, so that two versions do not take one number.
 *
 * @param batchId the batch it is for, when it is for no other
 * @returns the version's id
 */
export async function addVersion(
  tx: Session,
  colourwayId: number,
  choices: readonly Choice[],
  madeBy: number,
  batchId?: number,
): Promise<number> {
  const [version] = await tx
    .insert(colourwayVersion)
    .values({
      colourwayId,
      number: sql`(select coalesce(max(${colourwayVersion.number}), 0) + 1 from ${colourwayVersion} where ${colourwayVersion.colourwayId} = ${colourwayId})`,
      madeBy,
    })
    .returning({ id: colourwayVersion.id })
  const colourwayVersionId = (version as { id: number }).id
  if (batchId !== undefined) await tx.insert(batchColourway).values({ colourwayVersionId, batchId })
  if (choices.length > 0)
    await tx.insert(colourwayChoice).values(choices.map((each) => ({ ...each, colourwayVersionId })))
  return colourwayVersionId
}

/** Locks the colourway that a version is of. @returns its id */
export async function lockColourwayOf(tx: Session, versionId: number): Promise<number> {
  const [found] = await tx
    .select({ id: colourway.id })
    .from(colourway)
    .innerJoin(colourwayVersion, eq(colourwayVersion.colourwayId, colourway.id))
    .where(eq(colourwayVersion.id, versionId))
    .for('update', { of: colourway })
  if (!found) throw notFound('colourway')
  return found.id
}

/** Begins a colourway with its first version. */
export async function makeColourway(
  tx: Session,
  patternId: number,
  name: string,
  choices: readonly Choice[],
  madeBy: number,
): Promise<number> {
  const [made] = await tx.insert(colourway).values({ patternId, name }).returning({ id: colourway.id })
  const { id } = made as { id: number }
  await addVersion(tx, id, choices, madeBy)
  return id
}

/** Turns the database's word for a wrong choice into the maker's. */
export function explain(error: unknown, name: SaveColourway['name']): unknown {
  const constraint = brokenConstraint(error)
  if (constraint === 'colourway_name') {
    return new HttpProblem(409, 'name-taken', `This pattern has a colourway called "${name}" already.`, {
      path: 'name',
      hint: 'Give it another name.',
    })
  }
  if (constraint?.includes('colourway_choice')) {
    return constraint.includes('item')
      ? new HttpProblem(422, 'no-such-item', 'One of the chosen items is not on the shelf list any more.', {
          path: 'choices',
          hint: 'Choose another.',
        })
      : new HttpProblem(422, 'chosen-twice', 'A role has been given two items for the same size and rank.', {
          path: 'choices',
          hint: 'Keep one of them.',
        })
  }
  if (constraint?.includes('pattern_id')) return notFound('pattern')
  return error
}

export const renameColourway = (tx: Session, id: number, name: string) =>
  tx.update(colourway).set({ name }).where(eq(colourway.id, id))

export const withoutVersionId = ({ versionId: _, ...rest }: Colourway & { versionId: number }): Colourway => rest

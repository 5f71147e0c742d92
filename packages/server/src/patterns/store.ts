import type { Pattern, PatternSummary, VersionText } from '@tessellum/contract/patterns'
import { and, desc, eq, sql } from 'drizzle-orm'
import type { Session } from '../database/connect'
import { notFound, Refusal } from '../http/refusal'
import { person } from '../people/schema'
import { pattern, patternVersion } from './schema'

const newest = (db: Session) =>
  db
    .selectDistinctOn([patternVersion.patternId], {
      patternId: patternVersion.patternId,
      number: patternVersion.number,
      source: patternVersion.source,
    })
    .from(patternVersion)
    .orderBy(patternVersion.patternId, desc(patternVersion.number))
    .as('newest')

const summaries = (db: Session) => {
  const version = newest(db)
  return db
    .select({
      id: pattern.id,
      title: pattern.title,
      source: pattern.source,
      revision: pattern.revision,
      savedAt: pattern.savedAt,
      savedBy: person.fullName,
      version: version.number,
      changed: sql<boolean>`${version.source} is distinct from ${pattern.source}`,
    })
    .from(pattern)
    .innerJoin(person, eq(person.id, pattern.savedBy))
    .leftJoin(version, eq(version.patternId, pattern.id))
    .$dynamic()
}

export async function listPatterns(db: Session): Promise<PatternSummary[]> {
  const rows = await summaries(db).orderBy(pattern.title, pattern.id)
  return rows.map(({ revision: _, ...row }) => ({ ...row, savedAt: row.savedAt.toISOString() }))
}

export async function findPattern(db: Session, id: number): Promise<Pattern> {
  const [row] = await summaries(db).where(eq(pattern.id, id))
  if (!row) throw notFound('pattern')
  const versions = await db
    .select({
      number: patternVersion.number,
      name: patternVersion.name,
      note: patternVersion.note,
      madeAt: patternVersion.madeAt,
      madeBy: person.fullName,
    })
    .from(patternVersion)
    .innerJoin(person, eq(person.id, patternVersion.madeBy))
    .where(eq(patternVersion.patternId, id))
    .orderBy(desc(patternVersion.number))
  return {
    ...row,
    savedAt: row.savedAt.toISOString(),
    versions: versions.map((version) => ({ ...version, madeAt: version.madeAt.toISOString() })),
  }
}

export async function findVersion(
  db: Session,
  patternId: number,
  number: number,
): Promise<VersionText & { id: number }> {
  const [row] = await db
    .select({
      id: patternVersion.id,
      number: patternVersion.number,
      name: patternVersion.name,
      note: patternVersion.note,
      source: patternVersion.source,
      madeAt: patternVersion.madeAt,
      madeBy: person.fullName,
    })
    .from(patternVersion)
    .innerJoin(person, eq(person.id, patternVersion.madeBy))
    .where(and(eq(patternVersion.patternId, patternId), eq(patternVersion.number, number)))
  if (!row) throw notFound('version')
  return { ...row, madeAt: row.madeAt.toISOString() }
}

/** The draft's row, locked until the transaction ends, at the revision the caller has seen. */
export async function lockDraft(tx: Session, id: number, revision: number) {
  const [row] = await tx.select().from(pattern).where(eq(pattern.id, id)).for('update')
  if (!row) throw notFound('pattern')
  if (row.revision !== revision) {
    throw new Refusal(409, 'draft-moved-on', 'Somebody else has saved this pattern since you opened it.', {
      hint: 'Your text is still in the ledger. Choose whether to go on with yours or with theirs.',
    })
  }
  return row
}

import type {
  Carrier,
  LibraryPage,
  LibraryWanted,
  Pattern,
  PatternDrawing,
  PatternName,
  PatternPlace,
  VersionText,
} from '@tessellum/contract/patterns'
import type { StepWords } from '@tessellum/contract/words'
import type { ShownPicture } from '@tessellum/core/writing/pictures'
import { and, desc, eq, isNull, type SQL, sql } from 'drizzle-orm'
import type { Session } from '../database/connect'
import { beyond, likeAnywhere, wordsIn } from '../database/paging'
import type { Drawings } from '../drawings/drawings'
import { HttpProblem, notFound } from '../problem'
import { batch, batchLine } from '../schema/batches'
import { patternDrawing } from '../schema/drawings'
import { pattern, patternVersion, stepWords } from '../schema/patterns'
import { person } from '../schema/people'

/** A draft that was thrown away can be brought back for so long. */
export const thrownDays = 30

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
      tags: pattern.tags,
      season: pattern.season,
      putAwayAt: pattern.putAwayAt,
      thrownAwayAt: pattern.thrownAwayAt,
      version: version.number,
      drawn: patternDrawing.digest,
      figures: patternDrawing.figures,
      changed: sql<boolean>`${version.source} is distinct from ${pattern.source}`,
    })
    .from(pattern)
    .innerJoin(person, eq(person.id, pattern.savedBy))
    .leftJoin(version, eq(version.patternId, pattern.id))
    .leftJoin(patternDrawing, eq(patternDrawing.patternId, pattern.id))
    .$dynamic()
}

type Summary = Awaited<ReturnType<typeof summaries>>[number]

/** What older drawings did not tell. */
const untold = { kinds: [], techniques: [], level: '', minutes: null }

const drawingOf = ({ drawn, figures, source }: Summary, digestOf: Drawings['digestOf']): PatternDrawing | null =>
  drawn && figures ? { digest: drawn, current: drawn === digestOf(source), ...untold, ...figures } : null

const placeOf = ({ putAwayAt, thrownAwayAt }: Pick<Summary, 'putAwayAt' | 'thrownAwayAt'>): PatternPlace =>
  thrownAwayAt ? 'thrown away' : putAwayAt ? 'put away' : 'in the shop'

/** Those that are in the shop, by name. */
export const patternNames = (db: Session): Promise<PatternName[]> => {
  const version = newest(db)
  return db
    .select({ id: pattern.id, title: pattern.title, version: version.number })
    .from(pattern)
    .leftJoin(version, eq(version.patternId, pattern.id))
    .where(and(isNull(pattern.putAwayAt), isNull(pattern.thrownAwayAt)))
    .orderBy(pattern.title, pattern.id)
}

const inPlace: Readonly<Record<PatternPlace, SQL>> = {
  'in the shop': sql`${pattern.putAwayAt} is null and ${pattern.thrownAwayAt} is null`,
  'put away': sql`${pattern.putAwayAt} is not null and ${pattern.thrownAwayAt} is null`,
  'thrown away': sql`${pattern.thrownAwayAt} > now() - make_interval(days => ${thrownDays})`,
}

/** All that a pattern is found by. */
const words = sql`lower(concat_ws(' ', ${pattern.title}, array_to_string(${pattern.tags}, ' '), ${pattern.season}, ${patternDrawing.figures} ->> 'level', ${patternDrawing.figures} ->> 'kinds', ${patternDrawing.figures} ->> 'techniques', ${patternDrawing.figures} ->> 'sizes'))`

/** A page of patterns. Drafts on it that are not drawn as they are yet are from now on. */
export async function libraryPage(
  db: Session,
  drawings: Drawings,
  { find, place, level, hours, after, limit }: LibraryWanted,
): Promise<LibraryPage> {
  const wanted = and(
    inPlace[place],
    ...wordsIn(find).map((word) => sql`${words} like ${likeAnywhere(word)}`),
    level ? sql`${patternDrawing.figures} ->> 'level' = ${level}` : undefined,
    hours === undefined ? undefined : sql`(${patternDrawing.figures} ->> 'minutes')::int <= ${hours * 60}`,
  )
  const rows = await summaries(db)
    .where(and(wanted, after === undefined ? undefined : beyond([pattern.title, pattern.id], after)))
    .orderBy(pattern.title, pattern.id)
    .limit(limit + 1)
  const page = rows.slice(0, limit)
  const listed = page.map((row) => ({ row, drawing: drawingOf(row, drawings.digestOf) }))
  drawings.want(listed.filter(({ drawing }) => !drawing?.current).map(({ row }) => row))
  const last = page[page.length - 1]
  const patterns = listed.map(({ row, drawing }) => {
    const { id, title, savedAt, savedBy, version, changed, tags, season } = row
    return {
      id,
      title,
      savedAt: savedAt.toISOString(),
      savedBy,
      version,
      changed,
      tags,
      season,
      place: placeOf(row),
      drawing,
    }
  })
  const next = rows.length > limit && last ? JSON.stringify([last.title, last.id]) : null
  if (after !== undefined) return { patterns, next }
  const [count] = await db
    .select({ total: sql<number>`count(*)::int` })
    .from(pattern)
    .leftJoin(patternDrawing, eq(patternDrawing.patternId, pattern.id))
    .where(wanted)
  const tags = await db
    .select({ tag: sql<string>`unnest(${pattern.tags})` })
    .from(pattern)
    .where(inPlace[place])
    .groupBy(sql`1`)
    .orderBy(sql`1`)
  return { patterns, next, total: count?.total ?? 0, tags: tags.map(({ tag }) => tag) }
}

/** The view that is kept, as JSON. */
export async function findDrawing(db: Session, id: number): Promise<string> {
  const [row] = await db
    .select({ view: patternDrawing.view })
    .from(patternDrawing)
    .where(eq(patternDrawing.patternId, id))
  if (!row?.view) throw notFound('drawing')
  return row.view
}

export async function findPattern(db: Session, id: number): Promise<Pattern> {
  const [row] = await summaries(db).where(eq(pattern.id, id))
  if (!row) throw notFound('pattern')
  const versions = await db
    .select({
      number: patternVersion.number,
      name: patternVersion.name,
      note: patternVersion.note,
      published: patternVersion.published,
      corrects: patternVersion.corrects,
      madeAt: patternVersion.madeAt,
      madeBy: person.fullName,
    })
    .from(patternVersion)
    .innerJoin(person, eq(person.id, patternVersion.madeBy))
    .where(eq(patternVersion.patternId, id))
    .orderBy(desc(patternVersion.number))
  const { figures, drawn, putAwayAt: _, thrownAwayAt: __, ...found } = row
  return {
    ...found,
    place: placeOf(row),
    drawn: figures && figures.why === null ? drawn : null,
    savedAt: row.savedAt.toISOString(),
    versions: versions.map((version) => ({ ...version, madeAt: version.madeAt.toISOString() })),
  }
}

/** A version with all that it was kept with. */
export type KeptVersion = VersionText & {
  readonly id: number
  readonly words: StepWords[]
  readonly pictures: ShownPicture[]
  readonly sampled: { readonly ratio: number; readonly count: number }
}

export async function findVersion(db: Session, patternId: number, number: number): Promise<KeptVersion> {
  const [row] = await db
    .select({
      id: patternVersion.id,
      number: patternVersion.number,
      name: patternVersion.name,
      note: patternVersion.note,
      published: patternVersion.published,
      corrects: patternVersion.corrects,
      source: patternVersion.source,
      words: patternVersion.words,
      pictures: patternVersion.pictures,
      sampledRatio: patternVersion.sampledRatio,
      sampledCount: patternVersion.sampledCount,
      madeAt: patternVersion.madeAt,
      madeBy: person.fullName,
    })
    .from(patternVersion)
    .innerJoin(person, eq(person.id, patternVersion.madeBy))
    .where(and(eq(patternVersion.patternId, patternId), eq(patternVersion.number, number)))
  if (!row) throw notFound('version')
  const { sampledRatio: ratio, sampledCount: count, ...rest } = row
  return { ...rest, sampled: { ratio, count }, madeAt: row.madeAt.toISOString() }
}

/** The designer's words for steps of the draft. */
export const wordsOf = (db: Session, patternId: number): Promise<StepWords[]> =>
  db
    .select({
      language: stepWords.language,
      part: stepWords.part,
      text: stepWords.text,
      nth: stepWords.nth,
      instead: stepWords.instead,
      also: stepWords.also,
    })
    .from(stepWords)
    .where(eq(stepWords.patternId, patternId))
    .orderBy(stepWords.part, stepWords.text, stepWords.nth)

/** Keeps the words of one step; both empty takes them away. */
export async function saveWordsOf(tx: Session, patternId: number, words: StepWords): Promise<void> {
  const { language, part, text, nth, instead, also } = words
  if (instead === '' && also === '') {
    await tx
      .delete(stepWords)
      .where(
        and(
          eq(stepWords.patternId, patternId),
          eq(stepWords.language, language),
          eq(stepWords.part, part),
          eq(stepWords.text, text),
          eq(stepWords.nth, nth),
        ),
      )
    return
  }
  await tx
    .insert(stepWords)
    .values({ patternId, ...words })
    .onConflictDoUpdate({
      target: [stepWords.patternId, stepWords.language, stepWords.part, stepWords.text, stepWords.nth],
      set: { instead, also },
    })
}

/** Batches with kits of a version, soonest due first. */
export async function carriersOf(db: Session, patternVersionId: number): Promise<Carrier[]> {
  return db
    .select({
      id: batch.id,
      name: batch.name,
      dueOn: batch.dueOn,
      state: batch.state,
      kits: sql<number>`sum(${batchLine.kits})::int`,
    })
    .from(batchLine)
    .innerJoin(batch, eq(batch.id, batchLine.batchId))
    .where(eq(batchLine.patternVersionId, patternVersionId))
    .groupBy(batch.id)
    .orderBy(batch.dueOn, batch.id)
}

/** The draft's row, locked until the transaction ends, at the revision the caller has seen. */
export async function lockDraft(tx: Session, id: number, revision: number) {
  const [row] = await tx.select().from(pattern).where(eq(pattern.id, id)).for('update')
  if (!row) throw notFound('pattern')
  if (row.thrownAwayAt)
    throw new HttpProblem(409, 'thrown-away', 'This pattern has been thrown away.', {
      hint: 'Bring it back first: nothing of it is lost.',
    })
  if (row.revision !== revision) {
    throw new HttpProblem(409, 'draft-moved-on', 'Somebody else has saved this pattern since you opened it.', {
      hint: 'Your text is still in the ledger. Choose whether to go on with yours or with theirs.',
    })
  }
  return row
}

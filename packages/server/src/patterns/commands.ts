import type { newPattern, saveDraft as saveDraftBody, saveVersion } from '@tessellum/contract/patterns'
import type { saveWords as saveWordsBody } from '@tessellum/contract/words'
import { titleOf } from '@tessellum/core/notation/title'
import { eq, max } from 'drizzle-orm'
import type { z } from 'zod'
import { logActivity } from '../audit/log'
import { explain, makeColourway } from '../colourways/store'
import type { Caller, SignedIn } from '../context'
import type { Database } from '../database/connect'
import { runOnce } from '../idempotency/run-once'
import { HttpProblem } from '../problem'
import { pattern, patternVersion } from '../schema/patterns'
import type { Shop } from '../shop'
import { shownPictures } from './pictures'
import { samplesOf } from './samples'
import { findPattern, findVersion, lockDraft, saveWordsOf, wordsOf } from './store'

export const beginPattern = (
  db: Database,
  { source, words, colourways }: z.output<typeof newPattern>,
  caller: Caller,
) =>
  runOnce(db, caller, 'new pattern', async (tx) => {
    const [made] = await tx
      .insert(pattern)
      .values({ title: titleOf(source), source, savedBy: caller.id })
      .returning({ id: pattern.id })
    const { id } = made as { id: number }
    for (const each of words) await saveWordsOf(tx, id, each)
    for (const { name, choices } of colourways) await makeColourway(tx, id, name, choices, caller.id)
    return findPattern(tx, id)
  }).catch((error: unknown) => {
    throw explain(error, colourways[0]?.name ?? '')
  })

/** Saved on top of the revision that it was read at: the second of two that say the same is refused. */
export const saveDraft = (
  db: Database,
  id: number,
  { source, revision }: z.output<typeof saveDraftBody>,
  { id: savedBy }: SignedIn,
) =>
  db.transaction(async (tx) => {
    await lockDraft(tx, id, revision)
    await tx
      .update(pattern)
      .set({ source, title: titleOf(source), revision: revision + 1, savedBy, savedAt: new Date() })
      .where(eq(pattern.id, id))
    return findPattern(tx, id)
  })

/** The draft as a version, which is there for good; published, or with an erratum for one that was. */
export async function keepVersion(
  { db, workers }: Shop,
  id: number,
  { name, note, revision, publish, corrects }: z.output<typeof saveVersion>,
  caller: Caller,
) {
  const draft = await findPattern(db, id)
  const { report } = await workers.run('evaluate', { source: draft.source, choices: {} })
  const fault = report.diagnostics.find((each) => each.severity === 'error')
  if (fault) {
    throw new HttpProblem(422, 'faulty-pattern', `Line ${fault.line}: ${fault.message}`, {
      path: `line ${fault.line}, column ${fault.column}`,
      hint: fault.mend ?? 'Fix the line; the draft stays as it is.',
    })
  }
  return runOnce(db, caller, `version of ${id}`, async (tx) => {
    const row = await lockDraft(tx, id, revision)
    const [last] = await tx
      .select({ number: max(patternVersion.number) })
      .from(patternVersion)
      .where(eq(patternVersion.patternId, id))
    const number = (last?.number ?? 0) + 1
    if (corrects !== undefined) {
      const wrong = await findVersion(tx, id, corrects)
      if (!wrong.published)
        throw new HttpProblem(422, 'not-published', `Version ${corrects} was never published, so nobody carries it.`, {
          path: 'corrects',
          hint: 'Keep a version without an erratum.',
        })
      if (note === '')
        throw new HttpProblem(422, 'no-erratum', 'An erratum says what was wrong.', {
          path: 'note',
          hint: 'Write it in a line or two.',
        })
    }
    const { correction } = await samplesOf(tx, id)
    await tx.insert(patternVersion).values({
      patternId: id,
      number,
      name,
      note,
      source: row.source,
      words: await wordsOf(tx, id),
      pictures: await shownPictures(tx, id),
      published: publish || corrects !== undefined,
      corrects,
      sampledRatio: correction.ratio,
      sampledCount: correction.count,
      madeBy: caller.id,
    })
    const did = corrects !== undefined ? `corrected version ${corrects} by` : publish ? 'published' : 'kept'
    await logActivity(tx, caller.id, `${did} version ${number} of ${row.title}`, `/patterns/${id}/versions`)
    return findPattern(tx, id)
  })
}

/** The designer's own words for a step; from another step they may have moved to. */
export const saveWords = (
  db: Database,
  id: number,
  { from, ...words }: z.output<typeof saveWordsBody>,
  caller: Caller,
) =>
  runOnce(db, caller, `words of ${id}`, async (tx) => {
    await findPattern(tx, id)
    if (from) await saveWordsOf(tx, id, { ...words, ...from, instead: '', also: '' })
    await saveWordsOf(tx, id, words)
    return wordsOf(tx, id)
  })

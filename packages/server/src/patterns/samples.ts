import type { Sample, Samples } from '@tessellum/contract/samples'
import { correctionFrom, spreadOf } from '@tessellum/core/thread/sampled'
import { desc, eq } from 'drizzle-orm'
import type { Session } from '../database/connect'
import { person } from '../schema/people'
import { sample } from '../schema/samples'

/** A pattern's samples, newest first, and what those of its technique show. */
export async function samplesOf(db: Session, patternId: number): Promise<Samples> {
  const rows = await db
    .select({
      id: sample.id,
      version: sample.version,
      size: sample.size,
      minutes: sample.minutes,
      threadMm: sample.threadMm,
      computedMm: sample.computedMm,
      computedMinutes: sample.computedMinutes,
      technique: sample.technique,
      note: sample.note,
      madeAt: sample.madeAt,
      madeBy: person.fullName,
    })
    .from(sample)
    .innerJoin(person, eq(person.id, sample.madeBy))
    .where(eq(sample.patternId, patternId))
    .orderBy(desc(sample.madeAt), desc(sample.id))
  const samples: Sample[] = rows.map((row) => ({ ...row, madeAt: row.madeAt.toISOString() }))
  const technique = samples.find((each) => each.technique !== '')?.technique ?? ''
  const alike =
    technique === ''
      ? []
      : await db
          .select({
            threadMm: sample.threadMm,
            computedMm: sample.computedMm,
            minutes: sample.minutes,
            computedMinutes: sample.computedMinutes,
          })
          .from(sample)
          .where(eq(sample.technique, technique))
  const ofThread = (each: { threadMm: number; computedMm: number }) => each.threadMm / each.computedMm
  const timed = alike.filter((each) => each.computedMinutes > 0)
  return {
    samples,
    technique,
    thread: spreadOf(alike.map(ofThread)) ?? null,
    minutes: spreadOf(timed.map((each) => each.minutes / each.computedMinutes)) ?? null,
    correction: correctionFrom(samples.map(ofThread), alike.map(ofThread)),
  }
}

/** Everything an edition is written from, read at one moment. */
import type { DocumentWanted, Edition } from '@tessellum/contract/editions'
import { findColourway, listColourways } from '../colourways/store'
import type { Session } from '../database/connect'
import type { WorkerPool } from '../jobs/pool'
import { shownPictures } from '../patterns/pictures'
import { samplesOf } from '../patterns/samples'
import { findPattern, findVersion, wordsOf } from '../patterns/store'
import { notFound } from '../problem'
import { logoOf } from '../settings/logo'
import { shopSettings } from '../settings/store'
import { beadRecords, listItems } from '../stock/store'

type Wanted = Pick<DocumentWanted, 'version' | 'size' | 'colourway' | 'colourwayVersion'>

/** What it needs of the shop; the demo shop is gathered from before it stands. */
interface From {
  readonly db: Session
  readonly workers: WorkerPool
}

export async function gather({ db, workers }: From, patternId: number, wanted: Wanted): Promise<Edition> {
  const pattern = await findPattern(db, patternId)
  const kept = wanted.version === undefined ? undefined : await findVersion(db, patternId, wanted.version)
  const chosen =
    wanted.colourway === undefined ? undefined : await findColourway(db, wanted.colourway, wanted.colourwayVersion)
  if (chosen && chosen.patternId !== patternId) throw notFound('colourway')
  // One after the other: within a transaction they share a connection.
  const all = await listColourways(db, patternId)
  const { samples, correction } = await samplesOf(db, patternId)
  const { profile, thread, documents } = await shopSettings(db)
  const colourways = all.map(({ name, choices }) => ({ name, choices }))
  const choices = chosen?.choices ?? []
  const ids = new Set([choices, ...colourways.map((each) => each.choices)].flat().map(({ itemId }) => itemId))
  const source = kept?.source ?? pattern.source
  const size = wanted.size || (await workers.run('sizes', { source })).usual
  const upTo = kept?.number ?? Number.POSITIVE_INFINITY
  return {
    title: pattern.title,
    source,
    size,
    version: kept?.number,
    madeAt: kept?.madeAt,
    published: kept?.published ?? false,
    colourway: chosen?.name,
    choices,
    colourways,
    items: await listItems(db, [...ids]),
    catalogue: await beadRecords(db),
    words: kept?.words ?? (await wordsOf(db, patternId)),
    pictures: kept?.pictures ?? (await shownPictures(db, patternId)),
    // What a kept version says of its time is what was known when it was kept.
    timed: samples
      .filter((each) => each.size === size && (kept === undefined || each.madeAt <= kept.madeAt))
      .map(({ minutes }) => minutes),
    errata: pattern.versions
      .filter(({ number, corrects }) => corrects !== null && number <= upTo)
      .map(({ number, corrects, note }) => ({ version: number, corrects: corrects ?? 0, note })),
    sampled: kept?.sampled ?? correction,
    shop: { ...profile, thread, units: documents.units, logo: await logoOf(db) },
  }
}

import { createHash } from 'node:crypto'
import type { Picture, PictureSize, Pictures } from '@tessellum/contract/pictures'
import type { ShownPicture } from '@tessellum/core/writing/pictures'
import { and, asc, desc, eq, gt, inArray, isNull, sql } from 'drizzle-orm'
import type { Session } from '../database/connect'
import type { PictureFile, PictureFiles } from '../documents/picture-files'
import { notFound } from '../problem'
import { person } from '../schema/people'
import { picture, pictureFile } from '../schema/pictures'

/** So long a picture that was removed can be put back. */
export const removedDays = 30

const columns = {
  id: picture.id,
  kind: picture.kind,
  step: picture.step,
  caption: picture.caption,
  width: picture.width,
  height: picture.height,
}

const inOrder = [asc(picture.position), asc(picture.id)] as const

/** As a written pattern of the draft shows them. */
export const shownPictures = (db: Session, patternId: number): Promise<ShownPicture[]> =>
  db
    .select(columns)
    .from(picture)
    .where(and(eq(picture.patternId, patternId), isNull(picture.removedAt)))
    .orderBy(...inOrder)

export async function picturesOf(db: Session, patternId: number): Promise<Pictures> {
  const rows = () =>
    db
      .select({ ...columns, crop: picture.crop, addedAt: picture.addedAt, addedBy: person.fullName })
      .from(picture)
      .innerJoin(person, eq(person.id, picture.addedBy))
  const shown = await rows()
    .where(and(eq(picture.patternId, patternId), isNull(picture.removedAt)))
    .orderBy(...inOrder)
  const removed = await rows()
    .where(
      and(eq(picture.patternId, patternId), gt(picture.removedAt, sql`now() - make_interval(days => ${removedDays})`)),
    )
    .orderBy(desc(picture.removedAt), desc(picture.id))
  const told = ({ addedAt, ...row }: (typeof shown)[number]): Picture => ({ ...row, addedAt: addedAt.toISOString() })
  return { pictures: shown.map(told), removed: removed.map(told) }
}

export async function readPicture(db: Session, id: number, size: PictureSize): Promise<Buffer> {
  const [row] = await db
    .select({ bytes: pictureFile.bytes })
    .from(pictureFile)
    .where(and(eq(pictureFile.pictureId, id), eq(pictureFile.size, size)))
  if (!row) throw notFound('picture')
  return row.bytes
}

/** Several at once, by their number; those that are not there are left out. */
export async function readPictures(
  db: Session,
  ids: readonly number[],
  size: PictureSize,
): Promise<ReadonlyMap<number, Buffer>> {
  if (ids.length === 0) return new Map()
  const rows = await db
    .select({ id: pictureFile.pictureId, bytes: pictureFile.bytes })
    .from(pictureFile)
    .where(and(inArray(pictureFile.pictureId, [...ids]), eq(pictureFile.size, size)))
  return new Map(rows.map(({ id, bytes }) => [id, bytes]))
}

/** Keeps a picture with its files. @returns its number */
export async function insertPicture(
  tx: Session,
  row: Omit<typeof picture.$inferInsert, 'width' | 'height'>,
  { files }: PictureFiles,
): Promise<number> {
  const { width, height } = files.large
  const [made] = await tx
    .insert(picture)
    .values({ ...row, width, height })
    .returning({ id: picture.id })
  const { id } = made as { id: number }
  await tx.insert(pictureFile).values(
    (Object.entries(files) as [PictureSize, PictureFile][]).map(([size, { bytes }]) => ({
      pictureId: id,
      size,
      digest: createHash('sha256').update(bytes).digest('hex'),
      bytes: Buffer.from(bytes),
    })),
  )
  return id
}

/** Deletes pictures that can no longer be put back and that no version shows, and those of patterns that are deleted. */
export async function deletePictures(tx: Session, ofPatterns: readonly number[] = []): Promise<void> {
  const { rows } = await tx.execute<{ id: number }>(sql`
    select id from picture
    where pattern_id = any(array[${sql.join([...ofPatterns], sql`, `)}]::int[])
      or removed_at < now() - make_interval(days => ${removedDays}) and not exists (
        select from pattern_version v
        where v.pattern_id = picture.pattern_id and v.pictures @> jsonb_build_array(jsonb_build_object('id', picture.id)))`)
  if (rows.length === 0) return
  const ids = rows.map(({ id }) => id)
  await tx.delete(pictureFile).where(inArray(pictureFile.pictureId, ids))
  await tx.delete(picture).where(inArray(picture.id, ids))
}

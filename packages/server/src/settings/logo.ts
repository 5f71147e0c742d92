/** The shop's sign: on what it gives out. */
import { createHash } from 'node:crypto'
import type { Logo } from '@tessellum/contract/settings'
import { logActivity } from '../audit/log'
import type { Caller } from '../context'
import type { Session } from '../database/connect'
import { runOnce } from '../idempotency/run-once'
import { notFound } from '../problem'
import { shopLogo } from '../schema/logo'
import type { Shop } from '../shop'

export async function logoOf(db: Session): Promise<Logo | null> {
  const [row] = await db
    .select({ digest: shopLogo.digest, width: shopLogo.width, height: shopLogo.height })
    .from(shopLogo)
  return row ?? null
}

/** @throws HttpProblem where there is none */
export async function readLogo(db: Session): Promise<Buffer> {
  const [row] = await db.select({ bytes: shopLogo.bytes }).from(shopLogo)
  if (!row) throw notFound('logo')
  return row.bytes
}

export async function saveLogo({ db, workers }: Shop, bytes: Uint8Array, caller: Caller): Promise<{ logo: Logo }> {
  const { files } = await workers.run('picture', { bytes, crop: null })
  const { medium } = files
  return runOnce(db, caller, 'logo', async (tx) => {
    const values = {
      digest: createHash('sha256').update(medium.bytes).digest('hex'),
      width: medium.width,
      height: medium.height,
      bytes: Buffer.from(medium.bytes),
    }
    await tx
      .insert(shopLogo)
      .values({ id: 1, ...values })
      .onConflictDoUpdate({ target: shopLogo.id, set: values })
    await logActivity(tx, caller.id, "changed the shop's logo", '/settings/profile')
    const { digest, width, height } = values
    return { logo: { digest, width, height } }
  })
}

export const removeLogo = ({ db }: Shop, caller: Caller): Promise<{ logo: null }> =>
  runOnce(db, caller, 'no logo', async (tx) => {
    await tx.delete(shopLogo)
    await logActivity(tx, caller.id, "took the shop's logo away", '/settings/profile')
    return { logo: null }
  })

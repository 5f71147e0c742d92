import { type ChangeSettings, type Settings, usualSettings } from '@tessellum/contract/settings'
import { type CostSettings, usualCosts } from '@tessellum/core/kit/price'
import { sql } from 'drizzle-orm'
import type { Session } from '../database/connect'
import { costSetting, shopSetting } from '../schema/settings'

export async function costSettings(db: Session): Promise<CostSettings> {
  const [row] = await db.select().from(costSetting)
  return row?.costs ?? usualCosts
}

export const saveCosts = (tx: Session, costs: CostSettings) =>
  tx.insert(costSetting).values({ id: 1, costs }).onConflictDoUpdate({ target: costSetting.id, set: { costs } })

/** What has never been settled is as usual, also where a part has got more to it since it was. */
export async function shopSettings(db: Session): Promise<Settings> {
  const [row] = await db.select().from(shopSetting)
  const { profile, money, documents, thread, kits } = row?.settings ?? {}
  const usual = usualSettings
  return {
    profile: { ...usual.profile, ...profile },
    money: { ...usual.money, ...money },
    documents: { ...usual.documents, ...documents },
    thread: { ...usual.thread, ...thread },
    kits: { ...usual.kits, ...kits },
  }
}

export const saveSettings = (tx: Session, settings: ChangeSettings) =>
  tx
    .insert(shopSetting)
    .values({ id: 1, settings })
    .onConflictDoUpdate({
      target: shopSetting.id,
      set: { settings: sql`${shopSetting.settings} || excluded.settings` },
    })

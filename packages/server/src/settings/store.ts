import { type CostSettings, usualCosts } from '@tessellum/core/kit/price'
import type { Session } from '../database/connect'
import { costSetting } from '../schema/settings'

export async function costSettings(db: Session): Promise<CostSettings> {
  const [row] = await db.select().from(costSetting)
  return row?.costs ?? usualCosts
}

export const saveCosts = (tx: Session, costs: CostSettings) =>
  tx.insert(costSetting).values({ id: 1, costs }).onConflictDoUpdate({ target: costSetting.id, set: { costs } })

import type { Settings, SettingsParts } from '@tessellum/contract/settings'
import { usualSettings } from '@tessellum/contract/usual-settings'
import { type CostSettings, usualCosts } from '@tessellum/core/kit/price'
import { sql } from 'drizzle-orm'
import type { Session } from '../database/connect'
import type { Revision } from '../database/revision'
import { costSetting, shopSetting } from '../schema/settings'

export async function costSettings(db: Session): Promise<CostSettings> {
  const [row] = await db.select().from(costSetting)
  return { ...usualCosts, ...row?.costs }
}

export const saveCosts = (tx: Session, costs: CostSettings) =>
  tx.insert(costSetting).values({ id: 1, costs }).onConflictDoUpdate({ target: costSetting.id, set: { costs } })

/** What has never been settled is as usual, also where a part has got more to it since it was. */
export async function shopSettings(db: Session): Promise<Settings> {
  const [row] = await db.select().from(shopSetting)
  const settled: SettingsParts = row?.settings ?? {}
  const whole = <Name extends keyof Settings>(name: Name): Settings[Name] => ({
    ...usualSettings[name],
    ...settled[name],
  })
  return {
    profile: whole('profile'),
    money: whole('money'),
    documents: whole('documents'),
    measures: whole('measures'),
    thread: whole('thread'),
    kits: whole('kits'),
    days: whole('days'),
    ahead: whole('ahead'),
    teaching: whole('teaching'),
    access: whole('access'),
    devices: whole('devices'),
  }
}

const latest = new WeakMap<Revision, { readonly revision: number; readonly settings: Promise<Settings> }>()

/** The same, read once for as long as it is not changed: one page asks for it in several places. */
export function settingsNow({ db, revision }: { db: Session; revision?: Revision }): Promise<Settings> {
  const now = revision?.settings
  if (!revision || now === undefined) return shopSettings(db)
  const known = latest.get(revision)
  if (known?.revision === now) return known.settings
  const read = { revision: now, settings: shopSettings(db) }
  latest.set(revision, read)
  // What failed is read again by whoever asks next.
  read.settings.catch(() => latest.get(revision) === read && latest.delete(revision))
  return read.settings
}

export const saveSettings = (tx: Session, settings: SettingsParts) =>
  tx
    .insert(shopSetting)
    .values({ id: 1, settings })
    .onConflictDoUpdate({
      target: shopSetting.id,
      set: { settings: sql`${shopSetting.settings} || excluded.settings` },
    })

import { usualWristEase, type WristEase } from '@tessellum/core/desk/wearer'
import { type SparePolicy, usualSpares } from '@tessellum/core/kit/spares'
import { usualCurrency } from '@tessellum/core/measure/money'
import type { Mm } from '@tessellum/core/measure/units'
import { usualTeaching } from '@tessellum/core/teach/time-plan'
import { usualThreadSettings } from '@tessellum/core/thread/settings'
import { usualDocumentStyle } from '@tessellum/core/writing/layout'
import type { Settings } from './settings'

const { sampled: _, ...usualThread } = usualThreadSettings

export const usualSettings: Settings = {
  profile: { name: 'A bead shop', address: '', footer: '', timeZone: 'Europe/London' },
  money: { currency: usualCurrency, taxGoods: 0, taxKits: 0, taxPatterns: 0, orderLimit: 0 },
  documents: { language: 'en', paper: 'A4', units: 'metric', ...usualDocumentStyle },
  thread: usualThread,
  measures: {
    units: 'metric',
    fingers: 'ISO',
    snugMm: usualWristEase.snug,
    usualMm: usualWristEase.usual,
    looseMm: usualWristEase.loose,
  },
  kits: { ...usualSpares, packingDays: 2 },
  days: { closed: [], off: [] },
  ahead: { unplannedDays: 42, fetchDays: 14, classDays: 21, orderDays: 10 },
  teaching: usualTeaching,
  access: { linkDays: 7 },
  devices: { scale: '', printer: '', scanner: '', supplier: '' },
}

/** What goes into a bag beyond the count. */
export const sparesOf = ({ kits: { packingDays: _, ...spares } }: Settings): SparePolicy => spares

/** Added to a wrist, by how a bracelet is to sit. */
export const wristEaseOf = ({ measures: { snugMm, usualMm, looseMm } }: Settings): Readonly<Record<WristEase, Mm>> => ({
  snug: snugMm,
  usual: usualMm,
  loose: looseMm,
})

import { recordId } from './fields'
import { z } from './zod'

/** What a page is told of the scanner: a code, or that there is none. */
export const scannerNews = z.union([
  z.object({ code: z.string() }),
  z.object({ gone: z.enum(['none', 'unreachable']) }),
])
export type ScannerNews = z.infer<typeof scannerNews>

/** What a code that was scanned or typed stands for. */
export const found = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('lot'), lotId: z.number(), itemId: z.number(), name: z.string(), lotCode: z.string() }),
  z.object({
    kind: z.literal('bag'),
    batchId: z.number(),
    batchName: z.string(),
    lineId: z.number(),
    kit: z.number(),
    itemId: z.number().nullable(),
  }),
  z.object({ kind: z.literal('item'), itemId: z.number(), name: z.string() }),
])
export type Found = z.infer<typeof found>

/** Labels of a batch: one for each kit, for each bag, or both, as a roll for the label printer or as sheets. */
export const labelsWanted = z.object({
  of: z.enum(['kits', 'bags', 'both']).default('both'),
  paper: z.enum(['roll', 'A4']).default('A4'),
})

export const printLabels = labelsWanted.pick({ of: true }).extend({
  /** One bag's only. */
  lineId: recordId().optional(),
  kit: z.number().int().optional(),
})
export type PrintLabels = z.input<typeof printLabels>

export const standInNames = ['scale', 'printer', 'scanner', 'supplier'] as const
export type StandInName = (typeof standInNames)[number]

/** Plays a stand-in of the demo; each knows what it can be told. */
export const playStandIn = z
  .object({
    fault: z.string().max(20),
    on: z.boolean(),
    drop: z.boolean(),
    grams: z.number().min(0).max(9999),
    paper: z.number().int().min(0).max(10_000),
    scan: z.string().min(1).max(200),
    times: z.number().positive().max(100),
    daysMore: z.number().int().min(0).max(365),
  })
  .partial()
export type PlayStandIn = z.infer<typeof playStandIn>

/** What a stand-in tells of itself. */
export const standInState = z.looseObject({ faults: z.array(z.string()) })

/** The suppliers' service of prices and lead times: asked again when it fails, not waited for when it is late, and believed only in our money. */
import { setTimeout as pause } from 'node:timers/promises'
import { z } from 'zod'

const waitMs = 4000
const againMs = [300, 900]

const answer = z.object({
  currency: z.string(),
  prices: z.array(
    z.object({
      code: z.string(),
      packs: z.array(
        z.object({
          amount: z.number().int().min(1).max(1_000_000_000),
          price: z.number().int().min(0).max(100_000_000),
          leadDays: z.number().int().min(0).max(730),
        }),
      ),
    }),
  ),
})
export type Price = z.infer<typeof answer>['prices'][number]

/** Why there are no prices, in words for whoever asked. */
export class NoPrices extends Error {}

/** @throws NoPrices */
export async function askPrices(address: string, codes: readonly string[], currency: string): Promise<Price[]> {
  if (!address)
    throw new NoPrices('No suppliers’ service is connected: ask by telephone, and change the packs by hand.')
  const query = codes.map((code) => `code=${encodeURIComponent(code)}`).join('&')
  for (let tries = 0; ; tries++) {
    const limit = AbortSignal.timeout(waitMs)
    try {
      const response = await fetch(`http://${address}/prices?${query}`, { signal: limit })
      if (response.ok) return read(await response.json().catch(() => undefined), currency)
      if (response.status < 500) throw new NoPrices(`The suppliers’ service refuses the question (${response.status}).`)
    } catch (error) {
      if (error instanceof NoPrices) throw error
      if (limit.aborted) throw new NoPrices('The suppliers’ service does not answer in time. Ask again later.')
    }
    const wait = againMs[tries]
    if (wait === undefined) throw new NoPrices('The suppliers’ service has failed three times. Ask again later.')
    await pause(wait)
  }
}

function read(body: unknown, currency: string): Price[] {
  const parsed = answer.safeParse(body)
  if (!parsed.success) throw new NoPrices('The suppliers’ service sends what cannot be read. The kept prices stay.')
  if (parsed.data.currency !== currency)
    throw new NoPrices(
      `The suppliers’ service answers in ${parsed.data.currency}, and the shop counts in ${currency}. The kept prices stay.`,
    )
  return parsed.data.prices
}

import { useQuery } from '@tanstack/react-query'
import type { Settings } from '@tessellum/contract/settings'
import { usualSettings } from '@tessellum/contract/usual-settings'
import { sayMoney, signOf } from '@tessellum/core/measure/money'
import { read } from '../shop/queries'

/** How the shop does things. The frame shows no page before they are here. */
export const useShopSettings = (): Settings => useQuery(read.settings).data ?? usualSettings

interface Money {
  /** 345 -> "£3.45". */
  say(minor: number): string
  /** "£" */
  readonly sign: string
}

/** Money as the shop keeps its books in. */
export function useMoney(): Money {
  const { currency } = useShopSettings().money
  return { say: (minor) => sayMoney(minor, currency), sign: signOf(currency) }
}

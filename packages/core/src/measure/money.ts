/** What a shop keeps its books in until it says otherwise. */
export const usualCurrency = 'GBP'

/** One takes longer to make than a page of prices to say. */
const formats = new Map<string, Intl.NumberFormat>()

function formatOf(currency: string): Intl.NumberFormat {
  const made = formats.get(currency) ?? new Intl.NumberFormat('en-GB', { style: 'currency', currency })
  formats.set(currency, made)
  return made
}

/** 345 -> "£3.45". @param currency as in ISO 4217, of a hundred parts */
export const sayMoney = (minor: number, currency: string): string => formatOf(currency).format(minor / 100)

/** "£", or the code where it has no sign of its own. */
export const signOf = (currency: string): string =>
  new Intl.NumberFormat('en-GB', { style: 'currency', currency, currencyDisplay: 'narrowSymbol' })
    .formatToParts(0)
    .find(({ type }) => type === 'currency')?.value ?? currency

/** What a shop keeps its books in until it says otherwise. */
export const usualCurrency = 'GBP'

/** 345 -> "£3.45". @param currency as in ISO 4217, of a hundred parts */
export const sayMoney = (minor: number, currency: string): string =>
  new Intl.NumberFormat('en-GB', { style: 'currency', currency }).format(minor / 100)

/** "£", or the code where it has no sign of its own. */
export const signOf = (currency: string): string =>
  new Intl.NumberFormat('en-GB', { style: 'currency', currency, currencyDisplay: 'narrowSymbol' })
    .formatToParts(0)
    .find(({ type }) => type === 'currency')?.value ?? currency

/** The one currency the shop keeps its books in. */
export const shopCurrency = 'GBP'

/** 345 -> "£3.45". */
export const sayMoney = (minor: number): string =>
  new Intl.NumberFormat('en-GB', { style: 'currency', currency: shopCurrency }).format(minor / 100)

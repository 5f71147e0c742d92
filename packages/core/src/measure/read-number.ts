/** A single comma before three digits: thousands in one country, thousandths in another. */
const eitherWay = /^-?[1-9]\d{0,2},\d{3}$/

const plainOf = (typed: string) => typed.replace(/[\s\u00a0\u202f'\u2019]/g, '').replace('\u2212', '-')

/**
 * A number as people type it: with spaces between thousands, a point or a comma. What could be read in two ways is not guessed.
 *
 * @param commas a comma can only be a decimal comma here, as in a file that is not divided by commas itself
 * @returns a number, or what is wrong with it
 */
export function readNumber(typed: string, commas: boolean): number | string {
  const plain = plainOf(typed)
  if (/^-?(\d+(\.\d+)?|\.\d+)$/.test(plain)) return Number(plain)
  if (/^-?\d{1,3}(,\d{3})+\.\d+$/.test(plain)) return Number(plain.replaceAll(',', ''))
  if (/^-?\d{1,3}(\.\d{3})+,\d+$/.test(plain)) return Number(plain.replaceAll('.', '').replace(',', '.'))
  if (/^-?[1-9]\d{0,2}(,\d{3}){2,}$/.test(plain)) return Number(plain.replaceAll(',', ''))
  if (/^-?[1-9]\d{0,2}(\.\d{3}){2,}$/.test(plain)) return Number(plain.replaceAll('.', ''))
  if (/^-?\d*,\d+$/.test(plain)) {
    if (commas || !eitherWay.test(plain)) return Number(plain.replace(',', '.'))
    return `"${typed}" may be thousands or a decimal: write it with a point, or without a comma.`
  }
  return `"${typed}" is not a number.`
}

/** The two numbers that a text may mean where `readNumber` asks: "1,500" is 1500 or 1.5. */
export function bothWays(typed: string): readonly [thousands: number, decimal: number] | undefined {
  const plain = plainOf(typed)
  return eitherWay.test(plain) ? [Number(plain.replace(',', '')), Number(plain.replace(',', '.'))] : undefined
}

/** Codes that are printed on labels and read back by a scanner. What is none of these may be a maker's own barcode. */

export type Scanned =
  | { readonly kind: 'lot'; readonly lotId: number }
  | { readonly kind: 'bag'; readonly lineId: number; readonly kit: number; readonly itemId: number | undefined }
  | { readonly kind: 'other'; readonly code: string }

export const codeOfLot = (lotId: number): string => `TSL-${lotId}`
/** @param itemId absent for the kit as a whole */
export const codeOfBag = (lineId: number, kit: number, itemId?: number): string =>
  `TSB-${lineId}-${kit}${itemId === undefined ? '' : `-${itemId}`}`

const idPattern = String.raw`([1-9]\d{0,8})`
const lot = new RegExp(`^TSL-${idPattern}$`)
const bag = new RegExp(`^TSB-${idPattern}-${idPattern}(?:-${idPattern})?$`)

/** @returns undefined for what no label has: nothing, control letters, more than a label holds */
export function readCode(text: string): Scanned | undefined {
  const code = text.trim()
  const [, lotId] = lot.exec(code) ?? []
  if (lotId) return { kind: 'lot', lotId: Number(lotId) }
  const [, lineId, kit, itemId] = bag.exec(code) ?? []
  if (lineId && kit)
    return { kind: 'bag', lineId: Number(lineId), kit: Number(kit), itemId: itemId ? Number(itemId) : undefined }
  return /^[\x21-\x7e]{3,60}$/.test(code) ? { kind: 'other', code } : undefined
}

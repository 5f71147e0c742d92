/** What a piece is drawn with. */
export { brass, brick as way, ink } from '../theme'
export const thread = '#6d6a60'
export const paper = '#f1eadb'

/** Lines grow with the piece, but not so far as to cover it. */
export const thick = (least: number, wanted: number, most: number): number => Math.max(least, Math.min(wanted, most))

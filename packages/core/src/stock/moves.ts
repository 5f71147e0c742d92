/** What each kind of move does to a lot's balance. The database keeps balances by the same table (see the first migration). */

export const moveKinds = [
  'receive',
  'correction',
  'reserve',
  'release',
  'issue',
  'sale',
  'scrap',
  'transfer',
  'return',
  'open',
  'reverse',
] as const
export type MoveKind = (typeof moveKinds)[number]

/** In the item's unit; `reserved` never exceeds `onHand`, and neither falls below 0. */
export interface Balance {
  readonly onHand: number
  readonly reserved: number
}

export interface Effect {
  readonly onHand: number
  readonly reserved: number
}

/** Kinds a person posts by hand, and which way they may go. */
export const handMoves: Readonly<Record<'receive' | 'sale' | 'scrap' | 'correction', 'in' | 'out' | 'either'>> = {
  receive: 'in',
  sale: 'out',
  scrap: 'out',
  correction: 'either',
}

/** Kinds whose effect follows from one quantity; the others say themselves what they do to each side. */
type PlainKind = 'receive' | 'correction' | 'sale' | 'scrap' | 'reserve' | 'release'

/** @param quantity above 0, except for a correction, which may be either side of it */
export function effectOf(kind: PlainKind, quantity: number): Effect {
  switch (kind) {
    case 'receive':
    case 'correction':
      return { onHand: quantity, reserved: 0 }
    case 'sale':
    case 'scrap':
      return { onHand: -quantity, reserved: 0 }
    case 'reserve':
      return { onHand: 0, reserved: quantity }
    case 'release':
      return { onHand: 0, reserved: -quantity }
  }
}

export const freeOf = (balance: Balance): number => balance.onHand - balance.reserved

/** Balances are nothing but the sum of their moves. */
export const balanceOf = (effects: readonly Effect[]): Balance =>
  effects.reduce((sum, move) => ({ onHand: sum.onHand + move.onHand, reserved: sum.reserved + move.reserved }), {
    onHand: 0,
    reserved: 0,
  })

/** The form of a pattern: its piece unfolded and ready to settle. */
import type { Bead } from '../catalogue/bead'
import type { Stone } from '../catalogue/stone'
import type { EvaluatedPattern } from '../report/evaluated-pattern'
import type { Extents } from '../report/measures'
import { extentsOf } from './extents'
import { digestOf, type KeptForms } from './kept-forms'
import { lengthen, type Shortened, shortened } from './long'
import { type Piece, pieceOf } from './piece'
import { type Seat, seatsOf } from './seat'
import { type Begin, Settling } from './settle'
import { start } from './start'

/** More beads than this are not settled. */
export const maxSettled = 12_000

export interface Form {
  readonly piece: Piece
  /** Stones and rings, with what lies against them. */
  readonly seats: readonly Seat[]
  readonly settling: Settling
  /** Of a long piece, while a few of its repeats are settled first: those. */
  meanwhile?: { readonly evaluated: EvaluatedPattern; readonly form: Form } | undefined
}

/**
 * @param kept forms that need not be computed again; the form is kept there once it is at rest
 * @param settles a few repeats of a longer piece are a part
 * @throws NoShape when a catalogue record cannot be a bead's
 */
export function beginForm(evaluated: EvaluatedPattern, kept?: KeptForms, settles: 'whole' | 'part' = 'whole'): Form {
  const { piece, seats } = pieceAndSeats(evaluated)
  const digest = kept && digestOf(piece, seats, `${evaluated.tension} ${settles}`)
  const known = digest === undefined ? undefined : kept?.get(digest)
  if (known) return { piece, seats, settling: Settling.atRest(piece, known) }
  const short = shortened(evaluated)
  const settling = new Settling(
    piece,
    evaluated.tension,
    short ? beginShort(short, () => form, kept) : start(piece, seats, settles === 'part'),
    undefined,
    settles,
  )
  const form: Form = { piece, seats, settling }
  if (kept && digest !== undefined) {
    settling.onRest = (rested) => kept.keep(digest, rested)
    settling.elsewhere = () => {
      const found = kept.get(digest)
      if (found) form.meanwhile = undefined
      return found
    }
  }
  return form
}

/** A long piece begins as a few of its repeats lie, once those are at rest; where they do not tell, as any other. */
function beginShort(short: Shortened, formOf: () => Form, kept: KeptForms | undefined): Begin {
  return function* (settling) {
    const form = formOf()
    const { piece, seats } = form
    const few = beginForm(short.few, kept, 'part')
    form.meanwhile = { evaluated: short.few, form: few }
    while (!few.settling.progress.settled && !few.settling.progress.spent) {
      few.settling.run(1)
      settling.spend(1)
      yield
    }
    form.meanwhile = undefined
    const otherwise = () => start(piece, seats)
    const lengthened = few.settling.progress.settled ? lengthen(piece, few.piece, short) : undefined
    if (!lengthened || lengthened.layouts.length === 0) return otherwise()
    return { ...lengthened, undecided: undecidedOf(few), otherwise }
  }
}

/**
 * The beads, threads and stones of a pattern, with no place yet.
 *
 * @throws NoShape when a catalogue record cannot be a bead's
 */
export function pieceAndSeats({ work, roles, letterOf }: EvaluatedPattern): Pick<Form, 'piece' | 'seats'> {
  const stoneOf = (letter: string): Stone | undefined => {
    const role = roles.get(letter)
    return role?.type === 'stone' ? role.stone : undefined
  }
  const beadOfRole = (index: number): Bead => {
    const role = roles.get(letterOf(index))
    if (role?.type !== 'bead') throw new RangeError(`Role ${index} is not a bead.`)
    return role.bead
  }
  const piece = pieceOf(work, beadOfRole)
  const seats = seatsOf(piece, stoneOf)
  piece.solids = seats.flatMap(({ solid }) => solid ?? [])
  return { piece, seats }
}

/** By what share of itself each extent of a piece at rest may come out otherwise. */
function undecidedOf({ piece, settling: { spreadMm } }: Form): Extents | undefined {
  const extents = extentsOf(piece)
  return spreadMm && [spreadMm[0] / extents[0], spreadMm[1] / extents[1], spreadMm[2] / extents[2]]
}

import type { Mm } from '../measure/units'

/** The outline of a stone seen from above. Lengths are at least widths. */
export type StoneShape =
  | { readonly shape: 'round'; readonly diameter: Mm }
  | { readonly shape: 'oval'; readonly width: Mm; readonly length: Mm }
  | { readonly shape: 'triangle'; readonly width: Mm }
  | { readonly shape: 'square'; readonly width: Mm; readonly corner: Mm }
  | { readonly shape: 'rectangle'; readonly width: Mm; readonly length: Mm; readonly corner: Mm }
  | { readonly shape: 'navette'; readonly width: Mm; readonly length: Mm }
  | { readonly shape: 'drop'; readonly width: Mm; readonly length: Mm }
  | { readonly shape: 'girth'; readonly girth: Mm }

export type StoneProfile = 'flat' | 'pointed' | 'domed' | 'bead'

export interface Stone {
  readonly outline: StoneShape
  readonly heightMm: Mm
  readonly profile: StoneProfile
}

/** How many corners the decreases of a wall must be shared between; 0 for a stone that curves all round. */
export const cornersOf = (outline: StoneShape): number =>
  outline.shape === 'square' || outline.shape === 'rectangle'
    ? 4
    : outline.shape === 'triangle'
      ? 3
      : outline.shape === 'navette'
        ? 2
        : outline.shape === 'drop'
          ? 1
          : 0

import type { Colourway } from '@tessellum/contract/colourways'
import type { Item } from '@tessellum/contract/stock'
import { type Chosen, chosenIn } from '@tessellum/core/kit/choice'
import { useMemo } from 'react'

/** What a colourway chooses for each role in a size; the same value until one of them changes. */
export const useChosen = (
  colourway: Colourway | undefined,
  size: string,
  items: readonly Item[] | undefined,
): Chosen<Item> => useMemo(() => chosenIn(colourway?.choices ?? [], size, items ?? []), [colourway, size, items])

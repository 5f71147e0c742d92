import { useQuery } from '@tanstack/react-query'
import { type Bead, beadName } from '@tessellum/core/catalogue/bead'
import { nominalBeads } from '@tessellum/core/catalogue/nominal-beads'
import { useMemo } from 'react'
import { read } from '../shop/queries'

export interface BeadChoice {
  readonly value: string
  readonly label: string
  readonly bead: Bead
}

/** Beads to size with: each maker's on the shelf, and the nominal ones. */
export function useBeadChoices(): readonly BeadChoice[] {
  const { data: items } = useQuery(read.items)
  return useMemo(() => {
    const choices = new Map<string, BeadChoice>()
    for (const bead of nominalBeads) {
      if (bead.bores === 2) continue
      choices.set(beadName(bead), { value: beadName(bead), label: `${beadName(bead)}, nominal`, bead })
    }
    for (const { bead: record, maker } of items ?? []) {
      if (!record || record.bores === 2) continue
      const { maker: _, ...figures } = record
      const value = `${beadName(record)}, ${maker}`
      choices.set(value, { value, label: value, bead: { ...figures, maker } })
    }
    return [...choices.values()].sort((a, b) => a.label.localeCompare(b.label))
  }, [items])
}

import type { Item } from '@tessellum/contract/stock'
import { roleColours } from '@tessellum/core/drawing/role-colours'
import type { Chosen } from '@tessellum/core/kit/choice'
import type { Report } from '@tessellum/core/report/report'
import { useMemo } from 'react'
import type { Dress } from '../piece/stage-kind'

/** What beads are dressed in, by role: the colourway's colours and finishes, or colours that stand for them. */
export function useDress(report: Report | undefined, chosen: Chosen<Item>): Readonly<Record<string, Dress>> {
  const roles = (report?.beads ?? []).map((bead) => bead.role).join(' ')
  return useMemo(() => {
    const nominal = Object.entries(roleColours(roles.split(' '))).map(([role, colour]) => [
      role,
      { colour, finish: '' },
    ])
    const items = Object.entries(chosen.items).map(([role, { colour, finish, category }]) => [
      category === 'stone' ? 'stone' : role,
      { colour, finish },
    ])
    return Object.fromEntries([...nominal, ...items])
  }, [roles, chosen])
}

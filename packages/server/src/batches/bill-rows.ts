import type { Batch } from '@tessellum/contract/batches'
import { perSpoken, spokenUnit } from '@tessellum/core/stock/quantity'

/** A batch's bill as the rows of a file. */
export const billRows = ({ lines, outlook }: Batch): string[][] => [
  ['pattern', 'size', 'colourway', 'kits', 'role', 'item', 'exact', 'spare', 'in a kit', 'unit', 'in all'],
  ...lines.flatMap(({ title, size, colourway, kits }, i) =>
    (outlook.lines[i]?.bill ?? []).map(({ itemId, roles, exact, spare, quantity, unit }) => [
      title,
      size,
      colourway,
      String(kits),
      roles.join(' + '),
      outlook.items.find((item) => item.itemId === itemId)?.name ?? '',
      String(exact),
      String(spare),
      String(quantity / perSpoken[unit]),
      spokenUnit[unit],
      String((quantity * kits) / perSpoken[unit]),
    ]),
  ),
]

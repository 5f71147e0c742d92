import { useQuery } from '@tanstack/react-query'
import type { Batch } from '@tessellum/contract/batches'
import { counted } from '@tessellum/core/measure/counted'
import { FigureTable } from '../frame/figure-table'
import { useMoney } from '../settings/use-shop-settings'
import { read } from '../shop/queries'

/** What the kits of a batch cost and ask, line by line. */
export function BatchCost({ batch }: { batch: Batch }) {
  const money = useMoney()
  const { data } = useQuery(read.batchPrice(batch.id))
  if (!data || batch.state === 'cancelled') return null
  return (
    <details className="sheet pad">
      <summary>
        <strong>Costs {money.say(data.cost)}</strong>, asks {money.say(data.price)}{' '}
        <span className="quiet">{data.byLots ? 'by the lots it is filled from' : 'by the packs that are bought'}</span>
      </summary>
      <FigureTable>
        <thead>
          <tr>
            <th scope="col">A kit</th>
            <th scope="col">Beads and thread</th>
            <th scope="col">Waste</th>
            <th scope="col">Bags</th>
            <th scope="col">Pattern</th>
            <th scope="col">Packing</th>
            <th scope="col">Cost</th>
            <th scope="col">Price</th>
          </tr>
        </thead>
        <tbody>
          {data.lines.map((line, i) => (
            <tr key={batch.lines[i]?.id ?? i}>
              <th scope="row">
                {batch.lines[i]?.title}, {batch.lines[i]?.colourway}
                {line.unpriced.length > 0 && <span className="trouble"> without {line.unpriced.join(', ')}</span>}
              </th>
              {[line.materials, line.waste, line.packaging, line.printing, line.packing, line.cost].map((each, n) => (
                <td key={n}>{money.say(each)}</td>
              ))}
              <td>
                <strong>{money.say(line.price)}</strong>
              </td>
            </tr>
          ))}
        </tbody>
      </FigureTable>
      {data.boughtAnew.length > 0 && (
        <p className="quiet figures">
          Buying everything in whole packs, the materials of a kit would cost{' '}
          {data.boughtAnew
            .map(({ kits, materials }) => `${money.say(materials)} for ${counted(kits, 'kit')}`)
            .join(', ')}
          .
        </p>
      )}
    </details>
  )
}

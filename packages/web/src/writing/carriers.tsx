import { useQuery } from '@tanstack/react-query'
import { counted } from '@tessellum/core/measure/counted'
import { Link } from 'react-router'
import { BatchState } from '../kits/batch-state'
import { read } from '../shop/queries'

/** The batches whose kits carry a version. */
export function Carriers({ patternId, number }: { patternId: number; number: number }) {
  const { data } = useQuery(read.carriers(patternId, number))
  if (!data) return null
  if (data.length === 0) return <p className="quiet">No batch carries version {number}.</p>
  return (
    <div className="notice">
      <p>Version {number} is in the kits of:</p>
      <ul aria-label={`Batches with version ${number}`}>
        {data.map(({ id, name, kits, state }) => (
          <li key={id}>
            <Link to={`/kits/${id}`}>{name}</Link>, {counted(kits, 'kit')} <BatchState state={state} />
          </li>
        ))}
      </ul>
    </div>
  )
}

import { useQuery } from '@tanstack/react-query'
import type { ClassAnswer } from '@tessellum/contract/classes'
import { counted } from '@tessellum/core/measure/counted'
import { Form } from 'antd'
import dayjs, { type Dayjs } from 'dayjs'
import { read } from '../shop/queries'

/** In the form of a class that is there: what its batch makes of the day that has been chosen, before it is saved. */
export function ClassMoveNotice({ offered: { id, heldOn, batchId } }: { offered: ClassAnswer }) {
  const chosen = Form.useWatch<Dayjs | undefined>('day')?.format('YYYY-MM-DD') ?? heldOn
  const moved = chosen !== heldOn
  const { data } = useQuery({ ...read.classMove(id, chosen), enabled: moved })
  if (!moved || !data) return null
  const { packBy, late, clashes } = data
  const says = (day: string) => dayjs(day).format('D MMMM')
  return (
    <div className={`notice ${packBy || late.length > 0 || clashes.length > 0 ? 'trouble' : ''}`} role="status">
      {batchId !== null && <p>Its kits will be due on {says(chosen)} too.</p>}
      {packBy !== null && <p>Too late to pack in time: the kits should have been packed by {says(packBy)}.</p>}
      {late.length > 0 && (
        <>
          <p>Too late to buy {counted(late.length, 'item')} in time:</p>
          <ul>
            {late.map(({ itemId, name, orderBy }) => (
              <li key={itemId}>
                {name}: last day to order was {says(orderBy)}
              </li>
            ))}
          </ul>
        </>
      )}
      {clashes.map((each) => (
        <p key={each.id}>
          Its teacher has {each.title} at {each.beginsAt} that day.
        </p>
      ))}
    </div>
  )
}

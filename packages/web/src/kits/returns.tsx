import { useQuery, useQueryClient } from '@tanstack/react-query'
import type { BodyInput } from '@tessellum/contract/api'
import type { PackingTask } from '@tessellum/contract/packing'
import { Button, Modal } from 'antd'
import { useState } from 'react'
import { ErrorNotice } from '../frame/error-notice'
import { FigureTable } from '../frame/figure-table'
import { NumberField } from '../frame/number-field'
import { useMay } from '../people/me'
import { useUnits } from '../settings/use-units'
import { call } from '../shop/api'
import { read } from '../shop/queries'
import { useIdempotentMutation } from '../shop/use-idempotent-mutation'
import styles from './returns.module.css'

interface Held {
  readonly task: PackingTask
  readonly bag: PackingTask['bags'][number]
}

interface Kit {
  readonly lineId: number
  readonly kit: number
  readonly of: string
  readonly held: readonly Held[]
}

/** What comes back of kits that were issued: a whole one, or what was left in its bags. */
export function Returns({ batchId }: { batchId: number }) {
  const units = useUnits()
  const mayPack = useMay('batches.pack')
  const { data } = useQuery(read.packing(batchId))
  const [chosen, setChosen] = useState<string>()
  if (!data || data.tasks.length === 0) return null
  const kits = new Map<string, Kit & { held: Held[] }>()
  for (const task of data.tasks)
    for (const bag of task.bags) {
      const key = `${bag.lineId} ${bag.kit}`
      const kit = kits.get(key) ?? { lineId: bag.lineId, kit: bag.kit, of: bag.of, held: [] }
      kit.held.push({ task, bag })
      kits.set(key, kit)
    }
  const open = chosen === undefined ? undefined : kits.get(chosen)
  return (
    <section className="rows" aria-label="Kits">
      <div className="panel-head">
        <h2>Kits</h2>
      </div>
      <FigureTable>
        <tbody>
          {[...kits].map(([key, kit]) => {
            const back = kit.held.filter(({ bag }) => bag.returned > 0)
            const all = kit.held.every(({ bag }) => bag.returned === bag.filled)
            return (
              <tr key={key}>
                <th scope="row">
                  Kit {kit.kit}, {kit.of}
                </th>
                <td>
                  {all
                    ? 'came back whole'
                    : back.length > 0
                      ? `came back: ${back.map(({ task, bag }) => `${units.quantity(bag.returned, task.unit)} of ${bag.roles}`).join(', ')}`
                      : ''}
                </td>
                <td>
                  {mayPack && !all && (
                    <Button
                      size="small"
                      onClick={() => setChosen(key)}
                      aria-label={`Something came back of kit ${kit.kit}, ${kit.of}`}
                    >
                      Came back
                    </Button>
                  )}
                </td>
              </tr>
            )
          })}
        </tbody>
      </FigureTable>
      {open && <CameBack key={chosen} batchId={batchId} kit={open} close={() => setChosen(undefined)} />}
    </section>
  )
}

function CameBack({ batchId, kit, close }: { batchId: number; kit: Kit; close: () => void }) {
  const units = useUnits()
  const client = useQueryClient()
  const [typed, setTyped] = useState<Readonly<Record<number, number | null>>>({})
  const give = useIdempotentMutation(
    (body: BodyInput<'POST /api/batches/:id/returns'>) =>
      call('POST /api/batches/:id/returns', { params: { id: batchId }, body }),
    {
      of: `packing ${batchId}`,
      stale: ['stock', 'batches'],
      said: 'Back in its lots.',
      after: (answer) => {
        client.setQueryData(read.packing(batchId).queryKey, answer)
        close()
      },
    },
  )
  const { lineId, kit: number } = kit
  const quantities = kit.held.flatMap(({ task }) => {
    const amount = typed[task.itemId]
    return amount ? [{ itemId: task.itemId, quantity: units.recorded(amount, task.unit) }] : []
  })
  return (
    <Modal
      open
      title={`Kit ${number}, ${kit.of}`}
      onCancel={close}
      footer={[
        <Button key="whole" loading={give.busy} onClick={() => give.run({ lineId, kit: number, whole: true })}>
          The whole kit, unopened
        </Button>,
        <Button
          key="sold"
          loading={give.busy}
          onClick={() => give.run({ lineId, kit: number, whole: true, sold: true })}
        >
          The whole kit, from a customer
        </Button>,
        <Button
          key="part"
          type="primary"
          disabled={quantities.length === 0}
          loading={give.busy}
          onClick={() => give.run({ lineId, kit: number, quantities })}
        >
          Record return
        </Button>,
      ]}
    >
      <p className="quiet">What was left goes back into the lot it came from.</p>
      {kit.held.map(({ task, bag }) => (
        <div key={task.itemId} className={`hands ${styles.bag}`}>
          <span>
            <strong>{bag.roles}</strong> {task.name} <span className="quiet">lot {task.lotCode}</span>
          </span>
          <NumberField
            aria-label={`Came back of ${bag.roles}, ${units.word[task.unit]}`}
            min={0}
            max={units.typed((bag.filled ?? 0) - bag.returned, task.unit)}
            value={typed[task.itemId] ?? null}
            onChange={(value) => setTyped({ ...typed, [task.itemId]: value })}
            suffix={units.word[task.unit]}
            className={styles.figure ?? ''}
          />
        </div>
      ))}
      <ErrorNotice error={give.refused} />
    </Modal>
  )
}

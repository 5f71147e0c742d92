import type { Batch } from '@tessellum/contract/batches'
import { Button, DatePicker, Modal, Segmented } from 'antd'
import dayjs from 'dayjs'
import { useState } from 'react'
import { ErrorNotice } from '../frame/error-notice'
import { call } from '../shop/api'
import { useIdempotentMutation } from '../shop/use-idempotent-mutation'
import styles from './turn.module.css'

export const turnWords: Readonly<Record<number, string>> = { 1: 'goes first', 2: 'in its turn', 3: 'goes last' }

/** When a batch is due, and whether it goes before others where they compete. */
export function Turn({ batch, settle }: { batch: Batch; settle: (answer: Batch) => void }) {
  const [open, setOpen] = useState(false)
  const [dueOn, setDueOn] = useState(batch.dueOn)
  const [priority, setPriority] = useState(batch.priority)
  const save = useIdempotentMutation(
    (body: { dueOn: string; priority: number }) => call('PUT /api/batches/:id', { params: { id: batch.id }, body }),
    {
      after: (answer) => {
        settle(answer)
        setOpen(false)
      },
    },
  )
  const begin = () => {
    // As it is now: somebody else may have changed it since the page was opened.
    setDueOn(batch.dueOn)
    setPriority(batch.priority)
    setOpen(true)
  }
  return (
    <>
      <Button onClick={begin}>Due date and priority</Button>
      <Modal
        open={open}
        title={`When ${batch.name} is due`}
        okText="Save"
        onCancel={() => setOpen(false)}
        onOk={() => save.run({ dueOn, priority })}
        confirmLoading={save.busy}
      >
        <DatePicker
          aria-label="Due"
          format="dddd, D MMMM YYYY"
          allowClear={false}
          value={dayjs(dueOn)}
          onChange={(day) => day && setDueOn(day.format('YYYY-MM-DD'))}
          className={styles.due ?? ''}
        />
        <p className="quiet">Where batches compete for the same beads it</p>
        <Segmented
          aria-label="Turn"
          value={priority}
          onChange={setPriority}
          options={[1, 2, 3].map((value) => ({ value, label: turnWords[value] }))}
        />
        <div className={styles.below}>
          <ErrorNotice error={save.refused} />
        </div>
      </Modal>
    </>
  )
}

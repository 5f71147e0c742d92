import type { Batch } from '@tessellum/contract/batches'
import { counted } from '@tessellum/core/measure/counted'
import { Button } from 'antd'
import { ErrorNotice } from '../frame/error-notice'
import { useMay } from '../people/me'
import { call } from '../shop/api'
import { useIdempotentMutation } from '../shop/use-idempotent-mutation'
import styles from './batch-papers.module.css'

const laidOut: ReadonlySet<Batch['state']> = new Set(['reserved', 'packing', 'packed', 'closed'])

/** A batch on paper and as files: its labels, and its bill for a spreadsheet. */
export function BatchPapers({ batch }: { batch: Batch }) {
  const mayPack = useMay('batches.pack')
  const print = useIdempotentMutation(
    (of: 'kits' | 'bags' | 'both') => call('POST /api/batches/:id/labels', { params: { id: batch.id }, body: { of } }),
    { said: ({ printed }) => `${counted(printed, 'label')} printed.` },
  )
  return (
    <section className="sheet pad" aria-label="Papers">
      <div className="hands">
        <strong>On paper</strong>
        {laidOut.has(batch.state) && mayPack && (
          <>
            <Button size="small" onClick={() => print.run('kits')} loading={print.busy && print.doing === 'kits'}>
              Print kit labels
            </Button>
            <Button size="small" onClick={() => print.run('bags')} loading={print.busy && print.doing === 'bags'}>
              Print bag labels
            </Button>
          </>
        )}
        {laidOut.has(batch.state) && (
          <a href={`/api/batches/${batch.id}/labels.pdf`} target="_blank" rel="noreferrer">
            Labels as sheets, PDF
          </a>
        )}
        <a href={`/api/batches/${batch.id}/file?format=csv`} download>
          Bill as CSV
        </a>
        <a href={`/api/batches/${batch.id}/file?format=xlsx`} download>
          Bill as XLSX
        </a>
      </div>
      {print.refused && (
        <div className={styles.below}>
          <ErrorNotice error={print.refused} />
        </div>
      )}
    </section>
  )
}

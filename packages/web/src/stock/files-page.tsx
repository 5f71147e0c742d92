import type { StockFileOutcome } from '@tessellum/contract/stock-file'
import { counted } from '@tessellum/core/measure/counted'
import { Button, Upload } from 'antd'
import { useState } from 'react'
import { Link } from 'react-router'
import { ErrorNotice } from '../frame/error-notice'
import { FigureTable } from '../frame/figure-table'
import { PageHead } from '../frame/page-head'
import { usePageTitle } from '../frame/page-title'
import { useMay } from '../people/me'
import { call } from '../shop/api'
import { useIdempotentMutation } from '../shop/use-idempotent-mutation'
import styles from './files-page.module.css'

/** The shelf as a file: out, and in again with all it would do told before it is done. */
export function StockFilesPage() {
  usePageTitle('Files of stock')
  const mayKeep = useMay('stock.keep')
  const [file, setFile] = useState<File>()
  const [outcome, setOutcome] = useState<StockFileOutcome>()
  const preview = useIdempotentMutation((chosen: File) => call('POST /api/stock/file/preview', { file: chosen }), {
    after: setOutcome,
  })
  const take = useIdempotentMutation((chosen: File) => call('POST /api/stock/file', { file: chosen }), {
    stale: ['stock', 'batches', 'buy-list'],
    said: ({ done }) => (done ? 'File imported.' : 'Nothing has been changed.'),
    after: setOutcome,
  })
  return (
    <div className="page stack">
      <PageHead title="Files of stock">
        <Link to="/stock">All stock</Link>
      </PageHead>
      <section className="sheet pad">
        <h2>Out</h2>
        <p className="quiet">
          Every item and lot, with what lies in it. The same file can be imported again, here or in another shop.
        </p>
        <div className="hands">
          <a href="/api/stock/file?format=csv" download>
            Stock as CSV
          </a>
          <a href="/api/stock/file?format=xlsx" download>
            Stock as XLSX
          </a>
        </div>
      </section>
      {mayKeep && (
        <section className="sheet pad" aria-label="In">
          <h2>In</h2>
          <p className="quiet">
            CSV or XLSX, with the column heads of the file above. You see a preview first. Nothing is imported until you
            confirm, and nothing at all if a row has an error. Quantities of lots that are here already do not change.
          </p>
          <Upload.Dragger
            accept=".csv,.xlsx,.txt"
            maxCount={1}
            showUploadList={false}
            beforeUpload={(chosen) => {
              setFile(chosen)
              setOutcome(undefined)
              take.forget()
              preview.run(chosen)
              return false
            }}
          >
            <p>{file ? file.name : 'Drop a file here, or press to choose one'}</p>
          </Upload.Dragger>
          <div className={`stack ${styles.below}`}>
            {preview.busy && <p role="status">Reading it row by row…</p>}
            <ErrorNotice error={preview.refused ?? take.refused} />
            {outcome && file && <Outcome outcome={outcome} busy={take.busy} take={() => take.run(file)} />}
          </div>
        </section>
      )}
    </div>
  )
}

function Outcome({ outcome, busy, take }: { outcome: StockFileOutcome; busy: boolean; take: () => void }) {
  const { faults, moreFaults, newItems, changedItems, newLots, otherQuantities, sameItems, rows, done } = outcome
  const nothing = newItems.length + changedItems.length + newLots.length === 0
  if (faults.length > 0)
    return (
      <>
        <p className="notice trouble" role="alert">
          {counted(faults.length + moreFaults, 'error')} in {counted(rows, 'row')}: nothing is imported. Fix them in the
          file and choose it again.
        </p>
        <FigureTable words>
          <thead>
            <tr>
              <th scope="col">Row</th>
              <th scope="col">Column</th>
              <th scope="col">What is wrong</th>
            </tr>
          </thead>
          <tbody>
            {faults.map(({ row, column, message }, i) => (
              <tr key={i}>
                <td className="figures">{row}</td>
                <td>{column}</td>
                <td>{message}</td>
              </tr>
            ))}
          </tbody>
        </FigureTable>
      </>
    )
  return (
    <>
      <p className={done ? 'notice good' : 'notice'} role="status">
        {done ? 'Done: ' : `${counted(rows, 'row')}, no errors. This would bring: `}
        {counted(newItems.length, 'new item')}, {counted(newLots.length, 'new lot')},{' '}
        {counted(changedItems.length, 'changed item')}; {counted(sameItems, 'stays as it is', 'stay as they are')}.
      </p>
      <Told title="New items" lines={newItems} />
      <Told title="New lots" lines={newLots} />
      <Told
        title="Changed"
        lines={changedItems.flatMap(({ code, changes }) => changes.map((each) => `${code}, ${each}`))}
      />
      <Told title="Left as the ledger has it; count the place if the file is right" lines={otherQuantities} />
      {!done && (
        <Button type="primary" size="large" onClick={take} loading={busy} disabled={nothing}>
          {nothing ? 'Nothing is new in it' : 'Import'}
        </Button>
      )}
    </>
  )
}

/** More than these are only counted. */
const maxTold = 60

const Told = ({ title, lines }: { title: string; lines: readonly string[] }) =>
  lines.length > 0 ? (
    <details>
      <summary>
        {title}: {lines.length}
      </summary>
      <ul className="figures">
        {lines.slice(0, maxTold).map((line, i) => (
          <li key={i}>{line}</li>
        ))}
        {lines.length > maxTold && <li className="quiet">and {lines.length - maxTold} more</li>}
      </ul>
    </details>
  ) : null

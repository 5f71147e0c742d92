import type { RecordFileOutcome } from '@tessellum/contract/record-file'
import { counted } from '@tessellum/core/measure/counted'
import { Button, Upload } from 'antd'
import { useState } from 'react'
import { ErrorNotice } from '../frame/error-notice'
import { call } from './api'
import { useIdempotentMutation } from './use-idempotent-mutation'

interface RecordFileProps {
  readonly of: 'customers' | 'suppliers'
  /** Which of them are the same. */
  readonly same: string
}

/** More faults than these are only counted. */
const maxTold = 40

/** Customers or suppliers from a file; what it would do is told first. */
export function RecordFile({ of, same }: RecordFileProps) {
  const [file, setFile] = useState<File>()
  const [outcome, setOutcome] = useState<RecordFileOutcome>()
  const preview = useIdempotentMutation(
    (chosen: File) =>
      of === 'customers'
        ? call('POST /api/customers/file/preview', { file: chosen })
        : call('POST /api/suppliers/file/preview', { file: chosen }),
    { after: setOutcome },
  )
  const take = useIdempotentMutation(
    (chosen: File) =>
      of === 'customers'
        ? call('POST /api/customers/file', { file: chosen })
        : call('POST /api/suppliers/file', { file: chosen }),
    { stale: [of], after: setOutcome },
  )
  return (
    <details>
      <summary>Bring in {of} from a file</summary>
      <p className="quiet">
        CSV or XLSX with the heads of the file above; only "name" must be there. {same} Nothing is imported until you
        confirm.
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
      <ErrorNotice error={preview.refused ?? take.refused} />
      {outcome && outcome.faults.length > 0 && (
        <ul className="notice trouble" role="alert" aria-label="Errors in the file">
          {outcome.faults.slice(0, maxTold).map(({ row, column, message }, i) => (
            <li key={i}>
              Row {row}, {column}: {message}
            </li>
          ))}
          {outcome.faults.length > maxTold && <li>and {outcome.faults.length - maxTold} more</li>}
        </ul>
      )}
      {outcome && outcome.faults.length === 0 && (
        <p className={outcome.done ? 'notice good' : 'notice'} role="status">
          {outcome.done ? 'Done: ' : `${counted(outcome.rows, 'row')}, no errors. This would bring: `}
          {outcome.added} new, {outcome.changed} changed; {outcome.same} stay as they are.
        </p>
      )}
      {file && outcome && !outcome.done && outcome.faults.length === 0 && (
        <Button type="primary" loading={take.busy} onClick={() => take.run(file)}>
          Import
        </Button>
      )}
    </details>
  )
}

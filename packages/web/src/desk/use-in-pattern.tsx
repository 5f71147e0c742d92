import { useQuery } from '@tanstack/react-query'
import { Button, Select } from 'antd'
import { useState } from 'react'
import { useNavigate } from 'react-router'
import { NotationLines } from '../patterns/notation-lines'
import { useMay } from '../people/me'
import { read } from '../shop/queries'
import styles from './use-in-pattern.module.css'

/** Writes an answer's lines at the end of a pattern's draft, where they can be changed before anything is kept. */
export function UseInPattern({ lines }: { lines: readonly string[] }) {
  const mayWrite = useMay('patterns.write')
  const navigate = useNavigate()
  const { data: patterns } = useQuery(read.patterns)
  const [pattern, setPattern] = useState<number>()
  return (
    <div>
      <NotationLines lines={lines} />
      {mayWrite && (
        <div className="hands">
          <Select
            aria-label="Pattern"
            placeholder="Pattern"
            showSearch
            optionFilterProp="label"
            className={styles.pattern ?? ''}
            value={pattern}
            onChange={setPattern}
            options={(patterns ?? []).map(({ id, title }) => ({ value: id, label: title }))}
          />
          <Button
            disabled={pattern === undefined}
            onClick={() => void navigate(`/patterns/${pattern}`, { state: { lines } })}
          >
            Use in this pattern
          </Button>
        </div>
      )}
    </div>
  )
}

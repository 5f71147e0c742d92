import type { Edition } from '@tessellum/contract/editions'
import { reconcile, sayFinding } from '@tessellum/core/kit/reconcile'
import { Input } from 'antd'
import { useMemo, useState } from 'react'
import { Finding, Findings } from '../frame/findings'
import { useEvaluated } from '../patterns/use-evaluated'
import styles from './reconcile.module.css'

/** A materials list written by hand, held against what the steps really use. */
export function Reconcile({ edition }: { edition: Edition }) {
  const [list, setList] = useState('')
  const choices = useMemo(() => ({ size: edition.size }), [edition.size])
  const { now } = useEvaluated(edition.source, choices)
  const found = useMemo(() => (now && list.trim() ? reconcile(now, list) : []), [now, list])
  return (
    <details className={styles.reconcile}>
      <summary>Compare a materials list of your own</summary>
      <Input.TextArea
        aria-label="Your materials list"
        rows={4}
        placeholder={'63 cylinder 11/0 A\n0.3 g round 15/0 C\n1 stone'}
        value={list}
        onChange={(event) => setList(event.target.value)}
      />
      <Findings label="Materials list compared">
        {found.map((finding) => (
          <Finding key={sayFinding(finding)} tone={finding.type === 'agrees' ? 'good' : 'trouble'}>
            {sayFinding(finding)}
          </Finding>
        ))}
      </Findings>
    </details>
  )
}

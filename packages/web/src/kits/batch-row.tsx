import { RightOutlined } from '@ant-design/icons'
import type { Competing, ListedBatch } from '@tessellum/contract/batches'
import { counted } from '@tessellum/core/measure/counted'
import { Progress } from 'antd'
import { RowDay, RowLink } from '../frame/row-link'
import { DrawnPlate } from '../patterns/drawn-plate'
import { doneShare, isShort } from './batch-list'
import { BatchState } from './batch-state'
import styles from './batches.module.css'

interface BatchRowProps {
  readonly batch: ListedBatch
  /** How far the shelf goes for it, where it is a draft. */
  readonly draft: Competing[number] | undefined
}

/** A batch in the list: when, what, how far it has come. */
export function BatchRow({ batch, draft }: BatchRowProps) {
  const { id, dueOn, name, patterns, kits, state, drawing } = batch
  return (
    <RowLink className={styles.row} to={`/kits/${id}`}>
      <RowDay on={dueOn} />
      <DrawnPlate title={patterns[0] ?? ''} drawing={drawing} />
      <span>
        <strong>{name}</strong>
        <br />
        <span className="quiet">{patterns.join(', ')}</span>
      </span>
      <HowFar batch={batch} draft={draft} />
      <span className="figures">
        <strong>{kits}</strong> {kits === 1 ? 'kit' : 'kits'}
      </span>
      <span>
        <BatchState state={state} />
      </span>
      <RightOutlined aria-hidden />
    </RowLink>
  )
}

function HowFar({ batch, draft }: BatchRowProps) {
  const share = doneShare(batch, draft)
  if (share === undefined) return <span />
  const short = isShort(draft)
  return (
    <span>
      <Progress
        className={styles.progress ?? ''}
        percent={100 * share}
        showInfo={false}
        size="small"
        aria-hidden
        strokeColor={short ? 'var(--brick)' : 'var(--green)'}
      />
      <span className={short ? 'trouble' : 'quiet'}>{said(batch, draft)}</span>
    </span>
  )
}

function said({ bags }: ListedBatch, draft: Competing[number] | undefined): string {
  if (!draft)
    return bags.filled === bags.of
      ? `all ${counted(bags.of, 'bag')} filled`
      : `${bags.filled} of ${counted(bags.of, 'bag')} filled`
  if (draft.kits >= draft.wanted) return 'on the shelf'
  const by = draft.limitedBy.length > 0 ? `, short of ${draft.limitedBy.join(', ')}` : ''
  return `shelf for ${draft.kits} of ${draft.wanted}${by}`
}

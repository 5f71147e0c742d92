import { DeleteOutlined } from '@ant-design/icons'
import { useQuery } from '@tanstack/react-query'
import { type BatchLine, batchLine, maxKits } from '@tessellum/contract/batches'
import { Button, Select } from 'antd'
import { useEffect } from 'react'
import { Link } from 'react-router'
import { NumberField } from '../frame/number-field'
import { useEvaluated } from '../patterns/use-evaluated'
import { read } from '../shop/queries'
import styles from './line-form.module.css'

export type LineFields = { readonly [Field in keyof BatchLine]?: BatchLine[Field] | undefined }

/**
 * @param next what becomes of the line as it is by then, which may be newer than it was rendered
 * @param byItself what is meant most often was filled in, and nobody typed it
 */
export type ChangeLine = (next: (before: LineFields) => LineFields, byItself?: boolean) => void

/** Whether it says all that a line needs. */
export const isWhole = (line: LineFields): boolean => batchLine.safeParse(line).success

const noChoices = {}

/** What another pattern leaves nothing of. */
const ofPattern: LineFields = {
  version: undefined,
  size: undefined,
  colourwayId: undefined,
  colourwayVersion: undefined,
}

/** A line of a batch: a pattern's version in a size and a colourway, and how many. */
export function LineForm({
  line,
  change,
  remove,
  kitsLabel = 'Kits',
  withKits = true,
}: {
  line: LineFields
  change: ChangeLine
  remove: (() => void) | undefined
  /** What the number says. */
  kitsLabel?: string
  /** How many is not asked. */
  withKits?: boolean
}) {
  const { data: patterns } = useQuery(read.patterns)
  const { data: pattern } = useQuery({ ...read.pattern(line.patternId ?? 0), enabled: line.patternId !== undefined })
  const { data: version } = useQuery({
    ...read.version(line.patternId ?? 0, line.version ?? 0),
    enabled: line.patternId !== undefined && line.version !== undefined,
  })
  const { data: colourways } = useQuery({
    ...read.colourways(line.patternId ?? 0),
    enabled: line.patternId !== undefined,
  })
  const { now } = useEvaluated(version?.source, noChoices)
  const sizes = version && now ? now.sizes : []

  // The newest version, its usual size and the first colourway are what is meant most often.
  useEffect(() => {
    if (!pattern || line.patternId !== pattern.id) return
    const fillIn = (usual: LineFields) =>
      change((before) => (before.patternId === pattern.id ? { ...before, ...usual } : before), true)
    if (line.version === undefined && pattern.version) fillIn({ version: pattern.version })
    else if (line.colourwayId === undefined && colourways?.[0]) fillIn({ colourwayId: colourways[0].id })
    else if (line.size === undefined && version && now && version.number === line.version) fillIn({ size: now.size })
  }, [pattern, version, now, colourways, line, change])

  const set = (changed: LineFields) => change((before) => ({ ...before, ...changed }))
  const wrong =
    line.kits === undefined ? undefined : batchLine.shape.kits.safeParse(line.kits).error?.issues[0]?.message
  return (
    <fieldset className={styles.form}>
      <legend className="visually-hidden">A line of the batch</legend>
      <Labelled label="Pattern">
        <Select
          aria-label="Pattern"
          showSearch={{ optionFilterProp: 'label' }}
          placeholder="Choose"
          value={line.patternId ?? null}
          onChange={(patternId) => set({ ...ofPattern, patternId: patternId ?? undefined })}
          options={(patterns ?? [])
            .filter((each) => each.version)
            .map((each) => ({ value: each.id, label: each.title }))}
        />
      </Labelled>
      <Labelled label="Version">
        <Select
          aria-label="Version"
          value={line.version ?? null}
          onChange={(next) => set({ version: next ?? undefined })}
          options={(pattern?.versions ?? []).map((each) => ({
            value: each.number,
            label: String(each.number),
            title: each.name,
          }))}
        />
      </Labelled>
      <Labelled label="Size">
        {version && now && sizes.length === 0 ? (
          <span className={styles.beside}>one size</span>
        ) : (
          <Select
            aria-label="Size"
            loading={line.version !== undefined && !now}
            value={line.size ?? null}
            onChange={(size) => set({ size: size ?? undefined })}
            options={sizes.map((size) => ({ value: size, label: size }))}
          />
        )}
      </Labelled>
      <Labelled label="Colourway">
        <Select
          aria-label="Colourway"
          value={line.colourwayId ?? null}
          onChange={(colourwayId) => set({ colourwayId: colourwayId ?? undefined, colourwayVersion: undefined })}
          options={(colourways ?? []).map((each) => ({ value: each.id, label: each.name }))}
        />
      </Labelled>
      {withKits && (
        <Labelled label={kitsLabel}>
          <NumberField
            aria-label={kitsLabel}
            value={line.kits ?? null}
            {...(wrong ? { status: 'error' as const } : {})}
            onChange={(kits) => set({ kits: kits ?? undefined })}
          />
        </Labelled>
      )}
      <span className={styles.remove}>
        {remove && <Button aria-label="Take this line away" icon={<DeleteOutlined />} onClick={remove} />}
      </span>
      {colourways?.length === 0 && (
        <span className={`trouble ${styles.across}`} role="status">
          This pattern has no colourway yet. <Link to={`/patterns/${line.patternId}/colours`}>Make one</Link> first.
        </span>
      )}
      {wrong && (
        <span className={`trouble ${styles.across}`} role="alert">
          {wrong} {line.kits !== undefined && line.kits > maxKits ? 'Share them between several batches.' : ''}
        </span>
      )}
    </fieldset>
  )
}

// The control carries the same words as its name, so the label is for the eye only.
const Labelled = ({ label, children }: { label: string; children: React.ReactNode }) => (
  <div>
    <div className="quiet" aria-hidden="true">
      {label}
    </div>
    {children}
  </div>
)

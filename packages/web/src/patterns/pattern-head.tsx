import type { Colourway } from '@tessellum/contract/colourways'
import type { Pattern } from '@tessellum/contract/patterns'
import { Segmented } from 'antd'
import { memo } from 'react'
import { NamedSwitch } from '../frame/named-switch'
import { PageHead } from '../frame/page-head'
import { ColourwaySelect } from './colourway-select'
import { KeepVersion } from './keep-version'
import { PatternNav } from './pattern-nav'
import styles from './pattern-page.module.css'

interface PatternHeadProps {
  readonly pattern: Pattern
  readonly title: string
  /** How far the text has been saved, in words. */
  readonly draftState: string
  readonly size: string
  readonly sizes: readonly string[]
  readonly options: Readonly<Record<string, boolean>>
  readonly set: (name: string, value: string) => void
  readonly setOption: (name: string, to: boolean) => void
  readonly colourways: readonly Colourway[] | undefined
  readonly colourway: Colourway | undefined
  /** Undefined for who may only look. */
  readonly save: (() => Promise<number | undefined>) | undefined
  readonly errors: number
}

/** Title, how far the text is saved, size, colourway and options. */
export function PatternHead({ title, draftState, ...choices }: PatternHeadProps) {
  const { pattern, size, colourway } = choices
  return (
    <>
      <Pages id={pattern.id} size={size} colourway={colourway?.id} />
      <PageHead
        title={title}
        beside={
          <span className="quiet" role="status">
            {draftState}
            {pattern.version
              ? `, version ${pattern.version} kept${pattern.changed ? ', changed since' : ''}`
              : ', no version kept yet'}
          </span>
        }
        className={styles.head}
      >
        <Choices {...choices} />
      </PageHead>
    </>
  )
}

// Memoized: most keys that are typed change none of these.
const Pages = memo(function Pages({
  id,
  size,
  colourway,
}: {
  readonly id: number
  readonly size: string
  readonly colourway: number | undefined
}) {
  return <PatternNav id={id} chosen={{ size, colourway: colourway === undefined ? undefined : String(colourway) }} />
})

const Choices = memo(function Choices({
  pattern,
  size,
  sizes,
  options,
  set,
  setOption,
  colourways,
  colourway,
  save,
  errors,
}: Omit<PatternHeadProps, 'title' | 'draftState'>) {
  return (
    <>
      {sizes.length > 1 && (
        <Segmented
          aria-label="Size"
          value={size}
          options={[...sizes]}
          onChange={(value) => set('size', String(value))}
        />
      )}
      <ColourwaySelect colourways={colourways} chosen={colourway} set={set} />
      {Object.entries(options).map(([name, is]) => (
        <NamedSwitch key={name} name={name} on={is} change={(to) => setOption(name, to)} />
      ))}
      {save && <KeepVersion pattern={pattern} save={save} errors={errors} />}
    </>
  )
})

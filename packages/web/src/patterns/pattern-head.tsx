import type { Colourway } from '@tessellum/contract/colourways'
import type { Pattern } from '@tessellum/contract/patterns'
import { Segmented } from 'antd'
import { memo } from 'react'
import { NamedSwitch } from '../frame/named-switch'
import { PageHead } from '../frame/page-head'
import { ColourwaySelect } from './colourway-select'
import type { Draft, DraftState } from './draft'
import { KeepVersion } from './keep-version'
import { PatternNav } from './pattern-nav'
import styles from './pattern-page.module.css'
import { useOfDraft } from './use-draft'

interface PatternHeadProps {
  readonly pattern: Pattern
  readonly draft: Draft
  /** As the text has it. */
  readonly title: string
  readonly size: string
  readonly sizes: readonly string[]
  readonly options: Readonly<Record<string, boolean>>
  readonly set: (name: string, value: string) => void
  readonly setOption: (name: string, to: boolean) => void
  readonly colourways: readonly Colourway[] | undefined
  readonly colourway: Colourway | undefined
  readonly mayWrite: boolean
  readonly errors: number
}

const states: Readonly<Record<DraftState, string>> = {
  saved: 'Draft saved',
  typing: 'Typing...',
  saving: 'Saving...',
  'kept here': 'Not saved yet: kept in this browser',
  'moved on': 'Somebody else saved this pattern: your text is kept here, not saved',
}

/** Title, how far the text is saved, size, colourway and options. */
export function PatternHead({ pattern, draft, title, mayWrite, errors, ...choices }: PatternHeadProps) {
  const { size, colourway } = choices
  return (
    <>
      <Pages id={pattern.id} size={size} colourway={colourway?.id} />
      <PageHead
        title={title}
        beside={
          <span className="quiet" role="status">
            {mayWrite ? <HowFarSaved draft={draft} /> : 'Read only'}
            {pattern.version
              ? `, version ${pattern.version} kept${pattern.changed ? ', changed since' : ''}`
              : ', no version kept yet'}
          </span>
        }
        className={styles.head}
      >
        <Choices {...choices} />
        {mayWrite && <KeepVersion pattern={pattern} save={draft.save} errors={errors} />}
      </PageHead>
    </>
  )
}

const HowFarSaved = ({ draft }: { readonly draft: Draft }) => states[useOfDraft(draft, ({ state }) => state)]

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
  size,
  sizes,
  options,
  set,
  setOption,
  colourways,
  colourway,
}: Pick<PatternHeadProps, 'size' | 'sizes' | 'options' | 'set' | 'setOption' | 'colourways' | 'colourway'>) {
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
    </>
  )
})

import { useQuery } from '@tanstack/react-query'
import type { Pattern } from '@tessellum/contract/patterns'
import { sayExtents, soundForm } from '@tessellum/core/report/form-report'
import type { Report } from '@tessellum/core/report/report'
import { Segmented, Select } from 'antd'
import dayjs from 'dayjs'
import { diffLines } from 'diff'
import { useMemo } from 'react'
import { useParams } from 'react-router'
import { FigureTable, meantRow } from '../frame/figure-table'
import { Loading } from '../frame/loading'
import { PageHead } from '../frame/page-head'
import { PageLoading } from '../frame/page-loading'
import { usePageTitle } from '../frame/page-title'
import { Trouble } from '../frame/trouble'
import { Drawing } from '../piece/drawing'
import { type Formed, useFormed } from '../piece/use-formed'
import { useUnits } from '../settings/use-units'
import { read } from '../shop/queries'
import { Carriers } from '../writing/carriers'
import { PatternNav } from './pattern-nav'
import plateStyles from './side-by-side-plates.module.css'
import { useDress } from './use-dress'
import { useShown } from './use-shown'
import styles from './versions.module.css'

export function VersionsPage() {
  const id = Number(useParams().id)
  const { data, error } = useQuery(read.pattern(id))
  if (error && !data) return <Trouble error={error} />
  return data ? <Versions key={id} pattern={data} /> : <PageLoading what="Fetching the pattern" />
}

const draft = 'draft'

/** Two versions against each other: their text, their counts and their pictures. Kept versions never change. */
function Versions({ pattern }: { pattern: Pattern }) {
  usePageTitle(`Versions of ${pattern.title}`)
  const shown = useShown(pattern)
  const { params, set, chosen, choices, colourway, size } = shown
  const newest = pattern.versions[0]?.number
  const before = params.get('before') ?? String(newest ?? draft)
  const after = params.get('after') ?? draft
  const [one, other] = [useText(pattern, before), useText(pattern, after)]
  const [oneFormed, otherFormed] = [useFormed(one, choices), useFormed(other, choices)]
  const dress = useDress(otherFormed.report ?? oneFormed.report, chosen)
  const colours = useMemo(
    () => Object.fromEntries(Object.entries(dress).map(([role, { colour }]) => [role, colour])),
    [dress],
  )
  const names = [
    ...pattern.versions.map(({ number, name, madeAt }) => ({
      value: String(number),
      label: `${number}: ${name}, ${dayjs(madeAt).format('D MMM YYYY')}`,
    })),
    { value: draft, label: pattern.changed ? 'The draft, changed since' : 'The draft' },
  ]
  const nameOf = (value: string) => (value === draft ? 'The draft' : `Version ${value}`)
  const sizes = otherFormed.report?.sizes ?? []
  return (
    <div className="page">
      <PatternNav
        id={pattern.id}
        chosen={{ size: size || otherFormed.report?.size, colourway: colourway ? String(colourway.id) : undefined }}
      />
      <PageHead title={<>{pattern.title}, its versions</>}>
        {sizes.length > 1 && (
          <Segmented
            aria-label="Size"
            value={otherFormed.report?.size ?? ''}
            options={[...sizes]}
            onChange={(value) => set('size', String(value))}
          />
        )}
      </PageHead>
      {pattern.versions.length === 0 && (
        <p className="notice">
          No version has been kept yet. In the ledger, "Save a version" names the draft and keeps it.
        </p>
      )}
      <div className={`${plateStyles.columns} ${styles.versions}`}>
        {(
          [
            { label: 'Before', value: before, name: 'before', formed: oneFormed },
            { label: 'After', value: after, name: 'after', formed: otherFormed },
          ] as const
        ).map(({ label, value, name, formed }) => (
          <article key={name} className="sheet" aria-label={`${label}: ${nameOf(value)}`}>
            <div className="panel-head">
              <h2>{label}</h2>
              <span className="spacer" />
              <Select
                aria-label={label}
                className={styles.choice ?? ''}
                value={value}
                onChange={(chosen) => set(name, chosen)}
                options={names}
              />
            </div>
            <div className={plateStyles.plate}>
              {formed.trouble ? (
                <p className="notice trouble">{formed.trouble}</p>
              ) : (
                <Drawing scene={formed.scene} colours={colours} label={`${nameOf(value)}, from the front`} />
              )}
            </div>
            <VersionNote pattern={pattern} value={value} />
          </article>
        ))}
        <section className="sheet" aria-label="Counts">
          <div className="panel-head">
            <h2>Counts</h2>
          </div>
          <Counts before={oneFormed} after={otherFormed} />
        </section>
        <section className={`sheet ${styles.text}`} aria-label="Text">
          <div className="panel-head">
            <h2>Text</h2>
          </div>
          {one !== undefined && other !== undefined ? <Diff before={one} after={other} /> : <Loading what="Fetching" />}
        </section>
      </div>
    </div>
  )
}

/** What was noted of a version; of a published one that has been corrected, by what, and who carries it. */
function VersionNote({ pattern, value }: { pattern: Pattern; value: string }) {
  const version = pattern.versions.find((each) => String(each.number) === value)
  if (!version) return <p className={`${styles.note} quiet`}>As it is being worked on.</p>
  const errata = pattern.versions.filter(({ corrects }) => corrects === version.number)
  return (
    <div className={styles.note}>
      <p>
        {version.published && <strong>Published. </strong>}
        {version.corrects !== null && `Corrects version ${version.corrects}: `}
        {version.note || <span className="quiet">Nothing was noted.</span>}
      </p>
      {errata.map(({ number, note }) => (
        <p key={number} className="trouble">
          Version {number} corrects it: {note}
        </p>
      ))}
      {errata.length > 0 && <Carriers patternId={pattern.id} number={version.number} />}
    </div>
  )
}

function useText(pattern: Pattern, which: string): string | undefined {
  const { data } = useQuery({ ...read.version(pattern.id, Number(which) || 0), enabled: which !== draft })
  return which === draft ? pattern.source : data?.source
}

interface CountRow {
  readonly name: string
  readonly of: (report: Report) => number | undefined
  readonly say: (amount: number) => string
}

function Counts({ before, after }: { before: Formed; after: Formed }) {
  const units = useUnits()
  const [one, other] = [before.report, after.report]
  if (!one || !other) return <Loading what="Settling both" />
  const roles = [...new Set([...one.beads, ...other.beads].map(({ role }) => role))]
  const rows: CountRow[] = [
    ...roles.map((role) => ({
      name: role,
      of: (report: Report) => report.beads.find((bead) => bead.role === role)?.total,
      say: String,
    })),
    { name: 'Thread, with ends', of: (report) => report.thread.totalMm, say: units.thread },
  ]
  const extents = [one, other].map((report) => {
    const form = soundForm(report)
    return form ? sayExtents(form, units.system) : 'form not sound'
  })
  return (
    <FigureTable>
      <thead>
        <tr>
          <th scope="col" />
          <th scope="col">Before</th>
          <th scope="col">After</th>
          <th scope="col">Change</th>
        </tr>
      </thead>
      <tbody>
        {rows.map(({ name, of, say }) => {
          const [a, b] = [of(one), of(other)]
          const change = (b ?? 0) - (a ?? 0)
          const none = Math.abs(change) < 0.5
          return (
            <tr key={name} className={none ? '' : meantRow}>
              <th scope="row">{name}</th>
              <td>{a === undefined ? 'none' : say(a)}</td>
              <td>{b === undefined ? 'none' : say(b)}</td>
              <td>{none ? 'same' : `${change > 0 ? '+' : '-'}${say(Math.abs(change))}`}</td>
            </tr>
          )
        })}
        <tr className={extents[0] === extents[1] ? '' : meantRow}>
          <th scope="row">Finished</th>
          <td>{extents[0]}</td>
          <td>{extents[1]}</td>
          <td>{extents[0] === extents[1] ? 'same' : ''}</td>
        </tr>
      </tbody>
    </FigureTable>
  )
}

function Diff({ before, after }: { before: string; after: string }) {
  const changes = useMemo(() => diffLines(before, after), [before, after])
  if (changes.length <= 1 && !changes[0]?.added && !changes[0]?.removed)
    return <p className="empty">The text is the same.</p>
  return (
    <pre className={styles.diff}>
      {changes.flatMap(({ value, added, removed }, i) => {
        const Line = added ? 'ins' : removed ? 'del' : 'div'
        return value
          .replace(/\n$/, '')
          .split('\n')
          .map((line, k) => (
            <Line key={`${i} ${k}`}>
              <span className={styles.mark}>{added ? '+' : removed ? '-' : ' '}</span>
              {added && <span className="visually-hidden">added: </span>}
              {removed && <span className="visually-hidden">taken away: </span>}
              {line || ' '}
            </Line>
          ))
      })}
    </pre>
  )
}

import { useQuery } from '@tanstack/react-query'
import type { Pattern } from '@tessellum/contract/patterns'
import type { Bead } from '@tessellum/core/catalogue/bead'
import { sayPercent } from '@tessellum/core/measure/units'
import type { MakerRow } from '@tessellum/core/substitute/makers'
import { Button, Segmented } from 'antd'
import { useMemo } from 'react'
import { useParams } from 'react-router'
import { computed } from '../computed'
import { FigureTable } from '../frame/figure-table'
import { Loading } from '../frame/loading'
import { PageHead } from '../frame/page-head'
import { PageLoading } from '../frame/page-loading'
import { usePageTitle } from '../frame/page-title'
import { Trouble } from '../frame/trouble'
import { useUnits } from '../settings/use-units'
import { read } from '../shop/queries'
import { PatternNav } from './pattern-nav'
import { useEvaluated } from './use-evaluated'
import { useShown } from './use-shown'

export function MakersPage() {
  const id = Number(useParams().id)
  const { data, error } = useQuery(read.pattern(id))
  if (error && !data) return <Trouble error={error} />
  return data ? <Makers key={id} pattern={data} /> : <PageLoading what="Fetching the pattern" />
}

/** What changes with each maker's bead: printed counts hold for one maker only. */
function Makers({ pattern }: { pattern: Pattern }) {
  usePageTitle(`Makers of ${pattern.title}`)
  const { choices, colourway, items, size, set } = useShown(pattern)
  const { now: report } = useEvaluated(pattern.source, choices)
  const records = useMemo(() => items && recordsOf(items), [items])
  const { data: rows, error } = useQuery(computed.makers(pattern.source, choices, records))
  return (
    <div className="page">
      <PatternNav id={pattern.id} chosen={{ size, colourway: colourway ? String(colourway.id) : undefined }} />
      <PageHead title={<>{pattern.title} by maker</>}>
        {report && report.sizes.length > 1 && (
          <Segmented
            aria-label="Size"
            value={report.size}
            options={[...report.sizes]}
            onChange={(value) => set('size', String(value))}
          />
        )}
        <Button className="no-print" onClick={() => window.print()}>
          Print
        </Button>
      </PageHead>
      <p className="quiet">
        What changes when the beads of one letter come from another maker on the shelf
        {colourway ? `, beside ${colourway.name}` : ''}, one letter at a time.
      </p>
      {error && <p className="notice trouble">{error.message}</p>}
      {!rows && !error && <Loading what="Working out each maker's beads" />}
      {rows?.length === 0 && (
        <p className="empty sheet">No other maker's beads of these kinds and sizes are on the shelf.</p>
      )}
      {rows && rows.length > 0 && (
        <div className="sheet">
          <FigureTable words top>
            <thead>
              <tr>
                <th scope="col">Letter</th>
                <th scope="col">Maker</th>
                <th scope="col">Long x wide</th>
                <th scope="col">Counts</th>
                <th scope="col">Ring on the stone</th>
                <th scope="col">Thread</th>
              </tr>
            </thead>
            <tbody>
              {rows.map((row) => (
                <Row key={`${row.role} ${row.bead.maker}`} row={row} />
              ))}
            </tbody>
          </FigureTable>
        </div>
      )}
    </div>
  )
}

function Row({ row: { role, bead, consequence } }: { row: MakerRow }) {
  const units = useUnits()
  const thread = consequence.threadMm.after - consequence.threadMm.before
  const { crowded } = consequence
  return (
    <tr>
      <th scope="row">
        {role}{' '}
        <span className="quiet">
          {bead.kind} {bead.size}
        </span>
      </th>
      <td>{bead.maker}</td>
      <td>
        {bead.lengthMm.toFixed(2)} x {bead.acrossMm.toFixed(2)} mm
      </td>
      <td>
        {consequence.counts.length === 0
          ? 'the same'
          : consequence.counts.map(({ role: each, before, after }) => (
              <div key={each}>
                {each} {before} -&gt; <strong>{after}</strong>
              </div>
            ))}
        {crowded.length > 0 && <div className="trouble">holes of {crowded.join(', ')} too full</div>}
        {consequence.faults.map((fault) => (
          <div key={fault} className="trouble">
            {fault}
          </div>
        ))}
      </td>
      <td>
        {consequence.fits.map(({ stone, after, verdict }) => (
          <div key={stone} className={verdict === 'snug' || verdict === 'loose' ? '' : 'trouble'}>
            {sayPercent(after)}, {verdict}
          </div>
        ))}
      </td>
      <td>{Math.abs(thread) < 10 ? 'the same' : `${thread > 0 ? '+' : '-'}${units.thread(Math.abs(thread))}`}</td>
    </tr>
  )
}

function recordsOf(
  items: readonly {
    readonly bead: (Omit<Bead, 'maker'> & { maker?: string | undefined }) | null
    readonly maker: string
  }[],
): Bead[] {
  const records = new Map<string, Bead>()
  for (const { bead, maker } of items) if (bead) records.set(`${bead.kind} ${bead.size} ${maker}`, { ...bead, maker })
  return [...records.values()]
}

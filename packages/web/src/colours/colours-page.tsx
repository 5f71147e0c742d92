import { useQuery } from '@tanstack/react-query'
import type { Colourway } from '@tessellum/contract/colourways'
import type { Pattern } from '@tessellum/contract/patterns'
import { asSeen, type Eye, eyes, type Light, lights } from '@tessellum/core/colour/seen'
import { roleColours } from '@tessellum/core/drawing/role-colours'
import { billOf, misfitWords, rolesToChoose, threadRole } from '@tessellum/core/kit/bill'
import { countingWords } from '@tessellum/core/sizing/counting'
import { Button, Segmented, Select } from 'antd'
import { useMemo, useState } from 'react'
import { Link, useParams, useSearchParams } from 'react-router'
import { Loading } from '../frame/loading'
import { PageHead } from '../frame/page-head'
import { PageLoading } from '../frame/page-loading'
import { usePageTitle } from '../frame/page-title'
import { Trouble } from '../frame/trouble'
import { PatternNav } from '../patterns/pattern-nav'
import { useChosen } from '../patterns/use-chosen'
import { useEvaluated } from '../patterns/use-evaluated'
import { useMay } from '../people/me'
import { Drawing } from '../piece/drawing'
import { useFormed } from '../piece/use-formed'
import { read } from '../shop/queries'
import { Swatch } from '../stock/swatch'
import styles from './colours.module.css'
import { ColourwayForm } from './colourway-form'
import { ColourJudgement } from './judgement'
import { Propose } from './propose'
import { Substitutes } from './substitutes'

export function ColoursPage() {
  const id = Number(useParams().id)
  const { data, error } = useQuery(read.pattern(id))
  if (error && !data) return <Trouble error={error} />
  return data ? <Colours pattern={data} /> : <PageLoading what="Fetching the pattern" />
}

const noChoices = {}

const eyeWords: Readonly<Record<Eye, string>> = {
  usual: 'as most eyes see',
  'red-weak': 'as eyes weak in red',
  'red-blind': 'as eyes without red',
  'green-weak': 'as eyes weak in green',
  'green-blind': 'as eyes without green',
  'blue-weak': 'as eyes weak in blue',
  'blue-blind': 'as eyes without blue',
}

/** One pattern in all its colourways, side by side. */
function Colours({ pattern }: { pattern: Pattern }) {
  usePageTitle(`Colours of ${pattern.title}`)
  const mayWrite = useMay('patterns.write')
  const { data: colourways, error } = useQuery(read.colourways(pattern.id))
  const { now } = useEvaluated(pattern.source, noChoices)
  const [editing, setEditing] = useState<Colourway | 'new'>()
  const [params] = useSearchParams()
  const [wanted, setWanted] = useState(params.get('size') ?? undefined)
  const [eye, setEye] = useState<Eye>('usual')
  const [light, setLight] = useState<Light>('daylight')
  if (error && !colourways) return <Trouble error={error} />
  if (!colourways || !now) return <Loading what="Laying out the colours" />
  const size = wanted ?? now.size
  const { sizes } = now
  return (
    <div className="page">
      <PatternNav id={pattern.id} />
      <PageHead title={<>{pattern.title} in colours</>}>
        {sizes.length > 1 && (
          <Segmented
            aria-label="Size"
            value={size}
            options={[...sizes]}
            onChange={(value) => setWanted(String(value))}
          />
        )}
        <Segmented
          aria-label="Light"
          value={light}
          options={lights.map((value) => ({
            value,
            label: value === 'daylight' ? value : 'warm light, a rough hint',
          }))}
          onChange={(value) => setLight(value as Light)}
        />
        <Select
          aria-label="Eye"
          className={styles.eye ?? ''}
          value={eye}
          onChange={setEye}
          options={eyes.map((each) => ({ value: each, label: eyeWords[each] }))}
        />
        {mayWrite && (
          <Button type="primary" onClick={() => setEditing('new')}>
            New colourway
          </Button>
        )}
      </PageHead>
      {colourways.length === 0 && (
        <div className="empty sheet">
          <h2>No colourways yet</h2>
          <p>A colourway gives each letter of the pattern a bead from the shelf.</p>
        </div>
      )}
      <div className={styles.colourways}>
        {colourways.map((colourway) => (
          <Card
            key={colourway.id}
            pattern={pattern}
            colourway={colourway}
            size={size}
            eye={eye}
            light={light}
            onEdit={mayWrite ? () => setEditing(colourway) : undefined}
          />
        ))}
      </div>
      {editing && (
        <ColourwayForm
          pattern={pattern}
          colourway={editing === 'new' ? undefined : editing}
          roles={rolesToChoose(now)}
          report={now}
          close={() => setEditing(undefined)}
        />
      )}
    </div>
  )
}

interface CardProps {
  readonly pattern: Pattern
  readonly colourway: Colourway
  readonly size: string
  readonly eye: Eye
  readonly light: Light
  readonly onEdit: (() => void) | undefined
}

function Card({ pattern, colourway, size, eye, light, onEdit }: CardProps) {
  const [params, setParams] = useSearchParams()
  const [batchId, line] = [Number(params.get('batch')), Number(params.get('line'))]
  const forLine = batchId && line ? { batchId, line } : undefined
  const asked = params.get('colourway') === String(colourway.id) ? params.get('instead') : null
  const [instead, setInstead] = useState(asked ?? undefined)
  const [proposing, setProposing] = useState(false)
  const { data: items } = useQuery(read.items)
  const chosen = useChosen(colourway, size, items)
  const choices = useMemo(() => ({ size, beads: chosen.beads, counting: chosen.counting }), [size, chosen])
  const { now } = useEvaluated(pattern.source, choices)
  const { scene, report: formed } = useFormed(pattern.source, choices)
  const report = formed ?? now
  if (!report) return <Loading what="Drawing" />
  const plain = { ...roleColours(report.beads.map((bead) => bead.role)), ...chosen.colours }
  const colours = Object.fromEntries(Object.entries(plain).map(([role, colour]) => [role, asSeen(colour, eye, light)]))
  const { misfits } = billOf(report, chosen.kit)
  const counts = new Map([...report.beads, ...report.stones].map((each) => [each.role, each.total]))
  return (
    <article className="sheet" aria-label={colourway.name}>
      <div className={styles.plate}>
        <Drawing
          scene={scene}
          colours={colours}
          finishes={chosen.finishes}
          label={`${pattern.title} in ${colourway.name}`}
        />
      </div>
      <div className={`panel-head ${styles.bare}`}>
        <h2>{colourway.name}</h2>
        <span className="quiet">version {colourway.version}</span>
        <span className="spacer" />
        {onEdit && (
          <div className="hands">
            <Button onClick={() => setProposing(true)}>Other colours</Button>
            <Button onClick={onEdit}>Change</Button>
          </div>
        )}
      </div>
      <ul className={styles.choiceList}>
        {rolesToChoose(report).map((role) => {
          const item = chosen.items[role]
          return (
            <li key={role}>
              <strong className="figures">
                {role === threadRole ? 'Thread' : role}
                <span className="quiet"> {counts.get(role) ?? ''}</span>
              </strong>
              {item ? <Swatch item={item} size={22} /> : <span />}
              {item ? (
                <span>
                  <Link to={`/stock/${item.id}`}>{item.colourName}</Link>{' '}
                  <span className="quiet">
                    {item.kind} {item.size}, <span className="code">{item.colourCode}</span>
                    {chosen.counting[role] && `; ${countingWords[chosen.counting[role]]}`}
                  </span>
                  {misfits
                    .filter((misfit) => misfit.role === role)
                    .map((misfit) => (
                      <div key={misfit.role} className="trouble">
                        {misfitWords(misfit)}
                      </div>
                    ))}
                </span>
              ) : (
                <span className="trouble">no item chosen{size ? ` for ${size}` : ''}</span>
              )}
              {onEdit && report.beads.some((bead) => bead.role === role) && (
                <Button size="small" type="link" onClick={() => setInstead(role)} aria-label={`Substitute for ${role}`}>
                  Substitute
                </Button>
              )}
            </li>
          )
        })}
      </ul>
      {proposing && items && (
        <Propose
          pattern={pattern}
          colourway={colourway}
          chosen={chosen}
          shelf={items}
          report={report}
          scene={scene}
          close={() => setProposing(false)}
        />
      )}
      {instead !== undefined && items && (
        <Substitutes
          pattern={pattern}
          colourway={colourway}
          role={instead}
          choices={choices}
          chosen={chosen}
          shelf={items}
          report={report}
          wanted={Number(params.get('kits')) || 0}
          forLine={forLine}
          close={() => {
            setInstead(undefined)
            setParams({}, { replace: true })
          }}
        />
      )}
      <ColourJudgement report={report} items={chosen.items} shelf={items ?? []} eye={eye} light={light} />
    </article>
  )
}

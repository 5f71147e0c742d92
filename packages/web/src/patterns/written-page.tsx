import { useQuery } from '@tanstack/react-query'
import type { Pattern } from '@tessellum/contract/patterns'
import { roleColours } from '@tessellum/core/drawing/role-colours'
import type { Scene } from '@tessellum/core/drawing/scene'
import { type StepView, stepViews } from '@tessellum/core/drawing/step-views'
import { billOf } from '@tessellum/core/kit/bill'
import type { StatementReport } from '@tessellum/core/report/report'
import { itemName } from '@tessellum/core/stock/item-name'
import { usualThreadSettings } from '@tessellum/core/thread/settings'
import { capital, list, sayPicked } from '@tessellum/core/writing/english'
import { writePattern } from '@tessellum/core/writing/write-pattern'
import type { WrittenPattern } from '@tessellum/core/writing/written-pattern'
import { Button, Segmented, Select } from 'antd'
import { useMemo } from 'react'
import { useParams, useSearchParams } from 'react-router'
import { Loading } from '../frame/loading'
import { usePageTitle } from '../frame/page-title'
import { Trouble } from '../frame/trouble'
import { Drawing } from '../piece/drawing'
import { FlatPiece } from '../piece/flat-piece'
import { useFormed } from '../piece/use-formed'
import { read } from '../shop/queries'
import { PatternNav } from './pattern-nav'
import { useChosen } from './use-chosen'

export function WrittenPage() {
  const id = Number(useParams().id)
  const { data, error } = useQuery(read.pattern(id))
  if (error && !data) return <Trouble error={error} />
  return data ? <Written pattern={data} /> : <Loading what="Fetching the pattern" />
}

/** The written pattern on a page that prints as it is, and its PDF. */
function Written({ pattern }: { pattern: Pattern }) {
  const [params, setParams] = useSearchParams()
  const set = (name: string, value: string) =>
    setParams(
      (before) => {
        const next = new URLSearchParams(before)
        next.set(name, value)
        if (name === 'colourway') next.delete('colourwayVersion')
        return next
      },
      { replace: true },
    )
  const asked = params.get('version')
  const number = asked === 'draft' ? undefined : ((Number(asked) || pattern.version) ?? undefined)
  const paper = params.get('paper') === 'LETTER' ? 'LETTER' : 'A4'
  const { data: version, error } = useQuery({ ...read.version(pattern.id, number ?? 0), enabled: number !== undefined })
  const { data: colourways } = useQuery(read.colourways(pattern.id))
  const { data: items } = useQuery(read.items)
  const kept = Number(params.get('colourwayVersion')) || undefined
  const { data: asKept } = useQuery({
    ...read.colourwayVersion(Number(params.get('colourway')), kept ?? 0),
    enabled: kept !== undefined,
  })
  const newest =
    params.get('colourway') === 'none'
      ? undefined
      : (colourways?.find((each) => each.id === Number(params.get('colourway'))) ?? colourways?.[0])
  const colourway = kept === undefined ? newest : asKept
  const source = number === undefined ? pattern.source : version?.source
  const size = params.get('size') ?? ''
  const chosen = useChosen(colourway, size, items)
  const choices = useMemo(
    () => ({ ...(size ? { size } : {}), beads: chosen.beads, counting: chosen.counting }),
    [size, chosen],
  )
  const { report, scene, trouble, why } = useFormed(source, choices)
  usePageTitle(`${pattern.title}, written`)
  if (error) return <Trouble error={error} />
  if (trouble) return <Trouble error={new Error(trouble)} />
  if (!report || !items || !colourways || (kept !== undefined && !asKept)) return <Loading what="Writing" />

  const bill = billOf(report, chosen.kit).lines.flatMap((line) => {
    const item = items.find((each) => each.id === line.itemId)
    return item ? [{ ...line, name: itemName(item), colour: item.colour }] : []
  })
  const written = writePattern(report, {
    version: number,
    colourway: colourway?.name,
    settings: usualThreadSettings,
    bill,
  })
  const colours = { ...roleColours(report.beads.map((bead) => bead.role)), ...chosen.colours }
  const pdf = new URLSearchParams({
    size: report.size,
    paper,
    ...(number === undefined ? {} : { version: String(number) }),
    ...(colourway ? { colourway: String(colourway.id) } : {}),
    ...(kept === undefined ? {} : { colourwayVersion: String(kept) }),
  })
  return (
    <>
      <PatternNav
        id={pattern.id}
        chosen={{ size: report.size, colourway: colourway ? String(colourway.id) : undefined }}
      />
      <div className="page-head no-print page" style={{ maxWidth: 1000 }}>
        <span className="spacer" />
        <Select
          aria-label="Version"
          style={{ width: 190 }}
          value={number === undefined ? 'draft' : String(number)}
          onChange={(value) => set('version', value)}
          options={[
            ...pattern.versions.map((each) => ({ value: String(each.number), label: `${each.number}: ${each.name}` })),
            { value: 'draft', label: 'The draft' },
          ]}
        />
        {report.sizes.length > 1 && (
          <Segmented
            aria-label="Size"
            value={report.size}
            options={[...report.sizes]}
            onChange={(value) => set('size', String(value))}
          />
        )}
        <Select
          aria-label="Colourway"
          style={{ width: 170 }}
          value={colourway ? String(colourway.id) : 'none'}
          onChange={(value) => set('colourway', value)}
          options={[
            ...colourways.map((each) => ({ value: String(each.id), label: each.name })),
            { value: 'none', label: 'No colourway' },
          ]}
        />
        <Segmented
          aria-label="Paper"
          value={paper}
          options={[
            { value: 'A4', label: 'A4' },
            { value: 'LETTER', label: 'Letter' },
          ]}
          onChange={(value) => set('paper', String(value))}
        />
        <Button onClick={() => window.print()}>Print</Button>
        <Button type="primary" href={`/api/patterns/${pattern.id}/document.pdf?${pdf}`}>
          Fetch the PDF
        </Button>
      </div>
      {why && (
        <p className="notice no-print" role="status">
          {why}
        </p>
      )}
      <Sheet written={written} scene={scene} statements={report.statements} colours={colours} />
    </>
  )
}

interface SheetProps {
  readonly written: WrittenPattern
  readonly scene: Scene | undefined
  readonly statements: readonly StatementReport[]
  readonly colours: Readonly<Record<string, string>>
}

function Sheet({ written, scene, statements, colours }: SheetProps) {
  const views = useMemo(() => (scene ? stepViews(scene, statements) : {}), [scene, statements])

  return (
    <article className="written">
      {written.draft && <p className="draft-mark">DRAFT: not for sale or teaching</p>}
      <div className="head">
        <div>
          <h1>{written.title}</h1>
          <p className="quiet">{written.facts.join(' · ')}</p>
          <h2>Thread</h2>
          {written.thread.map((line) => (
            <p key={line} style={{ margin: '2px 0' }}>
              {line}
            </p>
          ))}
          <h2>Tools</h2>
          <p style={{ margin: 0 }}>{capital(list(written.tools))}.</p>
        </div>
        <div style={{ height: 240 }}>
          <Drawing scene={scene} colours={colours} label={`${written.title}, from the front`} />
        </div>
      </div>
      <h2>Materials</h2>
      <table className="figures">
        <thead>
          <tr>
            <th style={{ width: 86 }}>
              <span className="visually-hidden">Role</span>
            </th>
            <th>Item</th>
            <th style={{ width: 80 }}>Exact</th>
            <th style={{ width: 150 }}>In the kit</th>
          </tr>
        </thead>
        <tbody>
          {written.materials.map((row) => (
            <tr key={row.roles}>
              <td>
                {row.colour && (
                  <svg width="13" height="13" style={{ marginRight: 7, verticalAlign: -2 }} aria-hidden="true">
                    <rect x="0.5" y="0.5" width="12" height="12" rx="3" fill={row.colour} stroke="#22302b" />
                  </svg>
                )}
                <strong>{row.roles}</strong>
              </td>
              <td>{row.name}</td>
              <td>{row.exact}</td>
              <td>{row.inKit}</td>
            </tr>
          ))}
        </tbody>
      </table>
      <h2>Take care</h2>
      {written.cautions.map((caution) => (
        <div key={caution} className="caution">
          {caution}
        </div>
      ))}
      <h2>Words used</h2>
      {written.marks.map((mark) => (
        <p key={mark} style={{ margin: '2px 0' }}>
          {mark}
        </p>
      ))}
      {written.parts.map((part, i) => (
        <section key={i}>
          <h2>{capital(part.name || 'steps')}</h2>
          <ol>
            {part.steps.map((step) => (
              <li key={step.number} className={step.kind}>
                <strong style={{ textAlign: 'right' }}>{step.number}</strong>
                <div>
                  {step.kind === 'check' && <strong>Check: </strong>}
                  {step.text}
                  {step.added && <div className="quiet">{sayPicked(step)}</div>}
                </div>
                <StepDrawing step={views[step.line]} number={step.number} colours={colours} />
              </li>
            ))}
          </ol>
        </section>
      ))}
      {written.totals && (
        <p>
          <strong>In one piece: {written.totals}.</strong>
        </p>
      )}
    </article>
  )
}

interface StepDrawingProps {
  readonly step: StepView | undefined
  readonly number: number
  readonly colours: Readonly<Record<string, string>>
}

function StepDrawing({ step, number, colours }: StepDrawingProps) {
  if (!step) return null
  const behind = step.face === 'back' ? 'from behind' : ''
  return (
    <figure className="step-drawing">
      <FlatPiece
        view={step.view}
        colours={colours}
        label={`Step ${number}, drawn${behind && ` ${behind}`}: new beads filled, passed beads barred`}
      />
      {behind && <figcaption className="quiet">{behind}</figcaption>}
    </figure>
  )
}

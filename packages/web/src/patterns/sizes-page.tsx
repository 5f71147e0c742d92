import { useQuery } from '@tanstack/react-query'
import type { Pattern } from '@tessellum/contract/patterns'
import { sayStone } from '@tessellum/core/catalogue/stone-size'
import type { Face } from '@tessellum/core/drawing/view'
import { chosenIn } from '@tessellum/core/kit/choice'
import { sayExtents, soundForm } from '@tessellum/core/report/form-report'
import type { Report } from '@tessellum/core/report/report'
import { sayHeld } from '@tessellum/core/report/say-held'
import { heldBy } from '@tessellum/core/sizing/stone-hold'
import { Segmented } from 'antd'
import { useCallback, useMemo, useState } from 'react'
import { Link, useParams } from 'react-router'
import { FigureTable } from '../frame/figure-table'
import { Finding, Findings } from '../frame/findings'
import { Loading } from '../frame/loading'
import { NamedSwitch } from '../frame/named-switch'
import { PageHead } from '../frame/page-head'
import { PageLoading } from '../frame/page-loading'
import { usePageTitle } from '../frame/page-title'
import { Trouble } from '../frame/trouble'
import { Drawing } from '../piece/drawing'
import { useFormed } from '../piece/use-formed'
import { useUnits } from '../settings/use-units'
import { read } from '../shop/queries'
import { ColourwaySelect } from './colourway-select'
import { Grading } from './grading'
import { PatternNav } from './pattern-nav'
import plateStyles from './side-by-side-plates.module.css'
import { useDress } from './use-dress'
import { useEvaluated } from './use-evaluated'
import { useShown } from './use-shown'

export function SizesPage() {
  const id = Number(useParams().id)
  const { data, error } = useQuery(read.pattern(id))
  if (error && !data) return <Trouble error={error} />
  return data ? <Sizes key={id} pattern={data} /> : <PageLoading what="Fetching the pattern" />
}

/** One pattern in all its sizes, with the options as they are set, side by side. */
function Sizes({ pattern }: { pattern: Pattern }) {
  usePageTitle(`Sizes of ${pattern.title}`)
  const shown = useShown(pattern)
  const { colourway, colourways, options, set, setOption } = shown
  const [face, setFace] = useState<Face>('front')
  const asked = useMemo(() => ({ options }), [options])
  const [extents, setExtents] = useState<Readonly<Record<string, readonly [number, number]>>>({})
  const note = useCallback(
    (size: string, width: number, height: number) => setExtents((before) => ({ ...before, [size]: [width, height] })),
    [],
  )
  // All at one scale: what is larger looks larger.
  const within = useMemo(() => {
    const all = Object.values(extents)
    return [Math.max(1, ...all.map(([width]) => width)), Math.max(1, ...all.map(([, height]) => height))] as const
  }, [extents])
  const { now } = useEvaluated(pattern.source, asked)
  if (!now) return <Loading what="Working it out" />
  const sizes = now.sizes.length > 0 ? now.sizes : ['']
  return (
    <div className="page">
      <PatternNav
        id={pattern.id}
        chosen={{ size: shown.size || now.size, colourway: colourway ? String(colourway.id) : undefined }}
      />
      <PageHead title={<>{pattern.title} in its sizes</>}>
        {Object.entries(now.options).map(([name, is]) => (
          <NamedSwitch key={name} name={name} on={is} change={(to) => setOption(name, to)} />
        ))}
        <Segmented
          aria-label="Side"
          value={face}
          options={['front', 'back', 'side']}
          onChange={(value) => setFace(value as Face)}
        />
        <ColourwaySelect colourways={colourways} chosen={colourway} set={set} />
      </PageHead>
      {sizes.length === 1 && (
        <p className="quiet">
          This pattern has one size. Write more in the ledger, for example: size small width = 14 mm.
        </p>
      )}
      <div className={plateStyles.columns}>
        {sizes.map((size) => (
          <SizeColumn key={size} pattern={pattern} size={size} face={face} shown={shown} within={within} note={note} />
        ))}
      </div>
      <Grading pattern={pattern} choices={shown.choices} kit={shown.chosen.kit} />
    </div>
  )
}

interface SizeColumnProps {
  readonly pattern: Pattern
  readonly size: string
  readonly face: Face
  readonly shown: ReturnType<typeof useShown>
  readonly within: readonly [width: number, height: number]
  readonly note: (size: string, width: number, height: number) => void
}

function SizeColumn({ pattern, size, face, shown, within, note }: SizeColumnProps) {
  const { colourway, items, options, settings } = shown
  const onExtent = useCallback((width: number, height: number) => note(size, width, height), [size, note])
  const chosen = useMemo(() => chosenIn(colourway?.choices ?? [], size, items ?? []), [colourway, size, items])
  const choices = useMemo(
    () => ({ ...(size ? { size } : {}), beads: chosen.beads, counting: chosen.counting, options, settings }),
    [size, chosen, options, settings],
  )
  const { report: formed, scene, trouble, why } = useFormed(pattern.source, choices)
  const { now } = useEvaluated(pattern.source, choices)
  const report = formed ?? now
  const dress = useDress(report, chosen)
  const colours = Object.fromEntries(Object.entries(dress).map(([role, { colour }]) => [role, colour]))
  const name = size || 'One size'
  return (
    <article className="sheet" aria-label={name}>
      <div className="panel-head">
        <h2>{name}</h2>
        <span className="spacer" />
        <Link
          to={`/patterns/${pattern.id}?${new URLSearchParams({ size, ...(colourway ? { colourway: String(colourway.id) } : {}) })}`}
        >
          Open
        </Link>
      </div>
      <div className={plateStyles.plate}>
        {trouble ? (
          <p className="notice trouble">{trouble}</p>
        ) : (
          <Drawing
            scene={scene}
            colours={colours}
            finishes={chosen.finishes}
            face={face}
            within={within}
            onExtent={onExtent}
            label={`${pattern.title}, ${name}, from the ${face}`}
          />
        )}
      </div>
      {report ? (
        <SizeFigures report={report} why={why} formed={formed !== undefined} />
      ) : (
        <Loading what="Working it out" />
      )}
    </article>
  )
}

function SizeFigures({ report, why, formed }: { report: Report; why: string | undefined; formed: boolean }) {
  const units = useUnits()
  const form = soundForm(report)
  return (
    <>
      <FigureTable>
        <tbody>
          <tr>
            <th scope="row">Finished</th>
            <td>{form ? sayExtents(form, units.system) : formed ? 'form not sound' : 'settling'}</td>
          </tr>
          {report.beads
            .filter((bead) => bead.each > 0)
            .map((bead) => (
              <tr key={bead.role}>
                <th scope="row">
                  {bead.role}{' '}
                  <span className="quiet">
                    {bead.kind} {bead.size}
                  </span>
                </th>
                <td>
                  <strong>{bead.total}</strong> <span className="quiet">{units.mass(bead.totalMg)}</span>
                </td>
              </tr>
            ))}
          <tr>
            <th scope="row">
              Thread <span className="quiet">{form ? 'measured' : 'estimated'}, with ends</span>
            </th>
            <td>
              <strong>{units.thread(report.thread.totalMm)}</strong>
            </td>
          </tr>
          {report.stones
            .filter(({ total }) => total > 0)
            .map(({ role, stone }) => (
              <tr key={`stone ${role}`}>
                <th scope="row">Stone {role}</th>
                <td>
                  {sayStone(stone.outline)}, {stone.heightMm} mm high
                </td>
              </tr>
            ))}
          {report.fits.map((fit) => (
            <tr key={`${fit.stone} ${fit.beads}`}>
              <th scope="row">Ring round {fit.stone}</th>
              <td>
                {fit.beads} beads, {fit.verdict}
              </td>
            </tr>
          ))}
          {form?.held.map((hold) => (
            <tr key={`held ${hold.stone}`}>
              <th scope="row">{hold.stone} is held by</th>
              <td>
                {sayHeld(heldBy(hold, 'frontMm'))} in front, {sayHeld(heldBy(hold, 'backMm'))} behind
              </td>
            </tr>
          ))}
        </tbody>
      </FigureTable>
      <Findings>
        {report.diagnostics
          .filter(({ severity }) => severity === 'error')
          .slice(0, 3)
          .map(({ line, message }) => (
            <Finding key={`${line} ${message}`} tone="trouble">
              Line {line}: {message}
            </Finding>
          ))}
        {why && <Finding tone="plain">{why}</Finding>}
        {form?.findings
          .filter(({ tone }) => tone === 'trouble')
          .map(({ line, text }) => (
            <Finding key={`${line} ${text}`} tone="trouble">
              {line === undefined ? text : `Line ${line}: ${text}`}
            </Finding>
          ))}
      </Findings>
    </>
  )
}

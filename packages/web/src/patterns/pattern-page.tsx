import { useQuery } from '@tanstack/react-query'
import type { Pattern } from '@tessellum/contract/patterns'
import { sayLength, sayPercent } from '@tessellum/core/measure/units'
import type { Crowding } from '@tessellum/core/thread/crowding'
import { usualThreadSettings } from '@tessellum/core/thread/settings'
import { sayCounts, sentenceFor } from '@tessellum/core/writing/english'
import { Button, Segmented, Select } from 'antd'
import { useDeferredValue, useMemo, useRef, useState } from 'react'
import { Link, useParams, useSearchParams } from 'react-router'
import { Loading } from '../frame/loading'
import { usePageTitle } from '../frame/page-title'
import { Trouble } from '../frame/trouble'
import { useMay } from '../people/me'
import { read } from '../shop/queries'
import { Faults } from './faults'
import { KeepVersion } from './keep-version'
import { Ledger, type LedgerHandle } from './ledger'
import { roleColours } from '@tessellum/core/drawing/role-colours'
import { Piece } from './piece'
import { Tray } from './tray'
import { useChosen } from './use-chosen'
import { type DraftState, useDraft } from './use-draft'
import { useReckoned } from './use-reckoned'

export function PatternPage() {
  const id = Number(useParams().id)
  const { data, error } = useQuery(read.pattern(id))
  if (error && !data) return <Trouble error={error} />
  return data ? <Design key={id} pattern={data} /> : <Loading what="Fetching the pattern" />
}

const states: Readonly<Record<DraftState, string>> = {
  saved: 'Draft saved',
  typing: 'Typing...',
  saving: 'Saving...',
  'kept here': 'Not saved yet: kept in this browser',
  'moved on': 'Somebody else saved this pattern: your text is kept here, not saved',
}

/** Designing: the ledger, the piece and the tray of one pattern. */
function Design({ pattern }: { pattern: Pattern }) {
  const mayWrite = useMay('patterns.write')
  const draft = useDraft(pattern, mayWrite)
  const [params, setParams] = useSearchParams()
  const [face, setFace] = useState<'front' | 'back'>('front')
  const [line, setLine] = useState(1)
  const [lighting, setLighting] = useState(false)
  const ledger = useRef<LedgerHandle>(null)
  const { data: items } = useQuery(read.items)
  const { data: colourways } = useQuery(read.colourways(pattern.id))

  const colourwayId = Number(params.get('colourway')) || colourways?.[0]?.id
  const colourway = params.get('colourway') === 'none' ? undefined : colourways?.find((each) => each.id === colourwayId)
  const askedSize = params.get('size') ?? ''
  const set = (name: string, value: string) =>
    setParams((before) => ({ ...Object.fromEntries(before), [name]: value }), { replace: true })

  // The size named in the address may have gone from the text; the reckoning then says which there are.
  const sizeNames = useRef<readonly string[]>([])
  const size = sizeNames.current.length === 0 || sizeNames.current.includes(askedSize) ? askedSize : ''
  const text = useDeferredValue(draft.text)
  const [settledSize, setSettledSize] = useState('')
  const chosen = useChosen(colourway, size || settledSize, items)
  const choices = useMemo(() => ({ ...(size ? { size } : {}), beads: chosen.beads }), [size, chosen])
  const { now, lastGood, trouble } = useReckoned(text, choices)
  const sound = now?.report.sound ?? false
  const shown = sound ? now : (lastGood ?? now)
  const old = now !== undefined && !sound && lastGood !== undefined
  const report = shown?.report
  sizeNames.current = now?.report.sizes ?? []
  const reckonedSize = now?.report.size ?? ''
  if (reckonedSize !== settledSize && reckonedSize) setSettledSize(reckonedSize)

  usePageTitle(pattern.title)
  const faults = now?.report.diagnostics ?? none
  const errors = faults.filter((fault) => fault.severity === 'error').length
  const statements = now?.report.statements ?? none
  const atLine = statements.findIndex((statement) => statement.line === line)
  const current = statements[atLine]
  const beadColours = useMemo(
    () => ({ ...roleColours((report?.beads ?? []).map((bead) => bead.role)), ...chosen.colours }),
    [report, chosen],
  )

  const written = new URLSearchParams({ size: reckonedSize, ...(colourway ? { colourway: String(colourway.id) } : {}) })
  return (
    <>
      <div className="page-head">
        <h1>{now?.report.pattern || pattern.title}</h1>
        <span className="quiet" role="status">
          {mayWrite ? states[draft.state] : 'To read only'}
          {pattern.version
            ? `, version ${pattern.version} kept${pattern.changed ? ', changed since' : ''}`
            : ', no version kept yet'}
        </span>
        <span className="spacer" />
        {sizeNames.current.length > 1 && (
          <Segmented
            aria-label="Size"
            value={reckonedSize}
            options={[...sizeNames.current]}
            onChange={(value) => set('size', String(value))}
          />
        )}
        <Select
          aria-label="Colourway"
          style={{ width: 178 }}
          value={colourway ? String(colourway.id) : 'none'}
          onChange={(value) => set('colourway', value)}
          options={[
            ...(colourways ?? []).map((each) => ({ value: String(each.id), label: each.name })),
            { value: 'none', label: 'No colourway' },
          ]}
        />
        <Link to={`/patterns/${pattern.id}/colours`}>Colours</Link>
        <Link to={`/patterns/${pattern.id}/written?${written}`}>Written pattern</Link>
        {mayWrite && <KeepVersion pattern={pattern} save={draft.save} errors={errors} />}
      </div>
      {draft.state === 'moved on' && (
        <div className="notice trouble" role="alert">
          Somebody else has saved this pattern since you opened it. Your text is in the ledger and kept in this browser.{' '}
          <Button size="small" onClick={() => draft.settle('mine')}>
            Save mine over theirs
          </Button>{' '}
          <Button size="small" onClick={() => draft.settle('theirs')}>
            Drop mine, show theirs
          </Button>
        </div>
      )}
      {draft.trouble && draft.state !== 'moved on' && (
        <div className="notice trouble" role="alert">
          {draft.trouble}
        </div>
      )}
      {trouble && (
        <div className="notice trouble" role="alert">
          {trouble}
        </div>
      )}
      <div className="pattern-page">
        <section className="ledger sheet" aria-label="Ledger">
          <div className="panel-head">
            <h2>Ledger</h2>
            <span className="spacer" />
            {old && <span className="state short">counts are of the last good text</span>}
            {errors > 0 && (
              <span className="trouble" role="status">
                {errors} fault{errors === 1 ? '' : 's'}
              </span>
            )}
            <span className="quiet">stitches, beads, thread</span>
          </div>
          <Ledger
            ref={ledger}
            text={draft.text}
            mayWrite={mayWrite}
            statements={statements}
            old={!sound}
            faults={faults}
            onEdit={draft.edit}
            onLine={(at) => {
              setLine(at)
              setLighting(true)
            }}
          />
          <Faults faults={faults} goTo={(at, column) => ledger.current?.goTo(at, column)} />
          <section className="line-strip" aria-live="polite" aria-label="This line">
            {current ? (
              <>
                <div>{sentenceFor(current.action, usualThreadSettings) ?? current.text}</div>
                {Object.keys(current.added).length > 0 && (
                  <div className="quiet">so far: {sayCounts(current.totals)}</div>
                )}
              </>
            ) : (
              <span className="quiet">
                Line {line}. Put the cursor in a line to read what it does; its beads light up in the piece.
              </span>
            )}
          </section>
        </section>

        <section className="piece sheet" aria-label="Piece">
          <div className="panel-head">
            <h2>Piece</h2>
            <span className="spacer" />
            <Segmented
              size="small"
              aria-label="Side"
              value={face}
              options={['front', 'back']}
              onChange={(value) => setFace(value === 'back' ? 'back' : 'front')}
            />
          </div>
          <div className="plate">
            {shown ? (
              <Piece
                view={shown[face]}
                colours={beadColours}
                lit={lighting && !old && current && Object.keys(current.added).length > 0 ? atLine : undefined}
                onBead={(statement) => {
                  const found = shown.report.statements[statement]
                  if (found) ledger.current?.goTo(found.line)
                }}
                label={`${report?.pattern ?? 'The piece'} from the ${face}, ${total(report)} beads`}
              />
            ) : (
              <Loading what="Reckoning" />
            )}
          </div>
          {report && (
            <dl className="measures figures">
              <div>
                <dt>Beads</dt>
                <dd>{total(report)}</dd>
              </div>
              <div>
                <dt>Thread path</dt>
                <dd>{sayLength(report.thread.pathMm)}</dd>
              </div>
              <FullestHole crowding={report.crowding} />
              {report.fits.map((fit) => (
                <div key={fit.stone} style={{ gridColumn: '1 / -1' }}>
                  <dt>
                    Ring of {fit.beads} round {fit.stone}
                  </dt>
                  <dd className={fit.verdict === 'snug' || fit.verdict === 'loose' ? '' : 'trouble'}>
                    {sayPercent(fit.ease)}, {fit.verdict}
                  </dd>
                </div>
              ))}
            </dl>
          )}
        </section>

        {report ? (
          <Tray
            report={report}
            old={old}
            items={chosen.items}
            kit={chosen.kit}
            hasColourway={colourway !== undefined}
          />
        ) : (
          <section className="tray sheet" />
        )}
      </div>
    </>
  )
}

/** The role whose beads have least room left for thread. */
function FullestHole({ crowding }: { crowding: readonly Crowding[] }) {
  const [fullest] = [...crowding].sort((a, b) => a.room - b.room)
  if (!fullest) return null
  const { role, passes, room } = fullest
  return (
    <div style={{ gridColumn: '1 / -1' }}>
      <dt>Fullest hole</dt>
      <dd className={room < 0 ? 'trouble' : ''}>
        {role}, {passes} pass{passes === 1 ? '' : 'es'}: {room < 0 ? `${-room} too many` : `room for ${room} more`}
      </dd>
    </div>
  )
}

const none: readonly never[] = []

const total = (report: { beads: readonly { each: number }[] } | undefined) =>
  (report?.beads ?? []).reduce((sum, bead) => sum + bead.each, 0)

import { useQuery } from '@tanstack/react-query'
import type { Pattern } from '@tessellum/contract/patterns'
import type { Scene } from '@tessellum/core/drawing/scene'
import { counted } from '@tessellum/core/measure/counted'
import { sentenceFor } from '@tessellum/core/writing/english/sentences'
import { sayCounts } from '@tessellum/core/writing/language'
import { Button } from 'antd'
import { startTransition, useCallback, useEffect, useMemo, useRef, useState } from 'react'
import { useLocation, useNavigate, useParams } from 'react-router'
import { PageLoading } from '../frame/page-loading'
import { usePageTitle } from '../frame/page-title'
import { Panes } from '../frame/panes'
import { StateTag } from '../frame/state-tag'
import { Trouble } from '../frame/trouble'
import { useSame } from '../frame/use-same'
import { NotationButton } from '../help/notation-button'
import { useMay } from '../people/me'
import { formClient } from '../piece/form-client'
import { sameStatement } from '../piece/same-statement'
import { useFormed } from '../piece/use-formed'
import { read } from '../shop/queries'
import { useHand } from '../stitching/use-hand'
import { usePaintTools } from '../stitching/use-paint-tools'
import { useStitchTools } from '../stitching/use-stitch-tools'
import { AddLines } from './add-lines'
import { DraftNotices } from './draft-notices'
import { Faults } from './faults'
import { Ledger, type LedgerHandle } from './ledger'
import ledgerStyles from './ledger.module.css'
import { LinesMenu } from './lines-menu'
import { PatternHead } from './pattern-head'
import patternPageStyles from './pattern-page.module.css'
import { type PieceMode, PiecePanel } from './piece-panel'
import { Tray } from './tray'
import { useChosen } from './use-chosen'
import { useDraft, useOfDraft } from './use-draft'
import { useDress } from './use-dress'
import { useEvaluatedDraft } from './use-evaluated'
import { useSettings } from './use-settings'
import { useShown } from './use-shown'

export function PatternPage() {
  const id = Number(useParams().id)
  const { data, error } = useQuery(read.pattern(id))
  if (error && !data) return <Trouble error={error} />
  return data ? <Design key={id} pattern={data} /> : <PageLoading what="Fetching the pattern" />
}

/** Designing: the ledger, the piece and the tray of one pattern. */
function Design({ pattern }: { pattern: Pattern }) {
  const mayWrite = useMay('patterns.write')
  const draft = useDraft(pattern, mayWrite)
  const { params, items, colourways, colourway, options, set, setOption } = useShown(pattern)
  const settings = useSettings(pattern.id)
  const [line, setLine] = useState(1)
  const [lighting, setLighting] = useState(false)
  const ledger = useRef<LedgerHandle>(null)
  const askedSize = params.get('size') ?? ''

  // The size named in the address may have gone from the text; the evaluation then says which there are.
  const sizeNames = useRef<readonly string[]>([])
  const size = sizeNames.current.length === 0 || sizeNames.current.includes(askedSize) ? askedSize : ''
  const [settledSize, setSettledSize] = useState('')
  const chosen = useChosen(colourway, size || settledSize, items)
  const choices = useMemo(
    () => ({ ...(size ? { size } : {}), beads: chosen.beads, counting: chosen.counting, options, settings }),
    [size, chosen, options, settings],
  )
  const [askedMode, setMode] = useState<PieceMode>(modeIn(params.get('do')))
  const mode = mayWrite ? askedMode : 'look'
  const write = useCallback((next: string) => ledger.current?.write(next), [])
  const stretch = useCallback(() => ledger.current?.stretch() ?? { first: 1, last: 1 }, [])
  const addLines = useCallback((lines: readonly string[]) => ledger.current?.addLines(lines), [])
  const [drawn, setDrawn] = useState<{ readonly scene: Scene | undefined; readonly holes: Int32Array }>(nothingDrawn)
  const [said, setSaid] = useState<string>()
  const hand = useHand(draft.current().text, choices, write, drawn.holes, mode === 'stitch')
  const inHand = mode === 'stitch' && hand.passes.length > 0
  const { of, now, lastGood, trouble } = useEvaluatedDraft(draft, choices)
  const sound = now?.sound ?? false
  // A text at fault keeps the last good piece; without one, what can be made of it is shown.
  // While a line is in hand the piece is what it was before it: what is on the needle is drawn over it.
  const formed = useFormed(inHand ? hand.base : sound || !lastGood ? of : undefined, choices)
  const { scene } = formed
  // The form shown may have been kept from before: the next edit will need a new one. A pattern that was never drawn needs one at once.
  const willChange = mayWrite && (scene !== undefined || pattern.drawn === null)
  useEffect(() => {
    if (willChange) formClient.warmUp()
  }, [willChange])
  if (scene !== drawn.scene) setDrawn({ scene, holes: Int32Array.from(scene?.passes ?? [], ({ hole }) => hole) })
  const shown = sound ? now : (lastGood ?? now)
  const old = now !== undefined && !sound && lastGood !== undefined
  // Measured on its form, once that is there; of the last good text while this one is at fault.
  const report = inHand ? shown : (formed.report ?? shown)
  const sizes = useSame(now?.sizes ?? none)
  const shownOptions = useSame(now?.options ?? noOptions)
  sizeNames.current = sizes
  const beadLetters = useSame((report?.beads ?? none).map(({ role }) => role))
  const stoneLetters = useSame((report?.stones ?? none).map(({ role }) => role))
  const evaluatedSize = now?.size ?? ''
  if (evaluatedSize !== settledSize && evaluatedSize) setSettledSize(evaluatedSize)

  usePageTitle(pattern.title)

  // Lines brought along from the sizing desk are written at the end, once.
  const location = useLocation()
  const navigate = useNavigate()
  const brought = (location.state as { lines?: readonly string[] } | null)?.lines
  useEffect(() => {
    if (!brought || !mayWrite) return
    void navigate(location.pathname + location.search, { replace: true, state: null })
    ledger.current?.addLines(brought, 'end')
  }, [brought, mayWrite, navigate, location.pathname, location.search])
  const askedLine = Number(params.get('line'))
  const ready = now !== undefined
  useEffect(() => {
    if (askedLine > 0 && ready) ledger.current?.goTo(askedLine)
  }, [askedLine, ready])
  const faults = now?.diagnostics ?? none
  const errors = faults.filter((fault) => fault.severity === 'error').length
  // Notes stand in the gutter beside their lines, and are listed when they are asked for.
  const notes = faults.filter(({ severity }) => severity === 'note')
  const troubles = faults.filter(({ severity }) => severity !== 'note')
  const [listing, setListing] = useState(false)
  const statements = (sound ? report : now)?.statements ?? none
  const atLine = statements.findIndex((statement) => statement.line === line)
  const current = statements[atLine]
  const lineOf = (statement: number) => {
    const now = sameStatement(formed.statements, statements, statement)
    return now === undefined ? undefined : statements[now]
  }
  const dress = useDress(report, chosen)
  const { data: kept } = useQuery({
    ...read.drawing(pattern.id, pattern.drawn ?? ''),
    enabled: pattern.drawn !== null && formed.report === undefined,
  })
  const stitching = useStitchTools({
    hand,
    choices,
    report,
    scene: formed.scene,
    dress,
    undo: () => ledger.current?.undo(),
    redo: () => ledger.current?.redo(),
    leave: () => setMode('look'),
  })
  const painted = useOfDraft(draft, ({ text }) => (mode === 'paint' ? text : ''))
  const painting = usePaintTools({
    text: painted,
    choices,
    report,
    dress,
    write,
    drawn: drawn.holes,
    active: mode === 'paint',
  })
  return (
    <>
      <PatternHead
        pattern={pattern}
        draft={draft}
        title={now?.pattern || pattern.title}
        size={evaluatedSize}
        sizes={sizes}
        options={shownOptions}
        set={set}
        setOption={setOption}
        colourways={colourways}
        colourway={colourway}
        mayWrite={mayWrite}
        errors={errors}
      />
      <DraftNotices draft={draft} />
      {trouble && (
        <div className="notice trouble" role="alert">
          {trouble}
        </div>
      )}
      <Panes
        className={`${patternPageStyles.panes} ${mode === 'look' ? '' : ledgerStyles.byHand}`}
        name={mode === 'look' ? 'pattern' : 'pattern by hand'}
        {...(mode === 'look' ? lookedAt : byHand)}
      >
        <section className={`${ledgerStyles.ledger} sheet`} aria-label="Ledger">
          <div className="panel-head">
            <h2>Ledger</h2>
            {mayWrite && <AddLines beads={beadLetters} stones={stoneLetters} add={addLines} />}
            {mayWrite && <LinesMenu draft={draft} choices={choices} stretch={stretch} write={write} tell={setSaid} />}
            <NotationButton insert={mayWrite ? addLines : undefined} />
            <span className="spacer" />
            {old && <StateTag look="short">counts from the last valid text</StateTag>}
            {errors > 0 && (
              <span className="trouble" role="status">
                {counted(errors, 'error')}
              </span>
            )}
            {notes.length > 0 && mode === 'look' && (
              <Button type="text" size="small" aria-expanded={listing} onClick={() => setListing(!listing)}>
                {listing ? 'Hide notes' : counted(notes.length, 'note')}
              </Button>
            )}
          </div>
          <Ledger
            ref={ledger}
            draft={draft}
            mayWrite={mayWrite}
            statements={statements}
            old={!sound}
            faults={faults}
            onEdit={(next) => {
              draft.edit(next)
              hand.follow(next)
            }}
            onLine={(at) =>
              // Typing does not wait for the beads of the next line to light up.
              startTransition(() => {
                setLine(at)
                setLighting(true)
              })
            }
          />
          {said && (
            <p className="notice" role="status">
              {said}{' '}
              <Button size="small" onClick={() => setSaid(undefined)}>
                Close
              </Button>
            </p>
          )}
          <Faults
            draft={draft}
            faults={
              mode === 'look' ? (listing ? faults : troubles) : faults.filter(({ severity }) => severity === 'error')
            }
            goTo={(at, column) => ledger.current?.goTo(at, column)}
          />
          <section className={ledgerStyles.lineStrip} aria-live="polite" aria-label="This line">
            {current ? (
              <>
                {sentenceFor(current.action, settings) ?? current.text}{' '}
                {Object.keys(current.added).length > 0 && (
                  <span className="quiet">So far: {sayCounts(current.totals)}</span>
                )}
              </>
            ) : (
              <span className="quiet">
                Line {line}. Put the cursor in a line to read what it does; its beads light up in the piece.
              </span>
            )}
          </section>
        </section>

        <PiecePanel
          draft={draft}
          formed={formed}
          report={report}
          dress={dress}
          lineOf={lineOf}
          statement={lighting && !old ? sameStatement(statements, formed.statements, atLine) : undefined}
          onBead={(statement, further) => {
            const found = lineOf(statement)
            if (!found) return
            if (further) ledger.current?.selectTo(found.line)
            else ledger.current?.goTo(found.line)
          }}
          goTo={(at) => ledger.current?.goTo(at)}
          stop={formed.stop}
          kept={kept}
          mode={mode}
          onMode={mayWrite ? setMode : undefined}
          stitching={stitching}
          painting={painting}
        />

        {mode === 'stitch' ? (
          stitching.panel
        ) : mode === 'paint' ? (
          painting.panel
        ) : report ? (
          <Tray
            report={report}
            old={old}
            items={chosen.items}
            kit={chosen.kit}
            hasColourway={colourway !== undefined}
          />
        ) : (
          <section className="sheet" />
        )}
      </Panes>
    </>
  )
}

/** Ledger, piece and tray: of a page 1280 px wide, the text has half. */
const lookedAt = { usual: [600, 350, 268], least: [440, 240, 200] }
const byHand = { usual: [414, 508, 296], least: [400, 280, 240] }

const modeIn = (asked: string | null): PieceMode => (asked === 'stitch' || asked === 'paint' ? asked : 'look')

const nothingDrawn = { scene: undefined, holes: new Int32Array(0) }

const none: readonly never[] = []
const noOptions = {}

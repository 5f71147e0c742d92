import type { Scene } from '@tessellum/core/drawing/scene'
import type { Face, View } from '@tessellum/core/drawing/view'
import { counted } from '@tessellum/core/measure/counted'
import type { Report, StatementReport } from '@tessellum/core/report/report'
import { Progress as Bar, Button, Segmented } from 'antd'
import { type ComponentProps, memo, useMemo, useRef, useState, useSyncExternalStore } from 'react'
import { Loading } from '../frame/loading'
import { NamedSwitch } from '../frame/named-switch'
import { BeadCard } from '../piece/bead-card'
import { FlatPiece } from '../piece/flat-piece'
import { type Looks, looksOfLine } from '../piece/looks'
import { Piece } from '../piece/piece'
import type { Dress } from '../piece/stage-kind'
import type { Formed, Moving } from '../piece/use-formed'
import { StitchPlate } from '../stitching/stitch-plate'
import type { PaintTools } from '../stitching/use-paint-tools'
import type { StitchTools } from '../stitching/use-stitch-tools'
import type { Draft } from './draft'
import { Measures } from './measures'
import styles from './piece-panel.module.css'
import { useTyping } from './use-draft'

interface PiecePanelProps {
  readonly draft: Draft
  readonly formed: Formed
  /** Of the text as it is: with its form, or by plain rules until that is there. */
  readonly report: Report | undefined
  readonly dress: Readonly<Record<string, Dress>>
  /** A statement of the piece as it stands in the text now. */
  readonly lineOf: (statement: number) => StatementReport | undefined
  /** Of the piece: the line in hand, when its beads are to be picked out. */
  readonly statement: number | undefined
  /** A bead was clicked, by the line that picked it up; with Shift, the lines from the last one to this are meant. */
  readonly onBead: (statement: number, further: boolean) => void
  readonly goTo: (line: number) => void
  readonly stop: () => void
  /** As the shop has drawn it: it stands until the first form is there. */
  readonly kept?: View | undefined
  readonly mode: PieceMode
  /** Undefined for who may only look. */
  readonly onMode: ((mode: PieceMode) => void) | undefined
  readonly stitching: StitchTools
  readonly painting: PaintTools
}

/** What the hands are at. */
export type PieceMode = 'look' | 'stitch' | 'paint'

/** For what hangs on the needle, mm. */
const roomToStitch = 4

/** Most pieces are at rest after about so many. */
const usualIterations = 1000

/** How the piece shows a line. Another line of it lights up once nobody types: painting takes longer than the next key. */
function useLit(scene: Scene | undefined, statement: number | undefined, draft: Draft): Looks | undefined {
  const typing = useTyping(draft)
  const shown = useRef({ scene, statement })
  if (!typing || shown.current.scene !== scene) shown.current = { scene, statement }
  const { statement: lit } = shown.current
  return useMemo(() => (scene && lit !== undefined ? looksOfLine(scene, lit) : undefined), [scene, lit])
}

/** The piece as it lies, to be turned, with what is measured on it. */
export function PiecePanel({
  draft,
  formed,
  report,
  dress,
  lineOf,
  statement,
  onBead,
  goTo,
  stop,
  kept,
  mode,
  onMode,
  stitching,
  painting,
}: PiecePanelProps) {
  const [face, setFace] = useState<Face>('front')
  const [threadShown, setThreadShown] = useState(true)
  const { scene, settling, why, trouble, moving } = formed
  const [picked, setPicked] = useState<{ readonly bead: number; readonly scene: Scene }>()
  const finished = useRef(false)
  if (formed.report) finished.current = true
  const lit = useLit(scene, statement, draft)
  const piece = (shown: Scene, hands: Pick<ComponentProps<typeof Piece>, 'over' | 'onTouch' | 'room'>) => (
    <Piece
      scene={shown}
      moving={moving}
      dress={dress}
      face={face}
      onFace={setFace}
      threadShown={threadShown}
      onThread={setThreadShown}
      looks={mode === 'look' ? lit?.looks : undefined}
      passes={mode === 'look' ? lit?.passes : undefined}
      onBead={(statement, bead, further) => {
        setPicked({ bead, scene: shown })
        onBead(statement, further)
      }}
      label={`${report?.pattern || 'The piece'} from the ${face}, ${counted(shown.beads.length, 'bead')}`}
      {...hands}
    />
  )
  return (
    <section className={`${styles.piece} sheet`} aria-label="Piece">
      <PieceHead mode={mode} onMode={onMode} threadShown={threadShown} onThread={setThreadShown} />
      <div className={styles.plate}>
        <Sides face={face} onFace={setFace} />
        {kept && !finished.current && (settling || !scene) ? (
          <FlatPiece
            view={kept}
            colours={coloursOf(dress)}
            label={`${report?.pattern || 'The piece'}, as it was last drawn`}
          />
        ) : mode === 'stitch' ? (
          <StitchPlate
            tools={stitching}
            piece={scene && ((over) => piece(scene, { over, onTouch: stitching.onTouch, room: roomToStitch }))}
          />
        ) : scene ? (
          piece(scene, mode === 'paint' ? { onTouch: painting.onTouch } : {})
        ) : (
          !why && <Loading what="Laying out the piece" />
        )}
        {mode === 'look' && picked && picked.scene === scene && (
          <BeadCard {...picked} lineOf={lineOf} goTo={goTo} close={() => setPicked(undefined)} />
        )}
        {settling && <Settling moving={moving} stop={stop} />}
      </div>
      {why && (
        <p className="notice" role="status">
          {why}
        </p>
      )}
      {trouble && (
        <p className="notice trouble" role="alert">
          {trouble}
        </p>
      )}
      {report && <Measures report={report} goTo={goTo} />}
    </section>
  )
}

interface PieceHeadProps {
  readonly mode: PieceMode
  readonly onMode: PiecePanelProps['onMode']
  readonly threadShown: boolean
  readonly onThread: (shown: boolean) => void
}

// Memoized, as the next one is: no key that is typed changes them.
const PieceHead = memo(function PieceHead({ mode, onMode, threadShown, onThread }: PieceHeadProps) {
  return (
    <div className="panel-head">
      {onMode ? (
        <Segmented
          size="small"
          aria-label="What to do with the piece"
          value={mode}
          options={[
            { value: 'look', label: 'Look' },
            { value: 'stitch', label: 'Stitch' },
            { value: 'paint', label: 'Paint' },
          ]}
          onChange={(value) => onMode(value as PieceMode)}
        />
      ) : (
        <h2>Piece</h2>
      )}
      <span className="spacer" />
      <NamedSwitch name="thread" on={threadShown} change={onThread} />
    </div>
  )
})

const Sides = memo(function Sides({ face, onFace }: { readonly face: Face; readonly onFace: (face: Face) => void }) {
  return (
    <div className={styles.sides}>
      <Segmented
        size="small"
        aria-label="Side"
        value={face}
        options={['front', 'back', 'side']}
        onChange={(value) => onFace(value as Face)}
      />
    </div>
  )
})

const coloursOf = (dress: Readonly<Record<string, Dress>>): Readonly<Record<string, string>> =>
  Object.fromEntries(Object.entries(dress).map(([role, { colour }]) => [role, colour]))

/** How far the piece is, by itself: it changes many times a second. */
function Settling({ moving, stop }: { readonly moving: Moving; readonly stop: () => void }) {
  const progress = useSyncExternalStore(moving.watch, () => moving.progress)
  if (!progress) return null
  return (
    <div className={styles.settling} role="status">
      <span>Settling</span>
      <Bar
        percent={Math.round(Math.min(99, (progress.iterations / usualIterations) * 100))}
        showInfo={false}
        size="small"
        aria-label="Settling"
      />
      <Button size="small" onClick={stop}>
        Stop
      </Button>
    </div>
  )
}

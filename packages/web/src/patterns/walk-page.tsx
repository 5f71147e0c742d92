import { CaretRightOutlined, FullscreenOutlined, LeftOutlined, PauseOutlined, RightOutlined } from '@ant-design/icons'
import { useQuery } from '@tanstack/react-query'
import type { ClassAnswer } from '@tessellum/contract/classes'
import type { Pattern } from '@tessellum/contract/patterns'
import { mirroredPoses, sceneFor } from '@tessellum/core/drawing/mirror'
import type { Scene } from '@tessellum/core/drawing/scene'
import type { Face } from '@tessellum/core/drawing/view'
import { pickedIn, walkOf } from '@tessellum/core/drawing/walk'
import type { Report } from '@tessellum/core/report/report'
import { english } from '@tessellum/core/writing/english/english'
import { sentenceFor } from '@tessellum/core/writing/english/sentences'
import { capital, sayCounts } from '@tessellum/core/writing/language'
import { Button, Segmented, Slider } from 'antd'
import { type RefObject, useCallback, useEffect, useMemo, useRef, useState } from 'react'
import { useParams, useSearchParams } from 'react-router'
import { HandChoice, useHandedness } from '../frame/hand-choice'
import { Loading } from '../frame/loading'
import { PageLoading } from '../frame/page-loading'
import { usePageTitle } from '../frame/page-title'
import { Trouble } from '../frame/trouble'
import type { StepPoses } from '../piece/form-tasks'
import { looksAt } from '../piece/looks'
import { Piece } from '../piece/piece'
import type { Dress } from '../piece/stage-kind'
import { useFormed } from '../piece/use-formed'
import { useLying, useSteps } from '../piece/use-steps'
import { call } from '../shop/api'
import { read } from '../shop/queries'
import { PatternNav } from './pattern-nav'
import { SampleLog } from './sample-log'
import { useDress } from './use-dress'
import { useSettings } from './use-settings'
import { useShown } from './use-shown'
import styles from './walk.module.css'

export function WalkPage() {
  const id = Number(useParams().id)
  const { data, error } = useQuery(read.pattern(id))
  // A class remembers for everybody where it stands, and walks through its own version; without one this machine remembers.
  const [params] = useSearchParams()
  const classId = Number(params.get('class')) || undefined
  const { data: taught, error: noClass } = useQuery({ ...read.class(classId ?? 0), enabled: classId !== undefined })
  const { data: version } = useQuery({ ...read.version(id, taught?.version ?? 0), enabled: taught !== undefined })
  const trouble = error ?? noClass
  if (trouble && !(data && (classId === undefined || taught))) return <Trouble error={trouble} />
  if (!data || (classId !== undefined && !version)) return <PageLoading what="Fetching the pattern" />
  return taught && version ? (
    <Walk key={`${id} ${taught.id}`} pattern={{ ...data, source: version.source }} taught={taught} />
  ) : (
    <Walk key={id} pattern={data} />
  )
}

/** The piece made before one's eyes, large enough for a class: line by line or bead by bead. */
function Walk({ pattern, taught }: { pattern: Pattern; taught?: ClassAnswer }) {
  usePageTitle(`Walk through ${pattern.title}`)
  const { choices, chosen, colourway, size } = useShown(pattern)
  const formed = useFormed(pattern.source, choices)
  const { trouble, why } = formed
  // While its form is computed in other colours the piece as it was stays, and so do the keys.
  const last = useRef<Pick<typeof formed, 'scene' | 'report'>>(undefined)
  if (formed.report) last.current = { scene: formed.scene, report: formed.report }
  const { scene, report } = last.current ?? formed
  const lying = useSteps(pattern.source, choices, formed.report !== undefined && formed.scene !== undefined)
  // The piece comes again when its colours have come: the walk stays where it is.
  const here = useRef<Place>(undefined)
  const dress = useDress(report, chosen)
  if (trouble) return <Trouble error={new Error(trouble)} />
  return (
    <>
      <PatternNav
        id={pattern.id}
        chosen={{ size: report?.size || size, colourway: colourway ? String(colourway.id) : undefined }}
      />
      <h1 className="visually-hidden">Walk through {pattern.title}</h1>
      {!report && <Loading what="Laying out the piece" />}
      {report && !report.sound && (
        <div className="empty sheet">
          <h2>Not yet</h2>
          <p>A pattern can be walked through once none of its lines has an error. Fix them in the ledger.</p>
        </div>
      )}
      {report?.sound && !scene && <div className="empty sheet">{why}</div>}
      {report?.sound && scene && (
        <Steps
          key={`${report.size} ${scene.passes.length}`}
          pattern={pattern}
          report={report}
          scene={scene}
          lying={lying}
          dress={dress}
          here={here}
          {...(taught ? { taught: { id: taught.id, title: taught.title, step: taught.walkStep } } : {})}
        />
      )}
    </>
  )
}

interface StepsProps {
  readonly pattern: Pattern
  readonly report: Report
  readonly scene: Scene
  /** How the piece lies after each step. */
  readonly lying: readonly StepPoses[]
  readonly dress: Readonly<Record<string, Dress>>
  /** Where the walk is, kept while the piece changes beneath it. */
  readonly here: RefObject<Place | undefined>
  readonly taught?: { readonly id: number; readonly title: string; readonly step: number }
}

interface Place {
  readonly step: number
  readonly pass: number
}

type Pace = 'line' | 'bead'

function Steps({ pattern, report, scene, lying, dress, here, taught }: StepsProps) {
  const { statements } = report
  const settings = useSettings(pattern.id)
  const steps = useMemo(
    () => walkOf(scene.passes, statements, ({ action }) => sentenceFor(action, settings) !== undefined),
    [scene, statements, settings],
  )
  const keptAt = `tessellum walk ${pattern.id} ${report.size}`
  const [place, setPlace] = useState(
    (): Place =>
      here.current && here.current.step < steps.length
        ? here.current
        : taught
          ? { step: Math.min(taught.step, Math.max(0, steps.length - 1)), pass: 0 }
          : keptPlace(keptAt, steps.length),
  )
  useEffect(() => {
    here.current = place
  }, [here, place])
  const classId = taught?.id
  const [pace, setPace] = useState<Pace>('line')
  const [playing, setPlaying] = useState(false)
  const [speed, setSpeed] = useState(3)
  const [face, setFace] = useState<Face>('front')
  const hand = useHandedness()
  const [threadShown, setThreadShown] = useState(true)
  const whole = useRef<HTMLDivElement>(null)
  const minutes = useMinutes()
  useEffect(() => {
    if (classId === undefined) {
      localStorage.setItem(keptAt, JSON.stringify(place))
      return
    }
    const timer = setTimeout(() => {
      // Tried again with the next step: where a class stands is no loss to anyone.
      call('PUT /api/classes/:id/walk', { params: { id: classId }, body: { step: place.step } }).catch(() => undefined)
    }, 400)
    return () => clearTimeout(timer)
  }, [keptAt, place, classId])

  const { step: at, pass } = place
  const step = steps[at] as (typeof steps)[number] | undefined
  const laid = step ? step.to - step.from : 0
  const done = pace === 'line' ? laid : Math.min(pass, laid)

  const forward = useCallback(() => {
    setPlace((before) => {
      const now = steps[before.step]
      if (!now) return before
      if (pace === 'bead' && before.pass < now.to - now.from) return { ...before, pass: before.pass + 1 }
      return before.step + 1 < steps.length ? { step: before.step + 1, pass: pace === 'bead' ? 1 : 0 } : before
    })
  }, [steps, pace])
  const back = useCallback(() => {
    setPlace((before) => {
      if (pace === 'bead' && before.pass > 1) return { ...before, pass: before.pass - 1 }
      const earlier = steps[before.step - 1]
      return earlier ? { step: before.step - 1, pass: earlier.to - earlier.from } : { step: 0, pass: 0 }
    })
  }, [steps, pace])
  const go = useCallback(
    (to: number) => setPlace({ step: Math.max(0, Math.min(steps.length - 1, to)), pass: 0 }),
    [steps],
  )
  // From where the walk is then, so that keys in quick succession all count.
  const goBy = useCallback(
    (by: number) =>
      setPlace((before) => ({ step: Math.max(0, Math.min(steps.length - 1, before.step + by)), pass: 0 })),
    [steps],
  )

  const last = at >= steps.length - 1 && done >= laid
  useEffect(() => {
    if (!playing) return
    if (last) {
      setPlaying(false)
      return
    }
    const timer = setTimeout(forward, (pace === 'line' ? 4500 : 900) / speed)
    return () => clearTimeout(timer)
    // Another step, another wait.
  }, [playing, last, forward, pace, speed, place])

  useEffect(() => {
    const pressed = (event: KeyboardEvent) => {
      const { target } = event
      if (event.ctrlKey || event.altKey || event.metaKey) return
      if (target instanceof HTMLElement && target.closest('input, textarea, canvas, [role=slider], .ant-modal')) return
      // A button in hand keeps the space bar for itself.
      if (event.key === ' ' && target instanceof HTMLButtonElement) return
      if (event.key === 'PageDown') goBy(1)
      else if (event.key === 'PageUp') goBy(-1)
      else if (event.key === 'Home') go(0)
      else if (event.key === 'End') go(steps.length - 1)
      else if (event.key === 'ArrowRight') forward()
      else if (event.key === 'ArrowLeft') back()
      else if (event.key === ' ') setPlaying((is) => !is)
      else return
      event.preventDefault()
    }
    window.addEventListener('keydown', pressed)
    return () => window.removeEventListener('keydown', pressed)
  }, [forward, back, go, goBy, steps])

  const to = step ? step.from + done : 0
  const { looks, passes } = useMemo(() => {
    if (!step) return looksAt(scene, 0, 0)
    return pace === 'line' ? looksAt(scene, step.from, step.to) : looksAt(scene, Math.max(step.from, to - 1), to)
  }, [scene, step, pace, to])
  const then = useLying(scene, lying, step?.to ?? 0)
  const seen = useMemo(() => sceneFor(hand, scene), [hand, scene])
  const now = useMemo(() => (then && hand === 'left' ? mirroredPoses(then) : then), [hand, then])
  if (!step) return <div className="empty sheet">This pattern has nothing to walk through yet.</div>

  const reached = Math.max(...steps.slice(0, at + 1).map((each) => each.statement))
  const statement = statements[step.statement]
  const action = statement?.turns[Math.min(step.time, statement.turns.length) - 1] ?? statement?.action
  const inStep = pickedIn(scene, step.from, pace === 'line' ? step.to : to)
  const before = pickedIn(scene, 0, to).picked
  const told = action && sentenceFor(action, settings)
  const own = action?.type === 'check' || action?.type === 'note'
  const sentence = told && own && hand === 'left' ? english.otherHand(told) : told
  const kind = action?.type === 'check' ? 'Check: ' : ''
  return (
    <div className={styles.walk} ref={whole}>
      <section className={`sheet ${styles.plate}`} aria-label="Piece">
        <Piece
          scene={seen}
          lying={now}
          dress={dress}
          face={face}
          onFace={setFace}
          threadShown={threadShown}
          onThread={setThreadShown}
          looks={looks}
          passes={passes}
          upTo={reached}
          label={`${report.pattern}, step ${at + 1}`}
        />
        <Segmented
          className={styles.sides}
          aria-label="Side"
          value={face}
          options={['front', 'back', 'side']}
          onChange={(value) => setFace(value as Face)}
        />
      </section>
      <section className={`sheet ${styles.telling}`} aria-label="Step">
        <div className="quiet figures">
          {statement?.part ? `${capital(statement.part)}, ` : ''}step {at + 1} of {steps.length}, line {statement?.line}
          {step.times > 1 ? `, ${step.time} of ${step.times} times` : ''}
        </div>
        <p className={styles.sentence} aria-live="polite">
          {kind}
          {sentence}
        </p>
        <PickedUp
          counts={inStep.picked}
          passed={inStep.passed}
          dress={dress}
          total={pace === 'bead' ? laid : undefined}
          done={done}
        />
        <div className="spacer" />
        <p className={styles.soFar}>
          <span className="quiet">So far</span>{' '}
          <strong className="figures">{sayCounts(before) || 'nothing yet'}</strong>
        </p>
        <Slider
          ariaLabelForHandle="Step"
          min={0}
          max={steps.length - 1}
          value={at}
          onChange={go}
          tooltip={{ formatter: (value) => `Step ${(value ?? 0) + 1}` }}
        />
        <div className="hands">
          <Button size="large" icon={<LeftOutlined />} onClick={back} disabled={at === 0 && done === 0}>
            Back
          </Button>
          <Button
            size="large"
            icon={playing ? <PauseOutlined /> : <CaretRightOutlined />}
            onClick={() => setPlaying(!playing)}
            disabled={last}
          >
            {playing ? 'Pause' : 'Play'}
          </Button>
          <Button
            size="large"
            type="primary"
            icon={<RightOutlined />}
            iconPlacement="end"
            onClick={forward}
            disabled={last}
          >
            Next
          </Button>
        </div>
        <div className="hands">
          <Segmented
            aria-label="One step is"
            value={pace}
            options={[
              { value: 'line', label: 'Line by line' },
              { value: 'bead', label: 'Bead by bead' },
            ]}
            onChange={(value) => {
              setPace(value as Pace)
              setPlace({ step: at, pass: value === 'bead' ? 1 : 0 })
            }}
          />
          <Slider
            ariaLabelForHandle="Speed"
            className={styles.slider ?? ''}
            min={1}
            max={8}
            value={speed}
            onChange={setSpeed}
            tooltip={{ formatter: (value) => `${value} times` }}
          />
          <Button
            icon={<FullscreenOutlined />}
            aria-label="Whole screen"
            title="Whole screen"
            onClick={() =>
              void (document.fullscreenElement ? document.exitFullscreen() : whole.current?.requestFullscreen())
            }
          />
        </div>
        <div className="hands">
          <HandChoice />
        </div>
        <div className={`quiet ${styles.keys}`}>
          <kbd>←</kbd> <kbd>→</kbd> step, <kbd>PgUp</kbd> <kbd>PgDn</kbd> line, <kbd>Space</kbd> plays. Outlined dark:
          new. Outlined brass: passed.
        </div>
        <SampleLog pattern={pattern} report={report} minutes={minutes} eager={last} />
      </section>
    </div>
  )
}

interface PickedUpProps {
  readonly counts: Readonly<Record<string, number>>
  readonly passed: number
  readonly dress: Readonly<Record<string, Dress>>
  readonly total: number | undefined
  readonly done: number
}

/** What is picked up and passed in this step, as beads with their letters and counts. */
function PickedUp({ counts, passed, dress, total, done }: PickedUpProps) {
  return (
    <ul className={styles.pickedUp} aria-label="In this step">
      {Object.entries(counts).map(([role, count]) => (
        <li key={role}>
          <svg width="34" height="34" aria-hidden="true">
            <rect x="3" y="6" width="28" height="22" rx="8" fill={dress[role]?.colour ?? '#fff'} stroke="#22302b" />
          </svg>
          <strong>
            {count} {role}
          </strong>
          <span className="quiet">pick up</span>
        </li>
      ))}
      {passed > 0 && (
        <li>
          <svg width="34" height="34" aria-hidden="true">
            <rect x="3" y="8" width="28" height="18" rx="8" fill="#f5e8c8" stroke="#8a6417" strokeWidth="2" />
            <path d="M0 17H34" stroke="#9a3f2b" strokeWidth="3" />
          </svg>
          <strong>{passed}</strong>
          <span className="quiet">pass through</span>
        </li>
      )}
      {total !== undefined && total > 0 && (
        <li className="quiet figures">
          {done} of {total} of this line
        </li>
      )}
    </ul>
  )
}

function keptPlace(key: string, steps: number): { step: number; pass: number } {
  try {
    const kept = JSON.parse(localStorage.getItem(key) ?? 'null') as { step: number; pass: number } | null
    if (kept && kept.step >= 0 && kept.step < steps) return { step: kept.step, pass: Math.max(0, kept.pass) }
  } catch {
    // What another version kept is no loss.
  }
  return { step: 0, pass: 0 }
}

/** Whole minutes this page has been looked at. */
function useMinutes(): number {
  const [seconds, setSeconds] = useState(0)
  useEffect(() => {
    const timer = setInterval(() => {
      if (document.visibilityState === 'visible') setSeconds((before) => before + 5)
    }, 5000)
    return () => clearInterval(timer)
  }, [])
  return Math.floor(seconds / 60)
}

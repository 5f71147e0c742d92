import { sayPercent } from '@tessellum/core/measure/units'
import { sayAlong, sayExtents, soundForm } from '@tessellum/core/report/form-report'
import type { Report } from '@tessellum/core/report/report'
import { type Crowding, sayCrowding } from '@tessellum/core/thread/crowding'
import { useEffect, useRef } from 'react'
import { Finding, Findings } from '../frame/findings'
import { useUnits } from '../settings/use-units'
import styles from './measures.module.css'

/** What the piece comes to, in figures, and what its form shows, in words tied to lines. */
export function Measures({ report, goTo }: { report: Report; goTo: (line: number) => void }) {
  const units = useUnits()
  const sound = soundForm(report)
  const beads = report.beads.reduce((sum, bead) => sum + bead.each, 0)
  const room = useRoomOf(sound !== undefined)
  return (
    <div {...room}>
      <dl className={`${styles.measures} figures`}>
        {sound && (
          <div className={styles.wide}>
            <dt>Wide, high, deep</dt>
            <dd>{sayExtents(sound, units.system)}</dd>
          </div>
        )}
        {sound?.along && sayAlong(sound, units.system) && (
          <div className={styles.wide}>
            <dt>{sound.along.type === 'band' ? 'Band' : 'Length'}</dt>
            <dd>{sayAlong(sound, units.system)}</dd>
          </div>
        )}
        <div className={styles.wide}>
          <dt>Beads</dt>
          <dd>{beads}</dd>
        </div>
        <div className={styles.wide}>
          <dt>{sound ? 'Thread, measured' : 'Thread, estimated'}</dt>
          <dd>{units.thread(report.thread.pathMm)}</dd>
        </div>
        <FullestHole crowding={report.crowding} />
        {report.fits.map((fit) => (
          <div key={`${fit.stone} ${fit.beads}`} className={styles.wide}>
            <dt>
              Ring of {fit.beads} round {fit.stone}
            </dt>
            <dd className={fit.verdict === 'snug' || fit.verdict === 'loose' ? '' : 'trouble'}>
              {sayPercent(fit.ease)}, {fit.verdict}
            </dd>
          </div>
        ))}
      </dl>
      {sound && sound.findings.length > 0 && (
        <Findings label="What the form shows">
          {sound.findings.map(({ line, tone, text }) => (
            <Finding key={`${line} ${text}`} tone={tone}>
              {line === undefined ? (
                text
              ) : (
                <button type="button" className={styles.asText} onClick={() => goTo(line)} title={`Go to line ${line}`}>
                  {text} <span className="quiet">line {line}</span>
                </button>
              )}
            </Finding>
          ))}
        </Findings>
      )}
    </div>
  )
}

/** What is not measured yet keeps the room that the last measures took: or the piece above it would be painted in another size at every key. */
function useRoomOf(isMeasured: boolean) {
  const ref = useRef<HTMLDivElement>(null)
  const taken = useRef(0)
  const measured = useRef(isMeasured)
  measured.current = isMeasured
  useEffect(() => {
    const watch = new ResizeObserver(([entry]) => {
      if (entry && measured.current) taken.current = entry.contentRect.height
    })
    if (ref.current) watch.observe(ref.current)
    return () => watch.disconnect()
  }, [])
  return { ref, className: styles.all ?? '', style: { minHeight: isMeasured ? 0 : taken.current } }
}

/** The role whose beads have least room left for thread. */
function FullestHole({ crowding }: { crowding: readonly Crowding[] }) {
  const [fullest] = [...crowding].sort((a, b) => a.room - b.room)
  if (!fullest) return null
  const { role, room } = fullest
  return (
    <div className={styles.wide}>
      <dt>Fullest hole</dt>
      <dd className={room < 0 ? 'trouble' : ''}>
        {role}, {sayCrowding(fullest)}
      </dd>
    </div>
  )
}

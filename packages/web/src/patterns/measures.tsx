import { sayPercent } from '@tessellum/core/measure/units'
import { sayAlong, sayExtents, soundForm } from '@tessellum/core/report/form-report'
import type { Report } from '@tessellum/core/report/report'
import type { Crowding } from '@tessellum/core/thread/crowding'
import { useUnits } from '../settings/use-units'

/** What the piece comes to, in figures, and what its form shows, in words tied to lines. */
export function Measures({ report, goTo }: { report: Report; goTo: (line: number) => void }) {
  const units = useUnits()
  const sound = soundForm(report)
  const beads = report.beads.reduce((sum, bead) => sum + bead.each, 0)
  return (
    <>
      <dl className="measures figures">
        {sound && (
          <div className="wide">
            <dt>Wide, high, deep</dt>
            <dd>{sayExtents(sound, units.system)}</dd>
          </div>
        )}
        {sound?.along && sayAlong(sound, units.system) && (
          <div className="wide">
            <dt>{sound.along.type === 'band' ? 'Band' : 'Length'}</dt>
            <dd>{sayAlong(sound, units.system)}</dd>
          </div>
        )}
        <div className="wide">
          <dt>Beads</dt>
          <dd>{beads}</dd>
        </div>
        <div className="wide">
          <dt>{sound ? 'Thread, measured' : 'Thread, estimated'}</dt>
          <dd>{units.thread(report.thread.pathMm)}</dd>
        </div>
        <FullestHole crowding={report.crowding} />
        {report.fits.map((fit) => (
          <div key={`${fit.stone} ${fit.beads}`} className="wide">
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
        <ul className="findings" aria-label="What the form shows">
          {sound.findings.map(({ line, tone, text }) => (
            <li key={`${line} ${text}`} className={tone}>
              <span className="mark" aria-hidden="true">
                {marks[tone]}
              </span>
              {line === undefined ? (
                <span>{text}</span>
              ) : (
                <button type="button" className="as-text" onClick={() => goTo(line)} title={`Go to line ${line}`}>
                  {text} <span className="quiet">line {line}</span>
                </button>
              )}
            </li>
          ))}
        </ul>
      )}
    </>
  )
}

const marks = { good: '✓', plain: '·', trouble: '!' } as const

/** The role whose beads have least room left for thread. */
function FullestHole({ crowding }: { crowding: readonly Crowding[] }) {
  const [fullest] = [...crowding].sort((a, b) => a.room - b.room)
  if (!fullest) return null
  const { role, passes, room } = fullest
  return (
    <div className="wide">
      <dt>Fullest hole</dt>
      <dd className={room < 0 ? 'trouble' : ''}>
        {role}, {passes} pass{passes === 1 ? '' : 'es'}:{' '}
        {room < 0 ? `${-room} too many` : room === 0 ? 'full' : `room for ${room} more`}
      </dd>
    </div>
  )
}

import type { HandPass } from '@tessellum/core/hand/hand-pass'
import type { Crowded, HandState, Proposal } from '@tessellum/core/hand/stitching'
import { counted } from '@tessellum/core/measure/counted'
import type { Report } from '@tessellum/core/report/report'
import { runsOf } from '@tessellum/core/stitch/runs'
import { Button } from 'antd'
import type { ReactNode } from 'react'
import type { Dress } from '../piece/stage-kind'
import { Swatch } from '../stock/swatch'
import styles from './stitching.module.css'

/** Something that is asked before it is done. */
export interface Asked {
  readonly words: string
  readonly ways: readonly { readonly label: string; readonly act: () => void }[]
}

interface HandPanelProps {
  readonly report: Report | undefined
  readonly dress: Readonly<Record<string, Dress>>
  readonly passes: readonly HandPass[]
  readonly state: HandState | undefined
  readonly why: string | undefined
  readonly mend: string | undefined
  readonly onMend: (line: string) => void
  readonly asked: Asked | undefined
  /** Figures typed before a letter: how many to pick up. */
  readonly times: string
  /** The second hole of a two-hole bead is meant next. */
  readonly second: boolean
  /** The proposal that Tab takes. */
  readonly chosen: number
  /** Something was clicked with the mouse: the keys go back to the piece. */
  readonly onPointed: () => void
  readonly onChoose: (proposal: number) => void
  readonly onTake: (proposal: Proposal) => void
  readonly onPick: (letter: string) => void
  readonly onBack: () => void
  readonly onEnd: () => void
}

/** What is on the needle, what is probably being done, and what can be done now. */
export function HandPanel({
  report,
  dress,
  passes,
  state,
  why,
  mend,
  onMend,
  asked,
  times,
  second,
  chosen,
  onPointed,
  onChoose,
  onTake,
  onPick,
  onBack,
  onEnd,
}: HandPanelProps) {
  return (
    // biome-ignore lint/a11y/useKeyWithClickEvents: for the mouse only; with the keyboard the buttons keep the keys
    <section className="sheet" aria-label="Stitching" onClick={({ detail }) => detail > 0 && onPointed()}>
      <div className="panel-head">
        <h2>Stitching</h2>
      </div>
      <div className={styles.panel}>
        <div>
          <h3>
            Pick up{times && ` ${times}`}
            {second && ' by the second hole'}
          </h3>
          <LetterButtons report={report} dress={dress} onPick={onPick} />
        </div>
        <div role="status">
          {why ? <p className="trouble">{why}</p> : <OnNeedle passes={passes} state={state} />}
          {(state?.crowded ?? []).map((each) => (
            <p key={each.letter} className="trouble">
              {tooFull(each)}
            </p>
          ))}
        </div>
        {mend && (
          <Button size="small" type="primary" onClick={() => onMend(mend)}>
            Go on with a {mend}
          </Button>
        )}
        {asked && (
          <div className={styles.ask} role="alert">
            <span>{asked.words}</span>
            <div className={styles.buttons}>
              {asked.ways.map(({ label, act }) => (
                <Button key={label} size="small" onClick={act}>
                  {label}
                </Button>
              ))}
            </div>
          </div>
        )}
        <div className={styles.buttons}>
          <Button size="small" disabled={passes.length === 0} onClick={onBack}>
            Take back
          </Button>
          <Button size="small" type="primary" disabled={passes.length === 0} onClick={onEnd}>
            End the line
          </Button>
        </div>
        {state && state.proposals.length > 0 && (
          <div>
            <h3>{passes.length > 0 ? 'Probably' : 'Next'}</h3>
            <ul className={styles.proposals} aria-label="Proposals">
              {state.proposals.map((proposal, i) => (
                <li key={proposal.lines.join('\n')}>
                  <button
                    type="button"
                    className={styles.proposal}
                    aria-current={i === chosen}
                    onMouseEnter={() => onChoose(i)}
                    onFocus={() => onChoose(i)}
                    onClick={() => onTake(proposal)}
                  >
                    <span className={styles.line}>{proposal.lines.join('\n')}</span>
                    <br />
                    <span className={styles.adds}>{addsOf(proposal)}</span>
                  </button>
                </li>
              ))}
            </ul>
          </div>
        )}
        <Keys />
      </div>
    </section>
  )
}

export function LetterButtons({
  report,
  dress,
  chosen,
  onPick,
}: {
  report: Report | undefined
  dress: Readonly<Record<string, Dress>>
  chosen?: string
  onPick: (letter: string) => void
}): ReactNode {
  const beads = report?.beads ?? []
  if (beads.length === 0)
    return <p className="quiet">Declare a bead in the ledger first, for example: bead A round 11/0.</p>
  return (
    <div className={styles.letters}>
      {beads.map(({ role, kind, label }) => (
        <button
          key={role}
          type="button"
          className={styles.letterButton}
          aria-pressed={chosen === undefined ? undefined : chosen === role}
          title={label || kind}
          onClick={() => onPick(role)}
        >
          <Swatch
            item={{
              category: 'bead',
              kind,
              colour: dress[role]?.colour ?? '#cfd6d2',
              finish: dress[role]?.finish ?? '',
            }}
            size={24}
          />
          <strong>{role}</strong>
        </button>
      ))}
    </div>
  )
}

function OnNeedle({ passes, state }: { passes: readonly HandPass[]; state: HandState | undefined }) {
  const picked = passes.flatMap((pass) => (pass.type === 'pick' ? [pass.role] : []))
  const counts = runsOf([...picked].sort())
  if (passes.length === 0)
    return (
      <span className="quiet">
        {state && state.needle === undefined
          ? 'Nothing is on the needle yet. Pick up the first bead.'
          : 'The needle is where the text ends. Pick up a bead, or pass through one.'}
      </span>
    )
  return (
    <>
      <div className={styles.line}>{state?.lines?.join('\n')}</div>
      <span className="quiet">
        {counts.length > 0 ? `${counts.map(({ role, count }) => `${count} ${role}`).join(', ')} in this line, ` : ''}
        {counted(passes.length, 'pass', 'passes')}
      </span>
    </>
  )
}

export const tooFull = ({ letter, passes, most }: Crowded): string =>
  `A hole of ${letter} would have ${passes} passes, and takes ${most}. Use a finer needle or thread, or go another way.`

/** "22 A more", "6 passes, nothing picked up". */
function addsOf({ adds, more, restepped, remarks }: Proposal): string {
  const counts = Object.entries(adds).map(([letter, count]) => `${count} ${letter}`)
  const what =
    counts.length > 0
      ? `${counts.join(', ')} more, ${counted(more, 'pass', 'passes')}`
      : more > 0
        ? `${counted(more, 'pass', 'passes')} more, nothing picked up`
        : ''
  return [what, restepped ? 'the round before steps up to where this one begins' : '', ...remarks]
    .filter(Boolean)
    .join('; ')
}

function Keys() {
  return (
    <details>
      <summary>Keys</summary>
      <dl className={styles.keys}>
        <dt>A, 12 A</dt>
        <dd>pick up a bead of that letter, or twelve</dd>
        <dt>← →</dt>
        <dd>from bead to bead along the thread</dd>
        <dt>Space</dt>
        <dd>pass through that bead; with Shift from its other end</dd>
        <dt>Ctrl ← ↑ → ↓</dt>
        <dd>to the next bead that way</dd>
        <dt>:</dt>
        <dd>the second hole of a two-hole bead</dd>
        <dt>↑ ↓, Tab</dt>
        <dd>choose a proposal, take it</dd>
        <dt>Enter</dt>
        <dd>end the line</dd>
        <dt>Backspace</dt>
        <dd>take back the last pass</dd>
        <dt>Ctrl Z</dt>
        <dd>undo, in text and piece alike</dd>
        <dt>Esc</dt>
        <dd>leave stitching</dd>
      </dl>
    </details>
  )
}

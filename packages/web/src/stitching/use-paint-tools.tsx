/** Painting: beads of the piece take the letter in hand, one by one or as a motif. */
import type { Choices } from '@tessellum/core/evaluate/evaluate-pattern'
import type { Brush } from '@tessellum/core/hand/brush'
import type { RolledOut } from '@tessellum/core/hand/rolled-out'
import { divisors } from '@tessellum/core/measure/whole'
import { ordinal } from '@tessellum/core/notation/ordinal'
import type { Report } from '@tessellum/core/report/report'
import { Select, Switch } from 'antd'
import { type ReactNode, useEffect, useState } from 'react'
import { NumberField } from '../frame/number-field'
import { evaluateClient } from '../patterns/use-evaluated'
import type { Dress } from '../piece/stage-kind'
import { FlatMap } from './flat-map'
import { LetterButtons } from './hand-panel'
import styles from './stitching.module.css'

export interface PaintTools {
  /** A bead of the piece as it is drawn. */
  readonly onTouch: (bead: number) => void
  readonly panel: ReactNode
}

interface Options {
  readonly text: string
  readonly choices: Choices
  readonly report: Report | undefined
  readonly dress: Readonly<Record<string, Dress>>
  readonly write: (text: string) => void
  /** The holes of the passes that are drawn. */
  readonly drawn: Int32Array
  readonly active: boolean
}

const brushes = [
  { value: 'bead', label: 'This bead' },
  { value: 'every', label: 'Every so many in its round' },
  { value: 'round', label: 'The whole round' },
  { value: 'column', label: 'Straight up the piece' },
] as const

export function usePaintTools({ text, choices, report, dress, write, drawn, active }: Options): PaintTools {
  const [letter, setLetter] = useState('')
  const [kind, setKind] = useState<Brush['type']>('bead')
  const [n, setN] = useState(4)
  const [mirrored, setMirrored] = useState(false)
  const [told, setTold] = useState<{ readonly words: string; readonly wrong: boolean }>()
  const [flat, setFlat] = useState<RolledOut>()
  const letters = (report?.beads ?? []).map(({ role }) => role)
  const inHand = letters.includes(letter) ? letter : (letters[1] ?? letters[0] ?? '')
  useEffect(() => {
    if (!active) return
    let gone = false
    evaluateClient.rolledOut(text, choices).then(
      (found) => !gone && setFlat(found),
      () => !gone && setFlat(undefined),
    )
    return () => {
      gone = true
    }
  }, [active, text, choices])
  const paint = (bead: number, seen?: Int32Array) => {
    const brush: Brush = kind === 'every' ? { type: 'every', n, mirrored } : { type: kind }
    evaluateClient.paint(text, choices, bead, brush, inHand, seen).then(
      (painted) => {
        if ('why' in painted) return setTold({ words: painted.why, wrong: true })
        setTold({
          words: `${painted.beads === 0 ? `That is ${inHand} already.` : `${painted.beads} painted ${inHand}.`}${
            kind === 'every' && painted.round % n !== 0 ? ` ${unevenWords(painted.round, n)}` : ''
          }`,
          wrong: false,
        })
        write(painted.text)
      },
      (error: unknown) => setTold({ words: error instanceof Error ? error.message : String(error), wrong: true }),
    )
  }
  return {
    onTouch: (bead) => paint(bead, drawn),
    panel: (
      <section className="sheet" aria-label="Painting">
        <div className="panel-head">
          <h2>Painting</h2>
        </div>
        <div className={styles.panel}>
          <div>
            <h3>Paint with</h3>
            <LetterButtons report={report} dress={dress} chosen={inHand} onPick={setLetter} />
          </div>
          <div className={styles.brush}>
            <Select aria-label="Brush" value={kind} options={brushes.map((each) => ({ ...each }))} onChange={setKind} />
            {kind === 'every' && (
              <>
                <NumberField
                  aria-label="Every so many beads"
                  min={1}
                  max={200}
                  value={n}
                  onChange={(value) => setN(value ?? 1)}
                  prefix="every"
                />
                <Switch
                  checked={mirrored}
                  onChange={setMirrored}
                  checkedChildren="mirrored"
                  unCheckedChildren="not mirrored"
                  aria-label="Mirrored"
                />
              </>
            )}
          </div>
          <div role="status">
            {told ? (
              <span className={told.wrong ? 'trouble' : 'quiet'}>{told.words}</span>
            ) : (
              <span className="quiet">Click a bead of the piece, or of the flat drawing below.</span>
            )}
          </div>
          {flat && <FlatMap flat={flat} dress={dress} onBead={(bead) => paint(bead)} />}
        </div>
      </section>
    ),
  }
}

/** What would come out even instead. */
function unevenWords(round: number, n: number): string {
  const even = divisors(round).filter((each) => each > 1 && each < round)
  return `The round has ${round} beads, and every ${ordinal(n)} does not come out even${
    even.length > 0 ? `; every ${even.map(ordinal).join(', ')} does` : ''
  }.`
}

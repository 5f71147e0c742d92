import type { Colourway, SaveColourway } from '@tessellum/contract/colourways'
import type { Pattern } from '@tessellum/contract/patterns'
import type { Item } from '@tessellum/contract/stock'
import type { PaletteColour } from '@tessellum/core/colour/palette'
import { roleColours } from '@tessellum/core/drawing/role-colours'
import type { Scene } from '@tessellum/core/drawing/scene'
import type { Chosen } from '@tessellum/core/kit/choice'
import { counted } from '@tessellum/core/measure/counted'
import { soundForm } from '@tessellum/core/report/form-report'
import type { Report } from '@tessellum/core/report/report'
import { candidateOf } from '@tessellum/core/substitute/candidate'
import type { ColourSource, Proposal, ProposalQuestion } from '@tessellum/core/substitute/propose'
import { Button, ColorPicker, Drawer, Input, Progress, Segmented, Upload } from 'antd'
import { proxy, type Remote } from 'comlink'
import { useEffect, useRef, useState } from 'react'
import { NumberField } from '../frame/number-field'
import { Drawing } from '../piece/drawing'
import { call } from '../shop/api'
import { useIdempotentMutation } from '../shop/use-idempotent-mutation'
import { Swatch } from '../stock/swatch'
import { TaskWorker } from '../worker/begin-worker'
import { coloursOf } from './judgement'
import styles from './propose.module.css'
import type { ProposeTasks } from './propose-tasks'

interface ProposeProps {
  readonly pattern: Pattern
  readonly colourway: Colourway
  readonly chosen: Chosen<Item>
  readonly shelf: readonly Item[]
  readonly report: Report
  readonly scene: Scene | undefined
  readonly close: () => void
}

/** Other colourways that the shelf can fill, with the contrasts of this one. */
export function Propose({ pattern, colourway, chosen, shelf, report, scene, close }: ProposeProps) {
  const [from, setFrom] = useState<ColourSource['type']>('shelf')
  const [seed, setSeed] = useState('#7a2e5c')
  const [palette, setPalette] = useState<readonly PaletteColour[]>()
  const [kits, setKits] = useState(10)
  const { work, answer, progress, trouble, leaveOff } = useProposals()
  const source: ColourSource | undefined =
    from === 'shelf'
      ? { type: 'shelf' }
      : from === 'seed'
        ? { type: 'seed', colour: seed }
        : palette && { type: 'palette', colours: palette.map(({ colour }) => colour) }
  const begin = () => {
    if (!source) return
    const question: ProposalQuestion = {
      report,
      roles: coloursOf(report, chosen.items, 'usual', 'daylight'),
      kit: chosen.kit,
      touching: soundForm(report)?.touching ?? [],
      thread: chosen.colours.thread,
      candidates: shelf.flatMap((item) => candidateOf(item) ?? []),
      free: Object.fromEntries(shelf.map(({ id, onHand, reserved }) => [id, onHand - reserved])),
      kits,
      from: source,
    }
    void work((worker, onProgress) => worker.propose(question, onProgress))
  }
  return (
    <Drawer open onClose={close} size={680} title={`Other colours for ${colourway.name}`}>
      <p className="quiet">
        Beads of the same kinds and sizes, so that no count changes, with the contrasts of this colourway.
      </p>
      <div className={`hands ${styles.choices}`}>
        <Segmented
          aria-label="Colours from"
          value={from}
          onChange={(value) => setFrom(value as ColourSource['type'])}
          options={[
            { value: 'shelf', label: 'The shelf' },
            { value: 'seed', label: 'A colour' },
            { value: 'palette', label: 'A picture' },
          ]}
        />
        {from === 'seed' && (
          <ColorPicker value={seed} disabledAlpha showText onChange={(colour) => setSeed(colour.toHexString())} />
        )}
        {from === 'palette' && (
          <Upload
            accept="image/*"
            showUploadList={false}
            beforeUpload={(file) => {
              void work(async (worker) => {
                setPalette(undefined)
                setPalette(await worker.palette(file))
                return undefined
              })
              return false
            }}
          >
            <Button>Choose a picture</Button>
          </Upload>
        )}
        <label htmlFor="propose-kits">Kits</label>
        <NumberField
          id="propose-kits"
          min={1}
          max={10_000}
          precision={0}
          value={kits}
          onChange={(value) => setKits(value ?? 1)}
        />
        {progress === undefined ? (
          <Button type="primary" onClick={begin} disabled={!source}>
            Propose
          </Button>
        ) : (
          <Button onClick={leaveOff}>Stop</Button>
        )}
      </div>
      {from === 'palette' && palette && (
        <ul className={styles.palette} aria-label="The picture's colours">
          {palette.map(({ colour, share }) => (
            <li key={colour} className="figures">
              <span style={{ background: colour }} /> {colour}, {Math.round(100 * share)} %
            </li>
          ))}
        </ul>
      )}
      {progress !== undefined && <Progress percent={Math.round(100 * progress)} aria-label="Proposing" />}
      {trouble && (
        <div role="alert" className="notice trouble">
          {trouble}
        </div>
      )}
      {answer?.length === 0 && (
        <p className="empty">
          Nothing on the shelf keeps these contrasts without confusing neighbours. Ask for fewer kits, or begin with
          another colour.
        </p>
      )}
      <ol className={styles.proposals} aria-label="Proposals, best first">
        {answer?.map((proposal) => (
          <Offer
            key={JSON.stringify(proposal.items)}
            {...{ pattern, colourway, chosen, shelf, scene, proposal, close }}
          />
        ))}
      </ol>
    </Drawer>
  )
}

type OfferProps = Omit<ProposeProps, 'report'> & { readonly proposal: Proposal }

function Offer({ pattern, colourway, chosen, shelf, scene, proposal, close }: OfferProps) {
  const items = Object.entries(proposal.items)
    .flatMap(([role, id]) => {
      const item = shelf.find((each) => each.id === id)
      return item ? [{ role, item }] : []
    })
    .sort((a, b) => a.role.localeCompare(b.role))
  const [name, setName] = useState(() =>
    [...new Set(items.map(({ item }) => item.colourName))].slice(0, 2).join(' and '),
  )
  const keep = useIdempotentMutation(
    (body: SaveColourway) => call('POST /api/patterns/:id/colourways', { params: { id: pattern.id }, body }),
    { stale: ['colourways'], said: (saved) => `${saved.name} saved.`, after: close },
  )
  const choices = [
    // Stones and thread stay as they are.
    ...colourway.choices.filter(({ role }) => proposal.items[role] === undefined),
    ...items.map(({ role, item }) => ({ role, size: '', itemId: item.id })),
  ]
  const colours = {
    ...roleColours(Object.keys(proposal.items)),
    ...chosen.colours,
    ...Object.fromEntries(items.map(({ role, item }) => [role, item.colour])),
  }
  const finishes = { ...chosen.finishes, ...Object.fromEntries(items.map(({ role, item }) => [role, item.finish])) }
  return (
    <li aria-label={name}>
      <div className={styles.plate}>
        <Drawing scene={scene} colours={colours} finishes={finishes} label={`${pattern.title} in ${name}`} />
      </div>
      <div>
        <ul>
          {items.map(({ role, item }) => (
            <li key={role}>
              <strong>{role}</strong> <Swatch item={item} size={20} /> {item.colourName}{' '}
              <span className="quiet code">{item.colourCode}</span>
            </li>
          ))}
        </ul>
        <p className="quiet figures">
          {counted(proposal.kits, 'kit')}; contrasts within {proposal.contrastsOff.toFixed(0)} of the original,{' '}
          {proposal.away.toFixed(0)} from the colours aimed at
        </p>
        <div className="hands">
          <Input
            aria-label="Name of the colourway"
            value={name}
            maxLength={80}
            onChange={(event) => setName(event.target.value)}
          />
          <Button onClick={() => keep.run({ name, choices })} loading={keep.busy} disabled={name.trim() === ''}>
            Keep
          </Button>
        </div>
        {keep.refused && (
          <div role="alert" className="notice trouble">
            {keep.refused.message} {keep.refused.hint}
          </div>
        )}
      </div>
    </li>
  )
}

/** One worker for one question at a time; a new question, or leaving off, ends the one before. */
function useProposals() {
  const [worker] = useState(() => new TaskWorker<ProposeTasks>('propose'))
  const question = useRef(0)
  const [progress, setProgress] = useState<number>()
  const [answer, setAnswer] = useState<readonly Proposal[]>()
  const [trouble, setTrouble] = useState<string>()
  const leaveOff = () => {
    question.current++
    worker.end(new Error('Stopped.'))
    setProgress(undefined)
  }
  useEffect(() => () => worker.end(new Error('Stopped.')), [worker])
  const work = async (
    what: (
      remote: Remote<ProposeTasks>,
      onProgress: (done: number) => void,
    ) => Promise<readonly Proposal[] | undefined>,
  ) => {
    leaveOff()
    const own = question.current
    const still = () => question.current === own
    setAnswer(undefined)
    setTrouble(undefined)
    setProgress(0)
    try {
      const onProgress = proxy((done: number) => still() && setProgress(done))
      const found = await worker.ask((remote) => what(remote, onProgress))
      if (still()) setAnswer(found)
    } catch (error) {
      if (still()) setTrouble(error instanceof Error ? error.message : String(error))
    }
    if (still()) leaveOff()
  }
  return { work, answer, progress, trouble, leaveOff }
}

import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { type Colourway, colourway as colourwayAnswer } from '@tessellum/contract/colourways'
import type { Pattern } from '@tessellum/contract/patterns'
import type { Item } from '@tessellum/contract/stock'
import type { Chosen } from '@tessellum/core/kit/choice'
import { sayLength, sayPercent } from '@tessellum/core/measure/units'
import type { Choices } from '@tessellum/core/report/reckon-pattern'
import type { Report } from '@tessellum/core/report/report'
import type { Substitute } from '@tessellum/core/substitute/substitutes'
import { App, Button, Drawer, InputNumber } from 'antd'
import { useState } from 'react'
import { Loading } from '../frame/loading'
import { bench } from '../patterns/use-reckoned'
import { ask, ShopError } from '../shop/api'
import { sayQuantity } from '../stock/quantity'
import { Swatch } from '../stock/swatch'
import { candidateOf } from './candidate'

interface SubstitutesProps {
  readonly pattern: Pattern
  readonly colourway: Colourway
  readonly role: string
  readonly choices: Choices
  readonly chosen: Chosen<Item>
  readonly shelf: readonly Item[]
  readonly report: Report
  /** Kits that are wanted, when it is asked for a batch. */
  readonly wanted: number
  readonly close: () => void
}

/** What of the shelf could stand in for a bead, and what each would do: counts, the stone, thread, colour, kits. */
export function Substitutes({
  pattern,
  colourway,
  role,
  choices,
  chosen,
  shelf,
  report,
  wanted,
  close,
}: SubstitutesProps) {
  const [kits, setKits] = useState(wanted)
  const client = useQueryClient()
  const { message } = App.useApp()
  const now = chosen.items[role]
  const touching = report.form?.touching
  const { data: found, error } = useQuery({
    queryKey: [
      'substitutes',
      pattern.id,
      pattern.revision,
      colourway.id,
      colourway.version,
      role,
      choices.size,
      kits,
      touching?.length,
    ],
    queryFn: () =>
      bench.substitutes({
        source: pattern.source,
        choices,
        role,
        now: now && candidateOf(now),
        candidates: shelf.flatMap((item) => candidateOf(item) ?? []),
        kit: chosen.kit,
        colours: chosen.colours,
        touching: touching ?? [],
        kits,
      }),
    staleTime: 30_000,
  })
  const accept = useMutation({
    mutationFn: (item: Item) =>
      ask('PUT', `/colourways/${colourway.id}`, colourwayAnswer, {
        body: {
          name: colourway.name,
          choices: [...colourway.choices.filter((choice) => choice.role !== role), { role, size: '', itemId: item.id }],
        },
      }),
    onSuccess: (saved) => {
      void client.invalidateQueries({ queryKey: ['colourways', pattern.id] })
      void message.success(
        `${saved.name} is version ${saved.version} now. Batches keep the one they were planned with.`,
      )
      close()
    },
  })
  return (
    <Drawer open onClose={close} size={640} title={`In place of ${role}${now ? `, ${now.colourName}` : ''}`}>
      <div className="hands" style={{ marginBottom: 12 }}>
        <label htmlFor="wanted">Kits wanted</label>
        <InputNumber
          id="wanted"
          min={0}
          max={10_000}
          precision={0}
          value={kits}
          onChange={(value) => setKits(value ?? 0)}
        />
        <span className="quiet">
          {now ? `${sayQuantity(now.onHand - now.reserved, now.unit)} of ${now.colourName} free` : 'no item chosen now'}
        </span>
      </div>
      {accept.error instanceof ShopError && (
        <div role="alert" className="notice trouble">
          {accept.error.message} {accept.error.hint}
        </div>
      )}
      {error && (
        <div role="alert" className="notice trouble">
          {error.message}
        </div>
      )}
      {!found && !error && <Loading what="Working out what each would do" />}
      {found?.length === 0 && <p className="empty">Nothing on the shelf could stand in for it.</p>}
      <ol className="substitutes" aria-label="Substitutes, best first">
        {(found ?? []).map((each) => {
          const item = shelf.find(({ id }) => id === each.id)
          return (
            item && (
              <li key={each.id} aria-label={item.colourName}>
                <Swatch item={item} size={34} />
                <div>
                  <strong>{item.colourName}</strong>{' '}
                  <span className="quiet">
                    {item.kind} {item.size}, {item.finish}, {item.maker}, {item.colourCode}
                  </span>
                  <Doing each={each} kits={kits} item={item} />
                </div>
                <Button onClick={() => accept.mutate(item)} loading={accept.isPending}>
                  Use it
                </Button>
              </li>
            )
          )
        })}
      </ol>
    </Drawer>
  )
}

/** What a substitute would do, in figures, old and new side by side. */
function Doing({ each, kits, item }: { each: Substitute; kits: number; item: Item }) {
  const { consequence, nearest } = each
  const thread = consequence.threadMm.after - consequence.threadMm.before
  const wrong = nearest?.alike && (nearest.verdict === 'confuses' || nearest.verdict === 'near')
  return (
    <ul className="figures">
      <li className={kits > 0 && each.kits < kits ? 'trouble' : ''}>
        {sayQuantity(item.onHand - item.reserved, item.unit)} free: {each.kits} kits
        {each.rescued > 0 && <strong>, rescues {each.rescued}</strong>}
      </li>
      <li>
        {each.apart.toFixed(1)} from the colour there now
        {nearest && (
          <span className={wrong ? 'trouble' : ''}>
            ; {nearest.difference.toFixed(1)} from {nearest.role} beside it
          </span>
        )}
      </li>
      {consequence.counts.length === 0 ? (
        <li className="quiet">no count changes</li>
      ) : (
        <li>
          counts: {consequence.counts.map(({ role, before, after }) => `${role} ${before} -> ${after}`).join(', ')}
          <span className="quiet"> in lines {consequence.lines.map(({ line }) => line).join(', ')}</span>
        </li>
      )}
      {consequence.fits.map(({ stone, before, after, verdict }) =>
        Math.abs(after - before) < 0.0005 ? null : (
          <li key={stone} className={verdict === 'snug' || verdict === 'loose' ? '' : 'trouble'}>
            ring round {stone}: {sayPercent(before)} -&gt; {sayPercent(after)}, {verdict}
          </li>
        ),
      )}
      {Math.abs(thread) >= 10 && (
        <li>
          thread: {thread > 0 ? '+' : '-'}
          {sayLength(Math.abs(thread))}
        </li>
      )}
      {consequence.crowded.length > 0 && (
        <li className="trouble">holes of {consequence.crowded.join(', ')} would be too full</li>
      )}
    </ul>
  )
}

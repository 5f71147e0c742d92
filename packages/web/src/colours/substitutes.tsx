import { useQuery } from '@tanstack/react-query'
import type { Colourway } from '@tessellum/contract/colourways'
import type { Pattern } from '@tessellum/contract/patterns'
import type { Item } from '@tessellum/contract/stock'
import type { Choices } from '@tessellum/core/evaluate/evaluate-pattern'
import type { Chosen } from '@tessellum/core/kit/choice'
import { soundForm } from '@tessellum/core/report/form-report'
import type { Report } from '@tessellum/core/report/report'
import type { Counting } from '@tessellum/core/sizing/counting'
import { candidateOf } from '@tessellum/core/substitute/candidate'
import type { Candidate } from '@tessellum/core/substitute/substitutes'
import { Button, Drawer, Segmented } from 'antd'
import { useState } from 'react'
import { computed } from '../computed'
import { Loading } from '../frame/loading'
import { NumberField } from '../frame/number-field'
import { useUnits } from '../settings/use-units'
import { ShopError } from '../shop/api'
import { Swatch } from '../stock/swatch'
import { type ForLine, useAccept } from './accept'
import { SubstituteEffects } from './substitute-effects'
import styles from './substitutes.module.css'
import { Ways } from './ways'

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
  /** The line of a batch it is asked for, where it is. */
  readonly forLine: ForLine | undefined
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
  forLine,
  close,
}: SubstitutesProps) {
  const units = useUnits()
  const [kits, setKits] = useState(wanted)
  const [kinds, setKinds] = useState<'same' | 'other'>('same')
  const now = chosen.items[role]
  const touching = soundForm(report)?.touching
  const { data: found, error } = useQuery(
    computed.substitutes({
      source: pattern.source,
      choices,
      role,
      kinds,
      now: now && candidateOf(now),
      candidates: shelf.flatMap((item) => candidateOf(item) ?? []),
      kit: chosen.kit,
      colours: chosen.colours,
      touching: touching ?? [],
      kits,
    }),
  )
  const { forColourway, forBatch } = useAccept(colourway, choices.size ?? '', close)
  const [compared, setCompared] = useState<number>()
  const refused = forColourway.refused ?? forBatch.refused
  const take = (item: Item, counting: Counting, what: string) => (
    <div className={`hands ${styles.upright}`}>
      {forLine && (
        <Button
          type="primary"
          loading={forBatch.busy}
          onClick={() => forBatch.run({ at: forLine, role, itemId: item.id, counting })}
          aria-label={`For this batch: ${what}`}
        >
          For this batch
        </Button>
      )}
      <Button
        loading={forColourway.busy}
        onClick={() => forColourway.run({ role, itemId: item.id, counting })}
        aria-label={`For the colourway: ${what}`}
      >
        {forLine ? 'For the colourway' : 'Use it'}
      </Button>
    </div>
  )
  return (
    <Drawer
      open
      onClose={close}
      size={compared === undefined ? 660 : 980}
      title={`In place of ${role}${now ? `, ${now.colourName}` : ''}`}
    >
      <div className={`hands ${styles.above}`}>
        <Segmented
          aria-label="Kinds"
          value={kinds}
          onChange={(value) => setKinds(value as typeof kinds)}
          options={[
            { value: 'same', label: 'The same kind' },
            { value: 'other', label: 'Other kinds' },
          ]}
        />
        <label htmlFor="wanted">Kits wanted</label>
        <NumberField
          id="wanted"
          min={0}
          max={10_000}
          precision={0}
          value={kits}
          onChange={(value) => setKits(value ?? 0)}
        />
        <span className="quiet">
          {now
            ? `${units.quantity(now.onHand - now.reserved, now.unit)} of ${now.colourName} free`
            : 'no item chosen now'}
        </span>
      </div>
      {refused instanceof ShopError && (
        <div role="alert" className="notice trouble">
          {refused.message} {refused.hint}
        </div>
      )}
      {error && (
        <div role="alert" className="notice trouble">
          {error.message}
        </div>
      )}
      {!found && !error && <Loading what="Working out what each would do" />}
      {found?.length === 0 && <p className="empty">Nothing on the shelf could stand in for it.</p>}
      <ol className={styles.substitutes} aria-label="Substitutes, best first">
        {(found ?? []).map((each) => {
          const item = shelf.find(({ id }) => id === each.id)
          return (
            item && (
              <li key={each.id} aria-label={item.colourName}>
                <Swatch item={item} size={34} />
                <div>
                  <strong>{item.colourName}</strong>{' '}
                  <span className="quiet">
                    {item.kind} {item.size}, {item.finish}, {item.maker},{' '}
                    <span className="code">{item.colourCode}</span>
                  </span>
                  <SubstituteEffects each={each} kits={kits} item={item} />
                </div>
                <div className={`hands ${styles.upright}`}>
                  {take(item, each.counting, item.colourName)}
                  {!(each.sameFigures && each.sameKind) && (
                    <Button
                      type="link"
                      aria-expanded={compared === each.id}
                      aria-label={`Compare ways: ${item.colourName}`}
                      onClick={() => setCompared(compared === each.id ? undefined : each.id)}
                    >
                      {compared === each.id ? 'Close' : 'Compare ways'}
                    </Button>
                  )}
                </div>
                {compared === each.id && (
                  <Ways
                    question={{ source: pattern.source, choices, role, now: now && candidateOf(now), kit: chosen.kit }}
                    candidate={candidateOf(item) as Candidate}
                    take={(counting, way) => take(item, counting, `${item.colourName}, ${way}`)}
                  />
                )}
              </li>
            )
          )
        })}
      </ol>
    </Drawer>
  )
}

import { useQuery } from '@tanstack/react-query'
import { batchLine } from '@tessellum/contract/batches'
import { Button } from 'antd'
import { useDeferredValue, useMemo, useState } from 'react'
import { Link } from 'react-router'
import { PageHead } from '../frame/page-head'
import { usePageTitle } from '../frame/page-title'
import { read } from '../shop/queries'
import { type ChangeLine, type LineFields, LineForm } from './line-form'
import styles from './make.module.css'

/** How many kits the free stock would make: of one pattern, or of a mix. */
export function MakePage() {
  usePageTitle('How many can I make?')
  const [mix, setMix] = useState<readonly LineFields[]>([{ kits: 1 }])
  const settled = useDeferredValue(mix)
  const whole = useMemo(
    () => settled.map((line) => batchLine.safeParse(line)).flatMap(({ data }) => data ?? []),
    [settled],
  )
  const complete = whole.length === mix.length
  const { data: able, error: refused, isFetching } = useQuery(read.couldMake(complete ? whole : undefined))
  const changeOf =
    (i: number): ChangeLine =>
    (next) =>
      setMix((before) => before.map((each, at) => (at === i ? next(each) : each)))
  return (
    <div className="page stack">
      <PageHead title="How many can I make?">
        <Link to="/kits">All batches</Link>
      </PageHead>
      <div className="sheet pad stack">
        {mix.map((each, i) => (
          <div key={i}>
            <LineForm
              line={each}
              change={changeOf(i)}
              remove={mix.length > 1 ? () => setMix(mix.filter((_, at) => at !== i)) : undefined}
              kitsLabel="In a set"
            />
            {complete && able?.alone[i] !== undefined && (
              <p className={`figures ${styles.below}`} role="status">
                <strong className={styles.could}>{able.alone[i]}</strong> by themselves
                {mix.length > 1 && (
                  <>
                    , <strong>{able.together[i]}</strong> when most kits in all are made
                  </>
                )}
              </p>
            )}
          </div>
        ))}
        <div className="hands">
          <Button onClick={() => setMix([...mix, { kits: 1 }])}>And another</Button>
          {isFetching && <span className="quiet">Working it out…</span>}
        </div>
        {complete && able && mix.length > 1 && (
          <p className="notice figures" role="status">
            As sets of {mix.map(({ kits }) => kits).join(' and ')}: <strong>{able.sets}</strong> whole sets.
            {!able.proven && ' More may be possible: it took too long to be sure.'}
          </p>
        )}
        {refused && (
          <p className="notice trouble" role="alert">
            {refused.message}
          </p>
        )}
      </div>
    </div>
  )
}

import { useQuery, useQueryClient } from '@tanstack/react-query'
import type { Stocktake, StocktakeSummary } from '@tessellum/contract/stocktake'
import { counted } from '@tessellum/core/measure/counted'
import { sayMass } from '@tessellum/core/measure/units'
import { perSpoken, sayQuantity, spokenUnit } from '@tessellum/core/stock/quantity'
import { Button, Select } from 'antd'
import dayjs from 'dayjs'
import { useRef, useState } from 'react'
import { Link, useNavigate, useParams } from 'react-router'
import { ErrorNotice } from '../frame/error-notice'
import { FigureTable } from '../frame/figure-table'
import { NumberField, type NumberFieldRef } from '../frame/number-field'
import { PageHead } from '../frame/page-head'
import { PageLoading } from '../frame/page-loading'
import { usePageTitle } from '../frame/page-title'
import { RowDay, RowLink } from '../frame/row-link'
import { type StateLook, StateTag } from '../frame/state-tag'
import { Trouble } from '../frame/trouble'
import { useScale } from '../packing/use-scale'
import { useMay } from '../people/me'
import { useMoney } from '../settings/use-shop-settings'
import { call } from '../shop/api'
import { read } from '../shop/queries'
import { useIdempotentMutation } from '../shop/use-idempotent-mutation'
import styles from './count-page.module.css'
import { FoundTube } from './found-tube'
import { NamedItem } from './named-item'

const looks: Readonly<Record<StocktakeSummary['state'], StateLook>> = {
  counting: 'draft',
  posted: 'ready',
  abandoned: 'over',
}
const stateWords: Readonly<Record<StocktakeSummary['state'], string>> = {
  counting: 'counting',
  posted: 'posted',
  abandoned: 'abandoned',
}

/** Places to count, and the counts there have been. */
export function CountsPage() {
  usePageTitle('Count a place')
  const navigate = useNavigate()
  const mayMove = useMay('stock.move')
  const { data: places, error } = useQuery(read.places)
  const { data: stocktakes } = useQuery(read.stocktakes)
  const [place, setPlace] = useState<string>()
  const begin = useIdempotentMutation((where: string) => call('POST /api/stocktakes', { body: { place: where } }), {
    stale: ['stocktakes'],
    after: ({ id }) => void navigate(`/stock/count/${id}`),
  })
  if (error && !places) return <Trouble error={error} />
  if (!places || !stocktakes) return <PageLoading what="Fetching the places" />
  const chosen = places.find((each) => each.place === place)
  return (
    <div className="page stack">
      <PageHead title="Count a place">
        <Link to="/stock">All stock</Link>
      </PageHead>
      {mayMove && (
        <div className="sheet pad hands">
          <Select
            aria-label="Which place"
            placeholder="Which place"
            showSearch
            className={styles.place ?? ''}
            value={place ?? null}
            onChange={(next) => setPlace(next ?? undefined)}
            options={places.map((each) => ({ value: each.place, label: each.place }))}
          />
          <Button
            type="primary"
            disabled={!chosen}
            loading={begin.busy}
            onClick={() =>
              chosen && (chosen.counting ? void navigate(`/stock/count/${chosen.counting}`) : begin.run(chosen.place))
            }
          >
            {chosen?.counting ? 'Go on counting' : 'Freeze it and count'}
          </Button>
          <span className="quiet figures">{chosen && counted(chosen.lots, 'lot')}</span>
        </div>
      )}
      <ErrorNotice error={begin.refused} />
      {stocktakes.length === 0 ? (
        <div className="empty sheet">
          <h2>Nothing has been counted yet</h2>
          <p>Freeze a place, weigh or count its tubes one by one, and post what differs.</p>
        </div>
      ) : (
        <div className="rows">
          {stocktakes.map((each) => (
            <RowLink key={each.id} to={`/stock/count/${each.id}`}>
              <RowDay on={each.begunAt} />
              <span>
                <strong>{each.place}</strong>
                <br />
                <span className="quiet">{each.begunBy}</span>
              </span>
              <span className="figures">
                {each.counted} of {each.lots}
              </span>
              <StateTag look={looks[each.state]}>{stateWords[each.state]}</StateTag>
              <span />
            </RowLink>
          ))}
        </div>
      )}
    </div>
  )
}

export function CountPage() {
  const id = Number(useParams().id)
  const { data, error } = useQuery(read.stocktake(id))
  usePageTitle(data ? `Counting ${data.place}` : 'Counting')
  if (error && !data) return <Trouble error={error} />
  return data ? <Count stocktake={data} /> : <PageLoading what="Fetching the count" />
}

type Row = Stocktake['rows'][number]

/** One tube after the other: Enter goes on to the next. */
function Count({ stocktake }: { stocktake: Stocktake }) {
  const money = useMoney()
  const client = useQueryClient()
  const mayMove = useMay('stock.move') && stocktake.state === 'counting'
  const keep = (answer: Stocktake) => client.setQueryData(read.stocktake(stocktake.id).queryKey, answer)
  const end = useIdempotentMutation(
    (what: 'post' | 'abandon') => call(`POST /api/stocktakes/:id/${what}`, { params: { id: stocktake.id } }),
    {
      of: `stocktake ${stocktake.id}`,
      stale: ['stocktakes', 'stock'],
      said: (_, what) => (what === 'post' ? 'The differences are posted.' : 'Abandoned; nothing is posted.'),
      after: keep,
    },
  )
  const [tare, setTare] = useTare()
  const differ = stocktake.rows.filter((row) => row.counted !== null && row.counted !== row.expected)
  const cost = differ.reduce((sum, row) => sum + (row.cost ?? 0), 0)
  return (
    <div className="page stack">
      <PageHead
        title={<>Counting {stocktake.place}</>}
        under={
          <span className="quiet figures">
            frozen {dayjs(stocktake.begunAt).format('D MMMM, HH:mm')} by {stocktake.begunBy}; {stocktake.counted} of{' '}
            {stocktake.lots} counted
          </span>
        }
      >
        {mayMove && (
          <>
            <Button
              type="primary"
              size="large"
              onClick={() => end.run('post')}
              loading={end.busy}
              disabled={stocktake.counted === 0}
            >
              Post {counted(differ.length, 'difference')}
            </Button>
            <Button onClick={() => end.run('abandon')}>Abandon</Button>
          </>
        )}
        <Link to="/stock/count">All counts</Link>
      </PageHead>
      <ErrorNotice error={end.refused} />
      <p className={differ.length > 0 ? 'notice' : 'quiet'} role="status">
        {differ.length === 0
          ? 'No difference so far. What is sold or packed meanwhile is taken account of.'
          : `${counted(differ.length, 'tube differs', 'tubes differ')}, ${cost < 0 ? `${money.say(-cost)} less` : `${money.say(cost)} more`} than the ledger has.`}
      </p>
      {mayMove && (
        <div className="hands">
          <label htmlFor="tare">An empty tube weighs</label>
          <NumberField
            id="tare"
            min={0}
            max={1000}
            step={0.1}
            className={styles.figure ?? ''}
            suffix="g"
            value={tare / perSpoken.mg}
            onChange={(grams) => setTare(Math.round((grams ?? 0) * perSpoken.mg))}
          />
          <span className="quiet">It is taken off what the scale shows.</span>
        </div>
      )}
      {mayMove && <FoundTube stocktakeId={stocktake.id} keep={keep} />}
      <div className="rows">
        <FigureTable>
          <thead>
            <tr>
              <th scope="col">Tube</th>
              <th scope="col">Frozen</th>
              <th scope="col">Moved since</th>
              <th scope="col">Should be</th>
              <th scope="col">Is</th>
              <th scope="col">Difference</th>
            </tr>
          </thead>
          <tbody>
            {stocktake.rows.map((row) => (
              <OneTube key={row.lotId} stocktakeId={stocktake.id} row={row} mayMove={mayMove} tare={tare} keep={keep} />
            ))}
          </tbody>
        </FigureTable>
      </div>
    </div>
  )
}

/** As finely as it was counted. */
const finely = (quantity: number, unit: Row['unit']) =>
  unit === 'mg' ? sayMass(quantity) : sayQuantity(quantity, unit)

interface OneTubeProps {
  readonly stocktakeId: number
  readonly row: Row
  readonly mayMove: boolean
  /** Of an empty tube, mg. */
  readonly tare: number
  readonly keep: (answer: Stocktake) => void
}

function OneTube({ stocktakeId, row, mayMove, tare, keep }: OneTubeProps) {
  const money = useMoney()
  const { lotId, unit, counted } = row
  const field = useRef<NumberFieldRef>(null)
  const [typed, setTyped] = useState<number | null>(counted === null ? null : counted / perSpoken[unit])
  const [here, setHere] = useState(false)
  const count = useIdempotentMutation(
    (value: number | null) =>
      call('PUT /api/stocktakes/:id/lots/:lotId', { params: { id: stocktakeId, lotId }, body: { counted: value } }),
    { of: `stocktake ${stocktakeId}`, after: keep },
  )
  const save = () => {
    const value = typed === null ? null : Math.round(typed * perSpoken[unit])
    if (value !== counted) count.run(value)
  }
  const next = () => {
    save()
    const fields = [...(field.current?.nativeElement?.closest('table')?.querySelectorAll('input') ?? [])]
    fields[fields.indexOf(document.activeElement as HTMLInputElement) + 1]?.focus()
  }
  const difference = counted === null ? 0 : counted - row.expected
  return (
    <tr>
      <th scope="row">
        <NamedItem item={row.item}>, lot {row.lotCode}</NamedItem>
        {count.refused && <ErrorNotice error={count.refused} />}
      </th>
      <td>{finely(row.frozen, unit)}</td>
      <td>{row.moved === 0 ? '' : finely(row.moved, unit)}</td>
      <td>{finely(row.expected, unit)}</td>
      <td>
        {mayMove ? (
          <span className={`hands ${styles.atRight}`}>
            {here && unit === 'mg' && <FromScale tare={tare} take={(mg) => setTyped(mg / perSpoken.mg)} />}
            <NumberField
              ref={field}
              aria-label={`${row.name}, lot ${row.lotCode}: is, ${spokenUnit[unit]}`}
              min={0}
              value={typed}
              onChange={setTyped}
              onFocus={() => setHere(true)}
              onBlur={() => {
                setHere(false)
                save()
              }}
              onPressEnter={next}
              suffix={spokenUnit[unit]}
              className={styles.figure ?? ''}
            />
          </span>
        ) : counted === null ? (
          'not counted'
        ) : (
          finely(counted, unit)
        )}
      </td>
      <td className={difference === 0 ? '' : 'trouble'}>
        {counted === null ? '' : difference === 0 ? 'none' : `${difference > 0 ? '+' : ''}${finely(difference, unit)}`}
        {row.cost ? <span className="quiet"> {money.say(row.cost)}</span> : null}
      </td>
    </tr>
  )
}

/** What the scale shows, taken with a press while the field keeps the keyboard. */
function FromScale({ tare, take }: { tare: number; take: (mg: number) => void }) {
  const news = useScale()
  if (!news || !('mg' in news)) return null
  const inIt = Math.max(0, news.mg - tare)
  return (
    <Button
      size="small"
      onMouseDown={(event) => event.preventDefault()}
      onClick={() => take(inIt)}
      disabled={!news.steady}
    >
      {sayMass(inIt)}
    </Button>
  )
}

const tareKept = 'tessellum tare'

/** What an empty tube weighs, mg: of this machine, whose tubes are mostly alike. */
function useTare(): [number, (mg: number) => void] {
  const [tare, setTare] = useState(() => Number(localStorage.getItem(tareKept)) || 0)
  const keep = (mg: number) => {
    localStorage.setItem(tareKept, String(mg))
    setTare(mg)
  }
  return [tare, keep]
}

import type { Item } from '@tessellum/contract/stock'
import { sparesOf } from '@tessellum/contract/usual-settings'
import { sayStone } from '@tessellum/core/catalogue/stone-size'
import { roleColours } from '@tessellum/core/drawing/role-colours'
import { billOf, type KitItem, misfitWords, threadRole } from '@tessellum/core/kit/bill'
import { counted } from '@tessellum/core/measure/counted'
import { sayInches, sayLength, saySpans } from '@tessellum/core/measure/units'
import type { Report } from '@tessellum/core/report/report'
import { memo } from 'react'
import { Link } from 'react-router'
import { useShopSettings } from '../settings/use-shop-settings'
import { useUnits } from '../settings/use-units'
import { Swatch } from '../stock/swatch'
import styles from './tray.module.css'

interface TrayProps {
  readonly report: Report
  /** The counts are of an earlier text. */
  readonly old: boolean
  readonly items: Readonly<Record<string, Item>>
  readonly kit: Readonly<Record<string, KitItem>>
  readonly hasColourway: boolean
}

/** What one kit takes, role by role, and what the shelf has of it. Memoized: many renders of the page leave the report as it is. */
export const Tray = memo(function Tray({ report, old, items, kit, hasColourway }: TrayProps) {
  const units = useUnits()
  const bill = billOf(report, kit, sparesOf(useShopSettings()))
  const lineOf = (role: string) => bill.lines.find((line) => line.roles.includes(role))
  const plain = roleColours(report.beads.map((bead) => bead.role))
  const used = [...report.beads.filter((bead) => bead.total > 0), ...report.stones.filter((stone) => stone.total > 0)]
  const pieces = report.pair ? 'the pair' : report.makes === 1 ? 'one piece' : `${report.makes} pieces`
  return (
    <section className={`${styles.tray} sheet ${old ? styles.old : ''}`} aria-label="Tray">
      <div className="panel-head">
        <h2>Tray</h2>
        <span className="spacer" />
        <span className="quiet">for {pieces}</span>
      </div>
      <ul className={styles.compartments}>
        {used.map((each) => {
          const item = items[each.role]
          const line = lineOf(each.role)
          const bead = 'bead' in each ? each.bead : undefined
          const spoken = bead ? `${bead.kind} ${bead.size}` : 'stone' in each ? sayStone(each.stone.outline) : ''
          const misfit = bill.misfits.find(({ role }) => role === each.role)
          const shown = item ?? {
            category: bead ? ('bead' as const) : ('stone' as const),
            kind: bead?.kind ?? 'round stone',
            colour: plain[each.role] ?? '#cfd6d2',
            finish: '',
          }
          const shared =
            line && line.roles.length > 1
              ? ` together with ${line.roles.filter((role) => role !== each.role).join(', ')}`
              : ''
          return (
            <li className={styles.compartment} key={each.role}>
              <Swatch item={shown} size={30} />
              <div>
                <div className={styles.name}>
                  <strong className={styles.letter}>{each.role}</strong>{' '}
                  {item ? <Link to={`/stock/${item.id}`}>{item.colourName}</Link> : each.label || spoken}
                </div>
              </div>
              <b className={styles.count}>{each.total}</b>
              <div className={styles.more}>
                {spoken}
                {item && (
                  <>
                    , <span className="code">{item.colourCode}</span>, {item.maker}
                  </>
                )}
                {line && bead && (
                  <>
                    <br />
                    {line.unit === 'mg' ? `${units.mass(line.quantity)} in the bag` : `${line.quantity} in the bag`},{' '}
                    {line.spare} spare
                    {shared}
                  </>
                )}
                {item && line && <Shelf item={item} quantity={line.quantity} />}
                {misfit && (
                  <>
                    <br />
                    <span className="trouble">{misfitWords(misfit)}</span>
                  </>
                )}
                {hasColourway && !item && (
                  <>
                    <br />
                    <span className="trouble">no item chosen</span>
                  </>
                )}
              </div>
            </li>
          )
        })}
        <ThreadCompartment report={report} item={items[threadRole]} line={lineOf(threadRole)} />
        {used.length === 0 && <li className="empty">Nothing has been picked up yet.</li>}
      </ul>
    </section>
  )
})

function ThreadCompartment({
  report,
  item,
  line,
}: {
  report: Report
  item: Item | undefined
  line: ReturnType<typeof billOf>['lines'][number] | undefined
}) {
  const units = useUnits()
  const { spanMm } = useShopSettings().thread
  const { cuts, totalMm } = report.thread
  const { thread, strands, needle } = report.threadChoice
  if (cuts.length === 0) return null
  const cut = cuts[0] as number
  return (
    <li className={styles.compartment}>
      <Swatch item={item ?? { category: 'thread', kind: 'thread', colour: '#8b9089', finish: '' }} size={30} />
      <div className={styles.name}>Thread{item ? `, ${item.colourName}` : ''}</div>
      <div className={`${styles.count} ${styles.threadCount}`}>{units.thread(cut)}</div>
      <div className={styles.more}>
        {thread.kind} {thread.size}, {strands === 2 ? 'doubled' : 'single'}, needle {needle}
        <br />
        {cuts.length > 1 ? `${cuts.length} cuts of ${units.thread(cut)}` : 'one cut'}
        {report.makes > 1 ? ' for each piece' : ''}: {units.system === 'inches' ? sayLength(cut) : sayInches(cut)},{' '}
        {saySpans(cut, spanMm)}
        <br />
        {units.thread(totalMm)} with ends and take-up
        {item && line && <Shelf item={item} quantity={line.quantity} />}
      </div>
    </li>
  )
}

/** What the shelf has free of an item, in kits. */
function Shelf({ item, quantity }: { item: Item; quantity: number }) {
  const units = useUnits()
  const free = item.onHand - item.reserved
  const kits = Math.floor(free / quantity)
  return (
    <>
      <br />
      <span className={kits === 0 ? 'trouble' : ''}>
        {units.quantity(free, item.unit)} free: about {counted(kits, 'kit')}
      </span>
    </>
  )
}

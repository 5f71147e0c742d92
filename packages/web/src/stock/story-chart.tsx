import type { ItemStory } from '@tessellum/contract/stock'
import { scaleLinear, scaleUtc } from 'd3-scale'
import { area, curveStepAfter, line } from 'd3-shape'
import dayjs from 'dayjs'
import { useMemo } from 'react'
import styles from '../frame/chart.module.css'
import { useToday } from '../settings/use-today'
import { useUnits } from '../settings/use-units'

const [width, height] = [1180, 240]
const inside = { left: 64, right: 14, top: 12, bottom: 28 }

interface Point {
  readonly at: Date
  readonly onHand: number
  readonly reserved: number
}

const dateOf = (day: string) => new Date(`${day}T00:00:00Z`)

/** What was on hand and what was promised, day by day; and ahead, as batches take what they hold. */
export function StoryChart({ item }: { item: ItemStory }) {
  const units = useUnits()
  const today = useToday().format('YYYY-MM-DD')
  const { past, ahead } = useMemo(() => pointsOf(item, today), [item, today])
  const [first] = past
  const last = ahead[ahead.length - 1]
  if (!first || !last || item.days.length < 2) return null
  const x = scaleUtc([first.at, last.at], [inside.left, width - inside.right])
  const most = Math.max(...[...past, ...ahead].map(({ onHand }) => onHand), item.reorderBelow)
  // In what the shop measures in, so that the lines across are at round figures.
  const scale = scaleLinear([0, units.typed(most, item.unit)], [height - inside.bottom, inside.top]).nice()
  const y = (quantity: number) => scale(units.typed(quantity, item.unit))
  const steps = line<Point>()
    .x(({ at }) => x(at))
    .y(({ onHand }) => y(onHand))
    .curve(curveStepAfter)
  const promised = area<Point>()
    .x(({ at }) => x(at))
    .y0(({ onHand, reserved }) => y(onHand - reserved))
    .y1(({ onHand }) => y(onHand))
    .curve(curveStepAfter)
  const now = x(dateOf(today))
  const said = `On hand ${units.quantity(item.onHand, item.unit)}, of which ${units.quantity(item.reserved, item.unit)} are promised${
    item.promises.length > 0
      ? `: ${item.promises.map(({ name, dueOn, quantity }) => `${units.quantity(quantity, item.unit)} to ${name}, due ${dayjs(dueOn).format('D MMMM')}`).join('; ')}`
      : ''
  }.`
  return (
    <figure className={`sheet ${styles.chart}`}>
      <svg viewBox={`0 0 ${width} ${height}`} role="img" aria-label={said}>
        {scale.ticks(4).map((tick) => (
          <g key={tick}>
            <line x1={inside.left} x2={width - inside.right} y1={scale(tick)} y2={scale(tick)} stroke="var(--line)" />
            <text x={inside.left - 8} y={scale(tick) + 4} textAnchor="end">
              {units.quantity(units.recorded(tick, item.unit), item.unit)}
            </text>
          </g>
        ))}
        {x.ticks(6).map((tick) => (
          <text key={tick.getTime()} x={x(tick)} y={height - 8} textAnchor="middle">
            {dayjs(tick).format('D MMM')}
          </text>
        ))}
        <defs>
          <pattern id="promised" width="6" height="6" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
            <rect width="6" height="6" fill="var(--brass-wash)" />
            <line x1="0" x2="0" y1="0" y2="6" stroke="var(--brass)" strokeWidth="2" />
          </pattern>
        </defs>
        <path d={promised([...past, ...ahead]) ?? ''} fill="url(#promised)" />
        <path d={steps(past) ?? ''} fill="none" stroke="var(--green)" strokeWidth="2.5" />
        <path d={steps(ahead) ?? ''} fill="none" stroke="var(--green)" strokeWidth="2" strokeDasharray="5 4" />
        {item.reorderBelow > 0 && (
          <line
            x1={inside.left}
            x2={width - inside.right}
            y1={y(item.reorderBelow)}
            y2={y(item.reorderBelow)}
            stroke="var(--brick)"
            strokeDasharray="2 4"
          />
        )}
        <line x1={now} x2={now} y1={inside.top} y2={height - inside.bottom} stroke="var(--ink)" strokeWidth="0.8" />
      </svg>
      <figcaption className="quiet">
        <span className={`${styles.key} ${styles.onHand}`} /> on hand{' '}
        <span className={`${styles.key} ${styles.promised}`} /> promised{' '}
        <span className={`${styles.key} ${styles.ahead}`} /> as batches take it and orders come{' '}
        <span className={`${styles.key} ${styles.below}`} /> reorder below
      </figcaption>
    </figure>
  )
}

function pointsOf(
  { days, promises, purchases, onHand, reserved }: ItemStory,
  day: string,
): { past: Point[]; ahead: Point[] } {
  const today = dateOf(day)
  const now = { at: today, onHand, reserved }
  const past = [...days.map(({ day, ...rest }) => ({ at: dateOf(day), ...rest })).filter(({ at }) => at < today), now]
  const ahead: Point[] = [now]
  const steps = [
    ...promises.map(({ dueOn, quantity }) => ({ on: dueOn, onHand: -quantity, reserved: -quantity })),
    ...purchases.map(({ expectedOn, amount }) => ({ on: expectedOn, onHand: amount, reserved: 0 })),
  ].sort((a, b) => a.on.localeCompare(b.on))
  for (const { on, ...change } of steps) {
    const before = ahead[ahead.length - 1] as Point
    const at = new Date(Math.max(dateOf(on).getTime(), before.at.getTime()))
    ahead.push({ at, onHand: before.onHand + change.onHand, reserved: before.reserved + change.reserved })
  }
  const end = ahead[ahead.length - 1] as Point
  ahead.push({ ...end, at: new Date(end.at.getTime() + 10 * 86_400_000) })
  return { past, ahead }
}

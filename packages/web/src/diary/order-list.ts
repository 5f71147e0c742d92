/** The list of orders: open ones day by day, the soonest first, and what each waits for. */
import type { Order } from '@tessellum/contract/orders'
import { counted } from '@tessellum/core/measure/counted'
import dayjs from 'dayjs'

export interface OrdersOfDay {
  readonly day: string
  readonly orders: readonly Order[]
}

export interface OrderList {
  readonly open: readonly OrdersOfDay[]
  /** Handed over or called off, the latest first. */
  readonly over: readonly Order[]
}

export function listed(orders: readonly Order[]): OrderList {
  const open = orders.filter(({ state }) => state === 'taken')
  const days = [...new Set(open.map(({ wantedOn }) => wantedOn))].sort()
  return {
    open: days.map((day) => ({ day, orders: open.filter(({ wantedOn }) => wantedOn === day) })),
    over: orders.filter(({ state }) => state !== 'taken'),
  }
}

/** "today", "tomorrow", "in 12 days", "3 days ago". */
export function daysFrom(today: string, day: string): string {
  const days = dayjs(day).diff(dayjs(today), 'day')
  if (days === 0) return 'today'
  if (Math.abs(days) === 1) return days > 0 ? 'tomorrow' : 'yesterday'
  return days > 0 ? `in ${counted(days, 'day')}` : `${counted(-days, 'day')} ago`
}

/** What keeps an order from being ready, and by when it has to be done. */
export function waitsFor({ readiness, buyBy, packBy }: Order, today: string): { said: string; late: boolean } {
  const by = (what: string, day: string | null) =>
    day === null
      ? { said: what, late: false }
      : { said: `${what} by ${dayjs(day).format('D MMM')}${day < today ? ', overdue' : ''}`, late: day < today }
  switch (readiness) {
    case 'unplanned':
      return by('plan and pack', packBy)
    case 'short':
      return by('order beads', buyBy)
    case 'to change':
      return by('change its batch', packBy)
    case 'to reserve':
      return by('reserve and pack', packBy)
    case 'to pack':
    case 'packing':
      return by('pack', packBy)
    case 'ready':
      return { said: 'can be handed over', late: false }
    case 'over':
      return { said: '', late: false }
  }
}

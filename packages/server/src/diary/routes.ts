import { todayIn } from '@tessellum/core/measure/today'
import { Router } from 'express'
import ical from 'ical-generator'
import { mount, sent } from '../http/mount'
import { priceOfBatch } from '../planning/price'
import { settingsNow } from '../settings/store'
import type { Shop } from '../shop'
import { fetchListOf } from './fetch-list'
import { benchOf, diaryOf } from './store'

export function diaryRoutes(shop: Shop): Router {
  const router = Router()

  mount(router, 'GET /api/diary', ({ query }) => diaryOf(shop, query))
  mount(router, 'GET /api/bench', async () => benchOf(shop, todayIn((await settingsNow(shop)).profile.timeZone)))

  mount(router, 'GET /api/bench/fetch', async () =>
    fetchListOf(shop, todayIn((await settingsNow(shop)).profile.timeZone)),
  )

  mount(router, 'GET /api/diary.ics', async ({ query: span, response }) => {
    const calendar = ical({ name: 'Tessellum' })
    for (const { kind, id, title, on, beginsAt, minutes, place, detail } of await diaryOf(shop, span)) {
      // A class is at an hour by the clock on the wall, wherever the calendar is read; everything else is of a day.
      const start = new Date(`${on}T${beginsAt ?? '00:00'}:00Z`)
      const end = new Date(start.getTime() + (minutes ?? 1440) * 60_000)
      calendar.createEvent({
        id: `${kind}-${id}-${on}@tessellum`,
        start,
        end,
        allDay: beginsAt === null,
        floating: true,
        summary: title,
        description: detail,
        location: place,
      })
    }
    response.attachment('diary.ics').type('text/calendar').send(calendar.toString())
    return sent
  })

  mount(router, 'GET /api/batches/:id/price', ({ params }) => priceOfBatch(shop, params.id))

  return router
}

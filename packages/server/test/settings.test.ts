/** A shop of one's own: begun empty, once; and what it settles, at work in everything that is made from it. */
import type { Batch } from '@tessellum/contract/batches'
import type { BuyLine } from '@tessellum/contract/buying'
import type { BeginShop, Settings, ShopDays } from '@tessellum/contract/settings'
import type { ItemStory } from '@tessellum/contract/stock'
import { usualSettings } from '@tessellum/contract/usual-settings'
import fc from 'fast-check'
import sharp from 'sharp'
import { lastDueBy, lastWorkingDay, workingDaysBefore } from '../src/settings/days'
import { Caller, emptyShop, openShop, type Shop } from './shop'

const token = 'printed by the start command'

describe('an empty shop', () => {
  let shop: Shop
  beforeAll(async () => {
    shop = await openShop(undefined, { BEGIN_TOKEN: token }, await emptyShop())
  })
  afterAll(() => shop.close())

  const given: BeginShop = {
    token,
    owner: { fullName: 'Tamsin Alder', name: 'Tamsin', password: 'reeds and rushes' },
    settings: {
      profile: { name: 'The Bead Barge', address: '', footer: '', timeZone: 'Europe/Amsterdam' },
      money: { currency: 'EUR' },
      documents: { language: 'de', paper: 'A4' },
    },
    examples: true,
  }

  test('is begun once, by whoever has the address; of two at the same time by one', async () => {
    const anybody = new Caller(shop.base)
    expect((await anybody.ask('GET', '/shop')).body).toEqual({ name: usualSettings.profile.name, empty: true })
    const wrong = await anybody.ask('POST', '/begin', { ...given, token: 'guessed' })
    expect([wrong.status, wrong.body.code]).toEqual([403, 'not-allowed'])
    const short = { ...given, owner: { ...given.owner, password: 'reeds' } }
    expect((await anybody.ask('POST', '/begin', short)).body).toMatchObject({ path: 'owner.password' })
    const [first, second] = [new Caller(shop.base), new Caller(shop.base)]
    const both = await Promise.all([first, second].map((each) => each.ask('POST', '/begin', given)))
    expect(both.map(({ status }) => status).sort()).toEqual([200, 409])
    const owner = both[0]?.status === 200 ? first : second
    expect((await owner.ask('GET', '/me')).body).toMatchObject({ name: 'tamsin', roles: ['owner'] })
    expect((await anybody.ask('GET', '/shop')).body).toEqual({ name: 'The Bead Barge', empty: false })
    const { profile, money, documents } = given.settings
    expect((await owner.ask<Settings>('GET', '/settings')).body).toEqual({
      ...usualSettings,
      profile,
      money: { ...usualSettings.money, ...money },
      documents: { ...usualSettings.documents, ...documents },
    })
    expect((await owner.ask('GET', '/patterns')).body).toHaveLength(2)
    expect((await owner.ask('GET', '/people')).body).toHaveLength(1)
  })

  test('that has no such address cannot be begun at all', async () => {
    const closed = await openShop(undefined, {}, await emptyShop())
    const { status } = await new Caller(closed.base).ask('POST', '/begin', { ...given, token: 'x' })
    expect(status).toBe(403)
    expect((await new Caller(closed.base).ask('GET', '/shop')).body.empty).toBe(true)
    await closed.close()
  })
})

const dayOf = (number: number) => new Date(Date.UTC(2026, 0, number)).toISOString().slice(0, 10)

test('working days before a day are counted over what is closed, also the naive way', () => {
  const working = (day: string, shop: ShopDays) =>
    !shop.closed.includes(new Date(`${day}T00:00:00Z`).getUTCDay()) && !shop.off.includes(day)
  fc.assert(
    fc.property(
      fc.integer({ min: 40, max: 400 }),
      fc.integer({ min: 0, max: 8 }),
      fc.uniqueArray(fc.integer({ min: 0, max: 6 }), { maxLength: 6 }),
      fc.uniqueArray(fc.integer({ min: 1, max: 400 }).map(dayOf), { maxLength: 30 }),
      (number, days, closed, off) => {
        const shop = { closed, off }
        const day = dayOf(number)
        const before = workingDaysBefore(day, days, shop)
        const between = Array.from({ length: 500 }, (_, k) => dayOf(number - 1 - k)).filter(
          (each) => each >= before && working(each, shop),
        )
        expect(between).toHaveLength(days)
        if (days > 0) expect(working(before, shop)).toBe(true)
        const last = lastWorkingDay(day, shop)
        expect([working(last, shop), last <= day]).toEqual([true, true])
        // What is due by then can be packed by that day, and what is due a day later cannot.
        const due = lastDueBy(day, days, shop)
        expect(workingDaysBefore(due, days, shop) <= day).toBe(true)
        expect(
          workingDaysBefore(dayOf(1 + (Date.parse(due) - Date.UTC(2026, 0, 1)) / 86_400_000 + 1), days, shop) > day,
        ).toBe(true)
      },
    ),
  )
})

describe('what the shop settles', () => {
  let shop: Shop
  let isaura: Caller
  beforeAll(async () => {
    shop = await openShop()
    isaura = await shop.as('isaura')
  })
  afterAll(() => shop.close())
  const change = (body: object) => isaura.ask<Settings>('PUT', '/settings', body)

  test('is kept by parts, and only by the owner', async () => {
    const { body: before } = await isaura.ask<Settings>('GET', '/settings')
    expect(before.profile.name).toBe('Merrowlock Bead Room')
    expect((await (await shop.as('bram')).ask('PUT', '/settings', { kits: before.kits })).status).toBe(403)
    expect((await change({})).status).toBe(400)
    expect((await change({ thread: { ...before.thread, tailMm: -5 } })).body).toMatchObject({ path: 'thread.tailMm' })
    const { body: after } = await change({ money: { currency: 'EUR' } })
    expect(after).toEqual({ ...before, money: { ...before.money, currency: 'EUR' } })
    await change({ money: before.money })
  })

  test('goes into every bill and every document; what is reserved stays as it is', async () => {
    const lines = [{ patternId: 1, version: 1, size: 'petite', colourwayId: 1, kits: 1 }]
    const plan = async () => {
      const { body } = await isaura.ask<Batch>('POST', '/batches', { name: 'Tried', dueOn: '2027-03-01', lines })
      const [line] = (await isaura.ask<Batch>('GET', `/batches/${body.id}`)).body.outlook.lines
      const of = (role: string) => line?.bill.find(({ roles }) => roles.includes(role))
      return { id: body.id, thread: of('thread')?.exact ?? 0, spare: of('A')?.spare ?? 0 }
    }
    const usual = await plan()
    await isaura.ask('POST', `/batches/${usual.id}/reserve`, {})
    const held = async () => (await isaura.ask('GET', `/batches/${usual.id}/packing`)).body.tasks
    const bags = await held()
    const { thread, kits, profile } = usualSettings
    await change({ thread: { ...thread, weaveInMm: thread.weaveInMm + 100 }, kits: { ...kits, smallLeast: 50 } })
    const other = await plan()
    expect(other.thread).toBeGreaterThan(usual.thread + 99)
    expect([usual.spare, other.spare]).toEqual([7, 50])
    expect(await held()).toEqual(bags)
    // Bags laid out from now on may be over by more.
    await change({ kits: { ...kits, overShare: 0.5 } })
    const generous = await plan()
    await isaura.ask('POST', `/batches/${generous.id}/reserve`, {})
    const { tasks } = (await isaura.ask('GET', `/batches/${generous.id}/packing`)).body
    const weighed = tasks.find(({ unit }: { unit: string }) => unit === 'mg')
    const [{ target, most }] = weighed.bags
    expect(most).toBe(Math.floor(target + Math.max(target / 2, 200)))
    // What goes into a bag is what the scale and the tape can tell.
    await change({ kits: { ...kits, scaleStepMg: 700, threadStepMm: 330 } })
    const rough = await plan()
    await isaura.ask('POST', `/batches/${rough.id}/reserve`, {})
    const steps: Readonly<Record<string, number>> = { mg: 700, mm: 330, piece: 1 }
    const packed: { unit: string; bags: { target: number }[] }[] = (
      await isaura.ask('GET', `/batches/${rough.id}/packing`)
    ).body.tasks
    const rests = packed.flatMap(({ unit, bags: all }) => all.map((bag) => [unit, bag.target % (steps[unit] ?? 0)]))
    expect(new Map(rests as [string, number][])).toEqual(new Map(Object.keys(steps).map((unit) => [unit, 0])))
    expect(rests.filter(([, rest]) => rest !== 0)).toEqual([])
    expect((await change({ kits: { ...kits, scaleStepMg: 0 } })).body).toMatchObject({ path: 'kits.scaleStepMg' })
    await change({ profile: { ...profile, name: 'The Bead Barge', footer: 'Not to be taught without leave.' } })
    const { body: edition } = await isaura.ask('GET', '/patterns/1/edition?version=1')
    expect(edition.shop).toMatchObject({ name: 'The Bead Barge', thread: { weaveInMm: thread.weaveInMm + 100 } })
  })

  test('what documents are measured in goes with everything a pattern is written from; another measure is refused', async () => {
    const units = async () => (await isaura.ask('GET', '/patterns/1/edition?version=1')).body.shop.units
    expect(await units()).toBe('metric')
    const { documents } = usualSettings
    await change({ documents: { ...documents, units: 'inches' } })
    expect(await units()).toBe('inches')
    // Who sends none, as before there were any, gets metric ones.
    await change({ documents: { language: documents.language, paper: documents.paper } })
    expect(await units()).toBe('metric')
    expect((await change({ documents: { ...documents, units: 'cubits' } })).body).toMatchObject({
      path: 'documents.units',
    })
  })

  test('the paces say what of a pattern fits into the hours of a class', async () => {
    const { body: classes } = await isaura.ask('GET', '/classes')
    const { id } = classes.find(({ state }: { state: string }) => state === 'offered')
    const plan = async () => {
      const { plans } = (await isaura.ask('GET', `/classes/${id}`)).body
      return plans.find(({ pace }: { pace: string }) => pace === 'beginner')
    }
    const before = await plan()
    await change({ teaching: { welcomeMinutes: 0, easyPace: 1.6, beginnerPace: 4.4 } })
    const after = await plan()
    expect([before.welcome, after.welcome]).toEqual([15, 0])
    // Twice as slow, without the coming in, to the minute that each part is rounded by.
    expect(Math.abs(after.needed - 2 * (before.needed - 15))).toBeLessThanOrEqual(2 * before.parts.length)
    expect((await change({ teaching: { ...usualSettings.teaching, easyPace: 0.5 } })).body).toMatchObject({
      path: 'teaching.easyPace',
    })
  })

  test('the days to pack move what must be bought by when', async () => {
    const orderBy = async () => (await isaura.ask<BuyLine[]>('GET', '/buy-list')).body.find((each) => each.orderBy)
    const before = await orderBy()
    await change({ kits: { ...usualSettings.kits, packingDays: usualSettings.kits.packingDays + 5 } })
    const after = (await isaura.ask<BuyLine[]>('GET', '/buy-list')).body.find((each) => each.itemId === before?.itemId)
    expect(Date.parse(before?.orderBy ?? '') - Date.parse(after?.orderBy ?? '')).toBe(5 * 86_400_000)
    // Closed on six days of the week, seven days to pack are seven weeks.
    await change({ days: { closed: [0, 1, 2, 3, 4, 5], off: [] } })
    const seldom = (await isaura.ask<BuyLine[]>('GET', '/buy-list')).body.find((each) => each.itemId === before?.itemId)
    expect(new Date(`${seldom?.orderBy}T00:00:00Z`).getUTCDay()).toBe(6)
    expect(Date.parse(after?.orderBy ?? '') - Date.parse(seldom?.orderBy ?? '')).toBeGreaterThan(5 * 7 * 86_400_000)
    expect((await change({ days: { closed: [0, 1, 2, 3, 4, 5, 6], off: [] } })).body).toMatchObject({
      path: 'days.closed',
    })
    await change({ kits: usualSettings.kits, days: usualSettings.days })
  })

  test('how far ahead the bench looks, how a bracelet sits and how long a link is good', async () => {
    const { ahead, access, measures } = usualSettings
    const wantedOn = new Date(Date.now() + 60 * 86_400_000).toISOString().slice(0, 10)
    const pattern = { patternId: 1, version: 1, size: 'petite', colourwayId: 1 }
    await isaura.ask('POST', '/orders', { customer: 'Linnet Marsh', kits: 1, wantedOn, ...pattern })
    const planned = async () =>
      (await isaura.ask('GET', '/bench')).body.find(({ text }: { text: string }) => text.includes('Linnet Marsh'))
    expect(await planned()).toBeUndefined()
    await change({ ahead: { ...ahead, unplannedDays: 61, orderDays: 25 } })
    expect(Date.parse(wantedOn) - Date.parse((await planned()).by)).toBe(25 * 86_400_000)
    const length = async (ease: string) =>
      (await isaura.ask('POST', '/orders/size', { patternId: 1, version: 1, worn: 'wrist', measureMm: 160, ease })).body
        .wantedMm
    const [snug, loose] = [await length('snug'), await length('loose')]
    await change({ measures: { ...measures, looseMm: 40 } })
    expect([await length('snug'), await length('loose')]).toEqual([snug, loose + 15])
    await change({ access: { ...access, linkDays: 2 } })
    const odile = (await isaura.ask('GET', '/people')).body.find(({ name }: { name: string }) => name === 'odile')
    const { expiresAt } = (await isaura.ask('POST', `/people/${odile.id}/link`)).body
    expect(Math.round((Date.parse(expiresAt) - Date.now()) / 86_400_000)).toBe(2)
    await change({ ahead, access, measures })
  })

  test('the days are those of its time zone', async () => {
    const sales = async (day: string) => (await isaura.ask('GET', `/sales?from=${day}&to=${day}`)).body.sales.length
    const line = { what: 'pattern', patternId: 1, version: 1, quantity: 1, price: 650 }
    await isaura.ask('POST', '/sales', { lines: [line] })
    const { profile } = (await isaura.ask<Settings>('GET', '/settings')).body
    for (const timeZone of ['Pacific/Kiritimati', 'Pacific/Pago_Pago']) {
      await change({ profile: { ...profile, timeZone } })
      const day = new Intl.DateTimeFormat('sv-SE', { timeZone }).format(new Date())
      const other = new Date(Date.parse(day) + (timeZone.endsWith('i') ? -1 : 1) * 86_400_000)
        .toISOString()
        .slice(0, 10)
      expect([await sales(day), await sales(other)]).toEqual([1, 0])
    }
    expect((await change({ profile: { ...profile, timeZone: 'Atlantis' } })).body).toMatchObject({
      path: 'profile.timeZone',
    })
  })

  test('tax is told out of what is sold, and given back with it', async () => {
    const { body: before } = await isaura.ask<Settings>('GET', '/settings')
    await change({ money: { ...before.money, taxPatterns: 0.2 } })
    const line = { what: 'pattern', patternId: 1, version: 1, quantity: 2, price: 1200 }
    const { body: sale } = await isaura.ask('POST', '/sales', { lines: [line] })
    // 12.00 with a fifth on top of 10.00.
    expect(sale.lines[0].tax).toBe(200)
    // What was sold keeps its tax, whatever the rate becomes.
    await change({ money: { ...before.money, taxPatterns: 0.5 } })
    await isaura.ask('POST', `/sales/${sale.id}/returns`, {
      lines: [{ lineId: sale.lines[0].id, quantity: 1, refund: 600 }],
    })
    const day = new Date().toISOString().slice(0, 10)
    const span = `from=${day.slice(0, 4)}-01-01&to=${day.slice(0, 4)}-12-31`
    const csv = await fetch(`${shop.base}/api/sales.csv?${span}`, { headers: { cookie: isaura.cookie } })
    const rows = (await csv.text()).trim().split(/\r?\n/)
    expect(rows[0]).toMatch(/amount,tax in it,currency$/)
    expect(rows.slice(-2).map((row) => row.split(',').slice(-3).join())).toEqual([
      `12.00,2.00,${before.money.currency}`,
      `-6.00,-1.00,${before.money.currency}`,
    ])
    await change({ money: before.money })
  })

  test('large orders are for the owner, by the shop’s own prices whatever cost is sent', async () => {
    const { body: before } = await isaura.ask<Settings>('GET', '/settings')
    await change({ money: { ...before.money, orderLimit: 5000 } })
    const odile = await shop.as('odile')
    const { body: item } = await isaura.ask<ItemStory>('GET', '/items/1')
    const pack = item.packs[0] as ItemStory['packs'][number]
    const order = (who: Caller, packs: number, cost: number, itemId = 1) =>
      who.ask('POST', '/purchases', {
        itemId,
        supplier: 'Brackwater Glass',
        amount: pack.amount * packs,
        cost,
        expectedOn: '2027-02-01',
      })
    const few = Math.floor(5000 / pack.price / 2)
    expect((await order(odile, few, few * pack.price)).status).toBe(200)
    expect((await order(odile, few, 5001)).body.code).toBe('above-limit')
    expect((await order(odile, 1000, 1)).body).toMatchObject({ code: 'above-limit', path: 'cost' })
    expect((await order(isaura, 1000, 1)).status).toBe(200)
    await shop.pool.query('delete from pack where item_id = 2')
    await shop.pool.query('update lot set unit_cost = null where item_id = 2')
    expect((await order(odile, 1, 1, 2)).body.code).toBe('no-price')
    await change({ money: before.money })
  })

  test('prices are rounded up to what the shop counts in', async () => {
    const { body: costs } = await isaura.ask('GET', '/costs')
    const { body: items } = await isaura.ask('GET', '/items')
    const asked = async () => (await isaura.ask('GET', `/items/${items[40].id}/selling-price`)).body.perUnit * 1000
    const tens = await asked()
    await isaura.ask('PUT', '/costs', { ...costs, roundTo: 100 })
    const whole = await asked()
    expect([tens % 10, whole % 100, whole >= tens, whole - tens < 100].map(Number)).toEqual([0, 0, 1, 1])
    expect((await isaura.ask('PUT', '/costs', { ...costs, roundTo: 0 })).body).toMatchObject({ path: 'roundTo' })
  })

  test('its logo stands on what it gives out, and goes into an edition by its digest', async () => {
    const png = await sharp({ create: { width: 300, height: 120, channels: 4, background: '#2a5c4a' } })
      .png()
      .toBuffer()
    expect((await (await shop.as('bram')).send('/logo', png)).status).toBe(403)
    expect((await isaura.send('/logo', 'no picture')).body.code).toBe('bad-picture')
    const { body } = await isaura.send('/logo', png)
    expect(body.logo).toMatchObject({ width: 300, height: 120 })
    const { body: edition } = await isaura.ask('GET', '/patterns/2/edition?version=1')
    expect(edition.shop.logo).toEqual(body.logo)
    const images = async () =>
      (
        Buffer.from((await isaura.ask<ArrayBuffer>('GET', '/patterns/4/document.pdf?version=1')).body)
          .toString('latin1')
          .match(/\/Subtype \/Image/g) ?? []
      ).length
    const withLogo = await images()
    expect((await isaura.ask('POST', '/logo/remove')).body).toEqual({ logo: null })
    expect([withLogo, await images()]).toEqual([1, 0])
    expect((await isaura.ask('GET', `/logo/${body.logo.digest}`)).status).toBe(404)
  })
})

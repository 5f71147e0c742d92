/** What a form tells before it is sent, and what the contract says of bad input: every part of every request, in plain words. */
import { api } from '@tessellum/contract/api'
import { newLot } from '@tessellum/contract/buying'
import { saveClass } from '@tessellum/contract/classes'
import { settings } from '@tessellum/contract/settings'
import { saveSupplier } from '@tessellum/contract/suppliers'
import dayjs from 'dayjs'
import fc from 'fast-check'
import type { z } from 'zod'
import { asHour, asMoney, rulesOf } from '../src/frame/contract-rules'

/** What a field is told: the words of all of its rules, as a form shows them. */
async function told(rules: ReturnType<typeof rulesOf>, typed: unknown): Promise<string[]> {
  const words: string[] = []
  for (const rule of rules)
    if ('required' in rule) {
      if (typed === undefined || typed === null || typed === '') words.push(rule.message)
    } else await rule.validator(undefined, typed).catch((error: Error) => words.push(error.message))
  return words
}

test.each<[string, ReturnType<typeof rulesOf>, unknown, string[]]>([
  ['nothing', rulesOf(saveClass.shape.title), '', ['Name the class.']],
  ['only spaces', rulesOf(saveClass.shape.title), '   ', ['Name the class.']],
  ['a name', rulesOf(saveClass.shape.title), 'First bezel', []],
  ['too much', rulesOf(saveClass.shape.title), 'x'.repeat(81), ['A class has a name of at most 80 letters.']],
  ['no day', rulesOf(saveClass.shape.heldOn), null, ['Give the day.']],
  ['a day', rulesOf(saveClass.shape.heldOn), dayjs('2027-03-01'), []],
  ['an hour', rulesOf(saveClass.shape.beginsAt, asHour), dayjs('2027-03-01T10:00'), []],
  ['half a penny', rulesOf(saveClass.shape.price, asMoney), 12.345, []],
  ['less than nothing', rulesOf(saveClass.shape.price, asMoney), -1, ['A price cannot be below 0.']],
  ['no price', rulesOf(saveClass.shape.price, asMoney), null, []],
  ['what may be left out', rulesOf(saveSupplier.shape.contact), '', []],
  ['a list that may be empty', rulesOf(settings.shape.days.shape.closed), [], []],
  ['what is sent empty', rulesOf(settings.shape.profile.shape.address), '', []],
  ['a trace', rulesOf(newLot.shape.quantity, (grams) => Number(grams) * 1000), 0, ['A delivery has something in it.']],
])('of %s a field is told what the contract says', async (_, rules, typed, words) => {
  expect(await told(rules, typed)).toEqual(words)
})

/** In the library's own words, which are for programmers. */
const raw = /^(Invalid|Too |Unrecognized|Expected|Required|$)/

test('no part of any request is refused in words that are not ours', () => {
  const bodies = Object.values(api).flatMap((route) => ('body' in route ? [route.body as z.ZodType] : []))
  expect(bodies.length).toBeGreaterThan(60)
  const junk = fc.oneof(
    fc.anything(),
    fc.constantFrom<unknown>(undefined, null, '', 'x'.repeat(5000), -1, 1.5, 1e12, Number.NaN, {}, [], true),
  )
  const words = new Set<string>()
  for (const body of bodies) {
    const { shape = {} } = body as Partial<z.ZodObject>
    for (const schema of [body, ...(Object.values(shape) as z.ZodType[])])
      fc.assert(
        fc.property(junk, (given) => {
          for (const { message } of schema.safeParse(given).error?.issues ?? []) words.add(message)
        }),
        { numRuns: 60 },
      )
  }
  expect(words.size).toBeGreaterThan(100)
  expect([...words].filter((each) => raw.test(each) || !/[.?]$/.test(each))).toEqual([])
})

/** Rules of a form's fields, as the contract has them: what the server would refuse is told before it is sent, in the same words. */
import dayjs, { type Dayjs } from 'dayjs'
import type { z } from 'zod'

/** What is typed, as it is sent. */
type AsSent = (typed: unknown) => unknown

const asItIs: AsSent = (typed) => (dayjs.isDayjs(typed) ? typed.format('YYYY-MM-DD') : typed)

/** Of a time picker. */
export const asHour: AsSent = (typed) => (typed as Dayjs).format('HH:mm')

/** Of what is typed in pounds or euros and sent in pence or cents. */
export const asMoney: AsSent = (typed) => Math.round(Number(typed) * 100)

const isEmpty = (typed: unknown) => typed === undefined || typed === null || typed === ''

/** @param asSent not asked of a field that is empty */
export function rulesOf(schema: z.ZodType, asSent: AsSent = asItIs) {
  const missing = faultIn(schema, undefined)
  const fits = {
    validator: async (_: unknown, typed: unknown) => {
      // What must be given is told by the rule beside this one.
      const empty = isEmpty(typed)
      const fault =
        empty && missing !== undefined ? undefined : faultIn(schema, empty ? typed || undefined : asSent(typed))
      if (fault !== undefined) throw new Error(fault)
    },
  }
  return missing === undefined ? [fits] : [{ required: true, message: missing }, fits]
}

function faultIn(schema: z.ZodType, sent: unknown): string | undefined {
  const read = schema.safeParse(sent)
  return read.success ? undefined : (read.error.issues[0]?.message ?? '')
}

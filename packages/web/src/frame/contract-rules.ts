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

/** What a field has in it that is left empty, by its kind. */
const blanks = [undefined, '', []]

const isBlank = (typed: unknown) =>
  typed === undefined || typed === null || typed === '' || (Array.isArray(typed) && typed.length === 0)

/** @param asSent not asked of a field that is left empty */
export function rulesOf(schema: z.ZodType, asSent: AsSent = asItIs) {
  const faults = blanks.map((blank) => faultIn(schema, blank))
  const [missing = ''] = faults
  const fits = {
    validator: async (_: unknown, typed: unknown) => {
      // What is left empty is told by the other rule, or may be.
      const fault = isBlank(typed) ? undefined : faultIn(schema, asSent(typed))
      if (fault !== undefined) throw new Error(fault)
    },
  }
  return faults.every((fault) => fault !== undefined) ? [{ required: true, message: missing }, fits] : [fits]
}

function faultIn(schema: z.ZodType, sent: unknown): string | undefined {
  const read = schema.safeParse(sent)
  return read.success ? undefined : (read.error.issues[0]?.message ?? '')
}

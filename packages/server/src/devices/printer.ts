/** A label printer that takes a PDF over HTTP. */
import { z } from 'zod'
import { HttpProblem } from '../problem'

const waitMs = 6000
const byHand = 'Nothing is lost: fix it and print again, or open the labels and print them from the browser.'

const answered = z.object({ trouble: z.string().optional() })
const troubles: Readonly<Record<string, string>> = {
  jam: 'The label printer is jammed.',
  paper: 'The label printer is out of paper.',
}

/**
 * Sends it once: whether a page that was cut off has come out, nobody knows, and a label printed twice is worse than one asked for again.
 *
 * @throws HttpProblem saying what is wrong with the printer
 */
export async function printPdf(address: string, pdf: Uint8Array): Promise<void> {
  if (!address)
    throw new HttpProblem(503, 'no-printer', 'No label printer is connected.', {
      hint: 'Open the labels and print them from the browser.',
    })
  let response: Response
  try {
    response = await fetch(`http://${address}/`, {
      method: 'POST',
      headers: { 'content-type': 'application/pdf' },
      body: Buffer.from(pdf),
      signal: AbortSignal.timeout(waitMs),
    })
  } catch {
    throw new HttpProblem(503, 'no-printer', 'The label printer does not answer.', { hint: byHand })
  }
  if (response.ok) return
  const { trouble = '' } = answered.catch({}).parse(await response.json().catch(() => ({})))
  throw new HttpProblem(503, 'printer-trouble', troubles[trouble] ?? 'The label printer will not take it.', {
    hint: byHand,
  })
}

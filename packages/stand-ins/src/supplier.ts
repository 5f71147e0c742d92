/**
 * A suppliers' service of prices and lead times that is none: `GET /prices?code=BC101&code=...`. It knows the demo shelf, and answers late, with
 * an error, with rubbish, in another currency or at other prices when it is played so. See docs/stand-ins.md.
 */
import http from 'node:http'
import { shelf } from '../../../demo/shelf'
import { control, playFault, stand } from './stand-in'

type Fault = 'late' | 'failing' | 'rubbish' | 'currency'
const on = new Set<Fault>()
let times = 1
let daysMore = 0
let asked = 0

const byCode = new Map(shelf.map((item) => [item.code, item]))

const supplier = http.createServer(async (request, response) => {
  asked++
  const url = new URL(request.url ?? '/', 'http://supplier')
  if (on.has('late')) await new Promise((done) => setTimeout(done, 30_000))
  const answer = (status: number, text: string) => {
    response.writeHead(status, { 'content-type': 'application/json' })
    response.end(text)
  }
  if (on.has('failing')) answer(500, '{"trouble": "the service is being mended"}')
  else if (on.has('rubbish')) answer(200, '<html>Welcome to our new website')
  else if (url.pathname !== '/prices') answer(404, '{"trouble": "ask for /prices"}')
  else {
    const prices = url.searchParams.getAll('code').map((code) => ({
      code,
      packs: (byCode.get(code)?.packs ?? []).map(({ amount, price, leadDays }) => ({
        amount,
        price: Math.round(price * times),
        leadDays: leadDays + daysMore,
      })),
    }))
    answer(200, JSON.stringify({ currency: on.has('currency') ? 'EUR' : 'GBP', prices }))
  }
})

/** `{"times": 1.1}`, `{"daysMore": 7}`, `{"fault": "late", "on": true}`. */
function play({ times: dearer, daysMore: later, ...rest }: Record<string, unknown>): string | undefined {
  if (dearer !== undefined) {
    if (typeof dearer !== 'number' || !(dearer > 0 && dearer <= 100)) return 'times is a number above 0, up to 100.'
    times = dearer
  }
  if (later !== undefined) {
    if (!Number.isInteger(later) || (later as number) < 0 || (later as number) > 365)
      return 'daysMore is a number of days.'
    daysMore = later as number
  }
  return playFault(on, ['late', 'failing', 'rubbish', 'currency'], rest)
}

await stand(
  { supplier, control: control(play, () => ({ times, daysMore, asked, faults: [...on] })) },
  { supplier: process.env.SUPPLIER_PORT, control: process.env.SUPPLIER_CONTROL_PORT },
)

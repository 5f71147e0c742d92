/**
 * A label printer that is none: it takes a PDF and keeps it in its folder as a sheet that has come out. It jams and runs out of paper when it is
 * played so, and answers slowly when it is told to. See docs/stand-ins.md.
 */
import { mkdirSync, writeFileSync } from 'node:fs'
import http from 'node:http'
import { tmpdir } from 'node:os'
import path from 'node:path'
import { bodyOf, control, playFault, stand } from './stand-in'

type Fault = 'jam' | 'slow' | 'silent'
const on = new Set<Fault>()
const folder = process.env.PRINTER_FOLDER ?? path.join(tmpdir(), 'tessellum-printed')
let paper = 200
let jobs = 0
const kept: string[] = []

const printer = http.createServer(async (request, response) => {
  const answer = (status: number, body: object) => {
    response.writeHead(status, { 'content-type': 'application/json' })
    response.end(JSON.stringify(body))
  }
  if (on.has('silent')) return
  if (on.has('slow')) await new Promise((done) => setTimeout(done, 3000))
  if (request.method === 'GET') {
    answer(200, { ready: !on.has('jam') && paper > 0, paper })
    return
  }
  try {
    const page = await bodyOf(request, 20_000_000)
    if (on.has('jam')) answer(503, { trouble: 'jam' })
    else if (paper === 0) answer(503, { trouble: 'paper' })
    else if (!page.subarray(0, 5).equals(Buffer.from('%PDF-'))) answer(415, { trouble: 'Send a PDF.' })
    else {
      mkdirSync(folder, { recursive: true })
      const file = path.join(folder, `label-${Date.now()}-${++jobs}.pdf`)
      writeFileSync(file, page)
      paper--
      kept.push(file)
      answer(201, { job: jobs })
    }
  } catch {
    answer(413, { trouble: 'That is more than the printer takes.' })
  }
})

/** `{"fault": "jam", "on": true}`, `{"paper": 0}`. */
function play({ paper: sheets, ...asked }: Record<string, unknown>): string | undefined {
  if (sheets !== undefined) {
    if (!Number.isInteger(sheets) || (sheets as number) < 0 || (sheets as number) > 10_000)
      return 'paper is a number of sheets.'
    paper = sheets as number
  }
  return playFault(on, ['jam', 'slow', 'silent'], asked)
}

await stand(
  {
    printer,
    control: control(play, () => ({ paper, printed: jobs, last: kept[kept.length - 1] ?? '', faults: [...on] })),
  },
  { printer: process.env.PRINTER_PORT, control: process.env.PRINTER_CONTROL_PORT },
)

/** Who waits for a thread, and for how long; what nobody waits for any more. */
import path from 'node:path'
import fc from 'fast-check'
import { RequestAborted, requestContext } from '../src/context'
import { FairQueue } from '../src/jobs/fair-queue'
import { workerPool } from '../src/jobs/pool'
import type { Tasks } from '../src/jobs/tasks'

describe('the queue', () => {
  test('whoever asks for many things waits no less for the second than others for their first', () => {
    const queue = new FairQueue<string>()
    for (let i = 1; i <= 50; i++) queue.add(1, 'long', `a${i}`)
    queue.add(2, 'long', 'b1')
    queue.add(0, 'long', 'shop')
    queue.add(3, 'long', 'c1')
    expect(queue.ahead(2)).toBe(1)
    expect(queue.ahead(1)).toBe(51)
    expect(Array.from({ length: 4 }, () => queue.take('long'))).toEqual(['a1', 'b1', 'c1', 'a2'])
    expect(queue.remove(1, 'long', 'a3')).toBe(true)
    expect(queue.take('long')).toBe('a4')
  })

  test('everything is taken once, each person’s in its order, the shop’s own last, and nobody is passed over twice', () => {
    const asked = fc.array(fc.record({ whose: fc.nat(4), pace: fc.constantFrom('quick' as const, 'long' as const) }))
    fc.assert(
      fc.property(asked, (all) => {
        const queue = new FairQueue<number>()
        for (const [i, { whose, pace }] of all.entries()) queue.add(whose, pace, i)
        for (const pace of ['quick', 'long'] as const) {
          const taken: number[] = []
          for (let next = queue.take(pace); next !== undefined; next = queue.take(pace)) taken.push(next)
          const of = (whose: number) => taken.filter((i) => all[i]?.whose === whose)
          expect([...taken].sort((a, b) => a - b)).toEqual(all.flatMap((each, i) => (each.pace === pace ? [i] : [])))
          for (let whose = 0; whose <= 4; whose++) expect(of(whose)).toEqual([...of(whose)].sort((a, b) => a - b))
          const people = taken.filter((i) => all[i]?.whose !== 0)
          expect(taken.slice(0, people.length)).toEqual(people)
          // Between two of one person's, nobody else who waits has two.
          for (const [at, i] of people.entries()) {
            const again = people.findIndex((j, later) => later > at && all[j]?.whose === all[i]?.whose)
            if (again < 0) continue
            const between = people.slice(at + 1, again).map((j) => all[j]?.whose)
            expect(new Set(between).size).toBe(between.length)
          }
        }
        expect(queue.length).toBe(0)
      }),
    )
  })
})

describe('the threads', () => {
  const pool = workerPool(path.join(__dirname, '../dist/worker.js'), {}, 2)
  afterAll(() => pool.close())

  /** A long rope: its form takes a while to settle, and another number of beads is another form. */
  const rope = (beads: number): Tasks['form']['input'] => ({
    source: `pattern Rope\n\nbead A round 11/0 "beads"\n\nring 8A\nrepeat ${beads}\n  round A\nend\n`,
    choices: {},
  })
  const as = <T>(personId: number, work: () => T, signal = new AbortController().signal): T =>
    requestContext.run({ personId, signal }, work)

  test('what is quick does not wait behind what is long, and one person’s many do not keep another’s one waiting', async () => {
    const done: string[] = []
    const many = Array.from({ length: 6 }, (_, i) =>
      as(1, () => pool.run('form', rope(12 + i))).then(() => done.push(`many ${i}`)),
    )
    const one = as(2, () => pool.run('form', rope(40))).then(() => done.push('one'))
    const quick = as(3, () => pool.run('evaluate', rope(3))).then(() => done.push('quick'))
    expect(pool.stateFor(2).ahead).toBe(1)
    await Promise.all([...many, one, quick])
    expect(done.indexOf('one')).toBeLessThan(4)
    expect(done.indexOf('quick')).toBeLessThan(2)
  })

  test('who hangs up is not worked for: what waits is not begun, what has begun stops, and the thread goes on', async () => {
    const gone = new AbortController()
    const running = as(1, () => pool.run('form', rope(120)), gone.signal).catch((error: unknown) => error)
    const waiting = as(1, () => pool.run('form', rope(121)), gone.signal).catch((error: unknown) => error)
    const other = as(2, () => pool.run('form', rope(10)))
    gone.abort()
    expect(await waiting).toBeInstanceOf(RequestAborted)
    expect(await running).toBeInstanceOf(RequestAborted)
    expect((await other).report.diagnostics.filter(({ severity }) => severity === 'error')).toEqual([])
    expect(pool.stateFor(1)).toEqual({ ahead: 0, done: 0 })
  })
})

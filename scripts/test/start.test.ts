import { type ChildProcess, execFileSync, spawn } from 'node:child_process'
import { chmodSync, existsSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import net from 'node:net'
import os from 'node:os'
import path from 'node:path'
import { Caller } from '../../packages/server/test/shop'

const root = path.join(__dirname, '../..')
let data: string
beforeAll(() => {
  data = mkdtempSync(path.join(os.tmpdir(), 'tessellum-start-'))
  chmodSync(data, 0o755)
})
afterAll(() => rmSync(data, { recursive: true, force: true }))

interface Start {
  readonly child: ChildProcess
  readonly output: () => string
  readonly ended: Promise<number | null>
}

/** `npm start` in a data folder of the test's own. */
const start = (args: string[] = [], env: NodeJS.ProcessEnv = {}): Start => spawned('start', args, env)

/** Another of the project's commands, in the same folder unless said. */
const command = (name: string, argument: string, env: NodeJS.ProcessEnv = {}): Start => spawned(name, [argument], env)

function spawned(name: string, args: string[], env: NodeJS.ProcessEnv): Start {
  const child = spawn(process.execPath, [`scripts/${name}.mjs`, ...args], {
    cwd: root,
    env: { ...process.env, NODE_ENV: 'production', TESSELLUM_DATA: data, PORT: '0', ...env },
  })
  let output = ''
  child.stdout?.on('data', (text) => {
    output += text
  })
  child.stderr?.on('data', (text) => {
    output += text
  })
  return { child, output: () => output, ended: new Promise((done) => child.once('exit', done)) }
}

async function opened(shop: Start): Promise<string> {
  const until = Date.now() + 600_000
  while (Date.now() < until) {
    const address = /open at (http:\S+)/.exec(shop.output())?.[1]
    if (address) return address
    if (shop.child.exitCode !== null) break
    await new Promise((done) => setTimeout(done, 50))
  }
  throw new Error(`It did not open:\n${shop.output()}`)
}

async function said(shop: Start, words: string): Promise<void> {
  while (!shop.output().includes(words) && shop.child.exitCode === null)
    await new Promise((done) => setTimeout(done, 50))
  expect(shop.output()).toContain(words)
}

const passwordIn = (shop: Start) => /password {2}(\S+)/.exec(shop.output())?.[1] ?? ''
const answers = (base: string) =>
  fetch(`${base}/api/health`)
    .then((response) => response.ok)
    .catch(() => false)
const patternsOf = async (base: string, password: string) => {
  const caller = new Caller(base)
  await caller.signIn('bram', password)
  return caller
}

test('a shop opens, keeps what is done in it over a hard end and a clean one, and begins again when asked', async () => {
  const first = start()
  const base = await opened(first)
  const password = passwordIn(first)
  const bram = await patternsOf(base, password)
  const { body } = await bram.ask('POST', '/patterns', { source: 'pattern Kept through everything' })
  expect(body.id).toBeGreaterThan(0)

  // A second one in the same folder would pull the first one's cluster from under it.
  const second = start(['--fresh'])
  expect(await second.ended).toBe(1)
  expect(second.output()).toContain('open already')
  expect(await answers(base)).toBe(true)

  // Killed hard: the server goes with it, the database stays and is taken over.
  first.child.kill('SIGKILL')
  await first.ended
  for (let i = 0; i < 4800 && (await answers(base)); i++) await new Promise((done) => setTimeout(done, 50))
  expect(await answers(base)).toBe(false)

  // The database killed hard too, as by a power cut: it recovers by its own log.
  const postmaster = path.join(data, 'postgres/cluster/postmaster.pid')
  process.kill(Number(readFileSync(postmaster, 'utf8').split('\n')[0]), 'SIGKILL')

  const third = start()
  const again = await opened(third)
  expect(passwordIn(third)).toBe(password)
  const back = await patternsOf(again, password)
  expect((await back.ask('GET', `/patterns/${body.id}`)).body.title).toBe('Kept through everything')

  // The server killed, and then the database too: each is started again while the shop stays open.
  const serverOf = (parent: number) =>
    execFileSync('pgrep', ['-P', String(parent), '-f', 'packages/server/dist/main.js'])
      .toString()
      .trim()
  process.kill(Number(serverOf(third.child.pid ?? 0)), 'SIGKILL')
  await said(third, 'The server is open again.')
  expect(await answers(again)).toBe(true)
  process.kill(Number(readFileSync(postmaster, 'utf8').split('\n')[0]), 'SIGKILL')
  await said(third, 'The database is there again.')
  expect((await back.ask('GET', `/patterns/${body.id}`)).body.title).toBe('Kept through everything')
  third.child.kill('SIGINT')
  expect(await third.ended).toBe(0)
  expect(await answers(again)).toBe(false)
  expect(existsSync(postmaster)).toBe(false)

  // A shop that is opened while a backup of the closed one is taken waits for it; neither stops the other's database.
  const dump = path.join(data, 'shop.dump')
  const backup = command('backup', dump)
  while (!existsSync(path.join(data, 'open.json'))) await new Promise((done) => setTimeout(done, 10))
  const fourth = start()
  const open = await opened(fourth)
  expect(fourth.output()).toContain('Waiting for the backup')
  expect(await backup.ended).toBe(0)
  expect(await answers(open)).toBe(true)
  fourth.child.kill('SIGINT')
  expect(await fourth.ended).toBe(0)

  // Put back into another folder, everything is there; cut short, it is refused in one sentence, and says no password.
  const elsewhere = path.join(data, 'elsewhere')
  const short = path.join(data, 'short.dump')
  writeFileSync(short, readFileSync(dump).subarray(0, 30_000))
  const refused = command('restore', short, { TESSELLUM_DATA: elsewhere })
  expect(await refused.ended).toBe(1)
  expect(refused.output()).toMatch(/short\.dump is no whole backup, and nothing has been changed\./)
  expect(refused.output().length).toBeLessThan(800)
  const restored = command('restore', dump, { TESSELLUM_DATA: elsewhere })
  expect([await restored.ended, restored.output()]).toEqual([0, expect.stringContaining('Put back from')])

  // The mark of one that was killed: its number belongs to another process by now.
  writeFileSync(path.join(data, 'open.json'), JSON.stringify({ pid: process.pid, began: '1', what: 'shop' }))
  const fresh = start(['--fresh'])
  const anew = await opened(fresh)
  const renewed = await patternsOf(anew, passwordIn(fresh))
  const titles = (await renewed.ask('GET', '/patterns')).body.map(({ title }: { title: string }) => title)
  expect(titles).toContain('Windlass pendant')
  expect(titles).not.toContain('Kept through everything')
  fresh.child.kill('SIGTERM')
  expect(await fresh.ended).toBe(0)
})

test('a port that is taken, or is none, is said with what to do', async () => {
  const taken = net.createServer()
  await new Promise<void>((done) => taken.listen(0, '127.0.0.1', () => done()))
  const { port } = taken.address() as net.AddressInfo
  const busy = start([], { PORT: String(port) })
  expect(await busy.ended).toBe(1)
  expect(busy.output()).toContain(`Port ${port} is taken`)
  taken.close()
  const wrong = start([], { PORT: 'door' })
  expect(await wrong.ended).toBe(1)
  expect(wrong.output()).toContain('it must be a number')
})

test('a database of somebody else’s is not emptied', async () => {
  const shop = start(['--fresh'], { DATABASE_URL: 'postgresql://somebody@127.0.0.1:1/else' })
  expect(await shop.ended).toBe(1)
  expect(shop.output()).toContain('empty the one that DATABASE_URL names yourself')
})

/** After a run: where the time went. During it: whether it still goes on. */
const { readdirSync, readFileSync } = require('node:fs')
const path = require('node:path')

const lookEverySeconds = 10
/** A run that waits for something does less in this time than `idleCpuSeconds`: servers and pages at rest take a little. */
const hangSeconds = 120
const idleCpuSeconds = 0.05 * hangSeconds
const ticksPerSecond = 100

/** Seconds of processor time of a process and all that it has started, those that have ended too. Linux only: 0 elsewhere. */
function cpuSecondsOf(root) {
  const parentOf = new Map()
  const ticksOf = new Map()
  let names = []
  try {
    names = readdirSync('/proc').filter((name) => /^\d+$/.test(name))
  } catch {
    return undefined
  }
  for (const name of names) {
    try {
      // The command may hold spaces and brackets; what follows its last bracket are fields 3 and on.
      const fields = readFileSync(`/proc/${name}/stat`, 'utf8')
        .replace(/^.*\) /s, '')
        .split(' ')
      parentOf.set(Number(name), Number(fields[1]))
      ticksOf.set(
        Number(name),
        fields.slice(11, 15).reduce((sum, each) => sum + Number(each), 0),
      )
    } catch {
      // It has ended meanwhile.
    }
  }
  const isOurs = (id) => id === root || (parentOf.has(id) && id > 1 && isOurs(parentOf.get(id)))
  let ticks = 0
  for (const [id, each] of ticksOf) if (isOurs(id)) ticks += each
  return ticks / ticksPerSecond
}

module.exports = class Reporter {
  running = new Set()

  onRunStart() {
    let [since, before] = [Date.now(), cpuSecondsOf(process.pid)]
    if (before === undefined) return
    this.watch = setInterval(() => {
      const now = cpuSecondsOf(process.pid)
      // Less than before: something that took much has ended, so something goes on.
      if (now - before > idleCpuSeconds || now < before || this.ended)
        [since, before, this.ended] = [Date.now(), now, false]
      else if (Date.now() - since > hangSeconds * 1000) this.stop()
    }, lookEverySeconds * 1000)
    this.watch.unref()
  }

  onTestFileStart({ path: file }) {
    this.running.add(file)
  }

  onTestFileResult({ path: file }) {
    this.running.delete(file)
    this.ended = true
  }

  stop() {
    const files = [...this.running].map((file) => path.relative(process.cwd(), file))
    process.stderr.write(`\nNothing has gone on for ${hangSeconds} seconds. Still running:\n  ${files.join('\n  ')}\n`)
    process.exit(1)
  }

  onRunComplete(_, { testResults }) {
    clearInterval(this.watch)
    const files = testResults.map(({ testFilePath, displayName, perfStats }) => ({
      name: path.relative(process.cwd(), testFilePath),
      kind: displayName?.name ?? '',
      seconds: (perfStats.end - perfStats.start) / 1000,
    }))
    if (files.length < 5) return
    const kinds = new Map()
    for (const { kind, seconds } of files) kinds.set(kind, (kinds.get(kind) ?? 0) + seconds)
    const said = (name, seconds) => `${String(Math.round(seconds)).padStart(6)} s  ${name}`
    const lines = [...kinds].sort(([, a], [, b]) => b - a).map(([kind, seconds]) => said(kind, seconds))
    const slowest = [...files].sort((a, b) => b.seconds - a.seconds).slice(0, 20)
    process.stderr.write(
      [
        '',
        'Seconds by kind of test:',
        ...lines,
        'The slowest files:',
        ...slowest.map((each) => said(each.name, each.seconds)),
        '',
      ].join('\n'),
    )
  }
}

import { spawnSync } from 'node:child_process'
import path from 'node:path'

const root = path.join(__dirname, '../../..')

function tessellum(args: string[], input = '') {
  const { status, stdout, stderr } = spawnSync(
    process.execPath,
    [path.join(root, 'packages/cli/dist/tessellum.js'), ...args],
    {
      cwd: root,
      input,
      encoding: 'utf8',
    },
  )
  return { status, stdout, stderr }
}

const windlass = 'demo/patterns/windlass-pendant.tess'

test('report gives counts for a size and for another bead', () => {
  const { status, stdout } = tessellum([
    'report',
    windlass,
    '--size',
    'petite',
    '--bead',
    'A=cylinder 11/0 L=1.40 d=1.70',
    '--json',
  ])
  expect(status).toBe(0)
  const report = JSON.parse(stdout)
  // 32 round the stone: A 24 + 16 + 16.
  expect(report.beads[0]).toEqual({ role: 'A', kind: 'cylinder', size: '11/0', label: 'frame', each: 56, total: 56 })
  expect(report.statements[1]).toMatchObject({
    line: 15,
    text: 'ring (3A B) x n/4',
    added: { A: 24, B: 8 },
    totals: { A: 24, B: 8 },
  })
  expect(report.thread.cuts).toHaveLength(1)
  expect(report.crowding.map(({ role }: { role: string }) => role)).toEqual(['A', 'B', 'C'])
  expect(report.diagnostics.every(({ severity }: { severity: string }) => severity !== 'error')).toBe(true)
})

test('faults go to standard error with their places, and the status is 1; what could be counted is still given', () => {
  const { status, stdout, stderr } = tessellum(
    ['report', '-', '--json'],
    'pattern P\nbead A cylinder 11/0\npart p\nring 6A\nrnig 3A\n',
  )
  expect(status).toBe(1)
  expect(stderr).toBe('5:1: "rnig" is not a word of the notation. Did you mean "ring"?\n')
  expect(JSON.parse(stdout).beads[0].each).toBe(6)
})

test.each([
  [['fit', 'ring', '--stone', 'oval 13x18mm', '--bead', 'cylinder 11/0', '--json'], 40],
  [['fit', 'ring', '--stone', 'round 18mm', '--bead', 'cylinder 11/0', '--multiple', '4', '--json'], 44],
  [['fit', 'ring', '--stone', 'square 13mm r=2mm', '--bead', 'cylinder 11/0', '--multiple', '8', '--json'], 40],
  [['fit', 'length', '--target', '180mm', '--ends', '25mm', '--pitch', '8.4mm', '--multiple', '2', '--json'], 18],
  [['fit', 'finger', '--us', '7', '--pitch', '2.1mm', '--top', '24mm', '--thickness', '2mm', '--json'], 17],
])('%j gives %i', (args, best) => {
  const { status, stdout } = tessellum(args)
  expect([status, JSON.parse(stdout).best]).toEqual([0, best])
})

test('fit stand gives each row', () => {
  const { stdout } = tessellum(['fit', 'stand', '--core', '12mm', '--bead', 'round 11/0', '--rows', '3', '--json'])
  expect(JSON.parse(stdout).rows.map(({ count }: { count: number }) => count)).toEqual([20, 25, 30])
})

test.each([
  [[], /Say what to do/],
  [['knit'], /no command "knit"/],
  [['report', 'nowhere.tess'], /cannot be read/],
  [['report', windlass, '--colour', 'red'], /colour/],
  [['report', windlass, '--option', 'rim'], /NAME=on/],
  [['fit', 'box'], /fit what/],
  [['fit', 'ring', '--stone', 'heart 9mm', '--bead', 'cylinder 11/0'], /not a stone shape/],
  [['fit', 'ring', '--stone', 'round 0mm', '--bead', 'cylinder 11/0'], /above nought/],
  [['fit', 'ring', '--stone', 'round 9mm', '--bead', 'cylinder 12/0'], /no cylinder in size/],
  [['write', windlass, '--to', 'docx'], /md, html or json/],
])('%j is wrong use: status 2, and how it is used', (args, message) => {
  const { status, stderr } = tessellum(args)
  expect(status).toBe(2)
  expect(stderr).toMatch(message)
  expect(stderr).toContain('tessellum report FILE')
})

test.each(['md', 'html', 'json'])('write --to %s tells the counts', (form) => {
  const { status, stdout } = tessellum(['write', windlass, '--size', 'petite', '--to', form])
  expect(status).toBe(0)
  expect(stdout).toContain('63 A, 9 B, 81 C')
})

test('format is a filter, and reconcile names what is missing', () => {
  expect(tessellum(['format', '-'], 'pattern  P\npart p\nring 6A').stdout).toBe('pattern P\n\npart p\n  ring 6A\n')
  const { stdout } = tessellum(['reconcile', windlass, '-', '--size', 'petite'], '63 A\n9 B\n1 S\n')
  expect(stdout).toContain('missing: C, 81 used')
})

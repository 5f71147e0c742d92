import { spawnSync } from 'node:child_process'
import { mkdtempSync, readFileSync } from 'node:fs'
import os from 'node:os'
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
  [['fit', 'ring', '--stone', 'round 0mm', '--bead', 'cylinder 11/0'], /above 0/],
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

test('form gives what is read off the settled piece, by line', () => {
  const { status, stdout } = tessellum(['form', windlass, '--size', 'petite', '--json'])
  expect(status).toBe(0)
  const form = JSON.parse(stdout)
  expect(form).toMatchObject({ pattern: 'Windlass pendant', size: 'petite', settled: true })
  expect(form.held[0].frontMm).toBeGreaterThan(0.5)
  expect(form.widthMm).toBeGreaterThan(14)
  expect(form.findings[0]).toMatchObject({ line: 21, tone: 'good' })
})

test('draw gives the piece, or what one line adds and passes, as a drawing of its own', () => {
  const { status, stdout } = tessellum(['draw', windlass, '--view', 'side'])
  expect([status, stdout.slice(0, 4)]).toEqual([0, '<svg'])
  expect(stdout).toContain('<title>Windlass pendant, from the side</title>')
  const line = tessellum(['draw', windlass, '--statement', '28']).stdout
  expect(line).toContain('The thread comes in')
  // Line 28 travels: six beads are passed, nothing is new, and the rest is one dashed outline.
  expect(line.match(/stroke-dasharray/g)).toHaveLength(1)
  expect(line.match(/<g transform/g)).toHaveLength(6)
  expect(tessellum(['draw', windlass, '--statement', '3']).stderr).toMatch(/^Line 3 does nothing; these do: 14, 15/)
  expect(tessellum(['draw', windlass, '--view', 'top']).status).toBe(2)
})

test('a drawing is written where it is wanted', () => {
  const file = path.join(mkdtempSync(path.join(os.tmpdir(), 'tessellum-draw-')), 'out.svg')
  expect(tessellum(['draw', 'demo/patterns/mooring-ring.tess', '-o', file])).toMatchObject({ status: 0, stdout: '' })
  expect(readFileSync(file, 'utf8')).toContain('</svg>')
})
test('the published schema is that of the files that are read and written', () => {
  const published = readFileSync(path.join(root, 'docs/formats/pattern.schema.json'), 'utf8')
  expect(JSON.parse(tessellum(['schema']).stdout)).toEqual(JSON.parse(published))
})

test('a pattern is written in German too, and a language that is none is refused', () => {
  expect(tessellum(['write', windlass, '--language', 'de']).stdout).toContain(
    '44 Perlen auffädeln: 3 A und 1 B aufnehmen',
  )
  expect(tessellum(['write', windlass, '--language', 'la'])).toMatchObject({
    status: 2,
    stderr: expect.stringContaining('it can be en, de, fr, nl.'),
  })
})

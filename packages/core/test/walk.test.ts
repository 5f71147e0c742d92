import { sceneOf } from '../src/drawing/scene'
import { pickedIn, walkOf } from '../src/drawing/walk'
import { evaluatePattern } from '../src/evaluate/evaluate-pattern'
import { beginForm } from '../src/form/form'
import { usualThreadSettings } from '../src/thread/settings'
import { sentenceFor } from '../src/writing/english/sentences'
import { allDemos, demo } from './support'

const told = (statement: { action: Parameters<typeof sentenceFor>[0] }) =>
  sentenceFor(statement.action, usualThreadSettings) !== undefined

function walk(source: string) {
  const evaluated = evaluatePattern(source)
  const scene = sceneOf(evaluated, beginForm(evaluated))
  const { statements } = evaluated.report
  return { scene, statements, steps: walkOf(scene.passes, statements, told) }
}

test('a walk goes line by line in the order of the thread, with what is only said where it is written', () => {
  const { steps, statements } = walk(demo('windlass-pendant'))
  expect(steps.map(({ statement }) => statements[statement]?.line)).toEqual([
    15, 16, 17, 18, 19, 20, 21, 22, 23, 24, 25, 28, 29, 30, 31,
  ])
})

test('a line of a repeat is walked as often as it is done', () => {
  const { steps, statements } = walk('bead A round 11/0\npart p\nring 6A\nrepeat 2\nround A\nend\n')
  expect(steps.map(({ statement, time, times }) => [statements[statement]?.line, time, times])).toEqual([
    [3, 1, 1],
    [5, 1, 2],
    [5, 2, 2],
  ])
  const two = walk('bead A round 11/0\npart p\nring 6A\nrepeat 2\nround A\nround 2A\nend\n')
  expect(two.steps.map(({ statement, time, times }) => [two.statements[statement]?.line, time, times])).toEqual([
    [3, 1, 1],
    [5, 1, 2],
    [6, 1, 2],
    [5, 2, 2],
    [6, 2, 2],
  ])
})

test.each(allDemos)('%s: a walk picks up every bead once and lays every pass', (name) => {
  const { scene, steps } = walk(demo(name))
  let at = 0
  let picked = 0
  for (const { from, to } of steps) {
    expect(from).toBe(at)
    at = to
    picked += Object.values(pickedIn(scene, from, to).picked).reduce((sum, each) => sum + each, 0)
  }
  expect([at, picked]).toEqual([scene.passes.length, scene.beads.length])
})

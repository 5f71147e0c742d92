/** What `npm run bench` opens in a browser: a tube of so many beads, laid out, turned for some seconds without a graphics card. */
import { sceneOf } from '@tessellum/core/drawing/scene'
import { evaluatePattern } from '@tessellum/core/evaluate/evaluate-pattern'
import { beginForm } from '@tessellum/core/form/form'
import { DrawnStage } from '../packages/web/src/piece/drawn-stage'

declare global {
  interface Window {
    turning: (source: string) => Promise<number>
  }
}

/** @returns milliseconds between one frame and the next, the middle of them */
window.turning = async (source) => {
  const evaluated = evaluatePattern(source)
  const form = beginForm(evaluated)
  form.settling.run(60)
  const canvas = document.createElement('canvas')
  document.body.replaceChildren(canvas)
  const stage = new DrawnStage(canvas)
  stage.resize(420, 420)
  stage.show(sceneOf(evaluated, form), { A: { colour: '#3c6e5d', finish: '' } })
  const gaps: number[] = []
  let last = performance.now()
  for (let frame = 0; frame < 90; frame++) {
    stage.turn(0.03, 0.012)
    await new Promise(requestAnimationFrame)
    const now = performance.now()
    gaps.push(now - last)
    last = now
  }
  stage.dispose()
  return gaps.slice(20).sort((a, b) => a - b)[35] ?? 0
}

/** The tools of somebody who stitches on the piece: clicks, keys, and what is asked before something doubtful is done. */
import type { Scene } from '@tessellum/core/drawing/scene'
import type { Choices } from '@tessellum/core/evaluate/evaluate-pattern'
import type { HandPass } from '@tessellum/core/hand/hand-pass'
import { counted } from '@tessellum/core/measure/counted'
import { sayLength } from '@tessellum/core/measure/units'
import type { Report } from '@tessellum/core/report/report'
import { beadOf, boreOf, type Hole } from '@tessellum/core/stitch/hole'
import { type KeyboardEvent, type MouseEvent, type ReactNode, type RefObject, useRef, useState } from 'react'
import { evaluateClient } from '../patterns/use-evaluated'
import type { Dress, Eye } from '../piece/stage-kind'
import type { Lying } from '../piece/use-formed'
import { HandOverlay } from './hand-overlay'
import { type Asked, HandPanel, tooFull } from './hand-panel'
import { holeClicked, lastExit, middleOf, ownHole } from './pointing'
import type { Hand } from './use-hand'

export interface StitchTools {
  readonly over: (eye: Eye | undefined, lying: Lying | undefined, size: readonly [number, number]) => ReactNode
  readonly onTouch: (bead: number, at: readonly [number, number], event: MouseEvent, eye: Eye, lying: Lying) => void
  readonly onKey: (event: KeyboardEvent, eye: Eye | undefined, lying: Lying | undefined) => void
  readonly panel: ReactNode
  /** What has the keys. */
  readonly place: RefObject<HTMLDivElement | null>
}

interface Options {
  readonly hand: Hand
  readonly choices: Choices
  readonly report: Report | undefined
  readonly scene: Scene | undefined
  readonly dress: Readonly<Record<string, Dress>>
  readonly undo: () => void
  readonly redo: () => void
  readonly leave: () => void
}

/** The bead that the keyboard is at: so many steps back along the thread, however the piece is drawn by now; or one that was looked for. */
type Held = { readonly back: number } | { readonly bead: number }

/** Thread may lie open between beads for so many times the length of the bead it goes to. */
const openSpace = 1.6

export function useStitchTools({ hand, choices, report, scene, dress, undo, redo, leave }: Options): StitchTools {
  const place = useRef<HTMLDivElement>(null)
  const [held, setHeld] = useState<Held>()
  const [chosen, setChosen] = useState(0)
  const [times, setTimes] = useState('')
  /** The second hole of two-hole beads is meant, by the keyboard. */
  const [second, setSecond] = useState(false)
  const [asked, setAsked] = useState<Asked>()
  const { state, passes } = hand
  /** Beads that lie in the piece as it is drawn, and passes that do not: of the text, and of the hand. */
  const placed = scene?.beads.length ?? 0
  const undrawn = state?.undrawn ?? []
  const loose = [...undrawn, ...passes]
  const proposal = state?.proposals[Math.min(chosen, (state?.proposals.length ?? 1) - 1)]
  const measures = Object.fromEntries((report?.beads ?? []).map(({ role, bead }) => [role, bead]))

  const did = () => {
    setAsked(undefined)
    setChosen(0)
    setTimes('')
    setSecond(false)
    setHeld(undefined)
  }
  const add = (more: readonly HandPass[]) => {
    did()
    hand.add(more)
  }
  const pick = (letter: string) => {
    const bead = measures[letter]
    if (!bead) return
    const count = Math.max(1, Math.min(400, Number(times) || 1))
    const bore = second && bead.bores === 2 ? 1 : 0
    add(Array.from({ length: count }, (): HandPass => ({ type: 'pick', role: letter, bore })))
  }
  /** The hole that is meant of a bead that is not clicked. */
  const boreMeant = (bead: number | undefined) =>
    second && bead !== undefined && scene?.beads[bead]?.bores === 2 ? 1 : 0
  const through = (h: Hole) => add([{ type: 'pass', hole: h }])

  /** What is doubtful is asked about; the rest is done. */
  const consider = (h: Hole, gapMm: number) => {
    if (passes.length === 0 && state?.needle === undefined) return
    const full = state?.full[`${beadOf(h)}:${boreOf(h)}`]
    const anyway = { label: 'Pass all the same', act: () => through(h) }
    if (full) return setAsked({ words: tooFull({ ...full, passes: full.passes + 1 }), ways: [anyway] })
    const { lengthMm = 1.5, acrossMm = 1.5 } = scene?.beads[beadOf(h)] ?? {}
    const strand = strandMm(loose, measures)
    if (gapMm <= strand + openSpace * Math.max(lengthMm, acrossMm)) return through(h)
    if (strand > 0)
      return setAsked({
        words: `The beads on the needle come to ${sayLength(strand)}, and that bead lies ${sayLength(gapMm)} away: thread would lie open between them.`,
        ways: [{ label: 'Go there all the same', act: () => through(h) }],
      })
    const across = { label: 'Straight across', act: () => through(h) }
    evaluateClient.wayThere(hand.base, choices, passes, beadOf(h)).then(
      (way) =>
        setAsked({
          words: way
            ? `That bead lies ${sayLength(gapMm)} away. Along the thread it is ${counted(way.passes.length, 'bead')} and ${sayLength(way.threadMm)} of thread${
                way.fullest
                  ? `; the fullest hole on the way would have ${way.fullest.passes} of ${way.fullest.most} passes`
                  : ''
              }.`
            : `That bead lies ${sayLength(gapMm)} away, and no thread leads there.`,
          ways: way ? [{ label: 'Weave there', act: () => add(way.passes) }, across] : [across],
        }),
      (error: Error) => setAsked({ words: error.message, ways: [across] }),
    )
  }
  const drawnAs = (lying: Lying) => scene && { ...scene, ...lying }
  const fromOf = (lying: Lying) => {
    const drawn = drawnAs(lying)
    return drawn && lastExit(drawn, loose, scene?.passes.at(-1)?.hole)
  }
  const go = (
    bead: number,
    eye: Eye | undefined,
    lying: Lying | undefined,
    otherWay: boolean,
    at?: readonly [number, number],
  ) => {
    if (state?.drawnOtherwise)
      return setAsked({ words: 'The piece is being laid out again. Go on when it is there.', ways: [] })
    if (bead >= placed) return through(ownHole(loose, placed, bead, otherWay))
    const drawn = lying && drawnAs(lying)
    if (!drawn || !eye || !lying) return
    const where = at ?? middleOf(drawn, bead, eye, boreMeant(bead))
    const { hole: h, gapMm } = holeClicked(drawn, { bead, at: where, otherWay }, eye, fromOf(lying))
    consider(h, gapMm)
  }

  const order = alongThread(scene, loose)
  const focus = held && ('bead' in held ? held.bead : order.at(-1 - (held.back % Math.max(1, order.length))))
  const walk = (by: 1 | -1) => {
    const back = held && ('bead' in held ? order.length - 1 - order.lastIndexOf(held.bead) : held.back)
    const next = back === undefined ? (by < 0 ? 0 : -1) : back - by
    setHeld({ back: next < 0 ? next + order.length : next })
  }
  const look = (key: string, eye: Eye | undefined, lying: Lying | undefined) => {
    const drawn = lying && drawnAs(lying)
    if (!drawn || !eye) return
    const start = focus ?? order.at(-1)
    if (start === undefined || start >= placed) return
    const here = middleOf(drawn, start, eye)
    const next = nearestTowards(drawn, eye, here, key, start)
    if (next !== undefined) setHeld({ bead: next })
  }

  const onKey: StitchTools['onKey'] = (event, eye, lying) => {
    const { key } = event
    const command = event.ctrlKey || event.metaKey
    const done = () => {
      event.preventDefault()
      event.stopPropagation()
    }
    if (command && key.toLowerCase() === 'z') {
      done()
      did()
      return event.shiftKey ? redo() : undo()
    }
    if (command && key.toLowerCase() === 'y') {
      done()
      did()
      return redo()
    }
    if (command && key.startsWith('Arrow')) {
      done()
      return look(key, eye, lying)
    }
    if (command || event.altKey) return
    const letter = (report?.beads ?? []).find(({ role }) => role.toLowerCase() === key.toLowerCase())?.role
    if (letter) {
      done()
      return pick(letter)
    }
    if (/^\d$/.test(key)) {
      done()
      return setTimes((before) => (before + key).slice(-3))
    }
    // While something is asked, Tab goes to what can be answered.
    if (key === 'Tab' && !event.shiftKey && proposal && !asked) {
      done()
      did()
      return hand.take(proposal)
    }
    if (handled(event, eye, lying)) done()
  }

  /** @returns whether the key means anything here */
  const handled = (event: KeyboardEvent, eye: Eye | undefined, lying: Lying | undefined): boolean => {
    switch (event.key) {
      case 'ArrowLeft':
        walk(-1)
        return true
      case 'ArrowRight':
        walk(1)
        return true
      case 'ArrowUp':
        setChosen((before) => Math.max(0, before - 1))
        return true
      case 'ArrowDown':
        setChosen((before) => Math.min((state?.proposals.length ?? 1) - 1, before + 1))
        return true
      case ':':
        setSecond((before) => !before)
        return true
      case ' ':
        if (focus !== undefined) go(focus, eye, lying, event.shiftKey)
        return true
      case 'Backspace':
        did()
        hand.back()
        return true
      case 'Enter': {
        const first = asked?.ways[0]
        if (first) first.act()
        else {
          did()
          hand.end()
        }
        return true
      }
      case 'Escape':
        if (asked) setAsked(undefined)
        else if (held) setHeld(undefined)
        else leave()
        return true
      default:
        return false
    }
  }

  return {
    place,
    onKey,
    onTouch: (bead, at, event, eye, lying) => go(bead, eye, lying, event.shiftKey, at),
    over: (eye, lying, size) => (
      <HandOverlay
        eye={eye}
        scene={scene}
        lying={lying}
        size={size}
        passes={loose}
        ghost={proposal && proposal.more > 0 ? [...undrawn, ...proposal.passes] : undefined}
        measures={measures}
        dress={dress}
        focus={focus}
        focusBore={boreMeant(focus)}
        onOwn={(bead, otherWay) => through(ownHole(loose, placed, bead, otherWay))}
      />
    ),
    panel: (
      <HandPanel
        report={report}
        dress={dress}
        passes={passes}
        state={state}
        why={hand.why}
        mend={hand.mend}
        onMend={hand.write}
        asked={asked}
        times={times}
        second={second}
        chosen={chosen}
        onPointed={() => place.current?.focus()}
        onChoose={setChosen}
        onTake={(taken) => {
          did()
          hand.take(taken)
        }}
        onPick={pick}
        onBack={() => {
          did()
          hand.back()
        }}
        onEnd={() => {
          did()
          hand.end()
        }}
      />
    ),
  }
}

/** Every bead in the order of the thread: the piece's, and those in hand. */
function alongThread(scene: Scene | undefined, loose: readonly HandPass[]): number[] {
  let next = scene?.beads.length ?? 0
  return [
    ...(scene?.passes ?? []).map(({ bead }) => bead),
    ...loose.map((pass) => (pass.type === 'pick' ? next++ : beadOf(pass.hole))),
  ]
}

/** How long the beads are that have been picked up since the last bead of the piece. */
function strandMm(
  passes: readonly HandPass[],
  measures: Readonly<Record<string, { readonly lengthMm: number } | undefined>>,
): number {
  const since = passes.findLastIndex(({ type }) => type === 'pass') + 1
  return passes
    .slice(since)
    .reduce((sum, pass) => sum + (pass.type === 'pick' ? (measures[pass.role]?.lengthMm ?? 0) : 0), 0)
}

type Drawn = Scene & Lying

/** The nearest bead that is seen in a direction: what lies to the side counts as twice as far. */
function nearestTowards(
  drawn: Drawn,
  eye: Eye,
  [x, y]: readonly [number, number],
  key: string,
  but: number,
): number | undefined {
  const [ux, uy] = key === 'ArrowLeft' ? [-1, 0] : key === 'ArrowRight' ? [1, 0] : key === 'ArrowUp' ? [0, -1] : [0, 1]
  let best: number | undefined
  let least = Number.POSITIVE_INFINITY
  for (let bead = 0; bead < drawn.beads.length; bead++) {
    if (bead === but) continue
    const [bx, by] = middleOf(drawn, bead, eye)
    const ahead = (bx - x) * ux + (by - y) * uy
    const aside = Math.abs((bx - x) * uy - (by - y) * ux)
    const far = ahead + 2 * aside
    if (ahead > 2 && aside < 2 * ahead && far < least) {
      least = far
      best = bead
    }
  }
  return best
}

import type { Item } from '@tessellum/contract/stock'
import { dressedIn } from '@tessellum/core/colour/dressed'
import {
  accentFrom,
  apartFrom,
  judge,
  type RoleColour,
  threadsFor,
  type Verdict,
} from '@tessellum/core/colour/judgement'
import { asSeen, type Eye, type Light } from '@tessellum/core/colour/seen'
import { threadRole } from '@tessellum/core/kit/bill'
import { counted } from '@tessellum/core/measure/counted'
import { soundForm } from '@tessellum/core/report/form-report'
import type { Report } from '@tessellum/core/report/report'
import { list } from '@tessellum/core/writing/english/moves'
import { useMemo } from 'react'
import { Finding, Findings, FindingsRemark } from '../frame/findings'

interface JudgementProps {
  readonly report: Report
  readonly items: Readonly<Record<string, Item>>
  /** All on the shelf: for a thread that would show less. */
  readonly shelf: readonly Item[]
  readonly eye: Eye
  readonly light: Light
}

const words: Readonly<Record<Verdict, string>> = {
  confuses: 'are taken for each other while stitching',
  near: 'are hard to tell apart while stitching',
  apart: 'are told apart',
  accent: 'stand out from each other',
}

/** What a colourway does to the eye: neighbours in the piece, roles in one heap, shades in their order, thread that shows. */
export function ColourJudgement({ report, items, shelf, eye, light }: JudgementProps) {
  const roles = useMemo(() => coloursOf(report, items, eye, light), [report, items, eye, light])
  const thread = items[threadRole]
  const threadColour = thread && asSeen(thread.colour, eye, light)
  const touching = soundForm(report)?.touching
  const judged = useMemo(() => judge(roles, touching ?? [], threadColour), [roles, touching, threadColour])
  const clear = roles.filter(({ role }) => judged.showing.some((each) => each.role === role))
  const threads = shelf.filter(
    (item) => item.category === 'thread' && item.kind === thread?.kind && item.size === thread.size,
  )
  const [best] = threadsFor(clear, threads)
  const better = best && thread && best.thread.id !== thread.id ? best : undefined
  return (
    <Findings label="Judgement" whole>
      {touching === undefined && <FindingsRemark>Neighbours are judged once the form has settled.</FindingsRemark>}
      {judged.neighbours.map(({ roles: [a, b], places, difference, verdict, alike }) => (
        <Finding key={a + b} tone={toneOf(verdict, alike)}>
          <strong>
            {a} and {b}
          </strong>{' '}
          {alike || verdict === 'accent' || verdict === 'apart'
            ? words[verdict]
            : 'are alike in colour; their size or kind tells them apart'}
          <span className="quiet figures">
            : {difference.toFixed(1)} apart, side by side in {counted(places, 'place')}
          </span>
        </Finding>
      ))}
      {judged.merged.map(({ roles: shared, colourName, count }) => (
        <Finding key={shared.join('')} tone="plain">
          {list(shared)} share {colourName}: {count} in one heap
        </Finding>
      ))}
      {judged.ramps.map(({ roles: shades, lightness, runs }) => (
        <Finding key={shades.join('')} tone={runs ? 'good' : 'trouble'}>
          {list(shades)} {runs ? 'run light to dark' : 'do not run light to dark, as their names do'}
          <span className="quiet figures">: lightness {lightness.map((l) => l.toFixed(0)).join(', ')}</span>
        </Finding>
      ))}
      {judged.showing.map(({ role, difference }) => (
        <Finding key={role} tone="trouble">
          The thread shows through {role}
          <span className="quiet figures">, {difference.toFixed(0)} apart</span>
          {better && `; ${better.thread.colourName} would show less`}
        </Finding>
      ))}
      <FindingsRemark>
        {apartFrom} and more is told apart while stitching, {accentFrom} and more reads as an accent (CIEDE2000).
      </FindingsRemark>
    </Findings>
  )
}

const toneOf = (verdict: Verdict, alike: boolean) =>
  verdict === 'apart' || verdict === 'accent' ? 'good' : alike ? 'trouble' : 'plain'

/** What each role is dressed in, as it is seen. */
export const coloursOf = (
  report: Report,
  items: Readonly<Record<string, Item>>,
  eye: Eye,
  light: Light,
): RoleColour[] => dressedIn(report, items).map((each) => ({ ...each, colour: asSeen(each.colour, eye, light) }))

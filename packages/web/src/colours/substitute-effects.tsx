import type { Item } from '@tessellum/contract/stock'
import { counted } from '@tessellum/core/measure/counted'
import { sayPercent, trim } from '@tessellum/core/measure/units'
import type { Consequence } from '@tessellum/core/substitute/consequence'
import type { Substitute } from '@tessellum/core/substitute/substitutes'
import { useMoney } from '../settings/use-shop-settings'
import { useUnits } from '../settings/use-units'

/** What a substitute would do, in figures, old and new side by side. */
export function SubstituteEffects({ each, kits, item }: { each: Substitute; kits: number; item: Item }) {
  const units = useUnits()
  const money = useMoney()
  const { consequence, nearest, cost } = each
  const wrong = nearest?.alike && (nearest.verdict === 'confuses' || nearest.verdict === 'near')
  return (
    <ul className="figures">
      <li className={kits > 0 && each.kits < kits ? 'trouble' : ''}>
        {units.quantity(item.onHand - item.reserved, item.unit)} free: {counted(each.kits, 'kit')}
        {each.rescued > 0 && <strong>, rescues {each.rescued}</strong>}
      </li>
      <li>
        {each.apart.toFixed(1)} from the colour there now
        {nearest && (
          <span className={wrong ? 'trouble' : ''}>
            ; {nearest.difference.toFixed(1)} from {nearest.role} beside it
          </span>
        )}
      </li>
      <Changes consequence={consequence} thread="thread, estimated" />
      {cost && cost.before !== cost.after && (
        <li>
          a kit: {money.say(cost.before)} -&gt; {money.say(cost.after)}
        </li>
      )}
    </ul>
  )
}

/** What changes in the pattern, as items of a list. @param thread says whether it is measured on the form, which may differ from the estimate */
export function Changes({ consequence, thread: threadWords }: { consequence: Consequence; thread: string }) {
  const units = useUnits()
  const thread = consequence.threadMm.after - consequence.threadMm.before
  return (
    <>
      {consequence.counts.length === 0 ? (
        <li className="quiet">no count changes</li>
      ) : (
        <li>
          counts: {consequence.counts.map(({ role, before, after }) => `${role} ${before} -> ${after}`).join(', ')}
          <span className="quiet"> in lines {consequence.lines.map(({ line }) => line).join(', ')}</span>
        </li>
      )}
      {consequence.refilled.map(({ line, role, written, count, misfitMm }) => (
        <li key={`${line} ${written}`}>
          line {line}: a run of {written} {role} is {count} of these, {sayMisfit(misfitMm)}
        </li>
      ))}
      {consequence.fits.map(({ stone, before, after, verdict }) =>
        Math.abs(after - before) < 0.0005 ? null : (
          <li key={stone} className={verdict === 'snug' || verdict === 'loose' ? '' : 'trouble'}>
            ring round {stone}: {sayPercent(before)} -&gt; {sayPercent(after)}, {verdict}
          </li>
        ),
      )}
      {Math.abs(thread) >= 10 && (
        <li>
          {threadWords}: {thread > 0 ? '+' : '-'}
          {units.thread(Math.abs(thread))}
        </li>
      )}
      {consequence.crowded.length > 0 && (
        <li className="trouble">holes of {consequence.crowded.join(', ')} would be too full</li>
      )}
      {consequence.faults.map((fault) => (
        <li key={fault} className="trouble">
          {fault}
        </li>
      ))}
    </>
  )
}

const sayMisfit = (mm: number) =>
  Math.abs(mm) < 0.05 ? 'as long' : `${trim(Math.abs(mm), 1)} mm ${mm < 0 ? 'short' : 'too long'}`

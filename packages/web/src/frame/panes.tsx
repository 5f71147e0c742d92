import { Splitter } from 'antd'
import { Children, type ReactNode, useEffect, useRef, useState } from 'react'
import { barMoved, keepShares, keptShares, sharesOf } from './pane-shares'
import classes from './panes.module.css'

interface PanesProps {
  /** What they are kept by in this browser. */
  readonly name: string
  /** How the width is shared out, until somebody drags. */
  readonly usual: readonly number[]
  /** No pane is narrower than so many pixels; the last may be folded away. */
  readonly least: readonly number[]
  readonly className?: string
  readonly children: ReactNode
}

/** How far a bar goes for a press of an arrow, px. */
const stepPx = 32

/**
 * Panes that are dragged as wide as one likes, and stand like that the next time. A double click on a bar, or Home, gives them their usual widths again;
 * with the keyboard a bar is moved by the arrows.
 */
export function Panes({ name, usual, least, className = '', children }: PanesProps) {
  const [dragged, setDragged] = useState<Readonly<Record<string, readonly number[]>>>({})
  const shares = dragged[name] ?? keptShares(name, usual)
  const set = (sizes: readonly number[]) => setDragged({ ...dragged, [name]: sharesOf(sizes) })
  const keep = (sizes: readonly number[]) => {
    set(sizes)
    keepShares(name, sharesOf(sizes))
  }
  const all = Children.toArray(children)
  const whole = useRef<HTMLDivElement>(null)
  // The splitter tells where its bars are, and leaves out that they can be come to with the keyboard.
  useEffect(() => {
    const bars = [...(whole.current?.querySelectorAll<HTMLElement>('[role=separator]') ?? [])]
    for (const [i, bar] of bars.entries()) {
      bar.tabIndex = 0
      bar.ariaLabel = `Bar ${i + 1}: arrows move it`
      bar.onkeydown = (event) => {
        const by = { ArrowLeft: -stepPx, ArrowRight: stepPx }[event.key]
        if (by === undefined && event.key !== 'Home') return
        event.preventDefault()
        // Each is the handle of a bar, which has its own width.
        const ofBars = bars.reduce((sum, each) => sum + (each.parentElement?.offsetWidth ?? 0), 0)
        const width = (whole.current?.firstElementChild?.clientWidth ?? 0) - ofBars
        keep(by === undefined ? usual : barMoved(shares, least, i, by, width))
      }
      // Where the two clicks come slowly the splitter would begin to drag with the second one, and it would not be a double click any more.
      bar.onmousedown = (event) => {
        if (event.detail !== 2) return
        event.stopPropagation()
        keep(usual)
      }
    }
  })
  return (
    <div ref={whole} className={classes.whole}>
      <Splitter
        className={`${classes.panes} ${className}`}
        onResize={set}
        onResizeEnd={keep}
        onCollapse={(_, sizes) => keep(sizes)}
      >
        {all.map((pane, i) => (
          <Splitter.Panel
            // Panes stand in their order.
            key={least[i]}
            size={`${100 * (shares[i] ?? 0)}%`}
            min={least[i] ?? 0}
            collapsible={i === all.length - 1 ? { start: true, showCollapsibleIcon: true } : false}
          >
            {pane}
          </Splitter.Panel>
        ))}
      </Splitter>
    </div>
  )
}

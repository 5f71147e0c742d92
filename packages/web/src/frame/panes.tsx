import { Splitter } from 'antd'
import { Children, type ReactNode, useState } from 'react'
import { keepShares, keptShares, sharesOf } from './pane-shares'
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

/** Panes that are dragged as wide as one likes, and stand like that the next time. A double click on a bar gives them their usual widths again. */
export function Panes({ name, usual, least, className = '', children }: PanesProps) {
  const [dragged, setDragged] = useState<Readonly<Record<string, readonly number[]>>>({})
  const shares = dragged[name] ?? keptShares(name, usual)
  const set = (sizes: readonly number[]) => setDragged({ ...dragged, [name]: sharesOf(sizes) })
  const keep = (sizes: readonly number[]) => {
    set(sizes)
    keepShares(name, sharesOf(sizes))
  }
  const all = Children.toArray(children)
  return (
    <Splitter
      className={`${classes.panes} ${className}`}
      onResize={set}
      onResizeEnd={keep}
      onCollapse={(_, sizes) => keep(sizes)}
      onDraggerDoubleClick={() => keep(usual)}
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
  )
}

import { CloseOutlined } from '@ant-design/icons'
import type { Scene } from '@tessellum/core/drawing/scene'
import { counted } from '@tessellum/core/measure/counted'
import type { StatementReport } from '@tessellum/core/report/report'
import { Button } from 'antd'
import styles from './bead-card.module.css'

/** Where a bead comes from, and where else the thread goes through it. */
export function BeadCard({
  bead,
  scene,
  lineOf,
  goTo,
  close,
}: {
  bead: number
  scene: Scene
  /** A statement of the piece as it stands in the text now. */
  lineOf: (statement: number) => StatementReport | undefined
  goTo: (line: number) => void
  close: () => void
}) {
  const found = scene.beads[bead]
  if (!found) return null
  const passed = scene.passes.filter((pass) => pass.bead === bead)
  const again = [...new Set(passed.filter(({ fresh }) => !fresh).map(({ statement }) => statement))].filter(lineOf)
  const own = lineOf(found.statement)
  const line = (statement: number) => {
    const found = lineOf(statement)
    return (
      found && (
        <Button key={statement} type="link" size="small" onClick={() => goTo(found.line)}>
          line {found.line}
        </Button>
      )
    )
  }
  return (
    <div className={styles.card} role="status">
      <div>
        <strong>{found.role}</strong>, picked up in{own ? line(found.statement) : ' a line that has been changed'}
        <code>{own?.text}</code>
        {again.length > 0 && <>, passed again in {again.map(line)}</>}
        <span className="quiet">, {counted(passed.length, 'pass', 'passes')} in all.</span>
      </div>
      <Button type="text" size="small" icon={<CloseOutlined />} aria-label="Close" onClick={close} />
    </div>
  )
}

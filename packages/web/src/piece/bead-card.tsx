import type { Scene } from '@tessellum/core/drawing/scene'
import type { Report } from '@tessellum/core/report/report'
import { Button } from 'antd'

/** Where a bead comes from, and where else the thread goes through it. */
export function BeadCard({
  bead,
  scene,
  report,
  goTo,
  close,
}: {
  bead: number
  scene: Scene
  report: Report
  goTo: (line: number) => void
  close: () => void
}) {
  const found = scene.beads[bead]
  if (!found) return null
  const lineOf = (statement: number) => report.statements[statement]
  const passed = scene.passes.filter((pass) => pass.bead === bead)
  const again = [...new Set(passed.filter(({ fresh }) => !fresh).map(({ statement }) => statement))]
  const picked = lineOf(found.statement)
  const most = report.crowding.find(({ role }) => role === found.role)
  return (
    <div className="bead-card" role="status">
      <div>
        <strong>{found.role}</strong>, bead {bead + 1}
        {picked && (
          <>
            , picked up in{' '}
            <Button type="link" size="small" onClick={() => goTo(picked.line)}>
              line {picked.line}
            </Button>
            <code>{picked.text}</code>
          </>
        )}
      </div>
      <div>
        {again.length === 0 ? 'No later line goes through it.' : 'Passed again in '}
        {again.map((statement) => {
          const line = lineOf(statement)
          return (
            line && (
              <Button key={statement} type="link" size="small" onClick={() => goTo(line.line)}>
                line {line.line}
              </Button>
            )
          )
        })}
        <span className="quiet">
          {passed.length} pass{passed.length === 1 ? '' : 'es'} in all
          {most ? `; the fullest ${found.role} has ${most.passes}, and ${most.passes + most.room} go through` : ''}.
        </span>
      </div>
      <Button size="small" onClick={close}>
        Close
      </Button>
    </div>
  )
}

import { useQuery } from '@tanstack/react-query'
import { beadName } from '@tessellum/core/catalogue/bead'
import type { Wall } from '@tessellum/core/desk/stone-desk'
import { counted } from '@tessellum/core/measure/counted'
import { sayPercent } from '@tessellum/core/measure/units'
import { sayHeld } from '@tessellum/core/report/say-held'
import { Button, Form } from 'antd'
import { useState } from 'react'
import { computed } from '../computed'
import { FigureTable, meantRow } from '../frame/figure-table'
import { Finding, Findings } from '../frame/findings'
import { Loading } from '../frame/loading'
import { Drawing } from '../piece/drawing'
import { useFormed } from '../piece/use-formed'
import { BeadSelect, beadIn } from './bead-select'
import { useBeadChoices } from './beads'
import styles from './desk.module.css'
import { NumberItem, StoneFields, type StoneMeasures, stoneWords, usualStone } from './stone-fields'
import { UseInPattern } from './use-in-pattern'

interface Asked extends StoneMeasures {
  readonly wall: string
  readonly edge: string
  readonly multiple: number
}

const usual: Asked = { ...usualStone, wall: 'cylinder 11/0', edge: 'round 15/0', multiple: 2 }

/** What goes round a stone of any shape, and what depth of wall holds it. */
export function StoneQuestionForm() {
  const choices = useBeadChoices()
  const [form] = Form.useForm<Asked>()
  const [asked, setAsked] = useState<Asked>(usual)
  const [wall, edge] = [beadIn(choices, asked.wall), beadIn(choices, asked.edge)]
  const { data, error, isFetching } = useQuery(
    computed.stone(wall && edge && { stone: stoneWords(asked), wall, edge, multiple: asked.multiple }),
  )
  const best = data?.walls.at(-1)
  return (
    <div className={styles.desk}>
      <Form
        name="stone-question"
        form={form}
        layout="vertical"
        requiredMark={false}
        initialValues={usual}
        onFinish={setAsked}
        className="sheet"
      >
        <StoneFields form={form} />
        <BeadSelect label="Bead of the wall" name="wall" choices={choices} />
        <BeadSelect label="Bead of the edges" name="edge" choices={choices} />
        <NumberItem label="The count must divide by" name="multiple" least={2} />
        <Button type="primary" htmlType="submit">
          Work it out
        </Button>
      </Form>
      <section className={`sheet ${styles.answer}`} aria-label="Answer" aria-live="polite">
        {error && (
          <p className="notice trouble" role="alert">
            {error.message}
          </p>
        )}
        {isFetching && <Loading what="Settling walls round the stone" />}
        {data && !isFetching && (
          <>
            <p className="figures">
              Girth {data.girthMm.toFixed(1)} mm; the ring's thread line wants {data.fit.targetMm.toFixed(1)} mm,{' '}
              {data.fit.ideal.toFixed(1)} beads.
            </p>
            <FigureTable>
              <thead>
                <tr>
                  <th scope="col">Beads</th>
                  <th scope="col">Ease</th>
                  <th scope="col">How it sits</th>
                </tr>
              </thead>
              <tbody>
                {data.fit.candidates.map(({ count, ease, verdict }) => (
                  <tr key={count} className={count === data.fit.best ? meantRow : ''}>
                    <th scope="row">
                      {count}
                      {count === data.fit.best && ', the best'}
                    </th>
                    <td>{sayPercent(ease)}</td>
                    <td className={verdict === 'snug' || verdict === 'loose' ? '' : 'trouble'}>{verdict}</td>
                  </tr>
                ))}
              </tbody>
            </FigureTable>
            <h2>Depth of wall</h2>
            {data.walls.length === 0 && (
              <p className="trouble">No bead count fits this stone. Try another multiple or a smaller bead.</p>
            )}
            <Findings>
              {data.walls.map((each) => (
                <WallLine key={each.rounds} wall={each} />
              ))}
            </Findings>
            {best && wall && edge && (
              <Bezel
                declared={[`bead A ${beadName(wall)}`, `bead C ${beadName(edge)}`, `stone S ${stoneWords(asked)}`]}
                part={['part bezel', ...best.lines.map((line) => `  ${line}`)]}
              />
            )}
          </>
        )}
      </section>
    </div>
  )
}

function WallLine({ wall: { rounds, frontMm, backMm, holds } }: { wall: Wall }) {
  return (
    <Finding tone={holds ? 'good' : 'plain'}>
      {rounds === 0 ? 'Edge beads on the ring itself' : `${counted(rounds, 'round')} of the wall on each edge first`}:
      held by {sayHeld(frontMm)} in front, {sayHeld(backMm)} behind{holds ? '. That holds.' : ''}
    </Finding>
  )
}

const noChoices = {}

interface BezelProps {
  readonly declared: readonly string[]
  readonly part: readonly string[]
}

/** The bezel as it lies, and its lines; what a pattern may have declared already under other letters goes along as a remark. */
function Bezel({ declared, part }: BezelProps) {
  const { scene } = useFormed(['pattern Trial', ...declared, ...part].join('\n'), noChoices)
  const colours = { A: '#3c6e5d', C: '#d0a648', stone: '#c9d2cf' }
  return (
    <>
      <div className={styles.drawings}>
        {(['front', 'side'] as const).map((face) => (
          <Drawing key={face} scene={scene} colours={colours} face={face} label={`The bezel from the ${face}`} />
        ))}
      </div>
      <UseInPattern lines={[...declared.map((line) => `# ${line}`), ...part]} />
    </>
  )
}

import { useQuery } from '@tanstack/react-query'
import { beadName } from '@tessellum/core/catalogue/bead'
import type { Wall } from '@tessellum/core/desk/stone-desk'
import { sayPercent } from '@tessellum/core/measure/units'
import { Button, Form, InputNumber, Select } from 'antd'
import { useState } from 'react'
import { Loading } from '../frame/loading'
import { Drawing } from '../piece/drawing'
import { formClient } from '../piece/form-client'
import { useFormed } from '../piece/use-formed'
import { BeadSelect, beadIn } from './bead-select'
import { useBeadChoices } from './beads'
import { UseInPattern } from './use-in-pattern'

interface Asked {
  readonly shape: string
  readonly width: number
  readonly length: number
  readonly corner: number
  readonly height: number
  readonly profile: string
  readonly wall: string
  readonly edge: string
  readonly multiple: number
}

const long = ['oval', 'rectangle', 'navette', 'drop']
const cornered = ['square', 'rectangle']
const shapes = ['round', 'oval', 'square', 'rectangle', 'triangle', 'navette', 'drop', 'girth']
const profiles = ['flat', 'domed', 'pointed', 'bead']
const usual: Asked = {
  shape: 'round',
  width: 14,
  length: 18,
  corner: 2,
  height: 4,
  profile: 'domed',
  wall: 'cylinder 11/0',
  edge: 'round 15/0',
  multiple: 2,
}

/** As a pattern would say it. */
const wordsFor = ({ shape, width, length, corner, height, profile }: Asked) =>
  `${shape} ${width}${long.includes(shape) ? ` x ${length}` : ''} mm${
    cornered.includes(shape) ? `, r = ${corner} mm` : ''
  }, height ${height} mm, ${profile}`

/** What goes round a stone of any shape, and what depth of wall holds it. */
export function StoneQuestionForm() {
  const choices = useBeadChoices()
  const [form] = Form.useForm<Asked>()
  const [asked, setAsked] = useState<Asked>(usual)
  const shape = Form.useWatch('shape', form) ?? usual.shape
  const [wall, edge] = [beadIn(choices, asked.wall), beadIn(choices, asked.edge)]
  const { data, error, isFetching } = useQuery({
    queryKey: ['desk', 'stone', asked, wall, edge],
    enabled: wall !== undefined && edge !== undefined,
    retry: false,
    staleTime: Number.POSITIVE_INFINITY,
    queryFn: () => {
      if (!wall || !edge) throw new Error('Choose the beads.')
      return formClient.stoneDesk({ stone: wordsFor(asked), wall, edge, multiple: asked.multiple })
    },
  })
  const best = data?.walls.at(-1)
  const number = (label: string, name: keyof Asked, least: number) => (
    <Form.Item label={label} name={name} rules={[{ required: true, message: `${label}: give it.` }]}>
      <InputNumber min={least} style={{ width: 110 }} />
    </Form.Item>
  )
  return (
    <div className="desk">
      <Form
        name="stone-question"
        form={form}
        layout="vertical"
        requiredMark={false}
        initialValues={usual}
        onFinish={setAsked}
        className="sheet"
      >
        <Form.Item label="Stone" name="shape">
          <Select
            style={{ width: 180 }}
            options={shapes.map((value) => ({ value, label: value === 'girth' ? 'measured girth' : value }))}
          />
        </Form.Item>
        <div className="fields">
          {number(shape === 'girth' ? 'Girth, mm' : shape === 'round' ? 'Across, mm' : 'Width, mm', 'width', 0)}
          {long.includes(shape) && number('Length, mm', 'length', 0)}
          {cornered.includes(shape) && number('Corner radius, mm', 'corner', 0)}
          {number('Height, mm', 'height', 0)}
          <Form.Item label="Profile" name="profile">
            <Select style={{ width: 120 }} options={profiles.map((value) => ({ value, label: value }))} />
          </Form.Item>
        </div>
        <BeadSelect label="Bead of the wall" name="wall" choices={choices} />
        <BeadSelect label="Bead of the edges" name="edge" choices={choices} />
        {number('The count must divide by', 'multiple', 2)}
        <Button type="primary" htmlType="submit">
          Work it out
        </Button>
      </Form>
      <section className="sheet answer" aria-label="Answer" aria-live="polite">
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
            <table className="figures size-table">
              <thead>
                <tr>
                  <th scope="col">Beads</th>
                  <th scope="col">Ease</th>
                  <th scope="col">How it sits</th>
                </tr>
              </thead>
              <tbody>
                {data.fit.candidates.map(({ count, ease, verdict }) => (
                  <tr key={count} className={count === data.fit.best ? 'changed' : ''}>
                    <th scope="row">
                      {count}
                      {count === data.fit.best && ', the best'}
                    </th>
                    <td>{sayPercent(ease)}</td>
                    <td className={verdict === 'snug' || verdict === 'loose' ? '' : 'trouble'}>{verdict}</td>
                  </tr>
                ))}
              </tbody>
            </table>
            <h2>Depth of wall</h2>
            {data.walls.length === 0 && (
              <p className="trouble">No bead count fits this stone. Try another multiple or a smaller bead.</p>
            )}
            <ul className="findings">
              {data.walls.map((each) => (
                <WallLine key={each.rounds} wall={each} />
              ))}
            </ul>
            {best && wall && edge && (
              <Bezel
                declared={[`bead A ${beadName(wall)}`, `bead C ${beadName(edge)}`, `stone S ${wordsFor(asked)}`]}
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
  const say = (mm: number | undefined) => (mm === undefined ? 'nothing' : `${mm.toFixed(1)} mm`)
  return (
    <li className={holds ? 'good' : 'plain'}>
      <span className="mark" aria-hidden="true">
        {holds ? '✓' : '·'}
      </span>
      <span>
        {rounds === 0
          ? 'Edge beads on the ring itself'
          : `${rounds} round${rounds === 1 ? '' : 's'} of the wall on each edge first`}
        : held by {say(frontMm)} in front, {say(backMm)} behind{holds ? '. That holds.' : ''}
      </span>
    </li>
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
      <div className="desk-drawings">
        {(['front', 'side'] as const).map((face) => (
          <Drawing key={face} scene={scene} colours={colours} face={face} label={`The bezel from the ${face}`} />
        ))}
      </div>
      <UseInPattern lines={[...declared.map((line) => `# ${line}`), ...part]} />
    </>
  )
}

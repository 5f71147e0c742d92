import { beadName } from '@tessellum/core/catalogue/bead'
import { type Outline, outlines, type StrandProfile, strandProfile } from '@tessellum/core/desk/strand-profile'
import { Form, Select } from 'antd'
import { useMemo } from 'react'
import { NumberField } from '../frame/number-field'
import { Drawing } from '../piece/drawing'
import { useFormed } from '../piece/use-formed'
import { BeadSelect, beadIn } from './bead-select'
import { type BeadChoice, useBeadChoices } from './beads'
import styles from './desk.module.css'
import { UseInPattern } from './use-in-pattern'

const usual = {
  hang: 'strand' as 'strand' | 'petal',
  outline: 'point' as Outline,
  strands: 9,
  shortest: 8,
  longest: 20,
  bead: 'round 11/0',
  edge: 'round 8/0',
  end: 'round 15/0' as string | undefined,
}
type Asked = typeof usual
const noChoices = {}
const colours = { A: '#3c6e5d', C: '#d1a64a', D: '#f2e9dc' }
const said: Readonly<Record<Outline, string>> = {
  even: 'all alike',
  point: 'to a point',
  curve: 'a round curve',
  slope: 'longer to one side',
}

/** A fringe hung from an edge, or petals round a ring, that follow an outline. */
export function ProfileQuestion() {
  const choices = useBeadChoices()
  const [form] = Form.useForm<Asked>()
  const asked: Asked = Form.useWatch([], form) ?? usual
  const { profile, trouble, lines } = useMemo(() => answerTo(asked, choices), [asked, choices])
  const { scene } = useFormed(profile && ['pattern Trial', ...lines].join('\n'), noChoices)
  const number = (label: string, name: 'strands' | 'shortest' | 'longest', least: number) => (
    <Form.Item label={label} name={name} rules={[{ required: true, message: `${label}: give a number.` }]}>
      <NumberField min={least} max={name === 'strands' ? 60 : 500} step={1} className={styles.figure ?? ''} />
    </Form.Item>
  )
  return (
    <div className={styles.desk}>
      <Form
        name="profile-question"
        form={form}
        layout="vertical"
        requiredMark={false}
        initialValues={usual}
        className="sheet"
      >
        <div className="fields">
          <Form.Item label="What" name="hang">
            <Select
              className={styles.bead ?? ''}
              options={[
                { value: 'strand', label: 'fringe from an edge' },
                { value: 'petal', label: 'petals round a ring' },
              ]}
            />
          </Form.Item>
          <Form.Item label="Outline" name="outline">
            <Select
              className={styles.profile ?? ''}
              options={Object.keys(outlines).map((value) => ({ value, label: said[value as Outline] }))}
            />
          </Form.Item>
        </div>
        <div className="fields">
          {number('How many', 'strands', 2)}
          {number('Shortest, mm', 'shortest', 1)}
          {number('Longest, mm', 'longest', 1)}
        </div>
        <BeadSelect label="Bead" name="bead" choices={choices} />
        <BeadSelect
          label={asked.hang === 'petal' ? 'Bead of the ring' : 'Bead of the edge'}
          name="edge"
          choices={choices}
        />
        {asked.hang !== 'petal' && <BeadSelect label="Bead at the tip" name="end" choices={choices} />}
      </Form>
      <section className={`sheet ${styles.answer}`} aria-label="Answer">
        {trouble && (
          <p className="notice trouble" role="alert">
            {trouble}
          </p>
        )}
        {profile && (
          <>
            <Told profile={profile} petal={asked.hang === 'petal'} />
            <div className={styles.drawings}>
              <Drawing scene={scene} colours={colours} label={asked.hang === 'petal' ? 'The petals' : 'The fringe'} />
            </div>
            <UseInPattern lines={lines.map((line) => (line.startsWith('bead') ? `# ${line}` : line))} />
          </>
        )}
      </section>
    </div>
  )
}

function Told({ profile, petal }: { profile: StrandProfile; petal: boolean }) {
  const { counts, lengthsMm, misfitMm, crowdedMm, every } = profile
  const what = petal ? 'petal' : 'strand'
  return (
    <>
      <p className="figures">
        Beads of each {what}: <strong>{counts.join(', ')}</strong>. {Math.min(...lengthsMm).toFixed(1)} to{' '}
        {Math.max(...lengthsMm).toFixed(1)} mm long, within {misfitMm.toFixed(1)} mm of the outline;{' '}
        {counts.reduce((sum, each) => sum + each, 0)} beads in all.
      </p>
      <p>
        {crowdedMm <= 0
          ? `A ${what} has room beside the next.`
          : `A ${what} is ${crowdedMm.toFixed(1)} mm wider than the bead it hangs from, so they push each other aside and lie in front of one another. One at every ${every} beads lies flat.`}
      </p>
    </>
  )
}

function answerTo(
  asked: Asked,
  choices: readonly BeadChoice[],
): { profile?: StrandProfile; trouble?: string; lines: readonly string[] } {
  const { hang, outline, strands, shortest, longest } = { ...usual, ...asked }
  const [bead, edge, end] = [beadIn(choices, asked.bead), beadIn(choices, asked.edge), beadIn(choices, asked.end)]
  if (!bead || !edge) return { trouble: 'Choose the beads.', lines: [] }
  try {
    const profile = strandProfile({
      outline,
      strands,
      shortestMm: shortest,
      longestMm: longest,
      bead,
      edge,
      hang,
      ...(end ? { end } : {}),
    })
    const list = profile.counts.join(', ')
    const beads = [`bead A ${beadName(edge)}`, `bead C ${beadName(bead)}`]
    const lines =
      hang === 'petal'
        ? [
            ...beads,
            'part flower',
            `  ring ${strands}A as base knot`,
            `  for k in ${list}`,
            '    loop (k C) as petal',
            '    through base next 1',
            '  end',
          ]
        : [
            ...beads,
            ...(end ? [`bead D ${beadName(end)}`] : []),
            'part fringe',
            `  string ${strands}A as edge`,
            `  fringe (k C)${end ? ' end D' : ''} for k in ${list} into edge`,
          ]
    return { profile, lines }
  } catch (error) {
    if (error instanceof RangeError) return { trouble: error.message, lines: [] }
    throw error
  }
}

import { useQuery, useQueryClient } from '@tanstack/react-query'
import type { EditionWanted } from '@tessellum/contract/editions'
import { type Pattern, type SaveVersion, saveVersion } from '@tessellum/contract/patterns'
import type { Lack } from '@tessellum/core/writing/check'
import { Button, Drawer, Form, Input, Select } from 'antd'
import { Link } from 'react-router'
import { computed } from '../computed'
import { rulesOf } from '../frame/contract-rules'
import { Finding, Findings } from '../frame/findings'
import { forgetForm, KeptForm } from '../frame/kept-form'
import { Loading } from '../frame/loading'
import { call } from '../shop/api'
import { read } from '../shop/queries'
import { useIdempotentMutation } from '../shop/use-idempotent-mutation'
import { Carriers } from './carriers'
import styles from './publish.module.css'
import { Reconcile } from './reconcile'

interface PublishProps {
  readonly pattern: Pattern
  readonly edition: EditionWanted
  readonly close: () => void
}

/** What is wrong or missing in the draft, and publishing it as a version that never changes. */
export function Publish({ pattern, edition, close }: PublishProps) {
  const { version: _, ...draft } = edition
  const { data: gathered, error } = useQuery(read.edition(pattern.id, draft))
  const checked = useQuery(computed.checked(gathered))
  const trouble = error ?? checked.error
  const musts = checked.data?.filter(({ weight }) => weight === 'must') ?? []
  return (
    <Drawer open onClose={close} size={680} title={`Before ${pattern.title} is given out`}>
      {trouble && (
        <div role="alert" className="notice trouble">
          {trouble.message}
        </div>
      )}
      {!checked.data && !trouble && <Loading what="Checking every size and colourway" />}
      {checked.data?.length === 0 && <p className="notice good">Nothing is wrong and nothing is missing.</p>}
      <Findings label="Wrong or missing">
        {checked.data?.map((lack) => (
          <Finding key={`${lack.where} ${lack.line} ${lack.text}`} tone={lack.weight === 'must' ? 'trouble' : 'plain'}>
            {lack.weight === 'must' && <strong>Must be fixed: </strong>}
            {lack.text} <Link to={placeOf(lack, pattern.id)}>{placeWords(lack)}</Link>
          </Finding>
        ))}
      </Findings>
      {gathered && <Reconcile edition={gathered} />}
      {checked.data && <PublishForm pattern={pattern} stopped={musts.length > 0} close={close} />}
    </Drawer>
  )
}

const pages = { ledger: '', colours: '/colours', walk: '/walk', words: '/written?version=draft' } as const

const placeOf = ({ where, line }: Lack, id: number) =>
  `/patterns/${id}${pages[where]}${where === 'ledger' && line ? `?line=${line}` : ''}`

function placeWords({ where, line }: Lack): string {
  if (where === 'ledger') return line ? `Line ${line}` : 'The ledger'
  return { colours: 'Colours', walk: 'The walk', words: 'Own words' }[where]
}

interface Publishing {
  readonly name: string
  readonly note?: string
  readonly corrects?: number
}

function PublishForm({ pattern, stopped, close }: { pattern: Pattern; stopped: boolean; close: () => void }) {
  const client = useQueryClient()
  const [form] = Form.useForm<Publishing>()
  const name = `publish-${pattern.id}`
  const corrects = Form.useWatch('corrects', form)
  const number = (pattern.version ?? 0) + 1
  const published = pattern.versions.filter((each) => each.published)
  const publish = useIdempotentMutation(
    (body: SaveVersion) => call('POST /api/patterns/:id/versions', { params: { id: pattern.id }, body }),
    {
      stale: ['patterns', 'editions'],
      said: ({ version }) => `Version ${version} is published.`,
      after: (answer) => {
        client.setQueryData(read.pattern(pattern.id).queryKey, answer)
        forgetForm(name)
        close()
      },
    },
  )
  const publishAs = ({ name, note, corrects }: Publishing) => {
    const { revision } = pattern
    publish.run({ name, note: note ?? '', revision, publish: true, ...(corrects ? { corrects } : {}) })
  }
  return (
    <KeptForm<Publishing>
      name={name}
      form={form}
      layout="vertical"
      requiredMark={false}
      onFinish={publishAs}
      initialValues={{ name: `Edition ${number}` }}
      className={styles.below ?? ''}
    >
      <h3>Publish as version {number}</h3>
      <p className="quiet">A published version never changes. A correction is a new one.</p>
      <Form.Item label="Name" name="name" rules={rulesOf(saveVersion.shape.name)}>
        <Input />
      </Form.Item>
      {published.length > 0 && (
        <Form.Item label="Corrects" name="corrects">
          <Select
            allowClear
            placeholder="Nothing: it is a new edition"
            options={published.map((each) => ({ value: each.number, label: `Version ${each.number}: ${each.name}` }))}
          />
        </Form.Item>
      )}
      <Form.Item
        label={corrects ? 'The erratum: what was wrong' : 'What changed'}
        name="note"
        rules={[
          { required: corrects !== undefined, whitespace: true, message: 'Say what was wrong.' },
          ...rulesOf(saveVersion.shape.note),
        ]}
      >
        <Input.TextArea rows={3} />
      </Form.Item>
      {corrects !== undefined && <Carriers patternId={pattern.id} number={corrects} />}
      {publish.refused && (
        <div role="alert" className="notice trouble">
          {publish.refused.message} {publish.refused.hint}
        </div>
      )}
      <Button type="primary" htmlType="submit" loading={publish.busy} disabled={stopped}>
        Publish version {number}
      </Button>
      {stopped && <span className="quiet"> Fix these before publishing.</span>}
    </KeptForm>
  )
}

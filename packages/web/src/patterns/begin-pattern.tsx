import { type Beginning, beginning } from '@tessellum/core/hand/begin'
import { Button, Form, Input, Modal, Radio } from 'antd'
import { useNavigate } from 'react-router'
import { NumberItem, StoneFields, type StoneMeasures, stoneWords, usualStone } from '../desk/stone-fields'
import { ErrorNotice } from '../frame/error-notice'
import { forgetForm, KeptForm } from '../frame/kept-form'
import { call } from '../shop/api'
import { useIdempotentMutation } from '../shop/use-idempotent-mutation'

interface Fields extends StoneMeasures {
  readonly title: string
  readonly what: Beginning['what'] | 'text'
  readonly aroundMm: number
  readonly wide: number
  readonly core: number
  readonly petals: number
}

const kinds: readonly { readonly value: Fields['what']; readonly label: string }[] = [
  { value: 'stone', label: 'round a stone' },
  { value: 'ring', label: 'a ring' },
  { value: 'band', label: 'a band' },
  { value: 'rope', label: 'a rope' },
  { value: 'flower', label: 'a flower' },
  { value: 'chain', label: 'a chain' },
  { value: 'earring', label: 'an earring' },
  { value: 'text', label: 'an example to change in the text' },
]

const usual: Fields = { ...usualStone, title: '', what: 'stone', aroundMm: 60, wide: 12, core: 6, petals: 6 }

const example = (title: string) => `pattern ${title || 'New pattern'}
makes 1

bead  A  cylinder 11/0   "frame"
bead  C  round 15/0      "edge"
stone S  round 14 mm, height 6 mm   "centre"
thread braid 6 lb, single, needle 12, tail 15 cm

part bezel
  let n = fit(S, A)
  ring A x n
  round A
  round C
  other edge
  round A
  place S
  round C
  finish
`

const formName = 'begin-pattern'

function textOf(fields: Fields): string {
  const { what, title, aroundMm, wide, core, petals } = fields
  switch (what) {
    case 'text':
      return example(title.trim())
    case 'stone':
      return beginning(title, { what, stone: stoneWords(fields) })
    case 'ring':
      return beginning(title, { what, aroundMm })
    case 'band':
      return beginning(title, { what, wide })
    case 'rope':
      return beginning(title, { what, core })
    case 'flower':
      return beginning(title, { what, petals })
    case 'chain':
    case 'earring':
      return beginning(title, { what })
  }
}

/** Asks what a new pattern is to be, and opens it with its first beads strung, ready to be stitched on. */
export function BeginPattern({ close }: { close: () => void }) {
  const navigate = useNavigate()
  const [form] = Form.useForm<Fields>()
  const what = Form.useWatch('what', form) ?? usual.what
  const begin = useIdempotentMutation((source: string) => call('POST /api/patterns', { body: { source } }), {
    after: ({ id }) => {
      forgetForm(formName)
      void navigate(`/patterns/${id}${form.getFieldValue('what') === 'text' ? '' : '?do=stitch'}`)
    },
  })
  return (
    <Modal title="Begin a pattern" open onCancel={close} footer={null} destroyOnHidden>
      <KeptForm
        name={formName}
        form={form}
        layout="vertical"
        requiredMark={false}
        initialValues={usual}
        onFinish={(fields) => begin.run(textOf({ ...usual, ...fields }))}
      >
        <Form.Item label="Its name" name="title">
          <Input placeholder="New pattern" maxLength={80} />
        </Form.Item>
        <Form.Item label="It is to be" name="what">
          <Radio.Group options={[...kinds]} />
        </Form.Item>
        {what === 'stone' && <StoneFields form={form} />}
        {what === 'ring' && <NumberItem label="Round, mm" name="aroundMm" least={10} />}
        {what === 'band' && <NumberItem label="Beads wide" name="wide" least={2} />}
        {what === 'rope' && <NumberItem label="Beads round" name="core" least={3} />}
        {what === 'flower' && <NumberItem label="Petals" name="petals" least={3} />}
        {begin.refused && <ErrorNotice error={begin.refused} />}
        <Button type="primary" htmlType="submit" loading={begin.busy}>
          Begin
        </Button>
      </KeptForm>
    </Modal>
  )
}

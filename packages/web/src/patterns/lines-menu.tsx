import { DownOutlined } from '@ant-design/icons'
import type { Choices } from '@tessellum/core/evaluate/evaluate-pattern'
import { asPart, marked, movedUp, onOtherEdge, repeated, takenOut } from '@tessellum/core/hand/edit-text'
import { counted } from '@tessellum/core/measure/counted'
import type { Report } from '@tessellum/core/report/report'
import { Button, Dropdown } from 'antd'
import { memo, useState } from 'react'
import { useDialog } from '../frame/use-dialog'
import type { Draft } from './draft'
import type { Named } from './name-lines'
import { evaluateClient } from './use-evaluated'

export interface LineStretch {
  readonly first: number
  readonly last: number
}

interface LinesMenuProps {
  readonly draft: Pick<Draft, 'current'>
  readonly choices: Choices
  /** The lines that the cursor is in, or that are selected. */
  readonly stretch: () => LineStretch
  readonly write: (text: string) => void
  readonly tell: (words: string) => void
}

/** What can be done with the lines in hand as a whole. Each is one step in the text, and undone as one. */
export const LinesMenu = memo(function LinesMenu({ draft, choices, stretch, write, tell }: LinesMenuProps) {
  const [naming, setNaming] = useState<{ readonly what: Named; readonly at: LineStretch }>()
  const { Dialog, isOpen, trouble, open, close } = useDialog(async () => (await import('./name-lines')).NameLines)
  const ask = (what: Named, at: LineStretch) => {
    setNaming({ what, at })
    open()
  }
  const textNow = () => draft.current().text
  const change = (next: string, otherwise: string) => (next === textNow() ? tell(otherwise) : write(next))
  const refused = (error: Error) => tell(error.message)
  const takeOut = ({ first, last }: LineStretch) => {
    const text = textNow()
    const next = takenOut(text, first, last)
    write(next)
    Promise.all([evaluateClient.evaluate(text, choices), evaluateClient.evaluate(next, choices)]).then(
      ([before, after]) => tell(whatFalls(before, after)),
      refused,
    )
  }
  const acts: Readonly<Record<string, (at: LineStretch) => void>> = {
    up: ({ first, last }) =>
      change(movedUp(textNow(), first, last), 'These lines stand at the top of their part already.'),
    repeat: ({ first, last }) =>
      change(repeated(textNow(), 2, first, last), 'Put the cursor into a line of a part first.'),
    edge: ({ first, last }) =>
      change(onOtherEdge(textNow(), first, last), 'Put the cursor into a line of a part first.'),
    mirror: ({ first, last }) => {
      const text = textNow()
      evaluateClient.mirrored(text, choices, first, last).then((turned) => {
        if ('why' in turned) tell(turned.why)
        else if (textNow() !== text) tell('The text has changed meanwhile. Mirror the motif again.')
        else change(turned.text, 'These beads read the same from both ends.')
      }, refused)
    },
    name: (at) => ask('name', at),
    part: (at) => ask('part', at),
    out: takeOut,
  }
  const named = (name: string) => {
    if (!naming) return
    const { first, last } = naming.at
    if (naming.what === 'name') change(marked(textNow(), name, first), 'This line has a name already.')
    else change(asPart(textNow(), name, first, last), 'Put the cursor into a line of a part first.')
    close()
  }
  return (
    <>
      <Dropdown
        trigger={['click']}
        menu={{
          items: [
            { key: 'up', label: 'Move up' },
            { key: 'repeat', label: 'Repeat twice' },
            { key: 'edge', label: 'The same on the other edge' },
            { key: 'mirror', label: 'Mirror the motif' },
            { key: 'name', label: 'Give it a name' },
            { key: 'part', label: 'Make it a part' },
            { key: 'out', label: 'Take out', danger: true },
          ],
          onClick: ({ key }) => acts[key]?.(stretch()),
        }}
      >
        <Button size="small">
          Lines <DownOutlined />
        </Button>
      </Dropdown>
      {trouble && <span role="alert">{trouble}</span>}
      {naming && Dialog && <Dialog what={naming.what} named={named} open={isOpen} close={close} />}
    </>
  )
})

/** "Taken out: 24 beads. Line 14 no longer works: there is nothing marked "rim"." */
function whatFalls(before: Report, after: Report): string {
  const beads = (report: Report) => report.beads.reduce((sum, { each }) => sum + each, 0)
  const gone = beads(before) - beads(after)
  const errors = (report: Report) => report.diagnostics.filter(({ severity }) => severity === 'error')
  const fault = errors(before).length < errors(after).length ? errors(after)[0] : undefined
  return [
    `Taken out${gone > 0 ? `: ${counted(gone, 'bead')} fewer` : ''}.`,
    ...(fault ? [`Line ${fault.line} no longer works: ${fault.message}`] : []),
    'Ctrl Z brings it back.',
  ].join(' ')
}

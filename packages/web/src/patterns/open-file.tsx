import { useQuery } from '@tanstack/react-query'
import type { NewPattern } from '@tessellum/contract/patterns'
import { counted } from '@tessellum/core/measure/counted'
import { titleOf } from '@tessellum/core/notation/title'
import { Button, Modal, message, Upload } from 'antd'
import { type DragEvent, type ReactNode, useState } from 'react'
import { useNavigate } from 'react-router'
import { Loading } from '../frame/loading'
import { call, ShopError } from '../shop/api'
import { read } from '../shop/queries'
import { useIdempotentMutation } from '../shop/use-idempotent-mutation'
import styles from './file-drop.module.css'
import { foundOnShelf, pictureFile, type Read, readPatternFile } from './pattern-file'
import { useEvaluated } from './use-evaluated'

/** A page that a pattern file can be dropped on; what it holds is shown before anything is kept. */
export function FileDrop({ children }: { children: (button: ReactNode) => ReactNode }) {
  const [opened, setOpened] = useState<Read>()
  const [trouble, setTrouble] = useState<string>()
  const [over, setOver] = useState(false)
  const open = (file: File) => {
    setTrouble(undefined)
    readPatternFile(file).then(setOpened, (error: Error) => setTrouble(error.message))
  }
  const drop = (event: DragEvent) => {
    event.preventDefault()
    setOver(false)
    const [file] = event.dataTransfer.files
    if (file) open(file)
  }
  return (
    <section
      className={over ? styles.over : ''}
      onDragOver={(event) => {
        event.preventDefault()
        setOver(true)
      }}
      onDragLeave={() => setOver(false)}
      onDrop={drop}
      aria-label="Patterns"
    >
      {children(
        <Upload
          accept=".tess,.json,.txt"
          showUploadList={false}
          beforeUpload={(file) => {
            open(file)
            return false
          }}
        >
          <Button>Open a file</Button>
        </Upload>,
      )}
      {trouble && (
        <Modal open title="This file cannot be read" footer={null} onCancel={() => setTrouble(undefined)}>
          <p role="alert">{trouble}</p>
        </Modal>
      )}
      {opened && <Opened opened={opened} close={() => setOpened(undefined)} />}
    </section>
  )
}

const noChoices = {}

function Opened({ opened, close }: { opened: Read; close: () => void }) {
  const navigate = useNavigate()
  const { data: items } = useQuery(read.items)
  const { now } = useEvaluated(opened.source, noChoices)
  const brought = foundOnShelf(opened.colourways, items ?? [])
  const keep = useIdempotentMutation(
    async (body: NewPattern) => {
      const { id } = await call('POST /api/patterns', { body })
      return { id, troubles: await addPictures(id, opened.pictures) }
    },
    {
      after: ({ id, troubles }) => {
        // The pattern is there; what a picture was refused for is told, and it can be added by hand.
        for (const trouble of troubles) void message.error(trouble, 12)
        void navigate(`/patterns/${id}`)
      },
    },
  )
  const faults = now?.diagnostics.filter(({ severity }) => severity !== 'note') ?? []
  return (
    <Modal
      open
      title={titleOf(opened.source)}
      okText="Save as a new pattern"
      cancelText="Leave it"
      onCancel={close}
      onOk={() => keep.run({ source: opened.source, words: opened.words, colourways: brought.colourways })}
      confirmLoading={keep.busy}
      // The dialog grows as the file is read: a click that was meant for its button must not fall beside it and close it.
      okButtonProps={{ disabled: !items || !now }}
      mask={{ closable: false }}
    >
      {now ? (
        <p className="figures">
          {now.beads
            .filter(({ total }) => total > 0)
            .map(({ role, total, kind, size }) => `${total} ${role}, ${kind} ${size}`)
            .join('; ') || 'No beads'}
          .{now.sizes.length > 1 && ` Sizes: ${now.sizes.join(', ')}.`}
        </p>
      ) : (
        <Loading what="Reading it" />
      )}
      {now && (
        <p className={faults.length > 0 ? 'trouble' : 'quiet'}>
          {faults.length === 0
            ? 'No line has an error.'
            : `${counted(faults.length, 'line is', 'lines are')} wrong, and can be fixed in the ledger:`}
        </p>
      )}
      <ul aria-label="Errors in the file">
        {faults.slice(0, 8).map(({ line, column, message, mend }) => (
          <li key={`${line} ${column} ${message}`}>
            Line {line}, column {column}: {message} {mend}
          </li>
        ))}
      </ul>
      {opened.colourways.length > 0 && (
        <p>
          Colourways: {opened.colourways.map(({ name }) => name).join(', ')}.
          {opened.words.length > 0 && ` Own words for ${counted(opened.words.length, 'step')}.`}
        </p>
      )}
      {opened.pictures.length > 0 && (
        <p>
          {opened.pictures.length === 1 ? 'One picture' : `${opened.pictures.length} pictures`}, which are added to it.
        </p>
      )}
      {brought.missing.length > 0 && (
        <>
          <p className="trouble">Not on this shelf, and left to be chosen:</p>
          <ul aria-label="Not on the shelf">
            {brought.missing.map(({ colourway, what }) => (
              <li key={colourway + what}>
                {colourway}, {what}
              </li>
            ))}
          </ul>
        </>
      )}
      {keep.refused && (
        <div role="alert" className="notice trouble">
          {keep.refused.message} {keep.refused.hint}
        </div>
      )}
    </Modal>
  )
}

/** One after the other, in their order. @returns what became of those that were not taken */
async function addPictures(patternId: number, pictures: Read['pictures']): Promise<string[]> {
  const troubles: string[] = []
  for (const [at, picture] of pictures.entries()) {
    try {
      const file = pictureFile(picture, at)
      const { pictures: there } = await call('POST /api/patterns/:id/pictures', { params: { id: patternId }, file })
      const { kind, step, caption } = picture
      const added = there[there.length - 1]
      if (added) await call('PUT /api/pictures/:id', { params: { id: added.id }, body: { kind, step, caption } })
    } catch (error) {
      if (!(error instanceof ShopError)) throw error
      troubles.push(`Picture ${at + 1} of the file was not taken. ${error.message} ${error.hint ?? ''}`.trim())
    }
  }
  return troubles
}

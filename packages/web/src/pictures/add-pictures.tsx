import { maxPictureBytes, type Pictures } from '@tessellum/contract/pictures'
import { Upload } from 'antd'
import { useEffect, useState } from 'react'
import { call } from '../shop/api'
import { useIdempotentMutation } from '../shop/use-idempotent-mutation'

interface Refused {
  readonly name: string
  readonly why: string
}

/** Pictures are added one after the other; one that is refused does not stop the others. */
export function AddPictures({ patternId, keep }: { patternId: number; keep: (answer: Pictures) => void }) {
  const [waiting, setWaiting] = useState<readonly File[]>([])
  const [refused, setRefused] = useState<readonly Refused[]>([])
  const add = useIdempotentMutation(
    (file: File) => call('POST /api/patterns/:id/pictures', { params: { id: patternId }, file }),
    { stale: ['pictures', 'editions'], after: keep },
  )
  const [next] = waiting
  // Whether it was taken or refused, the next one follows.
  // biome-ignore lint/correctness/useExhaustiveDependencies: begun once for each file
  useEffect(() => {
    if (!next) return
    if (next.size > maxPictureBytes) {
      setRefused((before) => [...before, { name: next.name, why: 'It is larger than 25 MB. Make it smaller first.' }])
      setWaiting((before) => before.slice(1))
      return
    }
    add.run(next, {
      onError: ({ message, hint = '' }) =>
        setRefused((before) => [...before, { name: next.name, why: `${message} ${hint}` }]),
      onSettled: () => setWaiting((before) => before.slice(1)),
    })
  }, [next])
  return (
    <section className="stack" aria-label="Add pictures">
      <Upload.Dragger
        accept=".jpg,.jpeg,.png,.webp,.avif,.heic"
        multiple
        showUploadList={false}
        beforeUpload={(file) => {
          setWaiting((before) => [...before, file])
          return false
        }}
      >
        <p>Drop pictures here, or press to choose them</p>
        <p className="quiet">
          JPEG, PNG, WebP or AVIF, up to 25 MB each. What the camera wrote into them, such as where they were taken, is
          left out.
        </p>
      </Upload.Dragger>
      {next && (
        <p role="status">
          Adding {next.name}
          {waiting.length > 1 && `; ${waiting.length - 1} more ${waiting.length === 2 ? 'waits' : 'wait'}`}…
        </p>
      )}
      {refused.length > 0 && (
        <ul role="alert" className="notice trouble" aria-label="Not added">
          {refused.map(({ name, why }, i) => (
            <li key={i}>
              <strong>{name}</strong> was not added. {why}
            </li>
          ))}
        </ul>
      )}
    </section>
  )
}

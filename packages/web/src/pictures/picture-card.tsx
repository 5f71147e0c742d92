import { ArrowDownOutlined, ArrowUpOutlined, DeleteOutlined, ScissorOutlined } from '@ant-design/icons'
import type { DescribePicture, Picture, Pictures } from '@tessellum/contract/pictures'
import type { PictureKind } from '@tessellum/core/writing/pictures'
import { type StepKey, sameStep } from '@tessellum/core/writing/step-words'
import { Button, Input, Segmented, Select } from 'antd'
import { useState } from 'react'
import { ErrorNotice } from '../frame/error-notice'
import { addressOf, call } from '../shop/api'
import { useIdempotentMutation } from '../shop/use-idempotent-mutation'
import styles from './pictures.module.css'

interface PictureCardProps {
  readonly picture: Picture
  /** Undefined until they are known. */
  readonly steps: readonly { readonly key: StepKey; readonly label: string }[] | undefined
  /** The step it shows is not in the pattern any more. */
  readonly aside: boolean
  readonly place: { readonly number: number; readonly of: number }
  readonly mayWrite: boolean
  readonly move: (by: -1 | 1) => void
  readonly crop: () => void
  readonly keep: (answer: Pictures) => void
}

const kinds: { value: PictureKind; label: string }[] = [
  { value: 'finished', label: 'Finished piece' },
  { value: 'step', label: 'Step' },
  { value: 'fault', label: 'Mistake to avoid' },
]
const anywhere = -1

export function PictureCard({ picture, steps, aside, place, mayWrite, move, crop, keep }: PictureCardProps) {
  const { id, caption, kind, step } = picture
  const [typed, setTyped] = useState(caption)
  /** A picture is of a step only once it is said of which. */
  const [choosing, setChoosing] = useState(false)
  const done = { stale: ['pictures', 'editions'], after: keep }
  const describe = useIdempotentMutation(
    (body: DescribePicture) => call('PUT /api/pictures/:id', { params: { id }, body }),
    done,
  )
  const remove = useIdempotentMutation(() => call('POST /api/pictures/:id/remove', { params: { id } }), {
    ...done,
    said: 'Removed. It can be put back for thirty days, at the foot of the page.',
    undo: () => () => call('POST /api/pictures/:id/put-back', { params: { id } }),
  })
  const say = (changes: Partial<DescribePicture>) => describe.run({ kind, step, caption: typed, ...changes })
  const name = caption || `picture ${place.number}`
  const shown = choosing ? 'step' : kind
  const chosen = steps?.findIndex(({ key }) => step !== null && sameStep(key, step)) ?? -1
  return (
    <li className={`sheet ${styles.card}`}>
      <img
        className={styles.picture}
        src={addressOf('GET /api/pictures/:id/:size', { params: { id, size: 'medium' } })}
        alt={caption || `Picture ${place.number} of the pattern`}
        width={picture.width}
        height={picture.height}
      />
      <div className="stack">
        {mayWrite ? (
          <>
            <Segmented
              aria-label={`What ${name} shows`}
              value={shown}
              options={kinds}
              onChange={(next) => {
                setChoosing(next === 'step' && step === null)
                if (next !== 'step' || step !== null) say({ kind: next })
              }}
            />
            {shown !== 'finished' && (
              <Select
                aria-label={`Step of ${name}`}
                status={aside ? 'error' : ''}
                showSearch={{ optionFilterProp: 'label' }}
                value={chosen >= 0 ? chosen : shown === 'fault' && step === null ? anywhere : null}
                placeholder={aside ? 'Its step is gone: choose another' : 'Which step?'}
                options={[
                  ...(shown === 'fault' ? [{ value: anywhere, label: 'It can happen anywhere' }] : []),
                  ...(steps ?? []).map(({ label }, value) => ({ value, label })),
                ]}
                onChange={(value: number) => {
                  setChoosing(false)
                  say({ kind: shown, step: steps?.[value]?.key ?? null })
                }}
              />
            )}
            <Input.TextArea
              autoSize
              aria-label={`Caption of ${name}`}
              placeholder="Caption"
              maxLength={300}
              value={typed}
              onChange={(event) => setTyped(event.target.value)}
              onBlur={() => typed.trim() !== caption && say({})}
            />
          </>
        ) : (
          <p>
            {kinds.find(({ value }) => value === kind)?.label}
            {step && `, ${step.text}`}
            {caption && `: ${caption}`}
          </p>
        )}
        <p className="quiet">
          {picture.width} x {picture.height} pixels, added by {picture.addedBy}
        </p>
        {mayWrite && (
          <div className="hands">
            <Button icon={<ScissorOutlined />} onClick={crop} aria-label={`Crop ${name}`}>
              Crop
            </Button>
            <Button
              icon={<ArrowUpOutlined />}
              disabled={place.number === 1}
              onClick={() => move(-1)}
              aria-label={`Move ${name} up`}
            />
            <Button
              icon={<ArrowDownOutlined />}
              disabled={place.number === place.of}
              onClick={() => move(1)}
              aria-label={`Move ${name} down`}
            />
            <span className="spacer" />
            <Button
              icon={<DeleteOutlined />}
              loading={remove.busy}
              onClick={() => remove.run(undefined)}
              aria-label={`Remove ${name}`}
            >
              Remove
            </Button>
          </div>
        )}
        <ErrorNotice error={describe.refused ?? remove.refused} />
      </div>
    </li>
  )
}

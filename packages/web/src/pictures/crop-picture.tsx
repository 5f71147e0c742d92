import type { Crop, Picture, Pictures } from '@tessellum/contract/pictures'
import { Button, Modal } from 'antd'
import { useState } from 'react'
import ReactCrop, { type PercentCrop } from 'react-image-crop'
import 'react-image-crop/dist/ReactCrop.css'
import { ErrorNotice } from '../frame/error-notice'
import { addressOf, call } from '../shop/api'
import { useIdempotentMutation } from '../shop/use-idempotent-mutation'
import styles from './pictures.module.css'

interface CropPictureProps {
  readonly picture: Picture
  readonly keep: (answer: Pictures) => void
  readonly close: () => void
}

const asPercent = (crop: Crop | null): PercentCrop => {
  const { x, y, width, height } = crop ?? { x: 0, y: 0, width: 1, height: 1 }
  return { unit: '%', x: 100 * x, y: 100 * y, width: 100 * width, height: 100 * height }
}

/** The part of a picture that is shown, chosen on the whole of it. */
export function CropPicture({ picture, keep, close }: CropPictureProps) {
  const [box, setBox] = useState(asPercent(picture.crop))
  const crop = useIdempotentMutation(
    (part: Crop | null) => call('POST /api/pictures/:id/crop', { params: { id: picture.id }, body: { crop: part } }),
    {
      stale: ['pictures', 'editions'],
      after: (answer) => {
        keep(answer)
        close()
      },
    },
  )
  const part = { x: box.x / 100, y: box.y / 100, width: box.width / 100, height: box.height / 100 }
  const whole = part.width > 0.999 && part.height > 0.999
  return (
    <Modal
      open
      width={760}
      title="Crop the picture"
      onCancel={close}
      footer={[
        <Button key="leave" onClick={close}>
          Leave it
        </Button>,
        <Button key="whole" onClick={() => setBox(asPercent(null))}>
          Show all of it
        </Button>,
        <Button
          key="crop"
          type="primary"
          loading={crop.busy}
          disabled={part.width < 0.02 || part.height < 0.02}
          onClick={() => crop.run(whole ? null : part)}
        >
          Crop
        </Button>,
      ]}
    >
      <p className="quiet">
        Drag the box or its handles. By keyboard: Tab to a handle, then the arrow keys; with Shift in larger steps.
      </p>
      <ReactCrop
        crop={box}
        onChange={(_, percent) => setBox(percent)}
        keepSelection
        ariaLabels={{
          cropArea: 'Part that is shown: move it with the arrow keys',
          nwDragHandle: 'Top left corner',
          nDragHandle: 'Top edge',
          neDragHandle: 'Top right corner',
          eDragHandle: 'Right edge',
          seDragHandle: 'Bottom right corner',
          sDragHandle: 'Bottom edge',
          swDragHandle: 'Bottom left corner',
          wDragHandle: 'Left edge',
        }}
      >
        <img
          className={styles.whole}
          src={addressOf('GET /api/pictures/:id/:size', { params: { id: picture.id, size: 'whole' } })}
          alt={picture.caption || 'The whole picture'}
        />
      </ReactCrop>
      <ErrorNotice error={crop.refused} />
    </Modal>
  )
}

import { View as Box, Canvas, Image, Text } from '@react-pdf/renderer'
import type { StepView } from '@tessellum/core/drawing/step-views'
import type { View } from '@tessellum/core/drawing/view'
import type { Words } from '@tessellum/core/writing/language'
import type { ShownPicture } from '@tessellum/core/writing/pictures'
import { paintView } from './paint-view'
import { ink, styles } from './styles'

export const Swatch = ({ colour }: { colour: string }) => (
  <Box style={{ width: 9, height: 9, borderRadius: 2, backgroundColor: colour, borderWidth: 0.5, borderColor: ink }} />
)

interface PicturesProps {
  readonly of: readonly ShownPicture[]
  readonly files: ReadonlyMap<number, Uint8Array>
  readonly words: Words
  /** Of each, in points. */
  readonly width: number
  readonly height: number
}

/** Side by side; what cannot be found is left out. */
export function Pictures({ of, files, words, width, height }: PicturesProps) {
  const found = of.flatMap((each) => {
    const bytes = files.get(each.id)
    return bytes ? [{ ...each, data: Buffer.from(bytes) }] : []
  })
  if (found.length === 0) return null
  return (
    <Box style={styles.pictures}>
      {found.map(({ id, kind, caption, data, width: wide, height: high }) => {
        const scale = Math.min(width / wide, height / high)
        const told = kind === 'fault' ? [words.notLikeThis, caption].filter(Boolean).join(': ') : caption
        return (
          <Box key={id} wrap={false} style={{ width: wide * scale }}>
            <Image
              src={{ data, format: 'jpg' }}
              style={[{ width: wide * scale, height: high * scale }, kind === 'fault' ? styles.fault : {}]}
            />
            {told !== '' && <Text style={styles.counts}>{told}</Text>}
          </Box>
        )
      })}
    </Box>
  )
}

interface StepDrawingProps {
  readonly step: StepView | undefined
  readonly colours: Readonly<Record<string, string>>
  readonly behind: string
  readonly room: number
}

export function StepDrawing({ step, colours, behind, room }: StepDrawingProps) {
  if (!step) return null
  return (
    <Box>
      <Drawing view={step.view} colours={colours} style={{ width: room, height: room }} />
      {step.face === 'back' && <Text style={[styles.counts, { width: room, textAlign: 'center' }]}>{behind}</Text>}
    </Box>
  )
}

interface DrawingProps {
  readonly view: View
  readonly colours: Readonly<Record<string, string>>
  readonly style: { readonly width: number; readonly height: number }
}

/** Painted straight into the page: as elements, a long pattern's tens of thousands of beads would take many times as long. */
export function Drawing({ view, colours, style }: DrawingProps) {
  return (
    <Canvas
      style={style}
      paint={(painter, width, height) => {
        paintView(painter, view, colours, width, height)
        return null
      }}
    />
  )
}

interface SignProps {
  readonly logo: { readonly bytes: Uint8Array; readonly width: number; readonly height: number }
  /** At most, in points. */
  readonly width: number
  readonly height: number
}

/** The shop's own. */
export function Sign({ logo, width, height }: SignProps) {
  const scale = Math.min(width / logo.width, height / logo.height)
  return (
    <Image
      src={{ data: Buffer.from(logo.bytes), format: 'jpg' }}
      style={{ width: logo.width * scale, height: logo.height * scale }}
    />
  )
}

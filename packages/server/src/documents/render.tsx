import { View as Box, Canvas, Document, Image, Link, Page, renderToBuffer, StyleSheet, Text } from '@react-pdf/renderer'
import type { StepView } from '@tessellum/core/drawing/step-views'
import type { View } from '@tessellum/core/drawing/view'
import type { WrittenEdition } from '@tessellum/core/writing/edition'
import { capital, type Words } from '@tessellum/core/writing/language'
import { languages } from '@tessellum/core/writing/languages'
import { type Seat, type Sheet, sheetHas } from '@tessellum/core/writing/layout'
import type { ShownPicture } from '@tessellum/core/writing/pictures'
import { type MaterialRow, stepsForContents, type WrittenPattern } from '@tessellum/core/writing/written-pattern'
import { Fragment } from 'react'

import { printable, registerFonts, textFont, titleFont } from './fonts'
import { paintView } from './paint-view'

registerFonts()

const ink = '#22302b'
const quiet = '#5d6a63'
const styles = StyleSheet.create({
  page: {
    paddingVertical: 48,
    paddingHorizontal: 52,
    fontFamily: textFont,
    fontSize: 10.5,
    color: ink,
  },
  // Not the page's: what is fixed on every page would have its line height worked out anew on each, and grow.
  body: { lineHeight: 1.35 },
  head: { flexDirection: 'row', gap: 20, marginBottom: 14 },
  title: { fontFamily: titleFont, fontWeight: 600, fontSize: 25, lineHeight: 1.15, marginBottom: 4 },
  facts: { color: quiet },
  drawing: { width: 180, height: 180 },
  h2: { fontFamily: titleFont, fontWeight: 600, fontSize: 14, marginTop: 14, marginBottom: 5 },
  row: {
    flexDirection: 'row',
    borderBottomWidth: 0.5,
    borderBottomColor: '#cfc8b8',
    paddingVertical: 3,
    alignItems: 'center',
  },
  strong: { fontWeight: 600 },
  step: { flexDirection: 'row', gap: 8, marginBottom: 6 },
  block: {
    flexDirection: 'row',
    gap: 10,
    marginBottom: 8,
    padding: 8,
    borderWidth: 1,
    borderColor: '#cfc8b8',
    borderRadius: 5,
  },
  seat: { borderWidth: 1, borderColor: ink, borderRadius: 5, padding: 6, marginBottom: 10, fontWeight: 600 },
  number: { width: 22, textAlign: 'right', fontWeight: 600 },
  counts: { color: quiet, fontSize: 9.5 },
  check: { borderLeftWidth: 2, borderLeftColor: '#a9772b', paddingLeft: 8 },
  caution: { borderWidth: 0.75, borderColor: '#9c4a35', padding: 6, marginTop: 4 },
  foot: {
    position: 'absolute',
    bottom: 24,
    left: 52,
    right: 52,
    fontSize: 8.5,
    color: quiet,
    flexDirection: 'row',
    justifyContent: 'space-between',
  },
  shop: { marginTop: 18, borderTopWidth: 0.75, borderTopColor: '#cfc8b8', paddingTop: 6, color: quiet },
  pictures: { flexDirection: 'row', flexWrap: 'wrap', gap: 8, marginTop: 5 },
  fault: { borderWidth: 1.5, borderColor: '#9c4a35' },
  draft: { position: 'absolute', top: 20, right: 52, fontSize: 10, fontWeight: 600, color: '#9c4a35' },
})

interface Paper {
  readonly paper: 'A4' | 'LETTER'
  readonly sheet: Sheet
  readonly seat: Seat | undefined
  readonly buyer: string
  /** JPEG, by number. */
  readonly pictures: ReadonlyMap<number, Uint8Array>
}

/** How large each sheet is set, times what is set for sale. */
const scales: Readonly<Record<Sheet, number>> = { sale: 1, class: 1.3, card: 0.88, large: 1.6 }

/** Sets a written pattern on paper. */
export async function renderDocument(
  { written: asWritten, drawings, colours }: WrittenEdition,
  { paper, sheet, seat, buyer, pictures }: Paper,
): Promise<Uint8Array> {
  const { value: written, whole } = printable(asWritten)
  const { words } = written
  const language = languages[written.language]
  const has = sheetHas[sheet]
  const scale = scales[sheet]
  const steps = written.parts.reduce((sum, part) => sum + part.steps.length, 0)
  const h2: Heading = [styles.h2, { fontSize: 14 * Math.min(scale, 1.4) }]
  const room = sheet === 'class' ? 132 : sheet === 'large' ? 120 : 92
  return renderToBuffer(
    <Document title={written.title} creator="Tessellum" language={written.language}>
      <Page size={paper} style={[styles.page, { fontSize: 10.5 * scale }]}>
        {written.draft && (
          <Text fixed style={styles.draft}>
            {words.draftMark}
          </Text>
        )}
        <Box style={styles.body}>
          {seat && (
            <Text style={styles.seat}>
              {words.seat}: {printable(seat.name).value}
              {seat.chosen ? ` · ${printable(seat.chosen).value}` : ''}
            </Text>
          )}
          <Box style={styles.head}>
            <Box style={{ flex: 1 }}>
              <Text style={styles.title}>{written.title}</Text>
              <Text style={styles.facts}>{written.facts.join(' · ')}</Text>
              {has.sentences && <Text style={styles.facts}>{written.effort.map(capital).join('. ')}.</Text>}
              <Text style={h2}>{words.thread}</Text>
              {written.thread.map((line) => (
                <Text key={line}>{line}</Text>
              ))}
              {has.sentences && <Text style={h2}>{words.tools}</Text>}
              {has.sentences && <Text>{capital(language.list(written.tools))}.</Text>}
            </Box>
            {drawings && (
              <Drawing
                view={drawings.piece}
                colours={colours}
                style={sheet === 'card' ? { width: 96, height: 96 } : styles.drawing}
              />
            )}
          </Box>
          {has.care && (
            <Pictures
              of={written.pictures.finished.slice(0, 1)}
              files={pictures}
              words={words}
              width={490}
              height={300}
            />
          )}
          <Text style={h2}>{words.materials}</Text>
          <Materials rows={written.materials} words={words} scale={scale} />
          {has.tables && <Tables written={written} h2={h2} scale={scale} />}
          {has.care && <Text style={h2}>{words.takeCare}</Text>}
          {has.care &&
            written.cautions.map((caution) => (
              <Box key={caution} style={styles.caution} wrap={false}>
                <Text>{caution}</Text>
              </Box>
            ))}
          {has.sentences && <Text style={h2}>{words.wordsUsed}</Text>}
          {has.sentences && written.marks.map((mark) => <Text key={mark}>{mark}</Text>)}
          {has.sentences && steps >= stepsForContents && written.parts.length > 1 && (
            <Contents written={written} h2={h2} />
          )}
          {written.parts.map((part, i) => (
            <Fragment key={`${part.name} ${i}`}>
              <Text id={`part-${i + 1}`} style={h2} minPresenceAhead={80}>
                {capital(part.name || words.steps)}
              </Text>
              {!has.sentences && <CardHead words={words} />}
              {part.steps.map((step) =>
                has.sentences ? (
                  <Box key={step.number} style={sheet === 'class' ? styles.block : styles.step} wrap={false}>
                    <Text style={[styles.number, { width: 22 * scale }]}>{step.number}</Text>
                    <Box style={step.kind === 'check' ? [{ flex: 1 }, styles.check] : { flex: 1 }}>
                      {step.begins !== '' && <Text>{step.begins}</Text>}
                      <Text>{step.kind === 'check' ? `${words.check} ${step.text}` : step.text}</Text>
                      {step.also !== '' && <Text style={styles.facts}>{step.also}</Text>}
                      {step.looks !== '' && <Text style={styles.facts}>{step.looks}</Text>}
                      {step.added !== '' && (
                        <Text style={[styles.counts, { fontSize: 9.5 * scale }]}>
                          {language.picked(step.added, step.running)}
                        </Text>
                      )}
                      <Pictures of={step.pictures} files={pictures} words={words} width={150} height={120} />
                    </Box>
                    {has.drawings && (
                      <StepDrawing
                        step={drawings?.steps[step.line]}
                        colours={colours}
                        behind={words.fromBehind}
                        room={room}
                      />
                    )}
                  </Box>
                ) : (
                  <Box key={step.number} style={styles.row} wrap={false}>
                    <Text style={[styles.number, { marginRight: 8 }]}>{step.number}</Text>
                    <Text style={{ flex: 2, fontWeight: 600 }}>{step.key.text}</Text>
                    <Text style={{ flex: 1 }}>{step.added}</Text>
                    <Text style={{ flex: 1.2 }}>{step.running}</Text>
                  </Box>
                ),
              )}
            </Fragment>
          ))}
          {has.care && written.pictures.finished.length > 1 && <Text style={h2}>{words.finishedPiece}</Text>}
          {has.care && (
            <Pictures of={written.pictures.finished.slice(1)} files={pictures} words={words} width={235} height={200} />
          )}
          {has.care && written.pictures.faults.length > 0 && <Text style={h2}>{words.faultsToAvoid}</Text>}
          {has.care && (
            <Pictures of={written.pictures.faults} files={pictures} words={words} width={150} height={130} />
          )}
          {written.totals !== '' && (
            <Text style={[styles.h2, { fontSize: 11.5 * scale }]}>{language.inOnePiece(written.totals)}</Text>
          )}
          {has.care && <Text style={h2}>{words.wear}</Text>}
          {has.care && written.wear.map((line) => <Text key={line}>{line}</Text>)}
          {written.errata.length > 0 && <Text style={h2}>{words.errata}</Text>}
          {written.errata.map((line) => (
            <Text key={line}>{line}</Text>
          ))}
          {has.care && written.shop.length > 0 && (
            <Box style={styles.shop} wrap={false}>
              {written.shop.map((line) => (
                <Text key={line}>{line}</Text>
              ))}
            </Box>
          )}
          {!whole && <Text style={styles.counts}>{words.unprinted}</Text>}
        </Box>
        <Box fixed style={styles.foot}>
          <Text>
            {written.title} · {written.edition}
            {buyer && ` · ${printable(buyer).value}`}
          </Text>
          <Text render={({ pageNumber, totalPages }) => language.page(pageNumber, totalPages)} />
        </Box>
      </Page>
    </Document>,
  )
}

type Heading = [typeof styles.h2, { fontSize: number }]

function Contents({ written, h2 }: { written: WrittenPattern; h2: Heading }) {
  return (
    <Box>
      <Text style={h2}>{written.words.contents}</Text>
      {written.parts.map(({ name, steps }, i) => (
        <Link key={`${name} ${i}`} src={`#part-${i + 1}`} style={{ color: ink, textDecoration: 'none' }}>
          <Text>
            {capital(name || written.words.steps)}, {steps[0]?.number}-{steps[steps.length - 1]?.number}
          </Text>
        </Link>
      ))}
    </Box>
  )
}

const CardHead = ({ words }: { words: Words }) => (
  <Box style={styles.row}>
    <Text style={[styles.number, { marginRight: 8 }]} />
    <Text style={[{ flex: 2 }, styles.counts]}>{words.notation}</Text>
    <Text style={[{ flex: 1 }, styles.counts]}>{words.count}</Text>
    <Text style={[{ flex: 1.2 }, styles.counts]}>{words.soFar}</Text>
  </Box>
)

function Tables({ written, h2, scale }: { written: WrittenPattern; h2: Heading; scale: number }) {
  const { words, sizes, roles, colourways, makers } = written
  const narrow = 30 * scale
  return (
    <Box>
      {sizes.length > 0 && (
        <Text style={h2} minPresenceAhead={50}>
          {words.sizes}
        </Text>
      )}
      {sizes.length > 0 && (
        <Box style={styles.row}>
          <Text style={[{ width: 62 * scale }, styles.strong]}>{words.size}</Text>
          {roles.map((role) => (
            <Text key={role} style={[{ width: narrow }, styles.strong]}>
              {role}
            </Text>
          ))}
          <Text style={[{ flex: 1 }, styles.strong]}>{words.thread}</Text>
          <Text style={[{ flex: 1.5 }, styles.strong]}>{words.finished}</Text>
          <Text style={[{ flex: 1.5 }, styles.strong]}>{words.ring}</Text>
        </Box>
      )}
      {sizes.map((row) => (
        <Box key={row.name} style={styles.row} wrap={false}>
          <Text style={{ width: 62 * scale }}>{row.name}</Text>
          {row.counts.map((count, i) => (
            <Text key={roles[i]} style={{ width: narrow }}>
              {count}
            </Text>
          ))}
          <Text style={{ flex: 1 }}>{row.thread}</Text>
          <Text style={{ flex: 1.5 }}>{row.finished}</Text>
          <Text style={{ flex: 1.5 }}>{row.ring}</Text>
        </Box>
      ))}
      {colourways.length > 0 && (
        <Text style={h2} minPresenceAhead={50}>
          {words.colourways}
        </Text>
      )}
      {colourways.map(({ name, choices }) => (
        <Box key={name} style={[styles.row, { alignItems: 'flex-start' }]} wrap={false}>
          <Text style={[{ width: 92 * scale }, styles.strong]}>{name}</Text>
          <Box style={{ flex: 1 }}>
            {choices.map((choice) => (
              <Box key={choice.roles} style={{ flexDirection: 'row', gap: 5, alignItems: 'center' }}>
                <Swatch colour={choice.colour} />
                <Text>
                  {choice.roles} {choice.name}
                </Text>
              </Box>
            ))}
          </Box>
        </Box>
      ))}
      {makers.length > 0 && (
        <Text style={h2} minPresenceAhead={40}>
          {words.makers}
        </Text>
      )}
      {makers.map((line) => (
        <Text key={line}>{line}</Text>
      ))}
    </Box>
  )
}

const Swatch = ({ colour }: { colour: string }) => (
  <Box style={{ width: 9, height: 9, borderRadius: 2, backgroundColor: colour, borderWidth: 0.5, borderColor: ink }} />
)

function Materials({ rows, words, scale }: { rows: readonly MaterialRow[]; words: Words; scale: number }) {
  const cell = (text: string, width: number, strong = false) => (
    <Text style={[{ width: width * scale }, strong ? styles.strong : {}]}>{text}</Text>
  )
  return (
    <Box>
      <Box style={styles.row}>
        {cell('', 62, true)}
        <Text style={[{ flex: 1 }, styles.strong]}>{words.item}</Text>
        {cell(words.exact, 52, true)}
        {cell(words.weight, 46, true)}
        {cell(words.inKit, 92, true)}
      </Box>
      {rows.map((row) => (
        <Box key={row.roles} style={styles.row} wrap={false}>
          <Box style={{ width: 62 * scale, flexDirection: 'row', gap: 5, alignItems: 'center' }}>
            {row.colour && <Swatch colour={row.colour} />}
            <Text style={styles.strong}>{row.roles}</Text>
          </Box>
          <Text style={{ flex: 1, paddingRight: 8 }}>{row.name}</Text>
          {cell(row.exact, 52)}
          {cell(row.weight, 46)}
          {cell(row.inKit, 92)}
        </Box>
      ))}
    </Box>
  )
}

interface PicturesProps {
  readonly of: readonly ShownPicture[]
  readonly files: ReadonlyMap<number, Uint8Array>
  readonly words: Words
  /** Of each, in points. */
  readonly width: number
  readonly height: number
}

/** Side by side; what cannot be found is left out. */
function Pictures({ of, files, words, width, height }: PicturesProps) {
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

function StepDrawing({ step, colours, behind, room }: StepDrawingProps) {
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
function Drawing({ view, colours, style }: DrawingProps) {
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

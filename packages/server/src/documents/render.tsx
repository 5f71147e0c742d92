import { View as Box, Document, Page, renderToBuffer, Text } from '@react-pdf/renderer'
import type { WrittenEdition } from '@tessellum/core/writing/edition'
import { capital } from '@tessellum/core/writing/language'
import { languages } from '@tessellum/core/writing/languages'
import {
  type Density,
  type DocumentStyle,
  drawnLines,
  type Seat,
  type Sheet,
  sheetHas,
  textScale,
} from '@tessellum/core/writing/layout'
import { stepsForContents } from '@tessellum/core/writing/written-pattern'
import { Fragment } from 'react'
import { Drawing, Pictures, Sign, StepDrawing } from './figures'
import { printable, registerFonts } from './fonts'
import { CardHead, Contents, Materials, Tables, Techniques, Ticks, Title } from './sections'
import { type Heading, styles } from './styles'

registerFonts()

interface Paper {
  readonly paper: 'A4' | 'LETTER'
  readonly sheet: Sheet
  readonly seat: Seat | undefined
  readonly buyer: string
  readonly density: Density
  readonly style: DocumentStyle
  /** A JPEG, and what it measures. */
  readonly logo: { readonly bytes: Uint8Array; readonly width: number; readonly height: number } | undefined
  /** JPEG, by number. */
  readonly pictures: ReadonlyMap<number, Uint8Array>
}

/** How large each sheet is set, times what is set for sale. */
const scales: Readonly<Record<Sheet, number>> = { sale: 1, class: 1.3, card: 0.88, large: 1.6 }

/** Sets a written pattern on paper. */
export async function renderDocument(
  { written: asWritten, drawings, colours }: WrittenEdition,
  { paper, sheet, seat, buyer, pictures, density, style, logo }: Paper,
): Promise<Uint8Array> {
  const { value: written, whole } = printable(asWritten)
  const { words } = written
  const language = languages[written.language]
  const has = sheetHas[sheet]
  const scale = scales[sheet] * textScale[style.textSize]
  const steps = written.parts.reduce((sum, part) => sum + part.steps.length, 0)
  const h2: Heading = [styles.h2, { fontSize: 14 * Math.min(scale, 1.4), color: style.headings }]
  const room = sheet === 'class' ? 132 : sheet === 'large' ? 120 : 92
  const drawn = drawnLines(written.parts, (line) => drawings?.steps[line] !== undefined, density)
  const [shop] = written.shop
  const [cover] = written.pictures.finished
  const covered = cover && pictures.has(cover.id)
  const heading = (title: string) => <Title h2={h2}>{title}</Title>
  const everyPage = (
    <>
      {written.draft && (
        <Text fixed style={styles.draft}>
          {words.draftMark}
        </Text>
      )}
      <Box fixed style={styles.foot}>
        <Text>
          {written.title} · {written.edition}
          {buyer && ` · ${printable(buyer).value}`}
        </Text>
        <Text render={({ pageNumber, totalPages }) => language.page(pageNumber, totalPages)} />
      </Box>
    </>
  )
  const thread = (
    <>
      {heading(words.thread)}
      {written.thread.map((line) => (
        <Text key={line}>{line}</Text>
      ))}
      {has.sentences && heading(words.tools)}
      {has.sentences && <Text>{capital(language.list(written.tools))}.</Text>}
    </>
  )
  return renderToBuffer(
    <Document
      title={written.title}
      author={shop ?? ''}
      subject={written.facts.join(', ')}
      creator="Tessellum"
      language={written.language}
      pageMode={has.booklet ? 'useOutlines' : 'useNone'}
    >
      {has.booklet && (
        <Page size={paper} style={[styles.page, { fontSize: 11 * scale }]} bookmark={written.title}>
          <Box style={styles.cover}>
            <Text style={[styles.coverTitle, { color: style.headings }]}>{written.title}</Text>
            <Text style={styles.coverFacts}>{written.facts.join(' · ')}</Text>
            {covered ? (
              <Pictures of={[{ ...cover, caption: '' }]} files={pictures} words={words} width={480} height={430} />
            ) : (
              drawings && <Drawing view={drawings.piece} colours={colours} style={{ width: 380, height: 380 }} />
            )}
            <Text style={styles.coverFacts}>{written.effort.map(capital).join('. ')}.</Text>
            {logo && <Sign logo={logo} width={150} height={60} />}
            {shop !== undefined && <Text style={styles.from}>{shop}</Text>}
          </Box>
          {everyPage}
        </Page>
      )}
      <Page size={paper} style={[styles.page, { fontSize: 10.5 * scale }]}>
        <Box style={styles.body}>
          {seat && (
            <Text style={styles.seat}>
              {words.seat}: {printable(seat.name).value}
              {seat.chosen ? ` · ${printable(seat.chosen).value}` : ''}
            </Text>
          )}
          {!has.booklet && (
            <Box style={styles.head}>
              <Box style={{ flex: 1 }}>
                <Text style={[styles.title, { color: style.headings }]}>{written.title}</Text>
                <Text style={styles.facts}>{written.facts.join(' · ')}</Text>
                {has.sentences && <Text style={styles.facts}>{written.effort.map(capital).join('. ')}.</Text>}
                {thread}
              </Box>
              {drawings && (
                <Drawing
                  view={drawings.piece}
                  colours={colours}
                  style={sheet === 'card' ? { width: 96, height: 96 } : styles.drawing}
                />
              )}
            </Box>
          )}
          {heading(words.materials)}
          <Materials rows={written.materials} words={words} scale={scale} />
          {has.booklet && (
            <Box style={styles.head}>
              <Box style={{ flex: 1 }}>{thread}</Box>
              {covered && drawings && (
                <Drawing view={drawings.piece} colours={colours} style={{ width: 130, height: 130 }} />
              )}
            </Box>
          )}
          {has.tables && <Tables written={written} h2={h2} scale={scale} />}
          {has.care && heading(words.takeCare)}
          {has.care &&
            written.cautions.map((caution) => (
              <Box key={caution} style={styles.caution} wrap={false}>
                <Text>{caution}</Text>
              </Box>
            ))}
          {has.booklet && <Techniques written={written} views={drawings?.techniques} h2={h2} />}
          {has.sentences && heading(words.wordsUsed)}
          {has.sentences && written.marks.map((mark) => <Text key={mark}>{mark}</Text>)}
          {has.sentences && steps >= stepsForContents && written.parts.length > 1 && (
            <Contents written={written} h2={h2} />
          )}
          {written.parts.map((part, i) => (
            <Fragment key={`${part.name} ${i}`}>
              <Title h2={h2} id={`part-${i + 1}`} begins={i === 0 && has.booklet}>
                {capital(part.name || words.steps)}
              </Title>
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
                        step={drawn.has(step.line) ? drawings?.steps[step.line] : undefined}
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
          {has.care && written.pictures.finished.length > 1 && heading(words.finishedPiece)}
          {has.care && (
            <Pictures of={written.pictures.finished.slice(1)} files={pictures} words={words} width={235} height={200} />
          )}
          {has.care && written.pictures.faults.length > 0 && heading(words.faultsToAvoid)}
          {has.care && (
            <Pictures of={written.pictures.faults} files={pictures} words={words} width={150} height={130} />
          )}
          {written.totals !== '' && (
            <Text style={[styles.h2, { fontSize: 11.5 * scale }]}>{language.inOnePiece(written.totals)}</Text>
          )}
          {has.booklet && <Ticks written={written} h2={h2} />}
          {has.care && (
            <Title h2={h2} begins={has.booklet}>
              {words.wear}
            </Title>
          )}
          {has.care && written.wear.map((line) => <Text key={line}>{line}</Text>)}
          {written.errata.length > 0 && heading(words.errata)}
          {written.errata.map((line) => (
            <Text key={line}>{line}</Text>
          ))}
          {has.care && written.shop.length > 0 && (
            <Box style={styles.shop} wrap={false}>
              {has.booklet && heading(words.fromTheShop)}
              {logo && <Sign logo={logo} width={120} height={48} />}
              {written.shop.map((line) => (
                <Text key={line}>{line}</Text>
              ))}
            </Box>
          )}
          {!whole && <Text style={styles.counts}>{words.unprinted}</Text>}
        </Box>
        {everyPage}
      </Page>
    </Document>,
  )
}

import { fileURLToPath } from 'node:url'
import {
  View as Box,
  Circle,
  Document,
  Ellipse,
  Font,
  G,
  Page,
  Path,
  Rect,
  renderToBuffer,
  StyleSheet,
  Svg,
  Text,
} from '@react-pdf/renderer'
import type { StepView } from '@tessellum/core/drawing/step-views'
import { ink as drawn, earlierLook, stateLook, wayColour } from '@tessellum/core/drawing/svg'
import type { View, ViewShape } from '@tessellum/core/drawing/view'
import { capital, list, sayPicked } from '@tessellum/core/writing/english'
import type { MaterialRow, WrittenPattern } from '@tessellum/core/writing/written-pattern'

const font = (path: string) => fileURLToPath(import.meta.resolve(path))
Font.register({
  family: 'Source Sans 3',
  fonts: [
    { src: font('@fontsource/source-sans-3/files/source-sans-3-latin-400-normal.woff'), fontWeight: 400 },
    { src: font('@fontsource/source-sans-3/files/source-sans-3-latin-600-normal.woff'), fontWeight: 600 },
  ],
})
Font.register({
  family: 'Fraunces',
  src: font('@fontsource/fraunces/files/fraunces-latin-600-normal.woff'),
  fontWeight: 600,
})
// Words are not broken: a count must never be read in two halves.
Font.registerHyphenationCallback((word) => [word])

const ink = '#22302b'
const quiet = '#5d6a63'
const styles = StyleSheet.create({
  page: {
    paddingVertical: 48,
    paddingHorizontal: 52,
    fontFamily: 'Source Sans 3',
    fontSize: 10.5,
    color: ink,
    lineHeight: 1.35,
  },
  head: { flexDirection: 'row', gap: 20, marginBottom: 14 },
  title: { fontFamily: 'Fraunces', fontWeight: 600, fontSize: 25, lineHeight: 1.15, marginBottom: 4 },
  facts: { color: quiet },
  drawing: { width: 180, height: 180 },
  stepDrawing: { width: 92, height: 92 },
  h2: { fontFamily: 'Fraunces', fontWeight: 600, fontSize: 14, marginTop: 14, marginBottom: 5 },
  row: {
    flexDirection: 'row',
    borderBottomWidth: 0.5,
    borderBottomColor: '#cfc8b8',
    paddingVertical: 3,
    alignItems: 'center',
  },
  strong: { fontWeight: 600 },
  step: { flexDirection: 'row', gap: 8, marginBottom: 6 },
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
  draft: { position: 'absolute', top: 20, right: 52, fontSize: 10, fontWeight: 600, color: '#9c4a35' },
})

/** Sets a written pattern on paper. `colours` are those of the colourway by role, for the drawing. */
export async function renderDocument(
  written: WrittenPattern,
  drawings: { readonly piece: View; readonly steps: Readonly<Record<number, StepView>> } | undefined,
  colours: Readonly<Record<string, string>>,
  paper: 'A4' | 'LETTER',
): Promise<Uint8Array> {
  return renderToBuffer(
    <Document title={written.title} creator="Tessellum" language="en-GB">
      <Page size={paper} style={styles.page}>
        {written.draft && (
          <Text fixed style={styles.draft}>
            DRAFT: not for sale or teaching
          </Text>
        )}
        <Box style={styles.head}>
          <Box style={{ flex: 1 }}>
            <Text style={styles.title}>{written.title}</Text>
            <Text style={styles.facts}>{written.facts.join(' · ')}</Text>
            <Text style={styles.h2}>Thread</Text>
            {written.thread.map((line) => (
              <Text key={line}>{line}</Text>
            ))}
            <Text style={styles.h2}>Tools</Text>
            <Text>{capital(list(written.tools))}.</Text>
          </Box>
          {drawings && <Drawing view={drawings.piece} colours={colours} style={styles.drawing} />}
        </Box>
        <Text style={styles.h2}>Materials</Text>
        <Materials rows={written.materials} />
        <Text style={styles.h2}>Take care</Text>
        {written.cautions.map((caution) => (
          <Box key={caution} style={styles.caution} wrap={false}>
            <Text>{caution}</Text>
          </Box>
        ))}
        <Text style={styles.h2}>Words used</Text>
        {written.marks.map((mark) => (
          <Text key={mark}>{mark}</Text>
        ))}
        {written.parts.map((part, i) => (
          <Box key={`${part.name} ${i}`}>
            <Text style={styles.h2} minPresenceAhead={60}>
              {part.name ? capital(part.name) : 'Steps'}
            </Text>
            {part.steps.map((step) => (
              <Box key={step.number} style={styles.step} wrap={false}>
                <Text style={styles.number}>{step.number}</Text>
                <Box style={step.kind === 'check' ? [{ flex: 1 }, styles.check] : { flex: 1 }}>
                  <Text>{step.kind === 'check' ? `Check: ${step.text}` : step.text}</Text>
                  {step.added !== '' && <Text style={styles.counts}>{sayPicked(step)}</Text>}
                </Box>
                <StepDrawing step={drawings?.steps[step.line]} colours={colours} />
              </Box>
            ))}
          </Box>
        ))}
        {written.totals !== '' && <Text style={[styles.h2, { fontSize: 11.5 }]}>In one piece: {written.totals}.</Text>}
        <Box fixed style={styles.foot}>
          <Text>
            {written.title} · {written.edition}
          </Text>
          <Text render={({ pageNumber, totalPages }) => `Page ${pageNumber} of ${totalPages}`} />
        </Box>
      </Page>
    </Document>,
  )
}

function Materials({ rows }: { rows: readonly MaterialRow[] }) {
  const cell = (text: string, width: number, strong = false) => (
    <Text style={[{ width }, strong ? styles.strong : {}]}>{text}</Text>
  )
  return (
    <Box>
      <Box style={styles.row}>
        {cell('', 62, true)}
        <Text style={[{ flex: 1 }, styles.strong]}>Item</Text>
        {cell('Exact', 62, true)}
        {cell('In the kit', 112, true)}
      </Box>
      {rows.map((row) => (
        <Box key={row.roles} style={styles.row} wrap={false}>
          <Box style={{ width: 62, flexDirection: 'row', gap: 5, alignItems: 'center' }}>
            {row.colour && (
              <Box
                style={{
                  width: 9,
                  height: 9,
                  borderRadius: 2,
                  backgroundColor: row.colour,
                  borderWidth: 0.5,
                  borderColor: ink,
                }}
              />
            )}
            <Text style={styles.strong}>{row.roles}</Text>
          </Box>
          <Text style={{ flex: 1, paddingRight: 8 }}>{row.name}</Text>
          {cell(row.exact, 62)}
          {cell(row.inKit, 112)}
        </Box>
      ))}
    </Box>
  )
}

function StepDrawing({ step, colours }: { step: StepView | undefined; colours: Readonly<Record<string, string>> }) {
  if (!step) return null
  return (
    <Box>
      <Drawing view={step.view} colours={colours} style={styles.stepDrawing} />
      {step.face === 'back' && <Text style={[styles.counts, { width: 92, textAlign: 'center' }]}>from behind</Text>}
    </Box>
  )
}

function Drawing({
  view,
  colours,
  style,
}: {
  view: View
  colours: Readonly<Record<string, string>>
  style: { width: number; height: number }
}) {
  const { way } = view
  return (
    <Svg viewBox={view.box.join(' ')} style={style}>
      {view.shapes.map((shape, i) => (
        <Shape key={i} shape={shape} colours={colours} />
      ))}
      {way && <Path d={way.path} fill="none" stroke={wayColour} strokeWidth={0.2} />}
      {way && (
        <Circle cx={way.from[0]} cy={way.from[1]} r={0.45} fill="#ffffff" stroke={wayColour} strokeWidth={0.18} />
      )}
      {way && <Circle cx={way.to[0]} cy={way.to[1]} r={0.45} fill={wayColour} />}
    </Svg>
  )
}

function Shape({ shape, colours }: { shape: ViewShape; colours: Readonly<Record<string, string>> }) {
  if (shape.type === 'stone')
    return <Path d={shape.path} fill={colours.stone ?? '#e7e2d6'} stroke={drawn} strokeWidth={0.12} />
  if (shape.type === 'wire') return <Path d={shape.path} fill="none" stroke="#9aa09c" strokeWidth={shape.width} />
  if (shape.type === 'earlier') {
    const { fill, edge, dash } = earlierLook
    return (
      <Path d={shape.path} fill={fill} fillOpacity={0.6} stroke={drawn} strokeWidth={edge} strokeDasharray={dash} />
    )
  }
  if (shape.type === 'thread') return <Path d={shape.path} stroke="#6d6a60" strokeWidth={0.14} />
  const { length, across, corner, mouth, state } = shape
  const look = state ? stateLook[state] : undefined
  return (
    <G transform={`translate(${shape.cx} ${shape.cy}) rotate(${shape.turn})`}>
      <Rect
        x={-length / 2}
        y={-across / 2}
        width={length}
        height={across}
        rx={corner}
        ry={corner}
        fill={look?.fill ?? (colours[shape.role] || '#ffffff')}
        stroke={drawn}
        strokeWidth={look?.edge ?? 0.12}
      />
      {mouth && <Ellipse cx={mouth.at} cy={0} rx={mouth.rx} ry={mouth.ry} fill={drawn} fillOpacity={0.7} />}
      {state === 'passed' && <Path d={`M${-length * 0.32} 0H${length * 0.32}`} stroke={drawn} strokeWidth={0.18} />}
    </G>
  )
}

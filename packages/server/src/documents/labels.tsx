import { View as Box, Document, Page, Path, renderToBuffer, StyleSheet, Svg, Text } from '@react-pdf/renderer'
import { create } from 'qrcode'
import { printable, registerFonts, textFont, titleFont } from './fonts'
import type { Label } from './label'

registerFonts()

const mm = 72 / 25.4
/** A label of the roll, and its place on a sheet of three by eight. */
const [width, height] = [62 * mm, 35 * mm]

const styles = StyleSheet.create({
  sheet: {
    flexDirection: 'row',
    flexWrap: 'wrap',
    paddingHorizontal: 12 * mm,
    paddingVertical: 8 * mm,
    fontFamily: textFont,
  },
  roll: { fontFamily: textFont },
  label: { width, height, padding: 2.5 * mm, flexDirection: 'row', gap: 2 * mm },
  words: { flex: 1 },
  title: { fontSize: 8.5, fontWeight: 600, lineHeight: 1.15, maxLines: 3, textOverflow: 'ellipsis' },
  figure: { fontFamily: titleFont, fontWeight: 600, fontSize: 15, lineHeight: 1.25 },
  line: { fontSize: 7, lineHeight: 1.2, maxLines: 2, textOverflow: 'ellipsis' },
  code: { fontSize: 6, textAlign: 'center', marginTop: 1 },
})

/** Sets labels on a roll, one a page, or on sheets of A4 to be cut. */
export function renderLabels(labels: readonly Label[], paper: 'roll' | 'A4'): Promise<Uint8Array> {
  const each = labels.map((label) => <OneLabel key={label.code} label={label} />)
  return renderToBuffer(
    <Document title="Labels" creator="Tessellum">
      {paper === 'roll' ? (
        each.map((label) => (
          // A hair more than the label, or rounding would not let it fit.
          <Page key={label.key} size={[width, height + 1]} style={styles.roll}>
            {label}
          </Page>
        ))
      ) : (
        <Page size="A4" style={styles.sheet}>
          {each}
        </Page>
      )}
    </Document>,
  )
}

function OneLabel({ label }: { label: Label }) {
  const { title, lines, figure, code } = printable(label).value
  const { modules } = create(code, { errorCorrectionLevel: 'M' })
  const dark: string[] = []
  for (let y = 0; y < modules.size; y++)
    for (let x = 0; x < modules.size; x++) if (modules.get(y, x)) dark.push(`M${x} ${y}h1v1h-1z`)
  return (
    <Box style={styles.label} wrap={false}>
      <Box style={styles.words}>
        <Text style={styles.title}>{title}</Text>
        <Text style={styles.figure}>{figure}</Text>
        {lines.filter(Boolean).map((line) => (
          <Text key={line} style={styles.line}>
            {line}
          </Text>
        ))}
      </Box>
      <Box>
        <Svg viewBox={`0 0 ${modules.size} ${modules.size}`} style={{ width: 17 * mm, height: 17 * mm }}>
          <Path d={dark.join('')} fill="#000000" />
        </Svg>
        <Text style={styles.code}>{code}</Text>
      </Box>
    </Box>
  )
}

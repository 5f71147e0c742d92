import { View as Box, Link, Text } from '@react-pdf/renderer'
import type { WrittenEdition } from '@tessellum/core/writing/edition'
import { capital, type Words } from '@tessellum/core/writing/language'
import { maxTicks, ticked } from '@tessellum/core/writing/layout'
import { techniqueColours } from '@tessellum/core/writing/techniques'
import type { MaterialRow, WrittenPattern } from '@tessellum/core/writing/written-pattern'
import { Drawing, Swatch } from './figures'
import { type Heading, ink, styles } from './styles'

interface TitleProps {
  readonly h2: Heading
  readonly children: string
  /** On a page of its own. */
  readonly begins?: boolean
  readonly id?: string
}

/** A heading, never at the foot of a page, and among the bookmarks. */
export function Title({ h2, children, begins = false, id }: TitleProps) {
  // Any box takes a bookmark, which the library's types say of pages only.
  const named = { bookmark: children, ...(id === undefined ? {} : { id }) }
  return (
    <Box {...named} minPresenceAhead={70} wrap={false} break={begins}>
      <Text style={h2}>{children}</Text>
    </Box>
  )
}

export function Contents({ written, h2 }: { written: WrittenPattern; h2: Heading }) {
  return (
    <Box>
      <Title h2={h2}>{written.words.contents}</Title>
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

export const CardHead = ({ words }: { words: Words }) => (
  <Box style={styles.row}>
    <Text style={[styles.number, { marginRight: 8 }]} />
    <Text style={[{ flex: 2 }, styles.counts]}>{words.notation}</Text>
    <Text style={[{ flex: 1 }, styles.counts]}>{words.count}</Text>
    <Text style={[{ flex: 1.2 }, styles.counts]}>{words.soFar}</Text>
  </Box>
)

export function Tables({ written, h2, scale }: { written: WrittenPattern; h2: Heading; scale: number }) {
  const { words, sizes, roles, colourways, makers } = written
  const narrow = 30 * scale
  return (
    <Box>
      {sizes.length > 0 && <Title h2={h2}>{words.sizes}</Title>}
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
      {colourways.length > 0 && <Title h2={h2}>{words.colourways}</Title>}
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
      {makers.length > 0 && <Title h2={h2}>{words.makers}</Title>}
      {makers.map((line) => (
        <Text key={line}>{line}</Text>
      ))}
    </Box>
  )
}

export function Materials({ rows, words, scale }: { rows: readonly MaterialRow[]; words: Words; scale: number }) {
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

interface TechniquesProps {
  readonly written: WrittenPattern
  readonly views: NonNullable<WrittenEdition['drawings']>['techniques'] | undefined
  readonly h2: Heading
}

/** Each once, on a small piece of its own. */
export function Techniques({ written: { words, techniques }, views, h2 }: TechniquesProps) {
  if (techniques.length === 0) return null
  return (
    <Box break>
      <Title h2={h2}>{words.techniques}</Title>
      {techniques.map(({ name, title, text }) => {
        const shown = views?.[name]
        return (
          <Box key={name} style={styles.technique} wrap={false}>
            {shown && <Drawing view={shown.view} colours={techniqueColours} style={{ width: 84, height: 78 }} />}
            <Box style={{ flex: 1 }}>
              <Text style={styles.strong}>{title}</Text>
              <Text>{text}</Text>
            </Box>
          </Box>
        )
      })}
    </Box>
  )
}

/** A box for each time that a step is done. */
export function Ticks({ written: { words, parts }, h2 }: { written: WrittenPattern; h2: Heading }) {
  const steps = ticked(parts)
  if (steps.length < 2) return null
  return (
    <Box break>
      <Title h2={h2}>{words.tickOff}</Title>
      <Box style={styles.row}>
        <Text style={[styles.number, { marginRight: 8 }]} />
        <Text style={[{ width: 150 }, styles.counts]}>{words.count}</Text>
      </Box>
      {steps.map(({ number, added, times }) => (
        <Box key={number} style={styles.row} wrap={false}>
          <Text style={[styles.number, { marginRight: 8 }]}>{number}</Text>
          <Text style={{ width: 150, paddingRight: 8 }}>{added}</Text>
          <Box style={[styles.ticks, { flex: 1 }]}>
            {Array.from({ length: times > maxTicks ? 1 : times }, (_, i) => (
              <Box key={i} style={styles.tick} />
            ))}
            {times > maxTicks && <Text>{times} x</Text>}
          </Box>
        </Box>
      ))}
    </Box>
  )
}

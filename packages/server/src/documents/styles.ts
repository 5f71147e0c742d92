import { StyleSheet } from '@react-pdf/renderer'
import { textFont, titleFont } from './fonts'

export const ink = '#22302b'
const quiet = '#5d6a63'
export const styles = StyleSheet.create({
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
  cover: { flex: 1, alignItems: 'center', justifyContent: 'center', gap: 16 },
  coverTitle: { fontFamily: titleFont, fontWeight: 600, fontSize: 36, lineHeight: 1.15, textAlign: 'center' },
  coverFacts: { color: quiet, textAlign: 'center' },
  from: { fontFamily: titleFont, fontWeight: 600, fontSize: 14 },
  technique: { flexDirection: 'row', gap: 12, marginBottom: 10 },
  tick: { width: 10, height: 10, borderWidth: 1, borderColor: ink, borderRadius: 1.5, marginRight: 4, marginBottom: 2 },
  ticks: { flexDirection: 'row', flexWrap: 'wrap', alignItems: 'center' },
  pictures: { flexDirection: 'row', flexWrap: 'wrap', gap: 8, marginTop: 5 },
  fault: { borderWidth: 1.5, borderColor: '#9c4a35' },
  draft: { position: 'absolute', top: 20, right: 52, fontSize: 10, fontWeight: 600, color: '#9c4a35' },
})

/** A heading's style, in its size on a sheet. */
export type Heading = [typeof styles.h2, { fontSize: number; color: string }]

/** A shop with two patterns: one in two sizes, two versions and two colourways, the other without a colourway. */
import type { Colourway } from '@tessellum/contract/colourways'
import type { Pattern, VersionText } from '@tessellum/contract/patterns'
import { fakeWorkers } from './fake-worker'

const named = [
  { id: 1, title: 'Windlass pendant', version: 2 },
  { id: 2, title: 'Heron earrings', version: 1 },
]

const version = (number: number): VersionText => ({
  number,
  name: `v${number}`,
  note: '',
  published: false,
  corrects: null,
  madeAt: '2026-01-01T00:00:00Z',
  madeBy: 'Bram',
  source: 'pattern Windlass pendant',
})

const pattern = (id: number): Pattern => ({
  id,
  title: named[id - 1]?.title ?? '',
  version: named[id - 1]?.version ?? null,
  savedAt: '2026-01-01T00:00:00Z',
  savedBy: 'Bram',
  changed: false,
  tags: [],
  season: '',
  place: 'in the shop',
  source: 'pattern Windlass pendant',
  drawn: null,
  revision: 3,
  versions: id === 1 ? [version(2), version(1)] : [version(1)],
})

const colourway = (id: number, name: string): Colourway => ({
  id,
  patternId: 1,
  name,
  version: 4,
  batchId: null,
  choices: [],
})

/** What has been read of them, for `show`. */
export const patternsRead: readonly [readonly unknown[], unknown][] = [
  [['patterns'], named],
  [['patterns', 1], pattern(1)],
  [['patterns', 2], pattern(2)],
  [['versions', 1, 2], version(2)],
  [['versions', 1, 1], version(1)],
  [['versions', 2, 1], version(1)],
  [
    ['colourways', 1],
    [colourway(11, 'Lantern'), colourway(12, 'Old gold')],
  ],
  [['colourways', 2], []],
]

/** Their texts are evaluated as being in two sizes, "classic" the usual one. */
export const evaluatedInTwoSizes = () =>
  fakeWorkers({
    evaluate: () => ({ evaluate: async () => ({ sizes: ['classic', 'petite'], size: 'classic', sound: true }) }),
  })

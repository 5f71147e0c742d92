/** Who may know whom: packages by what they declare, folders only downward. docs/architecture.md says what each of them is for. */
import { readdirSync, readFileSync } from 'node:fs'
import path from 'node:path'

const packages = path.join(__dirname, '../../packages')

/** Of a package's `src`, from what knows most to what knows nobody. Files stand for themselves. */
const layers: Readonly<Record<string, readonly string[]>> = {
  core: [
    ...[
      'hand',
      'writing',
      'desk',
      'substitute',
      'drawing',
      'teach',
      'form',
      'allocation',
      'evaluate',
      'stock',
      'kit',
      'colour',
    ],
    ...['report', 'stitch', 'sizing', 'notation', 'thread', 'catalogue', 'measure'],
  ],
  server: [
    ...['main.ts', 'set-up.ts', 'verify.ts', 'app.ts', 'pruning.ts', 'begin', 'demo', 'worker.ts'],
    ...[
      'archive',
      'changes',
      'diary',
      'classes',
      'orders',
      'sales',
      'customers',
      'devices',
      'packing',
      'batches',
      'buying',
      'planning',
    ],
    ...['editions', 'patterns', 'colourways', 'stock', 'people', 'settings', 'verify'],
    ...['shop.ts', 'drawings', 'forms', 'jobs', 'documents', 'audit', 'http', 'idempotency', 'schema', 'database'],
    ...['problem.ts', 'context.ts', 'config.ts', 'loop-watch.ts'],
  ],
}

/** What each package may know of the others. */
const known: Readonly<Record<string, readonly string[]>> = {
  core: [],
  contract: ['core'],
  server: ['core', 'contract'],
  web: ['core', 'contract'],
  cli: ['core', 'contract'],
  'stand-ins': [],
}

const sourcesOf = (name: string): string[] =>
  readdirSync(path.join(packages, name, 'src'), { recursive: true, encoding: 'utf8' }).filter((file) =>
    /\.tsx?$/.test(file),
  )

/** What a file imports, as it is written; also for its types only, or when it is needed. */
function importsOf(name: string, file: string): string[] {
  const text = readFileSync(path.join(packages, name, 'src', file), 'utf8')
  const found = text.matchAll(/^(?:import|export) (?:[^'"]*? from )?'([^']+)'|import\('([^']+)'\)/gm)
  return [...found].map(([, plain, later]) => plain ?? later ?? '')
}

const topOf = (file: string) => file.split(path.sep)[0] ?? ''

test.each(Object.entries(layers))('in %s, folders know only those beneath them', (name, order) => {
  const upward: string[] = []
  for (const file of sourcesOf(name))
    for (const each of importsOf(name, file).filter((each) => each.startsWith('.'))) {
      const target = path.join(path.dirname(file), each)
      // The demo shop's patterns and shelf are files beside the packages.
      if (target.startsWith('..')) continue
      const [from, to] = [topOf(file), order.includes(topOf(target)) ? topOf(target) : `${topOf(target)}.ts`]
      if (from === to) continue
      const [at, beneath] = [order.indexOf(from), order.indexOf(to)]
      if (at < 0 || beneath < at) upward.push(`${file} knows ${target}`)
    }
  expect(upward).toEqual([])
})

test.each(Object.entries(known))('%s declares what it imports, and knows no other package than it may', (name, may) => {
  const { dependencies = {}, devDependencies = {} } = JSON.parse(
    readFileSync(path.join(packages, name, 'package.json'), 'utf8'),
  )
  const declared = new Set([...Object.keys(dependencies), ...Object.keys(devDependencies)])
  expect([...declared].filter((each) => each.startsWith('@tessellum/')).sort()).toEqual(
    may.map((each) => `@tessellum/${each}`).sort(),
  )
  const undeclared = sourcesOf(name).flatMap((file) =>
    importsOf(name, file)
      .filter((each) => !each.startsWith('.') && !each.startsWith('node:') && !each.startsWith('virtual:'))
      .map((each) => each.split('/', each.startsWith('@') ? 2 : 1).join('/'))
      .filter((each) => !declared.has(each))
      .map((each) => `${file} imports ${each}`),
  )
  expect(undeclared).toEqual([])
})

test('nothing of the product imports the stand-ins, and the server and the pages meet in the contract', () => {
  for (const [name, may] of Object.entries(known))
    for (const file of sourcesOf(name))
      for (const each of importsOf(name, file).filter((each) => each.startsWith('@tessellum/')))
        expect(may).toContain(each.split('/')[1])
})

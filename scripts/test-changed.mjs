/**
 * `npm run test:changed`: the tests that a change can touch. The change is what is not committed, or else the last commit; `-- --since REV` takes
 * everything since a revision.
 */
import { existsSync, readdirSync } from 'node:fs'
import path from 'node:path'
import { root } from './set-up/places.mjs'
import { must, run } from './set-up/run.mjs'
import { runMain, say } from './set-up/say.mjs'

/** Tests that take most of a minute, each with the folders whose change asks for it. Others leave it to `npm test`. */
const slow = {
  'packages/core/test/form.test.ts': ['packages/core/src/form', 'packages/core/kernel'],
  'packages/core/test/long.test.ts': ['packages/core/src/form/long.ts'],
  'packages/core/test/desk.test.ts': ['packages/core/src/desk', 'packages/core/src/sizing'],
  'packages/core/test/counting.test.ts': ['packages/core/src/sizing/counting.ts'],
  'packages/cli/test/tessellum.test.ts': ['packages/cli/src'],
}

/** Tests of the server that have another name than the folder they are about. */
const serverTests = {
  batches: ['batches', 'allocation', 'competing', 'ready-kits'],
  planning: ['buying', 'allocation', 'competing'],
  orders: ['classes'],
  diary: ['classes'],
  idempotency: ['done-once'],
  jobs: ['jobs', 'work'],
  http: ['fuzz', 'upkeep'],
  stock: ['stock', 'stock-file', 'shelf'],
  demo: ['demo'],
  editions: ['writing'],
  documents: ['writing'],
}

const git = async (...args) => (await must('git', args, { cwd: root })).split('\n').filter(Boolean)

async function changedFiles(since) {
  if (since) return git('diff', '--name-only', since)
  const open = [...(await git('diff', '--name-only', 'HEAD')), ...(await git('ls-files', '-o', '--exclude-standard'))]
  return open.length > 0 ? open : git('diff', '--name-only', 'HEAD~1')
}

/** By what imports what. */
async function importers(files) {
  if (files.length === 0) return []
  const projects = ['core', 'cli', 'web', 'components', 'set-up']
  const args = ['jest', '--selectProjects', ...projects, '--listTests', '--findRelatedTests', ...files]
  const { output } = await run('npx', args, { cwd: root })
  return output
    .split('\n')
    .filter((line) => line.startsWith(root))
    .map((line) => path.relative(root, line))
}

const isTest = (file) => /\.test\.tsx?$/.test(file)

await runMain(async () => {
  const at = process.argv.indexOf('--since')
  const files = (await changedFiles(at < 0 ? undefined : process.argv[at + 1])).filter((file) =>
    existsSync(path.join(root, file)),
  )
  const code = files.filter((file) => /\.(ts|tsx|mjs|cjs|css|tess|grammar|md)$/.test(file))
  const tests = new Set(code.filter(isTest))
  for (const test of await importers(
    code.filter((file) => /\.tsx?$/.test(file) && !file.startsWith('packages/server/')),
  ))
    tests.add(test)
  const there = readdirSync(path.join(root, 'packages/server/test'))
  for (const file of code) {
    const [, folder] = /^packages\/server\/src\/([^/]+)\//.exec(file) ?? []
    for (const name of folder ? (serverTests[folder] ?? [folder]) : [])
      if (there.includes(`${name}.test.ts`)) tests.add(`packages/server/test/${name}.test.ts`)
    if (file.startsWith('demo/')) tests.add('packages/server/test/demo.test.ts')
    if (/^(packages\/server\/src|packages\/web\/src|scripts)\//.test(file)) tests.add('scripts/test/layers.test.ts')
    if (file.endsWith('.css')) tests.add('scripts/test/styles.test.ts')
  }
  const left = [...tests].filter(
    (test) =>
      slow[test] &&
      !files.includes(test) &&
      !files.some((file) => slow[test].some((folder) => file.startsWith(folder))),
  )
  for (const test of left) tests.delete(test)
  if (left.length > 0) say(`Left to npm test, since they take long:\n  ${left.join('\n  ')}`)
  if (tests.size === 0) {
    say(`No test is about what has changed (${files.length} files).`)
    return
  }
  say(`${tests.size} test files for ${files.length} changed files.`)
  const needsServer = [...tests].some((test) => /^(e2e|packages\/server)\//.test(test))
  const byPath = ['--runTestsByPath', ...tests]
  const [command, args] = needsServer
    ? ['node', ['scripts/test.mjs', ...byPath]]
    : ['npx', ['jest', '--maxWorkers=2', ...byPath]]
  const { code: ended } = await run(command, args, { cwd: root, show: true })
  process.exitCode = ended
})

/** Styles belong to their component: no class without a rule, no rule without an element, and nothing global but what base.css has. */
import { readdirSync, readFileSync } from 'node:fs'
import path from 'node:path'

const web = path.join(__dirname, '../../packages/web/src')
const filesOf = (kind: RegExp): string[] =>
  readdirSync(web, { recursive: true, encoding: 'utf8' }).filter((file) => kind.test(file))
const textOf = (file: string) => readFileSync(path.join(web, file), 'utf8')

/** The classes of a style sheet; without those of others that it names. */
const classesOf = (file: string): ReadonlySet<string> => {
  const selectors = textOf(file)
    .replaceAll(/\/\*.*?\*\//gs, '')
    .replaceAll(/:global\([^)]*\)/g, '')
    .replaceAll(/\{[^{}]*\}/g, '{}')
  return new Set([...selectors.matchAll(/\.([a-z][\w-]*)/gi)].map(([, name = '']) => name))
}

const sources = filesOf(/\.tsx?$/).map((file) => ({ file, text: textOf(file) }))
const modules = filesOf(/\.module\.css$/)

/** What a source takes from its modules: which class, or undefined where it looks one up by a name it has worked out. */
const taken = sources.flatMap(({ file, text }) =>
  [...text.matchAll(/import (\w+) from '([^']*\.module\.css)'/g)].flatMap(([, name = '', from = '']) =>
    [...text.matchAll(new RegExp(`\\b${name}(?:\\.(\\w+)|\\[)`, 'g'))].map(([, wanted]) => ({
      file,
      module: path.join(path.dirname(file), from),
      wanted,
    })),
  ),
)

test('every class that is asked of a module is there', () => {
  expect(taken.length).toBeGreaterThan(300)
  expect(taken.filter(({ module, wanted }) => wanted && !classesOf(module).has(wanted))).toEqual([])
})

test('every class of a module is asked for', () => {
  const unused = modules.flatMap((module) => {
    const asked = taken.filter((each) => each.module === module)
    // Looked up by the name of a state, a tone, a severity.
    if (asked.some(({ wanted }) => wanted === undefined)) return []
    return [...classesOf(module)]
      .filter((name) => asked.every(({ wanted }) => wanted !== name))
      .map((name) => `${module} ${name}`)
  })
  expect(unused).toEqual([])
})

test('a class that is not a module’s stands in base.css', () => {
  const known = classesOf('base.css')
  const stray = sources.flatMap(({ file, text }) =>
    [...text.matchAll(/className=(?:"([^"]*)"|\{`([^`]*)`\})/g)]
      .flatMap(([, plain, made]) => (plain ?? made ?? '').replaceAll(/\$\{[^}]*\}/g, '').split(/\s+/))
      .filter((name) => name !== '' && !known.has(name))
      .map((name) => `${file} ${name}`),
  )
  expect(stray).toEqual([])
})

import { capital } from './language'
import { languages } from './languages'
import type { ShownPicture } from './pictures'
import type { WrittenPattern } from './written-pattern'

/**
 * A written pattern as Markdown.
 *
 * @param sources by its number, where a picture is found; named at the end, so that the text can be read as it is
 */
export function toMarkdown(written: WrittenPattern, sources: Readonly<Record<number, string>> = {}): string {
  const { words, roles, sizes, colourways, makers } = written
  const language = languages[written.language]
  const section = (title: string, lines: readonly string[]) =>
    lines.length > 0 ? [`## ${title}`, '', ...lines, ''] : []
  const picture = ({ id, kind, caption }: ShownPicture): string[] => {
    if (!sources[id]) return []
    const said = kind === 'fault' ? [words.notLikeThis, caption].filter(Boolean).join(': ') : caption
    return [`![${escaped(said || (kind === 'finished' ? words.finishedPiece : words.thisStep))}][picture-${id}]`]
  }
  const { finished, faults } = written.pictures
  const shown = [
    ...finished,
    ...faults,
    ...written.parts.flatMap(({ steps }) => steps.flatMap((step) => step.pictures)),
  ]
  const parts = written.parts.flatMap((part) => [
    `## ${escaped(capital(part.name || words.steps))}`,
    '',
    ...part.steps.map((step) => {
      const check = step.kind === 'check' ? `**${words.check}** ` : ''
      const also = step.also ? `\n   *${escaped(step.also)}*` : ''
      const looks = step.looks ? `\n   ${escaped(step.looks)}` : ''
      const counts = step.added ? `\n   ${language.picked(step.added, step.running)}` : ''
      const begins = step.begins ? `${step.begins} ` : ''
      return `${step.number}. ${check}${begins}${escaped(step.text)}${also}${looks}${counts}${step.pictures
        .flatMap(picture)
        .map((each) => `\n   ${each}`)
        .join('')}`
    }),
    '',
  ])
  return [
    `# ${escaped(written.title)}`,
    '',
    written.facts.map(escaped).join(', '),
    '',
    `${written.effort.map(capital).join('. ')}.`,
    '',
    ...finished
      .slice(0, 1)
      .flatMap(picture)
      .flatMap((each) => [each, '']),
    ...(written.draft ? [`**${words.draftMark}**`, ''] : []),
    ...section(words.materials, [
      ...table(
        ['', words.item, words.exact, words.weight, words.inKit],
        written.materials.map((row) => [row.roles, row.name, row.exact, row.weight, row.inKit]),
      ),
      '',
      ...written.thread.map((line) => `${line}\n`),
      `${words.tools}: ${language.list(written.tools)}.`,
    ]),
    ...section(
      words.sizes,
      sizes.length === 0
        ? []
        : table(
            [words.size, ...roles, words.thread, words.finished, words.ring],
            sizes.map((row) => [row.name, ...row.counts.map(String), row.thread, row.finished, row.ring]),
          ),
    ),
    ...section(
      words.colourways,
      colourways.map(
        ({ name, choices }) =>
          `- **${escaped(name)}**: ${choices.map((each) => `${each.roles} ${escaped(each.name)}`).join('; ')}`,
      ),
    ),
    ...section(
      words.makers,
      makers.map((line) => `- ${escaped(line)}`),
    ),
    ...section(
      words.takeCare,
      written.cautions.map((caution) => `- ${caution}`),
    ),
    ...parts,
    ...section(words.finishedPiece, finished.slice(1).flatMap(picture)),
    ...section(words.faultsToAvoid, faults.flatMap(picture)),
    ...(written.totals ? [language.inOnePiece(written.totals), ''] : []),
    ...section(
      words.wear,
      written.wear.map((line) => `- ${line}`),
    ),
    ...section(
      words.errata,
      written.errata.map((line) => `- ${escaped(line)}`),
    ),
    ...(written.shop.length > 0 ? ['---', '', `${written.shop.map(escaped).join('  \n')}`, ''] : []),
    ...shown.flatMap(({ id }) => (sources[id] ? [`[picture-${id}]: ${sources[id]}`] : [])),
  ].join('\n')
}

const table = (head: readonly string[], rows: readonly (readonly string[])[]): string[] => [
  `| ${head.join(' | ')} |`,
  `|${head.map(() => '---').join('|')}|`,
  ...rows.map((row) => `| ${row.map(escaped).join(' | ')} |`),
]

const escaped = (text: string) => text.replace(/([\\`*_{}[\]<>|])/g, '\\$1')

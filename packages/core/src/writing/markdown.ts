import { capital, list, sayPicked } from './english'
import type { WrittenPattern } from './written-pattern'

/** A written pattern as Markdown. */
export function toMarkdown(written: WrittenPattern): string {
  const rows = written.materials.map((row) => `| ${row.roles} | ${escaped(row.name)} | ${row.exact} | ${row.inKit} |`)
  const parts = written.parts.flatMap((part) => [
    `## ${capital(part.name || 'steps')}`,
    '',
    ...part.steps.map((step) => {
      const check = step.kind === 'check' ? '**Check:** ' : ''
      const counts = step.added ? `\n   ${sayPicked(step)}` : ''
      return `${step.number}. ${check}${escaped(step.text)}${counts}`
    }),
    '',
  ])
  return [
    `# ${escaped(written.title)}`,
    '',
    written.facts.join(', '),
    '',
    ...(written.draft ? ['**DRAFT: not for sale or teaching**', ''] : []),
    '## Materials',
    '',
    '| | Item | Exact | In the kit |',
    '|---|---|---|---|',
    ...rows,
    '',
    ...written.thread.map((line) => `${line}\n`),
    `Tools: ${list(written.tools)}.`,
    '',
    '## Take care',
    '',
    ...written.cautions.map((caution) => `- ${caution}`),
    '',
    ...parts,
    ...(written.totals ? [`In one piece: ${written.totals}.`, ''] : []),
  ].join('\n')
}

const escaped = (text: string) => text.replace(/([\\`*_{}[\]<>|])/g, '\\$1')

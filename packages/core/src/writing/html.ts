import { capital, list, sayPicked } from './english'
import type { WrittenPattern } from './written-pattern'

/** A written pattern as a page of its own that needs nothing else. */
export function toHtml(written: WrittenPattern): string {
  const row = (cells: readonly string[], tag: 'td' | 'th') =>
    `<tr>${cells.map((cell) => `<${tag}>${escaped(cell)}</${tag}>`).join('')}</tr>`
  const steps = written.parts.map(
    (part) => `<h2>${escaped(capital(part.name || 'steps'))}</h2>
<ol>
${part.steps
  .map((step) => {
    const counts = step.added ? `<br><small>${escaped(sayPicked(step))}</small>` : ''
    return `<li value="${step.number}">${step.kind === 'check' ? '<strong>Check:</strong> ' : ''}${escaped(step.text)}${counts}</li>`
  })
  .join('\n')}
</ol>`,
  )
  return `<!doctype html>
<html lang="en-GB">
<meta charset="utf-8">
<title>${escaped(written.title)}</title>
<style>body{font:16px/1.5 sans-serif;max-width:46em;margin:2em auto;padding:0 1em}table{border-collapse:collapse;width:100%}td,th{border-bottom:1px solid #ccc;padding:.3em .5em .3em 0;text-align:left}li{margin:.4em 0}</style>
<h1>${escaped(written.title)}</h1>
<p>${escaped(written.facts.join(', '))}</p>
${written.draft ? '<p><strong>DRAFT: not for sale or teaching</strong></p>' : ''}
<h2>Materials</h2>
<table>
${row(['', 'Item', 'Exact', 'In the kit'], 'th')}
${written.materials.map((each) => row([each.roles, each.name, each.exact, each.inKit], 'td')).join('\n')}
</table>
${written.thread.map((line) => `<p>${escaped(line)}</p>`).join('\n')}
<p>Tools: ${escaped(list(written.tools))}.</p>
<h2>Take care</h2>
<ul>${written.cautions.map((caution) => `<li>${escaped(caution)}</li>`).join('')}</ul>
${steps.join('\n')}
${written.totals ? `<p><strong>In one piece: ${escaped(written.totals)}.</strong></p>` : ''}
</html>
`
}

const escaped = (text: string) =>
  text.replace(/&/g, '&amp;').replace(/</g, '&lt;').replace(/>/g, '&gt;').replace(/"/g, '&quot;')

/** Reads a written pattern's own numbers back from its HTML, as a person would, and says where they do not agree with what was computed. */
import type { BillLine } from '../src/kit/bill'
import type { Report } from '../src/report/report'

const words = {
  en: {
    picked: /Picked up: ([^.]*)\.(?: So far: ([^.]*)\.)?/,
    total: /In one piece: ([^.]*)\./,
  },
  de: {
    picked: /Aufgenommen: ([^.]*)\.(?: Bisher: ([^.]*)\.)?/,
    total: /In einem Stück: ([^.]*)\./,
  },
  fr: {
    picked: /Prises: ([^.]*)\.(?: Jusqu(?:'|&#39;)ici: ([^.]*)\.)?/,
    total: /Dans une pièce: ([^.]*)\./,
  },
  nl: {
    picked: /Opgenomen: ([^.]*)\.(?: Tot nu toe: ([^.]*)\.)?/,
    total: /In één stuk: ([^.]*)\./,
  },
}

type Counts = Record<string, number>

const textOf = (html: string) =>
  html
    .replace(/<[^>]+>/g, ' ')
    .replace(/&middot;/g, '·')
    .replace(/&amp;/g, '&')
    .replace(/\s+/g, ' ')
    .trim()

function countsIn(text: string): Counts {
  const counts: Counts = {}
  for (const [, count, role] of text.matchAll(/(\d+) ([A-Z][A-Za-z0-9]*)/g))
    counts[role as string] = (counts[role as string] ?? 0) + Number(count)
  return counts
}

const same = (a: Counts, b: Counts) =>
  [...new Set([...Object.keys(a), ...Object.keys(b)])].every((role) => (a[role] ?? 0) === (b[role] ?? 0))

/** @returns what does not agree; empty where all does */
export function disagreements(
  html: string,
  language: keyof typeof words,
  report: Report,
  bill: readonly Pick<BillLine, 'roles' | 'exact' | 'unit'>[] = [],
): string[] {
  const { picked, total } = words[language]
  const wrong: string[] = []
  const each: Counts = Object.fromEntries(
    report.beads.filter((bead) => bead.each > 0).map(({ role, each }) => [role, each]),
  )
  const sum: Counts = {}
  const steps = [...html.matchAll(/<li class="(?:stitch|check|note)" value="(\d+)"[\s\S]*?<\/li>/g)]
  for (const [step, number] of steps) {
    const text = textOf(step.replace(/<figure>[\s\S]*?<\/figure>/, ''))
    const [, added, running] = picked.exec(text) ?? []
    const told = countsIn(added ?? '')
    for (const [role, count] of Object.entries(told)) sum[role] = (sum[role] ?? 0) + count
    if (running !== undefined && !same(countsIn(running), sum)) wrong.push(`step ${number}: so far ${running}`)
  }
  if (!same(sum, each)) wrong.push(`the steps come to ${JSON.stringify(sum)}, not ${JSON.stringify(each)}`)
  const totals = countsIn(total.exec(textOf(html))?.[1] ?? '')
  if (!same(totals, each)) wrong.push(`in one piece: ${JSON.stringify(totals)}, not ${JSON.stringify(each)}`)
  const rows = [...html.matchAll(/<tr><td class="roles">([\s\S]*?)<\/td>[\s\S]*?<td class="exact">([^<]*)<\/td>/g)].map(
    ([, roles, exact]) => [textOf(roles as string), exact as string] as const,
  )
  const wanted = new Map<string, number>(
    bill.length > 0
      ? bill.filter(({ unit }) => unit !== 'mm').map(({ roles, exact }) => [roles.join(' + '), exact])
      : [...report.beads, ...report.stones].filter((one) => one.total > 0).map((one) => [one.role, one.total]),
  )
  for (const [roles, exact] of wanted) {
    const row = rows.find(([found]) => found === roles)
    if (Number(row?.[1]) !== exact) wrong.push(`materials: ${roles} ${row?.[1]}, not ${exact}`)
  }
  return wrong
}

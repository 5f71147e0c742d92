/** Reads a written pattern's own numbers back from its HTML, as a person would, and says where they do not agree with what was reckoned. */
import type { BillLine } from '../src/kit/bill'
import type { Report } from '../src/report/report'

const words = {
  en: {
    picked: /Picked up: ([^.]*)\.(?: So far: ([^.]*)\.)?/,
    total: /In one piece: ([^.]*)\./,
    ring: /String (\d+) beads: pick up ([^.]+?)(?:, (once|twice|(\d+) times))?\. /,
    round: /pick up ([^;]+?) and pass through [^;]*; (once|twice|(\d+) times) in all/,
    times: { once: 1, twice: 2 } as Record<string, number>,
  },
  de: {
    picked: /Aufgenommen: ([^.]*)\.(?: Bisher: ([^.]*)\.)?/,
    total: /In einem Stück: ([^.]*)\./,
    ring: /(\d+) Perlen auffädeln: ([^.]+?) aufnehmen(?:, (einmal|zweimal|(\d+)-mal))?\. /,
    round: /: ([^;]+?) aufnehmen und [^;]*; insgesamt (einmal|zweimal|(\d+)-mal)/,
    times: { einmal: 1, zweimal: 2 } as Record<string, number>,
  },
}

/** A step that is told once with what changes has numbers of its first turn only. */
const changing = /From turn to turn|Von Mal zu Mal|Turn 1:|1\. Mal:/

type Counts = Record<string, number>

const textOf = (html: string) =>
  html
    .replace(/<[^>]+>/g, ' ')
    .replace(/&middot;/g, '·')
    .replace(/&amp;/g, '&')
    .replace(/\s+/g, ' ')
    .trim()

function countsIn(text: string, times = 1): Counts {
  const counts: Counts = {}
  for (const [, count, role] of text.matchAll(/(\d+) ([A-Z][A-Za-z0-9]*)/g))
    counts[role as string] = (counts[role as string] ?? 0) + Number(count) * times
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
  const { picked, total, ring, round, times } = words[language]
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
    if (changing.test(text)) continue
    // What the sentence itself tells to pick up, where it is done once.
    const strung = ring.exec(text)
    if (strung) {
      const [, beads, list = '', word = '', many] = strung
      const counts = countsIn(list, word ? (times[word] ?? Number(many)) : 1)
      const all = Object.values(counts).reduce((a, b) => a + b, 0)
      if (all !== Number(beads)) wrong.push(`step ${number}: ${beads} beads, but ${all} are told`)
      if (!same(counts, told) && report.statements.every(({ turns }) => turns.length === 0))
        if (Object.entries(told).some(([role, count]) => count % (counts[role] ?? 1) !== 0))
          wrong.push(`step ${number}: "${list}" makes no ${added}`)
    }
    const gone = round.exec(text)
    if (gone) {
      const [, list = '', word = '', many] = gone
      const counts = countsIn(list, times[word] ?? Number(many))
      if (Object.entries(told).some(([role, count]) => count % (counts[role] ?? 1) !== 0))
        wrong.push(`step ${number}: "${list}" ${word} makes no ${added}`)
    }
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

import { counted } from '@tessellum/core/measure/counted'
import { sayLength } from '@tessellum/core/measure/units'
import type { Report } from '@tessellum/core/report/report'
import { sayCrowding } from '@tessellum/core/thread/crowding'
import { sayCounts } from '@tessellum/core/writing/language'
import { readArguments } from './arguments'
import { orFaults, patternOptions, reportFile } from './pattern'

/** `report FILE`: counts, thread, statements, crowding and diagnostics. */
export function report(args: string[]): string {
  const { values, positionals } = readArguments(args, patternOptions)
  const found = reportFile(positionals[0], values)
  return orFaults(found, values.json ? `${JSON.stringify(asJson(found), null, 2)}\n` : asText(found))
}

/** The part of a report that scripts rely on. */
function asJson({ pattern, makes, size, beads, stones, items, thread, statements, crowding, diagnostics }: Report) {
  return {
    pattern,
    makes,
    size,
    beads: beads.map(({ role, kind, size, label, each, total }) => ({ role, kind, size, label, each, total })),
    stones: stones.map(({ role, label, each, total }) => ({ role, label, each, total })),
    items,
    thread,
    statements: statements.map(({ line, text, times, stitches, added, totals, threadMm }) => ({
      line,
      text,
      times,
      stitches,
      added,
      totals,
      threadMm,
    })),
    crowding,
    diagnostics: diagnostics.map(({ severity, line, column, message, mend }) => ({
      severity,
      line,
      column,
      message,
      ...(mend === undefined ? {} : { mend }),
    })),
  }
}

function asText(found: Report): string {
  const lines = [
    `${found.pattern}${found.size ? `, ${found.size}` : ''}, makes ${found.makes}`,
    ...found.beads.map(
      ({ role, kind, size, label, each, total }) =>
        `  ${role}  ${kind} ${size}${label ? `, ${label}` : ''}: ${each}${total === each ? '' : `, ${total} in all`}`,
    ),
    `Thread: ${sayLength(found.thread.pathMm)} along the beads; cut ${found.thread.cuts.map(sayLength).join(', ') || 'nothing'}`,
    '',
    ...found.statements.map(({ line, text, stitches, added, threadMm }) => {
      const did = [
        stitches ? counted(stitches, 'stitch', 'stitches') : '',
        sayCounts(added),
        threadMm ? sayLength(threadMm) : '',
      ]
        .filter(Boolean)
        .join('; ')
      return `${String(line).padStart(4)}  ${text}${did ? `    [${did}]` : ''}`
    }),
    '',
    ...found.crowding.map((fullest) => `${fullest.role}, at most ${sayCrowding(fullest)} (line ${fullest.line})`),
    ...found.diagnostics.map(
      ({ severity, line, column, message, mend }) =>
        `${severity} ${line}:${column} ${message}${mend ? ` ${mend}` : ''}`,
    ),
  ]
  return `${lines.join('\n')}\n`
}

import type { LineOutlook, Outlook } from '@tessellum/contract/batches'

/** What the shelf allows for one line, in a sentence. */
export function CouldMake({ line, kits, items }: { line: LineOutlook; kits: number; items: Outlook['items'] }) {
  if (line.troubles.length > 0) return <span className="trouble">{line.troubles.join(' ')}</span>
  const by = line.limitedBy.map((id) => items.find((item) => item.itemId === id)?.name ?? '').filter(Boolean)
  return (
    <span className={line.together < kits ? 'trouble' : 'quiet'}>
      the shelf allows <strong className="figures">{line.couldMake}</strong>
      {line.together < Math.min(line.couldMake, kits) && (
        <>
          , <strong className="figures">{line.together}</strong> beside the other lines
        </>
      )}
      {by.length > 0 && `, limited by ${by.slice(0, 2).join(' and ')}`}
    </span>
  )
}

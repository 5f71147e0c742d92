import { queryOptions, skipToken } from '@tanstack/react-query'

/** What the help says: the same files as under docs/, brought in when they are read. */

const files = import.meta.glob<string>(['../../../../docs/help/*.md', '../../../../docs/notation.md'], {
  query: '?raw',
  import: 'default',
})

const texts = new Map(Object.entries(files).map(([file, load]) => [file.replace(/^.*\/|\.md$/g, ''), load] as const))

/** In the order in which somebody new reads them. */
export const helpPages = [
  { name: 'first-walk', title: 'A first walk' },
  { name: 'bench', title: 'Bench' },
  { name: 'patterns', title: 'Patterns' },
  { name: 'notation', title: 'Notation' },
  { name: 'stock', title: 'Stock' },
  { name: 'kits', title: 'Kits' },
  { name: 'diary', title: 'Diary' },
  { name: 'desk', title: 'Sizing desk' },
  { name: 'counter', title: 'Counter' },
  { name: 'settings', title: 'Settings' },
] as const

/** A page of the help, brought in when it is wanted; nothing where there is no such page. */
export const helpText = (name: string) =>
  queryOptions({
    queryKey: ['help', name],
    queryFn: texts.get(name) ?? skipToken,
    staleTime: Number.POSITIVE_INFINITY,
  })

/** The help for a page of the application, by its address. */
export function helpFor(pathname: string): string {
  const place = pathname.split('/')[1] ?? ''
  return helpPages.find(({ name }) => name === place)?.name ?? 'first-walk'
}

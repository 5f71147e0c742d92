/** Lists by arrows, against a naive second way: all rows in a table of what can be reached in each. */
import fc from 'fast-check'
import { rowBeside } from '../src/frame/row-keys'

/** Rows of the page: how many links and buttons each has, and of which kind of list it is. */
const page = fc.array(fc.record({ reach: fc.nat(3), kind: fc.constantFrom('link', 'row', 'card') }), {
  minLength: 1,
  maxLength: 9,
})

const built = (rows: readonly { reach: number; kind: string }[]) => {
  const main = document.createElement('main')
  const table: HTMLElement[][] = rows.map(({ reach, kind }) => {
    const list = document.createElement(kind === 'row' ? 'table' : 'div')
    if (kind === 'link') {
      list.className = 'rows'
      list.innerHTML = reach > 0 ? '<a href="/there">there</a>' : '<p>nothing</p>'
    } else if (kind === 'row')
      list.innerHTML = `<tbody><tr><td>${'<button>do</button>'.repeat(reach)}</td></tr></tbody>`
    else list.innerHTML = `<article>${'<a href="/there">there</a>'.repeat(reach)}</article>`
    main.append(list)
    return [...list.querySelectorAll<HTMLElement>('a, button')]
  })
  document.body.replaceChildren(main)
  return { main, table: table.filter((reachable) => reachable.length > 0) }
}

test('down, up, first and last keep to the column where the row has one', () => {
  fc.assert(
    fc.property(
      page,
      fc.nat(),
      fc.nat(),
      fc.constantFrom('ArrowDown', 'ArrowUp', 'Home', 'End', 'x'),
      (rows, r, c, key) => {
        const { main, table } = built(rows)
        if (table.length === 0) return
        const row = r % table.length
        const from = table[row] as HTMLElement[]
        const column = c % from.length
        const to = { ArrowDown: row + 1, ArrowUp: row - 1, Home: 0, End: table.length - 1, x: -1 }[key]
        const there = table[to ?? -1]
        expect(rowBeside(from[column] as HTMLElement, key, main)).toBe(there?.[Math.min(column, there.length - 1)])
      },
    ),
  )
})

test('what stands in no row goes nowhere', () => {
  document.body.innerHTML = '<main><a href="/">a link</a><div class="rows"><a href="/x">a row</a></div></main>'
  const [outside] = document.querySelectorAll('a')
  expect(rowBeside(outside as Element, 'ArrowDown', document)).toBeUndefined()
})

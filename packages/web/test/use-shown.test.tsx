/** What of a pattern is looked at stands in the address, and comes back with it. */
import type { Pattern } from '@tessellum/contract/patterns'
import { act, screen } from '@testing-library/react'
import { useShown } from '../src/patterns/use-shown'
import { patternsRead } from './a-pattern'
import { show } from './on-screen'

let shown: ReturnType<typeof useShown>
function Page({ pattern }: { pattern: Pattern }) {
  shown = useShown(pattern)
  return <output>{JSON.stringify([shown.size, shown.colourway?.name ?? null, shown.options])}</output>
}

const [, [, windlass]] = patternsRead as unknown as [unknown, [unknown, Pattern]]
const source = 'pattern T\nsize classic\nsize petite\nbead A round 11/0\npart p\nring 12A\nfinish'

/** The page's own address, which the router of a test does not write. */
const look = (query: string) => {
  window.history.replaceState(null, '', `/patterns/1${query}`)
  const page = show(<Page pattern={{ ...windlass, source }} />, {
    path: '/patterns/:id',
    at: `/patterns/1${query}`,
    data: [...patternsRead, [['stock'], []], [['samples', 1], { samples: [], correction: { ratio: 1.1, count: 3 } }]],
  })
  page.router.subscribe(({ location }) => window.history.replaceState(null, '', location.pathname + location.search))
  return page
}
const said = () => JSON.parse(screen.getByRole('status').textContent ?? '')

test('without a word in the address: the usual size and the first colourway', () => {
  look('')
  expect(said()).toEqual(['classic', 'Lantern', {}])
  expect(shown.choices).toMatchObject({ size: 'classic', settings: { sampled: { ratio: 1.1, count: 3 } } })
})

test('the address says which; a colourway that is gone is the first, and none is none', () => {
  look('?size=petite&colourway=12&off=tail&on=bail').unmount()
  look('?size=petite&colourway=12&off=tail&on=bail')
  expect(said()).toEqual(['petite', 'Old gold', { tail: false, bail: true }])
  act(() => shown.set('colourway', '999'))
  expect(said()[1]).toBe('Lantern')
  act(() => shown.set('colourway', 'none'))
  expect(said()[1]).toBeNull()
})

test('two quick changes do not undo each other, and an option stands on one side only', () => {
  look('?off=tail')
  act(() => {
    shown.set('size', 'petite')
    shown.setOption('tail', true)
    shown.setOption('bail', false)
  })
  expect(said()).toEqual(['petite', 'Lantern', { tail: true, bail: false }])
  expect(new URLSearchParams(window.location.search).getAll('off')).toEqual(['bail'])
})

test('what is given to who works it out is the same value until something changes', () => {
  look('?size=petite')
  const before = shown.choices
  act(() => shown.set('view', 'back'))
  expect(shown.choices).toBe(before)
  act(() => shown.set('size', 'classic'))
  expect(shown.choices).not.toBe(before)
})

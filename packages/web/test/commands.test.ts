import { mayDo, type Right } from '@tessellum/contract/rights'
import { commandsOf, matching } from '../src/frame/commands'

const known = {
  patterns: [{ id: 1, title: 'Winter rose' }],
  batches: [
    { id: 3, name: 'Winter fair shelf', state: 'draft' as const },
    { id: 4, name: 'Saturday class', state: 'reserved' as const },
    { id: 5, name: 'Summer fair', state: 'closed' as const },
  ],
}
const as = (role: 'stockroom' | 'teacher') => commandsOf((right: Right) => mayDo([role], right), known)
const labels = (commands: ReturnType<typeof as>, typed: string) => matching(commands, typed).map(({ label }) => label)

test('a batch is reserved or packed by its name, as far as it has come', () => {
  expect(labels(as('stockroom'), 'reserve fair')).toEqual(['Reserve Winter fair shelf'])
  expect(matching(as('stockroom'), 'reserve fair')).toMatchObject([{ reserves: 3, to: '/kits/3' }])
  expect(labels(as('stockroom'), 'saturday')).toEqual(['Saturday class', 'Pack Saturday class'])
  expect(labels(as('stockroom'), 'summer')).toEqual(['Summer fair'])
})

test('nothing is offered that the person may not do', () => {
  expect(labels(as('teacher'), 'reserve')).toEqual([])
  expect(labels(as('teacher'), 'saturday')).toEqual(['Saturday class'])
  expect(labels(as('teacher'), 'people')).toEqual([])
})

test('words in any order, and by what it is', () => {
  expect(labels(as('stockroom'), 'winter')).toEqual(['Winter rose', 'Winter fair shelf', 'Reserve Winter fair shelf'])
  expect(labels(as('stockroom'), 'pattern winter')).toEqual(['Winter rose'])
  expect(labels(as('stockroom'), 'shelf  FAIR')).toEqual(['Winter fair shelf', 'Reserve Winter fair shelf'])
})

/** A designer's own words are saved on leaving their field, and none are lost where the shop does not answer. */
import type { Pattern } from '@tessellum/contract/patterns'
import type { StepWords } from '@tessellum/core/writing/step-words'
import type { Step, WrittenPattern } from '@tessellum/core/writing/written-pattern'
import { screen, waitFor, within } from '@testing-library/react'
import { OwnWords } from '../src/writing/own-words'
import { patternsRead } from './a-pattern'
import { changesIn, shopThatAnswers, show } from './on-screen'

const [, [, pattern]] = patternsRead as unknown as [unknown, [unknown, Pattern]]
const step = (number: number, text: string) =>
  ({ number, key: { part: 'base', text, nth: 1 }, text: `Sentence ${number}.`, replaced: undefined }) as Step
const written = {
  language: 'en',
  parts: [{ steps: [step(1, 'ring 36A'), step(2, 'round A')] }],
} as unknown as WrittenPattern
const own = (text: string, instead = '', also = ''): StepWords => ({
  language: 'en',
  part: 'base',
  text,
  nth: 1,
  instead,
  also,
})

function drawer({
  words = [],
  aside = [],
  answers = true,
}: {
  words?: StepWords[]
  aside?: StepWords[]
  answers?: boolean
} = {}) {
  const asked = shopThatAnswers({ 'PUT /api/patterns/1/words': () => (answers ? [] : 'lost') })
  const close = jest.fn()
  const page = show(<OwnWords pattern={pattern} written={written} words={words} aside={aside} close={close} />)
  return { ...page, close, asked: () => changesIn(asked).map(([, body]) => body) }
}
const instead = (number: number) =>
  screen.getByRole<HTMLTextAreaElement>('textbox', { name: `Instead, step ${number}` })

test('a step is said otherwise: kept on leaving the field, once, and not where nothing was changed', async () => {
  const { person, asked } = drawer({ words: [own('round A', 'Go round once.')] })
  await person.click(instead(2))
  await person.tab()
  expect(asked()).toEqual([])
  await person.click(screen.getByRole('button', { name: 'Say step 1 in your own words' }))
  await person.type(instead(1), 'String the ring.')
  await person.tab()
  await waitFor(() => expect(asked()).toHaveLength(1))
  expect(asked()[0]).toEqual({
    part: 'base',
    text: 'ring 36A',
    nth: 1,
    language: 'en',
    instead: 'String the ring.',
    also: '',
  })
})

test('Escape closes it, and what was being typed is saved', async () => {
  const { person, asked, close } = drawer({ words: [own('ring 36A', 'String it.')] })
  await person.type(instead(1), ' Close it.')
  await person.keyboard('{Escape}')
  await waitFor(() => expect(close).toHaveBeenCalled())
  expect(asked()).toMatchObject([{ instead: 'String it. Close it.' }])
})

test('words that did not reach the shop are there when it is opened again, and are sent once more', async () => {
  const first = drawer({ answers: false })
  await first.person.click(screen.getByRole('button', { name: 'Say step 1 in your own words' }))
  await first.person.type(instead(1), 'Mind the tail.')
  await first.person.tab()
  await screen.findByRole('alert')
  first.unmount()
  const { asked, unmount } = drawer()
  expect(instead(1).value).toBe('Mind the tail.')
  await waitFor(() => expect(asked()).toMatchObject([{ text: 'ring 36A', instead: 'Mind the tail.' }]))
  unmount()
  // They have reached it now: nothing is kept here any more.
  drawer()
  screen.getByRole('button', { name: 'Say step 1 in your own words' })
})

test('words whose line is gone are given to another step, or thrown away', async () => {
  const left = own('round B', 'With the gold ones.', 'Pull.')
  const { person, asked } = drawer({ aside: [left] })
  const aside = screen.getByRole('region', { name: 'Words kept aside from "round B"' })
  expect(aside.textContent).toContain('With the gold ones. / Pull.')
  await person.click(within(aside).getByRole('combobox', { name: 'Give them to step' }))
  await person.click(await screen.findByTitle('2: round A'))
  await person.click(within(aside).getByRole('button', { name: 'Throw away' }))
  await waitFor(() => expect(asked()).toHaveLength(2))
  expect(asked()).toEqual([
    { ...left, text: 'round A', from: { part: 'base', text: 'round B', nth: 1 } },
    { ...left, instead: '', also: '' },
  ])
})

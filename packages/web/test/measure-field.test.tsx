/** Measures are typed in what the shop measures in, and recorded in millimetres. */
import { usualSettings } from '@tessellum/contract/usual-settings'
import { fingerSizes } from '@tessellum/core/sizing/finger'
import { screen } from '@testing-library/react'
import { MeasureField } from '../src/settings/measure-field'
import { read } from '../src/shop/queries'
import { show } from './on-screen'

type Measures = typeof usualSettings.measures
const inShop = (measures: Partial<Measures>): [readonly unknown[], unknown][] => [
  [read.settings.queryKey, { ...usualSettings, measures: { ...usualSettings.measures, ...measures } }],
]
const typed = async (worn: 'wrist' | 'finger', measures: Partial<Measures>, text: string) => {
  const heard: (number | null)[] = []
  const { person, unmount } = show(<MeasureField worn={worn} name="Measure" onChange={(mm) => heard.push(mm)} />, {
    data: inShop(measures),
  })
  await person.type(screen.getByRole('spinbutton'), text)
  unmount()
  return heard.at(-1)
}

test('a wrist in centimetres or inches, a finger in millimetres round it', async () => {
  expect(await typed('wrist', { units: 'metric' }, '17.5')).toBe(175)
  expect(await typed('wrist', { units: 'inches' }, '6.5')).toBe(165.1)
  expect(await typed('finger', { fingers: 'ISO' }, '54')).toBe(54)
})

test('what is left empty is not nought', async () => {
  const heard: (number | null)[] = []
  const { person } = show(<MeasureField worn="wrist" value={175} name="Measure" onChange={(mm) => heard.push(mm)} />, {
    data: inShop({ units: 'metric' }),
  })
  await person.clear(screen.getByRole('spinbutton'))
  expect(heard.at(-1)).toBeNull()
})

test('a finger by the sizes of the country; one that was measured otherwise is offered as it is', async () => {
  const heard: (number | null)[] = []
  const { person } = show(<MeasureField worn="finger" value={54.3} name="Finger" onChange={(mm) => heard.push(mm)} />, {
    data: inShop({ fingers: 'US' }),
  })
  await person.click(screen.getByRole('combobox'))
  expect((await screen.findAllByText(/ round$/)).length).toBeGreaterThan(0)
  await person.type(screen.getByRole('combobox'), 'US 7')
  await person.click(await screen.findByText('US 7'))
  expect(heard).toEqual([fingerSizes('US').find(({ size }) => size === '7')?.mm])
})

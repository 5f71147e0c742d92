import { QueryClient, QueryClientProvider } from '@tanstack/react-query'
import type { Settings } from '@tessellum/contract/settings'
import { usualSettings } from '@tessellum/contract/usual-settings'
import { renderHook } from '@testing-library/react'
import { useToday } from '../src/settings/use-today'
import { read } from '../src/shop/queries'

afterEach(() => {
  jest.useRealTimers()
})

test.each([
  ['Pacific/Auckland', '2026-12-01'],
  ['America/Los_Angeles', '2026-11-30'],
])('it is the day in %s, whatever the clock of the browser says', (timeZone, day) => {
  jest.useFakeTimers({ now: new Date('2026-11-30T20:00:00Z'), doNotFake: ['queueMicrotask'] })
  const client = new QueryClient()
  const settings: Settings = { ...usualSettings, profile: { ...usualSettings.profile, timeZone } }
  client.setQueryData(read.settings.queryKey, settings)
  const { result } = renderHook(useToday, {
    wrapper: ({ children }) => <QueryClientProvider client={client}>{children}</QueryClientProvider>,
  })
  expect(result.current.format('YYYY-MM-DD')).toBe(day)
})

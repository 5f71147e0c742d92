/** What others do at the shop is read again by open pages. */
import { useQuery } from '@tanstack/react-query'
import { screen, waitFor } from '@testing-library/react'
import { useChanges } from '../src/shop/changes'
import { queries, read } from '../src/shop/queries'
import { hears, shopThatAnswers, show } from './on-screen'

function Listening() {
  useChanges()
  const { data } = useQuery(read.teachers, queries)
  return <p>{data ? 'read' : 'not yet'}</p>
}

const keys = Object.values(read).flatMap((each): (readonly unknown[])[] =>
  typeof each === 'function'
    ? [(each as (...of: unknown[]) => { queryKey: readonly unknown[] })(1, 1).queryKey]
    : [each.queryKey],
)
const subjects = new Set(keys.map(([first]) => String(first)))
const staleAmong = (of: readonly (readonly unknown[])[]) =>
  of.filter((key) => queries.getQueryState(key)?.isInvalidated).map(([first]) => String(first))

const allRead = () => {
  for (const key of keys) queries.setQueryData(key, [])
}
beforeEach(() => {
  queries.clear()
  shopThatAnswers({ 'GET /api/teachers': () => [] })
  allRead()
})

test('after a silence everything is stale but what cannot change behind a page', async () => {
  show(<Listening />)
  await hears('message', 'everything')
  await waitFor(() => expect(staleAmong(keys)).not.toEqual([]))
  const left = [...subjects].filter((subject) => !staleAmong(keys).includes(subject))
  // Who one is, who there is, whether the shop answers, and what is kept under a name of its own that changes with what it holds.
  const stays = ['drawing', 'health', 'me', 'people', 'shop', 'stand-ins', 'teachers', 'versions', 'welcome']
  expect(left.sort()).toEqual(stays)
})

test('a change of one subject leaves the others as they were read', async () => {
  show(<Listening />)
  // Who comes to listen has missed what went before.
  await waitFor(() => expect(staleAmong(keys)).not.toEqual([]))
  allRead()
  await hears('message', 'sales')
  await waitFor(() => expect([...new Set(staleAmong(keys))].sort()).toEqual(['customers', 'sales']))
  screen.getByText('read')
})

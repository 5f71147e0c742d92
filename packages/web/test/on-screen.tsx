/** A component as it stands in a page, over a shop that answers what the test says. */
import { QueryClient, QueryClientProvider } from '@tanstack/react-query'
import type { PackingTask } from '@tessellum/contract/packing'
import type { ItemIdentity, ItemStory } from '@tessellum/contract/stock'
import { usualSettings } from '@tessellum/contract/usual-settings'
import { act, cleanup, configure, render } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { ConfigProvider, Modal, message } from 'antd'
import { actWrapper } from 'antd/lib/message'
import { createMemoryRouter, RouterProvider } from 'react-router'
import { keepSession } from '../src/shop/api'
import { read } from '../src/shop/queries'

/** A bead of a shop's, as lists name it. */
export const namedItem = (id: number, colourName: string): ItemIdentity => ({
  id,
  category: 'bead',
  kind: 'cylinder',
  size: '11/0',
  colourCode: `BC-${id}`,
  colourName,
  finish: 'opaque',
  colour: '#2a5a49',
  place: 'A1',
})

/** The same on the shelf, with nothing bought, moved or promised yet. */
export const anItem: ItemStory = {
  ...namedItem(1, 'Lantern green'),
  code: 'BC-1',
  maker: 'Tarn',
  unit: 'mg',
  barcode: null,
  cautions: '',
  bead: {
    kind: 'cylinder',
    size: '11/0',
    lengthMm: 1.3,
    acrossMm: 1.6,
    boreMm: 0.8,
    massMg: 5.2,
    contact: 8,
    bores: 1,
  },
  onHand: 18_000,
  reserved: 4000,
  reorderBelow: 0,
  packs: [],
  coming: 0,
  lots: [],
  moves: [],
  days: [],
  moreMoves: false,
  purchases: [],
  promises: [],
}

/** The first bag of a batch's first kit, empty. */
export const aBag: PackingTask['bags'][number] = {
  lineId: 2,
  line: 1,
  kit: 1,
  of: 'Windlass pendant',
  roles: 'A',
  least: 380,
  target: 400,
  most: 440,
  beads: 77,
  filled: null,
  by: null,
  returned: 0,
}

export interface Asked {
  readonly route: string
  readonly body: unknown
  readonly key: string | undefined
}

type Refused = { readonly status: number; readonly code: string; readonly message: string; readonly hint?: string }
/** By method and address; "lost" where no answer comes back. */
type Answers = Readonly<Record<string, (body: unknown) => unknown | Refused | 'lost'>>

const isRefused = (answer: unknown): answer is Refused =>
  typeof answer === 'object' && answer !== null && 'status' in answer && typeof answer.status === 'number'

/** @returns what is asked of it, as it is asked; a route without an answer fails the test */
export function shopThatAnswers(answers: Answers): Asked[] {
  const asked: Asked[] = []
  Object.assign(globalThis, {
    fetch: async (
      url: string,
      { method, headers, body }: { method: string; headers: Record<string, string>; body: string | null },
    ) => {
      const route = `${method} ${url}`
      const sent: unknown = body ? JSON.parse(body) : undefined
      asked.push({ route, body: sent, key: headers['idempotency-key'] })
      const answer = answers[route]
      if (!answer) throw new Error(`Nobody answers ${route} in this test.`)
      const given = answer(sent)
      if (given === 'lost') throw new TypeError('fetch failed')
      const { status, ...rest } = isRefused(given) ? given : { status: 200 }
      return { status, ok: status < 400, headers: new Headers(), json: async () => (status < 400 ? given : rest) }
    },
  })
  return asked
}

/** Of what is asked, what changes something: its route and what is sent. */
export const changesIn = (asked: readonly Asked[]): readonly (readonly [route: string, body: unknown])[] =>
  asked.filter(({ route }) => !route.startsWith('GET')).map(({ route, body }) => [route, body] as const)

type Heard = (event: { readonly data: string }) => void

/** The stream of news, as far as the page listens to it. */
class Stream {
  static readonly open = new Set<Stream>()
  private readonly heard = new Map<string, Heard[]>()
  onopen: (() => void) | null = null
  onerror: (() => void) | null = null
  readonly readyState = 1
  constructor() {
    Stream.open.add(this)
  }
  addEventListener(type: string, heard: Heard) {
    this.heard.set(type, [...(this.heard.get(type) ?? []), heard])
  }
  tell(type: string, data: string) {
    for (const each of this.heard.get(type) ?? []) each({ data })
  }
  close() {
    Stream.open.delete(this)
  }
}

/** News from the shop: of a device by its name, or "message" of a subject that has changed. */
export const hears = (type: string, data: string) =>
  act(async () => {
    for (const each of Stream.open) each.tell(type, data)
  })

// However slow the machine: only what never comes runs into this.
configure({ asyncUtilTimeout: 120_000 })

// Where the browser has it and jsdom has not.
Object.assign(globalThis, {
  EventSource: Stream,
  ResizeObserver: class {
    observe() {}
    unobserve() {}
    disconnect() {}
  },
  matchMedia: () => ({
    matches: false,
    addListener() {},
    removeListener() {},
    addEventListener() {},
    removeEventListener() {},
  }),
})

beforeEach(() => {
  sessionStorage.clear()
  localStorage.clear()
  keepSession({ csrfToken: 'token', name: 'odile' })
})
afterEach(() => {
  cleanup()
  act(() => {
    message.destroy()
    Modal.destroyAll()
  })
})

const themed = (children: React.ReactNode) => (
  <ConfigProvider theme={{ token: { motion: false } }}>{children}</ConfigProvider>
)
ConfigProvider.config({ holderRender: themed })
actWrapper(act)

/** @param data what has been read already, by its query's key */
export function show(
  element: React.ReactNode,
  {
    path = '/',
    at = path,
    data = [],
  }: { path?: string; at?: string; data?: readonly [key: readonly unknown[], data: unknown][] } = {},
) {
  const client = new QueryClient({ defaultOptions: { queries: { retry: false, staleTime: Number.POSITIVE_INFINITY } } })
  client.setQueryData(read.settings.queryKey, usualSettings)
  for (const [key, value] of data) client.setQueryData(key, value)
  const router = createMemoryRouter(
    [
      { path, element },
      { path: '*', element: <p>elsewhere</p> },
    ],
    { initialEntries: [at] },
  )
  const view = render(
    themed(
      <QueryClientProvider client={client}>
        <RouterProvider router={router} />
      </QueryClientProvider>,
    ),
  )
  return { ...view, client, router, person: userEvent.setup({ delay: null }) }
}

/** What is under way is let come to its end. */
export const settle = () => act(async () => void (await new Promise((done) => setTimeout(done, 0))))

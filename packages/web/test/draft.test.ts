/** A draft against a shop whose line breaks at any moment, others who save meanwhile, and pages that are left: nothing typed is lost. */
import fc from 'fast-check'
import { Draft, type KeptDraft, type Revised } from '../src/patterns/draft'
import { ShopError } from '../src/shop/api'

const unreachable = () => new ShopError({ code: 'unreachable', message: 'The shop does not answer.' })
const movedOn = () => new ShopError({ code: 'draft-moved-on', message: 'Somebody else has saved.' })

/** What becomes of a save that was sent. */
type Fate = 'answered' | 'never came' | 'answer lost'

/** A shop, one browser's store, and a clock that goes on when it is told to. */
class World {
  shop: Revised = { source: 'a', revision: 1 }
  /** Every text that the shop has had. */
  readonly had = new Set(['a'])
  stored: KeptDraft | undefined
  readonly sent: ((fate: Fate) => Promise<void>)[] = []
  private readonly timers = new Set<() => void>()
  private readonly done = new Map<string, { revision: number }>()
  draft = this.page()

  page(): Draft {
    const draft = new Draft(this.shop, {
      save: (source, revision) =>
        new Promise((resolve, reject) => {
          this.sent.push(async (fate) => {
            try {
              const answer = fate === 'never came' ? undefined : this.save(source, revision)
              if (answer && fate === 'answered') resolve(answer)
              else reject(unreachable())
            } catch (refused) {
              reject(fate === 'answered' ? refused : unreachable())
            }
            await settled()
          })
        }),
      read: async () => this.shop,
      kept: () => this.stored,
      keep: (kept) => {
        this.stored = kept
      },
      later: (act) => {
        this.timers.add(act)
        return () => this.timers.delete(act)
      },
    })
    draft.open()
    return draft
  }

  /** As the server does it: only on top of what it has, and a request that is sent again is answered again. */
  private save(source: string, revision: number): { revision: number } {
    const request = JSON.stringify([source, revision])
    const before = this.done.get(request)
    if (before) return before
    if (revision !== this.shop.revision) throw movedOn()
    this.shop = { source, revision: revision + 1 }
    this.had.add(source)
    this.done.set(request, { revision: revision + 1 })
    return { revision: revision + 1 }
  }

  othersSave(source: string): void {
    this.shop = { source, revision: this.shop.revision + 1 }
    this.had.add(source)
    this.draft.takeOver(this.shop)
  }

  async pause(): Promise<void> {
    const [next] = this.timers
    if (next) this.timers.delete(next)
    next?.()
    await settled()
  }

  async quiet(): Promise<void> {
    for (let i = 0; i < 40 && (this.timers.size > 0 || this.sent.length > 0); i++) {
      await this.sent.shift()?.('answered')
      await this.pause()
    }
  }
}

const settled = () => new Promise((done) => setImmediate(done))

type Act = (world: World) => Promise<void> | void

const text = fc.constantFrom('a', 'b', 'c', 'd')
const act: fc.Arbitrary<[string, Act]> = fc.oneof(
  text.map((typed): [string, Act] => [`types ${typed}`, ({ draft }) => draft.edit(typed)]),
  fc.constant<[string, Act]>(['pauses', (world) => world.pause()]),
  fc
    .constantFrom<Fate>('answered', 'answered', 'never came', 'answer lost')
    .map((fate): [string, Act] => [`save ${fate}`, (world) => world.sent.shift()?.(fate)]),
  text.map((theirs): [string, Act] => [`others save ${theirs}`, (world) => world.othersSave(theirs)]),
  fc.constantFrom('mine' as const, 'theirs' as const).map((whose): [string, Act] => [
    `settles for ${whose}`,
    async ({ draft }) => {
      if (draft.current().state === 'moved on') await draft.settle(whose)
    },
  ]),
  fc.constantFrom<Fate>('answered', 'never came').map((fate): [string, Act] => [
    `leaves, and comes again (${fate})`,
    async (world) => {
      world.draft.close()
      for (let i = 0; i < 5; i++) await world.sent.shift()?.(fate)
      world.draft = world.page()
      await settled()
    },
  ]),
)

test('whatever breaks, what was typed last is in the shop or in the browser, and comes into the shop by itself', async () => {
  await fc.assert(
    fc.asyncProperty(fc.array(act, { maxLength: 25 }), async (acts) => {
      const world = new World()
      let typed = 'a'
      for (const [name, each] of acts) {
        const before = world.draft.current()
        await each(world)
        const { text: now, state } = world.draft.current()
        if (name.startsWith('types')) typed = name.slice(-1)
        // Another text stands there only where it was chosen, or nothing was unsaved here when others had saved theirs.
        const nothingNew = /types|save an/.test(name) ? world.had.has(typed) : before.state === 'saved'
        if (/theirs|comes again/.test(name) || (nothingNew && state === 'saved')) typed = now
        expect([name, now]).toEqual([name, typed])
        expect([world.stored?.text, world.shop.source]).toContain(typed)
        if (state === 'saved') expect([name, world.shop.source]).toEqual([name, typed])
      }
      await world.quiet()
      const { text: last, state } = world.draft.current()
      expect(['saved', 'moved on']).toContain(state)
      if (state === 'moved on') expect([last, world.stored?.text]).toEqual([typed, typed])
      else {
        expect([world.shop.source, world.stored]).toEqual([last, undefined])
        // Others may have gone on from it.
        expect([...world.had]).toContain(typed)
      }
    }),
    { numRuns: 3000 },
  )
})

test('a save whose answer was lost is not taken for somebody else’s', async () => {
  const world = new World()
  world.draft.edit('b')
  await world.pause()
  await world.sent.shift()?.('answer lost')
  expect(world.draft.current().state).toBe('kept here')
  world.draft.edit('c')
  await world.quiet()
  expect([world.draft.current().state, world.shop.source]).toEqual(['saved', 'c'])
})

test('who comes back to a text that others have changed meanwhile chooses, and loses neither by choosing', async () => {
  const world = new World()
  world.draft.edit('mine')
  world.othersSave('theirs')
  await world.pause()
  await world.sent.shift()?.('answered')
  expect(world.draft.current()).toMatchObject({ state: 'moved on', text: 'mine', trouble: 'Somebody else has saved. ' })
  await world.draft.settle('mine')
  await world.quiet()
  expect([world.shop.source, world.draft.current().state]).toEqual(['mine', 'saved'])
})

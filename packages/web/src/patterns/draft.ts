/** A pattern's text as it is typed: kept in the browser at once and saved to the shop after a pause, on top of the revision that it was read at. */
import { isUnreachable, ShopError } from '../shop/api'

/** How a draft stands: every state is told to the person who types. */
export type DraftState = 'saved' | 'typing' | 'saving' | 'kept here' | 'moved on'

export interface Revised {
  readonly source: string
  readonly revision: number
}

/** What an earlier page kept in this browser because it could not save it. */
export interface KeptDraft {
  readonly text: string
  readonly revision: number
}

/** How a draft reaches the shop and the browser. */
interface Around {
  /** @throws ShopError */
  save(source: string, revision: number): Promise<{ readonly revision: number }>
  /** @throws ShopError */
  read(): Promise<Revised>
  kept(): KeptDraft | undefined
  keep(draft: KeptDraft | undefined): void
  /** @returns what calls it off */
  later(act: () => void, ms: number): () => void
}

export interface DraftStands {
  readonly text: string
  readonly state: DraftState
  readonly trouble: string | undefined
}

const pauseMs = 700
const againMs = 4000

export class Draft {
  private stands: DraftStands
  private revision: number
  /** What the shop has at that revision; undefined where that is not known, since an answer was lost. */
  private saved: string | undefined
  /** What others have saved since. */
  private newer: Revised | undefined
  /** Sent, and never answered: the shop may have it. */
  private unanswered: string | undefined
  private saving: Promise<number | undefined> | undefined
  private callOff = () => {}
  private readonly listeners = new Set<() => void>()

  constructor(
    shop: Revised,
    private readonly around: Around,
  ) {
    const found = around.kept()
    const unsaved = found !== undefined && found.text !== shop.source
    this.revision = shop.revision
    this.saved = shop.source
    this.stands = {
      text: unsaved ? found.text : shop.source,
      state: !unsaved ? 'saved' : found.revision === shop.revision ? 'typing' : 'moved on',
      trouble: undefined,
    }
  }

  readonly current = (): DraftStands => this.stands

  readonly subscribe = (listener: () => void) => {
    this.listeners.add(listener)
    return () => void this.listeners.delete(listener)
  }

  /** Somebody else's save arrives: it is taken over while nothing is being typed here. */
  takeOver(shop: Revised): void {
    if (shop.revision <= this.revision) return
    this.newer = shop
    if (this.stands.state === 'saved' && !this.saving) this.becomeSaved()
  }

  readonly edit = (text: string): void => {
    const { state } = this.stands
    // While a save is on its way the shop does not have this text, even if it is what it had before.
    if (text === this.saved && !this.saving && state !== 'moved on') {
      this.around.keep(undefined)
      this.becomeSaved(text)
    } else {
      this.around.keep({ text, revision: this.revision })
      this.tell({ text, state: state === 'moved on' ? state : 'typing' })
    }
    this.wait()
  }

  /** Saves at once; gives the revision that was saved, or undefined where it could not be. */
  readonly save = async (): Promise<number | undefined> => {
    // One save at a time: the next builds on the revision that the last one made.
    while (this.saving) await this.saving
    this.saving = this.saveOnce()
    try {
      return await this.saving
    } finally {
      this.saving = undefined
      this.wait()
    }
  }

  /** When somebody else has saved meanwhile: goes on with this text, or with theirs. */
  readonly settle = async (whose: 'mine' | 'theirs'): Promise<void> => {
    this.onTopOf(await this.around.read())
    const text = whose === 'mine' ? this.stands.text : (this.saved as string)
    const isSaved = text === this.saved
    this.around.keep(isSaved ? undefined : { text, revision: this.revision })
    // Saved after the pause, on top of what they saved.
    this.tell({ text, state: isSaved ? 'saved' : 'typing', trouble: undefined })
    this.wait()
  }

  /** Its page is there: what an earlier one kept is saved, or let go of where the shop has it by now. */
  open(): void {
    if (this.around.kept()?.text === this.saved) this.around.keep(undefined)
    this.wait()
  }

  /** Whoever leaves before the pause is over finds on the next page what was typed last. */
  close(): void {
    this.callOff()
    void this.save().finally(() => this.callOff())
  }

  private async saveOnce(): Promise<number | undefined> {
    const { text, state } = this.stands
    // That is for the person to settle.
    if (state === 'moved on') return undefined
    if (text === this.saved) {
      // Of a draft that was saved all along another tab may have kept something.
      if (state !== 'saved') {
        this.around.keep(undefined)
        this.becomeSaved()
      }
      return this.revision
    }
    this.tell({ state: 'saving' })
    try {
      const { revision } = await this.around.save(text, this.revision)
      this.onTopOf({ source: text, revision })
    } catch (error) {
      if (error instanceof ShopError && error.code === 'draft-moved-on') return this.movedOn(error)
      // What was refused is not there; of what was not answered nobody knows.
      if (!(error instanceof ShopError) || isUnreachable(error)) {
        this.unanswered = text
        this.saved = undefined
      }
      this.tell({ state: 'kept here', trouble: troubleOf(error) })
      return undefined
    }
    const { revision } = this
    if (this.stands.text === text) {
      this.around.keep(undefined)
      this.becomeSaved()
    } else {
      this.around.keep({ text: this.stands.text, revision })
      this.tell({ state: 'typing', trouble: undefined })
    }
    return revision
  }

  /** Whose save the shop has: somebody else's, or one of this page's that was never answered. */
  private async movedOn(refused: ShopError): Promise<number | undefined> {
    const shop = this.unanswered === undefined ? undefined : await this.around.read().catch(() => undefined)
    if (shop && shop.source === this.unanswered) {
      this.onTopOf(shop)
      return this.saveOnce()
    }
    this.tell({ state: 'moved on', trouble: troubleOf(refused) })
    return undefined
  }

  /** Nothing of this page is unsaved: what others have saved meanwhile may come. */
  private becomeSaved(text = this.stands.text): void {
    const theirs = this.newer && this.newer.revision > this.revision ? this.newer : undefined
    if (theirs) this.onTopOf(theirs)
    this.tell({ text: theirs?.source ?? text, state: 'saved', trouble: undefined })
  }

  private onTopOf({ source, revision }: Revised): void {
    this.revision = revision
    this.saved = source
    this.unanswered = undefined
  }

  /** The pause begins again with every keystroke. */
  private wait(): void {
    this.callOff()
    const ms = { typing: pauseMs, 'kept here': againMs }[this.stands.state as string]
    this.callOff = ms === undefined || this.saving ? () => {} : this.around.later(() => void this.save(), ms)
  }

  private tell(changed: Partial<DraftStands>): void {
    this.stands = { ...this.stands, ...changed }
    for (const listener of this.listeners) listener()
  }
}

/** Of a shop that does not answer the state says all there is to say. */
const troubleOf = (error: unknown): string | undefined =>
  error instanceof ShopError && !isUnreachable(error) ? `${error.message} ${error.hint ?? ''}` : undefined

import type { PersonRole } from '@tessellum/contract/roles'
import type { SessionData } from 'express-session'
import { LRUCache } from 'lru-cache'

export interface FoundSession {
  readonly sess: SessionData
  /** Of whom it says that it is theirs, if there is such a person. */
  readonly personId: number | null
  readonly name: string
  readonly fullName: string
  readonly roles: PersonRole[]
  readonly seal: string
  readonly disabledAt: Date | null
  /** It has been in use for so long that its end is to be put off. */
  readonly isDue: boolean
}

/** For how long a session is kept: the connection that tells of changes may be lost without a sign of it. */
const keptMs = 10_000

/**
 * Sessions read just now, with whose they are, so that not every request reads its own again. What this server changes is forgotten before it answers;
 * what another changes, as soon as PostgreSQL tells of it. Nothing is kept while nobody tells.
 */
export class SessionCache {
  private readonly found = new LRUCache<string, FoundSession>({ max: 2000, ttl: keptMs })
  private changes = 0
  private listening = false

  get(sid: string): FoundSession | undefined {
    return this.found.get(sid)
  }

  async read(sid: string, read: () => Promise<FoundSession | undefined>): Promise<FoundSession | undefined> {
    const before = this.changes
    const found = await read()
    // What was changed while it was being read may be read as it was.
    if (found && this.listening && this.changes === before) this.found.set(sid, found)
    return found
  }

  forget(sid: string): void {
    this.changes++
    this.found.delete(sid)
  }

  forgetAll(): void {
    this.changes++
    this.found.clear()
  }

  /** Whether changes are told. */
  listen(told: boolean): void {
    this.listening = told
    this.forgetAll()
  }
}

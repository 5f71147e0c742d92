/** Forms that have come to rest, in files: every thread and every server of this machine has them, and they are there after a restart. */
import { createHash, randomUUID } from 'node:crypto'
import { mkdirSync, readFileSync, renameSync, utimesSync, writeFileSync } from 'node:fs'
import { readdir, readFile, rm, stat } from 'node:fs/promises'
import path from 'node:path'
import { lastForms } from '@tessellum/core/form/form-pattern'
import { bytesOfForm, formOfBytes, type KeptForm, type KeptForms } from '@tessellum/core/form/kept-forms'
import { LRUCache } from 'lru-cache'

/** What all of them may take, in bytes. */
const maxBytes = 1024 ** 3

/** What was not there is looked for again after so long: another thread may have kept it. */
const missingMs = 2000

/** What computes and draws forms is all in the workers' file: another build may come to others. */
export const buildOf = (workerFile: string): string =>
  createHash('sha256').update(readFileSync(workerFile)).digest('hex')

const isBuild = /^[0-9a-f]{64}$/

export class FormFiles implements KeptForms {
  /** Looked for just now, and not there: while a form is computed it is asked for again and again. */
  private readonly missing = new LRUCache<string, true>({ max: 500, ttl: missingMs })

  private warned = false

  /** @param folder made when there is something to keep */
  constructor(private readonly folder: string) {}

  get(digest: string): KeptForm | undefined {
    if (this.missing.has(digest)) return undefined
    const found = this.tried(() => {
      const file = this.fileOf(digest)
      const bytes = readFileSync(file)
      // The ones that are used are kept longest.
      const now = new Date()
      utimesSync(file, now, now)
      return bytes
    })
    const form = found && formOfBytes(found)
    if (!form) this.missing.set(digest, true)
    return form
  }

  keep(digest: string, form: KeptForm): void {
    this.tried(() => {
      mkdirSync(this.folder, { recursive: true })
      const file = this.fileOf(digest)
      const begun = `${file}.${randomUUID()}`
      writeFileSync(begun, bytesOfForm(form))
      // Whole, or not there.
      renameSync(begun, file)
    })
    this.missing.delete(digest)
  }

  /** What cannot be kept, or read, is computed again: a full disk is no reason not to show a piece. It is told once. */
  private tried<Value>(work: () => Value): Value | undefined {
    try {
      return work()
    } catch (error) {
      if ((error as NodeJS.ErrnoException).code === 'ENOENT') return undefined
      if (!this.warned) process.emitWarning(`Forms cannot be kept in ${this.folder}, and are computed again: ${error}`)
      this.warned = true
      return undefined
    }
  }

  /** @returns its bytes as they are, and undefined where it is not there */
  async bytes(digest: string): Promise<Uint8Array | undefined> {
    return readFile(this.fileOf(digest)).catch(orNothing)
  }

  private fileOf(digest: string): string {
    return path.join(this.folder, digest)
  }
}

/** Where a build keeps its forms; nowhere without a folder for all of them. */
export const formsFolder = (folder: string, build: string): string => (folder ? path.join(folder, build) : '')

/** Has this thread keep its forms there, too. @param folder of this build; forms stay in memory alone where it is empty */
export function keepFormsIn(folder: string | undefined): void {
  if (folder) lastForms.behind = new FormFiles(folder)
}

/** Deletes those that have not been used for longest, until the rest have room; and those that only another build could use. */
export async function pruneForms(folder: string, build: string, most = maxBytes): Promise<void> {
  if (!folder) return
  const builds = (await readdir(folder).catch(orNothing)) ?? []
  // Nothing but what a build has made: the folder may have been named by mistake.
  for (const other of builds.filter((each) => each !== build && isBuild.test(each)))
    await rm(path.join(folder, other), { recursive: true, force: true })
  const names = (await readdir(path.join(folder, build)).catch(orNothing)) ?? []
  const files = await Promise.all(
    names.map(async (name) => {
      const file = path.join(folder, build, name)
      const found = await stat(file).catch(orNothing)
      return { file, bytes: found?.size ?? 0, used: found?.mtimeMs ?? 0 }
    }),
  )
  files.sort((a, b) => b.used - a.used)
  let sum = 0
  for (const { file, bytes } of files) {
    sum += bytes
    if (sum > most) await rm(file, { force: true })
  }
}

function orNothing(error: unknown): undefined {
  if ((error as NodeJS.ErrnoException).code !== 'ENOENT') throw error
}

/** Jobs as the database keeps them. */
import { createHash } from 'node:crypto'
import { and, eq, inArray, isNotNull, isNull, lt, sql } from 'drizzle-orm'
import type { Database } from '../database/connect'
import { HttpProblem } from '../problem'
import { job } from '../schema/jobs'
import type { Tasks } from './tasks'

/** A draft that is to be drawn. */
export interface Draft {
  readonly id: number
  readonly source: string
}

/** What is kept in the queue, and what it is given. */
export interface QueuedJobs {
  document: Tasks['document']['input']
  draw: Draft
}

export type JobName = keyof QueuedJobs

/** Of the advisory locks on jobs; the other half is the job's number. */
export const lockSpace = 7_353_002

/** Fifty lines with eight ways of making each are four hundred documents, and a person may have several pages open. */
const maxEach = 2000
const maxWaiting = 20_000

export interface OpenJob {
  readonly id: number
  readonly name: JobName
  readonly input: string
  readonly personId: number | null
}

/** What a job came to: bytes for who waits, or why not. */
export interface Outcome {
  readonly result?: Buffer | undefined
  readonly problem?: HttpProblem
}

/** @param build of what works jobs out: servers of another build would come to something else, and leave them alone */
export function jobRecords(db: Database, build: string) {
  const digestOf = (name: JobName, input: string) =>
    createHash('sha256').update(`${build}\0${name}\0${input}`).digest('hex')
  const tell = (what: string) => db.execute(sql`select pg_notify('jobs', ${what})`)
  const isOpen = (id: number) => and(eq(job.id, id), isNull(job.doneAt))

  /**
   * Open jobs, each with its place in the order in which they are begun: people take turns, whoever has just had theirs goes behind the others,
   * and the shop's own come last.
   */
  const inTurn = sql`
    select id, name, input, person_id as "personId",
      row_number() over (order by person_id is null, turn, had nulls first, id) as place,
      exists (
        select from pg_locks
        where locktype = 'advisory' and classid = ${lockSpace} and objid::bigint = id
          and database = (select oid from pg_database where datname = current_database())
      ) as begun
    from (
      select id, name, input, person_id, row_number() over (partition by person_id order by id) as turn,
        (select max(begun_at) from job before where before.person_id = job.person_id) as had
      from job where done_at is null and build = ${build}
    ) open`

  /** @throws HttpProblem when too much waits already, for one person or for all */
  async function demandRoom(personId: number): Promise<void> {
    const { rows } = await db.execute<{ all: number; own: number }>(
      sql`select count(*)::int as all, count(*) filter (where person_id = ${personId})::int as own from job where done_at is null`,
    )
    const { all = 0, own = 0 } = rows[0] ?? {}
    if (all >= maxWaiting || own >= maxEach)
      throw new HttpProblem(503, 'busy', 'Too much is being worked out at once.', { hint: 'Try again in a moment.' })
  }

  return {
    tell,

    /** One more waits for a job. What failed is tried again. @returns its number */
    async ask(name: JobName, given: unknown, personId: number): Promise<number> {
      const input = JSON.stringify(given)
      await demandRoom(personId)
      const again = sql`${job.problem} is not null`
      const [asked] = await db
        .insert(job)
        .values({ name, digest: digestOf(name, input), build, input, personId, waiters: 1 })
        .onConflictDoUpdate({
          target: job.digest,
          set: {
            waiters: sql`case when ${again} then 1 else ${job.waiters} + 1 end`,
            askedAt: sql`now()`,
            personId: sql`coalesce(${job.personId}, ${personId})`,
            input: sql`case when ${again} then ${input} else ${job.input} end`,
            attempts: sql`case when ${again} then 0 else ${job.attempts} end`,
            doneAt: sql`case when ${again} then null else ${job.doneAt} end`,
            problem: null,
          },
        })
        .returning({ id: job.id })
      return (asked as { id: number }).id
    },

    /** Nobody waits for these; what could not be done is left. @returns how many are new */
    async add(name: JobName, inputs: readonly unknown[]): Promise<number> {
      if (inputs.length === 0) return 0
      const values = inputs.map((each) => {
        const input = JSON.stringify(each)
        return { name, digest: digestOf(name, input), build, input }
      })
      return (await db.insert(job).values(values).onConflictDoNothing().returning({ id: job.id })).length
    },

    /** One waits no more. Where nobody else does, the job is deleted, and whoever works on it is told. */
    async leave(id: number): Promise<void> {
      await db
        .update(job)
        .set({ waiters: sql`${job.waiters} - 1` })
        .where(isOpen(id))
      const left = await db
        .delete(job)
        .where(and(isOpen(id), isNotNull(job.personId), lt(job.waiters, 1)))
        .returning({ id: job.id })
      if (left.length > 0) await tell(`left ${id}`)
    },

    /** The next that nobody works on. */
    async next(most: number, ownToo: boolean): Promise<readonly OpenJob[]> {
      const { rows } = await db.execute<OpenJob & Record<string, unknown>>(
        sql`select * from (${inTurn}) open where not begun ${ownToo ? sql`` : sql`and "personId" is not null`} order by place limit ${most}`,
      )
      return rows
    },

    /** @returns how often it has been begun by now; undefined where it has been done or left since */
    async begin(id: number): Promise<number | undefined> {
      const [begun] = await db
        .update(job)
        .set({ attempts: sql`${job.attempts} + 1`, begunAt: sql`clock_timestamp()` })
        .where(isOpen(id))
        .returning({ attempts: job.attempts })
      return begun?.attempts
    },

    async end(id: number, { result, problem }: Outcome): Promise<void> {
      // What came to nothing that anybody waits for may be wanted again.
      if (!result && !problem) await db.delete(job).where(eq(job.id, id))
      else
        await db
          .update(job)
          .set({
            doneAt: sql`now()`,
            input: '',
            result: result ?? null,
            problem: problem ? { ...problem.body(), status: problem.status } : null,
          })
          .where(isOpen(id))
      await tell(`done ${id}`)
    },

    /** @returns what it came to, with nothing in it where the job is gone; undefined while it is open */
    async outcome(id: number): Promise<Outcome | undefined> {
      const [found] = await db
        .select({ doneAt: job.doneAt, result: job.result, problem: job.problem })
        .from(job)
        .where(eq(job.id, id))
      if (found && !found.doneAt) return undefined
      const { result, problem } = found ?? {}
      return { result: result ?? undefined, ...(problem ? { problem: HttpProblem.from(problem) } : {}) }
    },

    /** How many are begun before the last that a person waits for. */
    async ahead(personId: number): Promise<number> {
      const { rows } = await db.execute<{ ahead: number }>(
        sql`with open as (${inTurn}) select count(*)::int as ahead from open where not begun and place < (select max(place) from open where not begun and "personId" = ${personId})`,
      )
      return rows[0]?.ahead ?? 0
    },
  }
}

/** Deletes what was asked for last long ago: it has been done, or no server of its build is left. */
export async function deleteOldJobs(db: Pick<Database, 'delete'>): Promise<void> {
  await db.delete(job).where(lt(job.askedAt, sql`now() - interval '1 day'`))
}

/** Deletes whatever has come of jobs of a kind, such as documents that name somebody. */
export async function deleteResults(db: Pick<Database, 'delete'>, names: readonly JobName[]): Promise<void> {
  await db.delete(job).where(and(inArray(job.name, [...names]), isNotNull(job.doneAt)))
}

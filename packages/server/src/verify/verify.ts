import { checks } from './checks'

/** As much of a connection as is needed: checks are the same through whatever there is. */
interface Records {
  // biome-ignore lint/suspicious/noExplicitAny: rows are what each statement says
  query(text: string): Promise<{ readonly rows: any[] }>
}

export interface Verified {
  readonly name: string
  /** How much was looked at. */
  readonly looked: number
  /** What is wrong, in words; the first few of them. */
  readonly wrong: readonly string[]
}

const maxTold = 20

/** All of it at one moment, while the shop goes on. @param records one connection */
export async function verify(records: Records): Promise<Verified[]> {
  await records.query('begin isolation level repeatable read read only')
  try {
    const found: Verified[] = []
    for (const { name, looked, wrong } of checks) {
      const { rows } = await records.query(`${wrong} limit ${maxTold}`)
      const { rows: counted } = await records.query(looked)
      found.push({ name, looked: Number(counted[0].count), wrong: rows.map(({ what }) => String(what)) })
    }
    return found
  } finally {
    await records.query('commit')
  }
}

/** As a table for people. */
export const table = (found: readonly Verified[]): string =>
  found
    .map(({ name, looked, wrong }) =>
      [
        `${wrong.length === 0 ? 'right' : 'WRONG'}  ${String(looked).padStart(9)}  ${name}`,
        ...wrong.map((each) => `                  ${each}`),
      ].join('\n'),
    )
    .join('\n')

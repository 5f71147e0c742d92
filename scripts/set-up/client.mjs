/** PostgreSQL's own programs. What they must know goes by their environment: a command line is read by everybody on the machine. */
import { postgresBin } from './debian.mjs'
import { must } from './run.mjs'

const connection = (url) => {
  const { hostname, port, username, password, pathname } = new URL(url)
  return {
    PGHOST: hostname,
    PGPORT: port || '5432',
    PGUSER: decodeURIComponent(username),
    PGPASSWORD: decodeURIComponent(password),
    PGDATABASE: decodeURIComponent(pathname.slice(1)),
  }
}

/**
 * @param {string} url of the database
 * @param {{input?: string, uid?: number, gid?: number, cwd?: string}} more `input` is what it reads from standard input
 * @returns {Promise<string>} what it printed
 */
export const client = (program, args, url, more = {}) =>
  must(`${postgresBin()}/${program}`, args, { ...more, env: { ...process.env, ...connection(url) } })

/** One statement, and what it answers without ornament. */
export const ask = (statement, url, more = {}) =>
  client('psql', ['-X', '-q', '-A', '-t', '-v', 'ON_ERROR_STOP=1', '-f', '-'], url, { ...more, input: statement })

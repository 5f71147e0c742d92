import { deviceAddress } from '@tessellum/contract/settings'
import { z } from 'zod'

const address = (name: string) =>
  z.string().regex(deviceAddress, `${name} is a host and a port, such as 127.0.0.1:4800.`).default('')

/** What the server is told by its environment; the start command fills it in. */
const environment = z.object({
  PORT: z.coerce.number().int().min(0).max(65535).default(5080),
  /** The address it listens on. A name of its own: many a machine has HOST set for something else. */
  TESSELLUM_HOST: z.string().default('127.0.0.1'),
  DATABASE_URL: z.string().min(1, 'DATABASE_URL names the PostgreSQL database to use.'),
  /** Signs archives of the shop, so that it knows its own; empty without one. */
  ARCHIVE_KEY: z.string().default(''),
  /** Behind a proxy that ends TLS: cookies are sent over https only. */
  BEHIND_TLS: z.stringbool().default(false),
  /** Stands in the address at which an empty shop is begun; none can be begun without it. */
  BEGIN_TOKEN: z.string().default(''),
  /** Where people find the shop, when that is not where it listens. */
  TESSELLUM_URL: z
    .union([z.literal(''), z.url('TESSELLUM_URL is an address such as https://beads.example.')])
    .default(''),
  /** How long a change waits for what another holds, before it is told to try again. */
  LOCK_SECONDS: z.coerce.number().int().min(1).max(120).default(8),
  /** How long the rest of an answer may take after what was asked for is done; then it is told as done and no more. */
  ANSWER_SECONDS: z.coerce.number().min(1).max(3600).default(10),
  /** Answers are held against the contract before they are sent: for tests and development. */
  CHECK_ANSWERS: z.stringbool().default(false),
  /** Where this machine can read what there is to watch, at /metrics; nowhere when 0. */
  METRICS_PORT: z.coerce.number().int().min(0).max(65535).default(0),
  LOG_LEVEL: z.enum(['silent', 'error', 'warn', 'info', 'debug']).default('info'),
  /** A folder for forms that have been computed; they are kept in memory alone when empty. */
  FORMS: z.string().default(''),
  WEB_ROOT: z.string().default(''),
  /** Where the devices and the suppliers' service are; empty without one. See docs/stand-ins.md. */
  SCALE: address('SCALE'),
  PRINTER: address('PRINTER'),
  SCANNER: address('SCANNER'),
  SUPPLIER: address('SUPPLIER'),
  /** Where their stand-ins are played from, in the demo. */
  SCALE_CONTROL: address('SCALE_CONTROL'),
  PRINTER_CONTROL: address('PRINTER_CONTROL'),
  SCANNER_CONTROL: address('SCANNER_CONTROL'),
  SUPPLIER_CONTROL: address('SUPPLIER_CONTROL'),
})
export type Config = z.infer<typeof environment>

export function readConfig(from: NodeJS.ProcessEnv): Config {
  const read = environment.safeParse(from)
  if (read.success) {
    const { BEHIND_TLS, TESSELLUM_URL } = read.data
    return { ...read.data, BEHIND_TLS: BEHIND_TLS || TESSELLUM_URL.startsWith('https:') }
  }
  throw new Error(read.error.issues.map((issue) => `${issue.path.join('.')}: ${issue.message}`).join('\n'))
}

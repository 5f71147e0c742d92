import { z } from 'zod'

/** What the server is told by its environment; the start command fills it in. */
const environment = z.object({
  PORT: z.coerce.number().int().min(0).max(65535).default(5080),
  HOST: z.string().default('127.0.0.1'),
  DATABASE_URL: z.string().min(1, 'DATABASE_URL names the PostgreSQL database to use.'),
  SESSION_SECRET: z.string().min(16, 'SESSION_SECRET needs 16 characters or more.'),
  /** Behind a proxy that ends TLS: cookies are sent over https only. */
  BEHIND_TLS: z.stringbool().default(false),
  LOG_LEVEL: z.enum(['silent', 'error', 'warn', 'info', 'debug']).default('info'),
  WEB_ROOT: z.string().default(''),
  /** Where the scale is: host and port; empty without one. */
  SCALE: z
    .string()
    .regex(/^([\w.-]+:\d+)?$/, 'SCALE is a host and a port, such as 127.0.0.1:4800.')
    .default(''),
  /** Where its stand-in is played from, in the demo. */
  SCALE_CONTROL: z.string().default(''),
})
export type Config = z.infer<typeof environment>

export function readConfig(from: NodeJS.ProcessEnv): Config {
  const read = environment.safeParse(from)
  if (read.success) return read.data
  throw new Error(read.error.issues.map((issue) => `${issue.path.join('.')}: ${issue.message}`).join('\n'))
}

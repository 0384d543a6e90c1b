import { isZone } from '@pasado/core/values/moment'
import { z } from 'zod'
import { databaseAddress } from './db/hosts'

/** The address of a database, checked, and kept as it was written. */
const databaseUrl = z.string().superRefine((url, context) => {
  const { error } = databaseAddress.safeParse(url)
  if (error) context.addIssue({ code: 'custom', message: error.issues[0]!.message })
})

const settings = z.object({
  HOST: z.string().min(1).default('127.0.0.1'),
  PORT: z.coerce.number().int().min(0).max(65535).default(4180),
  DATABASE_URL: databaseUrl,
  /** The same database for a user who may set it up and grant: the one of DATABASE_URL is given what it needs then, and cannot change the logbook. */
  MIGRATE_URL: databaseUrl.optional(),
  /** Where any node of the database answers, for reads that may be a moment behind: figures, advisories, what a draft would have said. */
  READ_URL: databaseUrl.optional(),
  KEY_FILE: z.string().min(1),
  /** The keys of the epochs; beside the key file where it is left out. */
  EPOCH_FILE: z.string().min(1).optional(),
  /** Other machines that have a file of epoch keys of their own, as ssh knows them: an epoch is begun by `pasado keys renew` then, which brings them its key first. */
  KEY_NODES: z.string().default(''),
  /** The master key itself, 64 hexadecimal digits; takes the place of the key file's. */
  MASTER_KEY: z
    .string()
    .regex(/^[0-9a-f]{64}$/)
    .optional(),
  /** The address people open, where a proxy with TLS stands before the server. */
  PUBLIC_URL: z.url().optional(),
  TRUST_PROXY: z.enum(['0', '1']).default('0'),
  LOG_LEVEL: z.enum(['silent', 'error', 'warn', 'info', 'debug']).default('info'),
  /** Who the customer calls, as the pack prints it. */
  COMPANY_NAME: z.string().min(1).max(80).default('Tern & Tideway'),
  COMPANY_PHONE: z.string().min(1).max(40).default('555-0100'),
  /** The time zone of the company: every moment on paper is told in it. The machine's own where it is left out. */
  COMPANY_ZONE: z
    .string()
    .refine(isZone, 'must be a time zone such as Europe/Lisbon')
    .default(() => new Intl.DateTimeFormat().resolvedOptions().timeZone),
  /** 0 judges what was written in the thread that serves, 1 in one beside it. */
  JUDGE_THREAD: z.enum(['0', '1']).default('1'),
  /** 1 holds each answer of the API against its contract: for tests, as it takes time. */
  CHECK_ANSWERS: z.enum(['0', '1']).default('0'),
  /** Told to end, it says so at /readyz and goes on answering for so long, s: a proxy has to see it first. */
  DRAIN_S: z.coerce.number().int().min(0).max(600).default(0),
  /** What is under way then is waited for so long at most, s. */
  DRAIN_LIMIT_S: z.coerce.number().int().min(1).max(3600).default(20),
  /** Where /metrics is served, on loopback; nowhere where it is left out. */
  METRICS_PORT: z.coerce.number().int().min(0).max(65535).optional(),
  WEB_ROOT: z.string().optional()
})

/** What the server is told at its start. */
export type Config = z.infer<typeof settings>

/** Where the keys of the epochs stand. */
export const epochFileOf = ({ EPOCH_FILE, KEY_FILE }: Pick<Config, 'EPOCH_FILE' | 'KEY_FILE'>): string =>
  EPOCH_FILE ?? `${KEY_FILE}.epochs`

/**
 * Reads the settings from the environment.
 * @throws Error naming each setting that is not acceptable, and what it must be; never its value
 */
export function readConfig(environment: Record<string, string | undefined>): Config {
  const checked = settings.safeParse(environment)
  if (checked.success) return checked.data
  throw new Error(
    checked.error.issues
      .map(
        (issue) =>
          `${issue.path.join('.')}: ${issue.code === 'invalid_type' && issue.expected === 'number' ? 'must be a whole number' : issue.message}`
      )
      .join('\n')
  )
}

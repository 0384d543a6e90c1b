import { loginForm } from '@pasado/core/api/people'
import { refused } from '../problem'
import { HttpProblem } from './problem'
import { createHash, randomBytes } from 'node:crypto'
import argon2 from 'argon2'
import type { Context } from 'koa'
import type { RateLimiterMySQL } from 'rate-limiter-flexible'
import { addSession, personByLogin, personOfSession, setPassword, type Caller, type Person } from '../db/people'
import { transactionOn, type Db } from '../db/pool'
import { strengthOf } from '../strength/judge'
import { noteManyShown } from '../db/many-shown'
import { limiter, spend, takeOne } from './limits'

export const COOKIE = 'pasado_session'
const LASTS_MS = 14 * 24 * 3600 * 1000
const TRIES_A_LOGIN = 8
/** So many secrets a person looks at within an hour before the password is asked for again. */
const SHOWN_AN_HOUR = 10
const HOUR_S = 3600
const TRIES_AN_ADDRESS = 60
/** What a person's own password must come to: it opens the passwords of every customer. */
const LEAST_CHARACTERS = 10
const LEAST_SCORE = 3

/** So long it is remembered whose a session is, ms: where one ends by another process of a company, this one goes on with it no longer. */
const KNOWN_MS = 1_000
const MOST_KNOWN = 5_000

/** Argon2id at the cost OWASP recommends: 19 MiB, 2 passes, 1 lane. */
const COST = { type: argon2.argon2id, memoryCost: 19_456, timeCost: 2, parallelism: 1 } as const

/** The hash a password is kept as. */
export function hashPassword(password: string): Promise<string> {
  return argon2.hash(password, COST)
}

/** Logs people in and tells who is calling. Everything it knows is in the database. */
export class Sessions {
  readonly #byLogin: RateLimiterMySQL
  readonly #byAddress: RateLimiterMySQL
  readonly #shown: RateLimiterMySQL
  #dummyHash: Promise<string> | null = null
  #known = new Map<string, { person: Caller; until: number }>()

  constructor(
    private readonly db: Db,
    private readonly secure: boolean
  ) {
    this.#byLogin = limiter(db, 'login', TRIES_A_LOGIN)
    this.#byAddress = limiter(db, 'address', TRIES_AN_ADDRESS)
    this.#shown = limiter(db, 'shown', SHOWN_AN_HOUR, HOUR_S)
  }

  /**
   * Logs a person in.
   * @throws HttpProblem where login or password are wrong, or there were too many tries
   */
  async logIn(context: Context, typed: string, password: string, now = new Date()): Promise<Caller> {
    // One spelling is counted and looked up: whatever else is typed is nobody's login.
    const login = typed.trim().toLowerCase()
    const loginKey = keyOf(login)
    const address = context.state.address as string
    await spend(this.#byLogin, loginKey)
    await spend(this.#byAddress, address)
    const person = loginForm.test(login) ? await personByLogin(this.db, login) : null
    // A login that nobody has takes as long as a wrong password.
    this.#dummyHash ??= hashPassword(randomBytes(16).toString('hex'))
    const right = await argon2.verify(person?.passwordHash ?? (await this.#dummyHash), password)
    if (!person || !right) {
      throw new HttpProblem(401, 'wrong-login', 'Login or password are not right.', [
        { pointer: '/password', field: 'password', detail: 'does not go with this login; type both again' }
      ])
    }
    await this.#byLogin.delete(loginKey)
    await this.#byAddress.reward(address)
    const token = randomBytes(32)
    await addSession(this.db, hashOf(token), person.id, now, new Date(now.getTime() + LASTS_MS))
    context.cookies.set(COOKIE, token.toString('base64url'), {
      httpOnly: true,
      sameSite: 'lax',
      secure: this.secure || context.secure,
      path: '/',
      maxAge: LASTS_MS,
      overwrite: true,
      signed: false
    })
    const { passwordHash: _, ...rest } = person
    return rest
  }

  /**
   * Replaces a person's own password; every other session of theirs ends.
   * @throws HttpProblem where the one so far is wrong, the wanted one is not good enough, or there were too many tries
   */
  async choosePassword(context: Context, { id, login, name }: Person, current: string, wanted: string): Promise<void> {
    await spend(this.#byLogin, keyOf(login))
    const person = await personByLogin(this.db, login)
    if (!person || !(await argon2.verify(person.passwordHash, current)))
      throw refused([{ path: ['current'], message: 'is not your password so far; type it again' }])
    await this.#byLogin.delete(keyOf(login))
    const fault = await passwordFault(wanted, current, [login, name])
    if (fault) throw refused([{ path: ['wanted'], message: fault }])
    const hash = await hashPassword(wanted)
    await transactionOn<never, void>(this.db, null, (connection) =>
      setPassword(connection, id, hash, false, this.tokenHash(context))
    )
  }

  /**
   * Counts the showing of a secret. A stolen session does not open them all: after ten within an hour the password is asked for
   * again, and the leads are told.
   * @throws HttpProblem where the password is to be typed again
   */
  async mayShow({ id, name }: Person, now = new Date()): Promise<void> {
    if (await takeOne(this.#shown, id)) return
    await noteManyShown(this.db, { id, name }, new Date(Math.floor(now.getTime() / 60_000) * 60_000))
    throw new HttpProblem(
      403,
      'password-again',
      `You have looked at ${SHOWN_AN_HOUR} secrets within the hour. Type your password again to go on; the leads are told.`
    )
  }

  /**
   * Takes a person's password again, after which as many more secrets may be looked at.
   * @throws HttpProblem where it is wrong, or there were too many tries
   */
  async again({ id, login }: Person, password: string): Promise<void> {
    await spend(this.#byLogin, keyOf(login))
    const person = await personByLogin(this.db, login)
    if (!person || !(await argon2.verify(person.passwordHash, password)))
      throw refused([{ path: ['password'], message: 'is not your password; type it again' }])
    await this.#byLogin.delete(keyOf(login))
    await this.#shown.delete(id)
  }

  /** Who is calling; null without a session that still lasts. Remembered for a moment: whoever writes line after line is looked up once a second. */
  async personOf(context: Context, now = new Date()): Promise<Caller | null> {
    const hash = this.tokenHash(context)
    if (!hash) return null
    const key = hash.toString('base64')
    const known = this.#known.get(key)
    if (known && performance.now() < known.until) return known.person
    const among = this.#known
    const person = await personOfSession(this.db, hash, now)
    // Forgotten meanwhile: what was found may be what was ended.
    if (person && among === this.#known) {
      if (this.#known.size >= MOST_KNOWN) this.#known.clear()
      this.#known.set(key, { person, until: performance.now() + KNOWN_MS })
    }
    return person
  }

  /** Looks everybody up anew from here on: sessions may have ended, or roles may be others. */
  forgetKnown(): void {
    this.#known = new Map()
  }

  /** What the caller's session is kept under. */
  tokenHash(context: Context): Buffer | null {
    const token = context.cookies.get(COOKIE, { signed: false })
    return token && /^[\w-]{43}$/.test(token) ? hashOf(Buffer.from(token, 'base64url')) : null
  }

  /** Takes the cookie back. */
  forget(context: Context): void {
    context.cookies.set(COOKIE, null, {
      httpOnly: true,
      sameSite: 'lax',
      secure: this.secure || context.secure,
      path: '/',
      overwrite: true,
      signed: false
    })
  }
}

/** What is wrong with a password that somebody wants, and what to do; null where nothing is. */
export async function passwordFault(wanted: string, current: string, hints: readonly string[]): Promise<string | null> {
  if (wanted.length < LEAST_CHARACTERS)
    return `has ${wanted.length} characters; use at least ${LEAST_CHARACTERS}, a few words for one`
  if (wanted === current) return 'is the one you have; choose another'
  const { score, warning } = await strengthOf(wanted, [...hints, 'pasado'])
  return score >= LEAST_SCORE
    ? null
    : `would be guessed too soon; use more words${warning ? `. ${warning.replace(/\.$/, '')}` : ''}`
}

/** How a login is written: the same letters that a database compares one by one. */

/** Under which tries at a login are counted. */
function keyOf(login: string): string {
  return createHash('sha256').update(login).digest('base64url')
}

function hashOf(token: Buffer): Buffer {
  return createHash('sha256').update(token).digest()
}

import { join } from 'node:path'
import pino from 'pino'
import { v7 as uuidv7 } from 'uuid'
import { demoModels } from '@pasado/demo/models/all'
import { demoPassword, demoPeople, isolde } from '@pasado/demo/company'
import type { Draft } from '@pasado/core/record/entry'
import type { Body, EntryKind } from '@pasado/core/record/entries/all'
import { loadCompany } from '../scripts/load-demo'
import { readConfig } from '../server/src/config'
import { makeServices, serve, type Running } from '../server/src/server'
import type { Services } from '../server/src/services'
import { emptyDatabase, type TestDatabase } from './database'

export { demoModels, demoPassword, demoPeople }

/** A company with people and models but no visit, on a database of its own, with a server that listens. */
export function startCompany(options: { log?: (line: string) => void } = {}) {
  return companyOn(emptyDatabase, options)
}

/** As `startCompany`, on a database that the test makes itself. */
export async function companyOn<D extends TestDatabase>(
  make: () => Promise<D>,
  options: { log?: (line: string) => void } = {}
) {
  const database = await make()
  const services = await servicesOn(database.url, join(database.folder, 'key'), options.log)
  await loadCompany(services, new Date())
  const running = await serve(services)
  return {
    database,
    services,
    running,
    stop: async () => {
      await running.close()
      await database.drop()
    }
  }
}

/** Services of one more server process's worth on a database. */
export function servicesOn(url: string, keyFile: string, log?: (line: string) => void): Promise<Services> {
  const config = readConfig({
    DATABASE_URL: url,
    KEY_FILE: keyFile,
    PORT: '0',
    LOG_LEVEL: 'debug',
    CHECK_ANSWERS: '1',
    JUDGE_THREAD: '0'
  })
  return makeServices(config, log ? pino({ level: 'debug' }, { write: log }) : pino({ level: 'silent' }))
}

/** Somebody at a browser: keeps the cookie and speaks JSON. */
export class Caller {
  cookie = ''
  /** Everybody writes from an outbox of their own. */
  outbox = device

  constructor(readonly address: string) {}

  static as(running: Running, login: string): Promise<Caller> {
    return Caller.at(running.address, login)
  }

  static async at(address: string, login: string): Promise<Caller> {
    const caller = new Caller(address)
    caller.outbox = outboxOf(login)
    const { status } = await caller.call('POST', '/session', { login, password: demoPassword })
    if (status !== 200) throw new Error(`${login} could not log in: ${status}`)
    return caller
  }

  async call<T = Record<string, unknown>>(
    method: string,
    path: string,
    body?: unknown,
    headers: Record<string, string> = {}
  ): Promise<{ status: number; body: T; headers: Headers; text: string }> {
    const response = await fetch(`${this.address}/api${path}`, {
      method,
      headers: {
        cookie: this.cookie,
        ...(body === undefined ? {} : { 'content-type': 'application/json' }),
        ...headers
      },
      ...(body === undefined
        ? {}
        : {
            body:
              typeof body === 'string'
                ? body
                : JSON.stringify(body).replaceAll(`"from":"${device}"`, `"from":"${this.outbox}"`)
          })
    })
    const set = response.headers.getSetCookie()
    if (set.length) this.cookie = set[0]!.split(';')[0]!
    const text = await response.text()
    let parsed: unknown
    try {
      parsed = JSON.parse(text)
    } catch {
      parsed = undefined
    }
    return { status: response.status, body: parsed as T, headers: response.headers, text }
  }
}

/** A new visit at a new home; gives its id. */
export async function openAVisit(caller: Caller, brief: Record<string, unknown> = {}): Promise<string> {
  const id = uuidv7()
  const { status, text } = await caller.call('POST', '/visits', {
    id,
    home: uuidv7(),
    customer: uuidv7(),
    technician: isolde.id,
    brief: { customerName: 'Cressa Oakum', street: '6 Trawl Street', town: 'Ness Skerrow', country: 'XS', ...brief }
  })
  if (status !== 201) throw new Error(`the visit was not opened: ${text}`)
  return id
}

const device = '0199c000-0000-7000-8000-00000000000a'
export const otherDevice = '0199c000-0000-7000-8000-00000000000b'

/** The outbox of one of the demo people; Isolde's is that of `draft`. */
const outboxOf = (login: string) =>
  login === 'isolde' ? device : `0199c000-0000-7000-8000-0000000000${Buffer.from(login).subarray(0, 1).toString('hex')}`

/** A draft of an entry. */
export function draft<K extends EntryKind>(visit: string, kind: K, body: Body<K>, more: Partial<Draft> = {}): Draft {
  return { id: uuidv7(), visit, at: new Date().toISOString(), from: device, base: 1, kind, body, ...more } as Draft
}

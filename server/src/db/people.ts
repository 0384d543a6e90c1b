import type { PersonRole } from '@pasado/core/api/contract'
import { row, rows, run, type Connection } from './pool'

/** Somebody of the company who can log in. */
export interface Person {
  id: string
  login: string
  name: string
  role: PersonRole
}

/** Somebody who calls: a password that a lead gave has to be replaced before anything else. */
export interface Caller extends Person {
  mustChoose: boolean
}

const PERSON = 'id, login, name, role'

/** A person who works here, with the hash of the password, by login. */
export async function personByLogin(
  db: Connection,
  login: string
): Promise<(Caller & { passwordHash: string }) | null> {
  const found = await row<Caller & { passwordHash: string; mustChoose: unknown }>(
    db,
    `
      SELECT ${PERSON}, password_hash AS passwordHash, password_given AS mustChoose
      FROM users
      WHERE login = ?
        AND left_at IS NULL
    `,
    [login]
  )
  return found && { ...found, mustChoose: Boolean(found.mustChoose) }
}

export async function countPeople(db: Connection): Promise<number> {
  return (await row<{ many: number }>(db, 'SELECT COUNT(*) AS many FROM users'))!.many
}

/** Who can be sent to a visit. */
export function technicians(db: Connection): Promise<Person[]> {
  return rows<Person>(
    db,
    `
      SELECT ${PERSON}
      FROM users
      WHERE role IN ('technician', 'lead')
        AND left_at IS NULL
      ORDER BY name, id
    `
  )
}

/** The ids of the leads who work here. */
export async function leadsWorking(db: Connection): Promise<string[]> {
  return (await rows<{ id: string }>(db, "SELECT id FROM users WHERE role = 'lead' AND left_at IS NULL")).map(
    ({ id }) => id
  )
}

/** Adds a person. @param given whether the password was given by somebody else, and is to be replaced at the first log-in */
export async function addPerson(
  db: Connection,
  person: Person,
  passwordHash: string,
  now: Date,
  given = false
): Promise<void> {
  await run(
    db,
    `
      INSERT INTO users (id, login, name, role, password_hash, created_at, password_given)
      VALUES (?, ?, ?, ?, ?, ?, ?)
    `,
    [person.id, person.login, person.name, person.role, passwordHash, now, Number(given)]
  )
}

/** A person as the list of people shows them. */
export interface ListedPerson extends Person {
  leftAt: string | null
  mustChoose: boolean
  /** Where they are logged in just now, in how many browsers. */
  sessions: number
  openVisits: number
}

/** Everybody, those who work here first. */
export async function allPeople(db: Connection, now: Date): Promise<ListedPerson[]> {
  const found = await rows<Person & { leftAt: Date | null; mustChoose: unknown; sessions: number; openVisits: number }>(
    db,
    `
      SELECT ${PERSON}, left_at AS leftAt, password_given AS mustChoose,
        (SELECT COUNT(*) FROM sessions s WHERE s.user_id = users.id AND s.expires_at > ?) AS sessions,
        (SELECT COUNT(*) FROM visits v WHERE v.technician_id = users.id AND v.sealed_at IS NULL AND v.cancelled_at IS NULL) AS openVisits
      FROM users
      ORDER BY left_at IS NOT NULL, name, id
    `,
    [now]
  )
  return found.map((person) => ({
    ...person,
    leftAt: person.leftAt?.toISOString() ?? null,
    mustChoose: Boolean(person.mustChoose)
  }))
}

/** Locks everybody who could be the last lead, then gives the person. To be called in the transaction that changes them. */
export async function lockPerson(
  db: Connection,
  id: string
): Promise<{ person: (Person & { leftAt: Date | null }) | null; otherLeads: number }> {
  const leads = await rows<{ id: string }>(
    db,
    "SELECT id FROM users WHERE role = 'lead' AND left_at IS NULL FOR UPDATE",
    []
  )
  const person = await row<Person & { leftAt: Date | null }>(
    db,
    `SELECT ${PERSON}, left_at AS leftAt FROM users WHERE id = ? FOR UPDATE`,
    [id]
  )
  return { person, otherLeads: leads.filter((lead) => lead.id !== id).length }
}

export async function changePerson(
  db: Connection,
  id: string,
  { name, role, leftAt }: { name: string; role: PersonRole; leftAt: Date | null }
): Promise<void> {
  await run(db, 'UPDATE users SET name = ?, role = ?, left_at = ? WHERE id = ?', [name, role, leftAt, id])
}

/** Sets a password and ends every session of the person but one. */
export async function setPassword(
  db: Connection,
  id: string,
  passwordHash: string,
  given: boolean,
  but: Buffer | null
): Promise<void> {
  await run(db, 'UPDATE users SET password_hash = ?, password_given = ? WHERE id = ?', [
    passwordHash,
    Number(given),
    id
  ])
  await run(db, 'DELETE FROM sessions WHERE user_id = ? AND token_hash <> ?', [id, but ?? Buffer.alloc(32)])
}

export async function addSession(
  db: Connection,
  tokenHash: Buffer,
  user: string,
  now: Date,
  expires: Date
): Promise<void> {
  await run(
    db,
    `
      INSERT INTO sessions (token_hash, user_id, created_at, expires_at)
      VALUES (?, ?, ?, ?)
    `,
    [tokenHash, user, now, expires]
  )
}

/** Whose session this is, while it lasts. */
export async function personOfSession(db: Connection, tokenHash: Buffer, now: Date): Promise<Caller | null> {
  const found = await row<Person & { mustChoose: unknown }>(
    db,
    `
      SELECT u.id, u.login, u.name, u.role, u.password_given AS mustChoose
      FROM sessions s
      JOIN users u ON u.id = s.user_id
      WHERE s.token_hash = ?
        AND s.expires_at > ?
        AND u.left_at IS NULL
    `,
    [tokenHash, now]
  )
  return found && { ...found, mustChoose: Boolean(found.mustChoose) }
}

export async function endSession(db: Connection, tokenHash: Buffer): Promise<void> {
  await run(db, 'DELETE FROM sessions WHERE token_hash = ?', [tokenHash])
}

export async function endAllSessions(db: Connection, user: string): Promise<void> {
  await run(db, 'DELETE FROM sessions WHERE user_id = ?', [user])
}

export async function dropExpiredSessions(db: Connection, now: Date): Promise<void> {
  await run(db, 'DELETE FROM sessions WHERE expires_at <= ?', [now])
}

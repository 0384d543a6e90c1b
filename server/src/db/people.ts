import { row, rows, run, type Connection } from './pool'

export type PersonRole = 'technician' | 'lead' | 'office'

/** Somebody of the company who can log in. */
export interface Person {
  id: string
  login: string
  name: string
  role: PersonRole
}

const PERSON = 'id, login, name, role'

/** A person with the hash of the password, by login. */
export function personByLogin(db: Connection, login: string): Promise<(Person & { passwordHash: string }) | null> {
  return row(db, `SELECT ${PERSON}, password_hash AS passwordHash FROM users WHERE login = ?`, [login])
}

export async function countPeople(db: Connection): Promise<number> {
  return (await row<{ many: number }>(db, 'SELECT COUNT(*) AS many FROM users'))!.many
}

export function readPerson(db: Connection, id: string): Promise<Person | null> {
  return row<Person>(db, `SELECT ${PERSON} FROM users WHERE id = ?`, [id])
}

export function technicians(db: Connection): Promise<Person[]> {
  return rows<Person>(db, `SELECT ${PERSON} FROM users WHERE role IN ('technician', 'lead') ORDER BY name, id`)
}

export async function addPerson(db: Connection, person: Person, passwordHash: string, now: Date): Promise<void> {
  await run(db, 'INSERT INTO users (id, login, name, role, password_hash, created_at) VALUES (?, ?, ?, ?, ?, ?)', [person.id, person.login, person.name, person.role, passwordHash, now])
}

export async function addSession(db: Connection, tokenHash: Buffer, user: string, now: Date, expires: Date): Promise<void> {
  await run(db, 'INSERT INTO sessions (token_hash, user_id, created_at, expires_at) VALUES (?, ?, ?, ?)', [tokenHash, user, now, expires])
}

/** Whose session this is, while it lasts. */
export function personOfSession(db: Connection, tokenHash: Buffer, now: Date): Promise<Person | null> {
  return row<Person>(db, `SELECT u.id, u.login, u.name, u.role FROM sessions s JOIN users u ON u.id = s.user_id WHERE s.token_hash = ? AND s.expires_at > ?`, [tokenHash, now])
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

import { row, run, type Connection } from './pool'

/** What is known of the company itself, by name; null where it is not. */
export async function companyFact(db: Connection, name: 'key-print'): Promise<string | null> {
  return (await row<{ value: string }>(db, 'SELECT value FROM company_facts WHERE name = ?', [name]))?.value ?? null
}

/** Notes something of the company where nothing is noted yet, and gives what stands. */
export async function noteCompanyFact(db: Connection, name: 'key-print', value: string): Promise<string> {
  await run(db, 'INSERT IGNORE INTO company_facts (name, value) VALUES (?, ?)', [name, value])
  return (await companyFact(db, name))!
}

/** Notes something of the company anew. */
export async function setCompanyFact(db: Connection, name: 'key-print', value: string): Promise<void> {
  await run(
    db,
    `
      INSERT INTO company_facts (name, value)
      VALUES (?, ?)
      ON DUPLICATE KEY UPDATE value = VALUES(value)
    `,
    [name, value]
  )
}

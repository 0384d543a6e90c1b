import type { SecretPurpose } from '@pasado/core/record/answers'
import { row, rows, run, type Connection } from './pool'

/** A secret as it lies in the vault: sealed, and empty where it was erased. */
export interface SealedSecret {
  ref: string
  thing: string
  purpose: SecretPurpose
  sealed: Buffer
}

/** Every secret of a visit, erased ones as well. */
export const sealedSecrets = (db: Connection, visit: string): Promise<SealedSecret[]> =>
  rows<SealedSecret>(
    db,
    `
      SELECT id AS ref, thing_id AS thing, purpose, sealed_value AS sealed
      FROM vault_secrets
      WHERE visit_id = ?
    `,
    [visit]
  )

/** Whether a visit has a secret of this reference, erased or not. */
export async function hasSecret(db: Connection, visit: string, ref: string): Promise<boolean> {
  return (await row(db, 'SELECT 1 FROM vault_secrets WHERE id = ? AND visit_id = ?', [ref, visit])) !== null
}

/** Puts a sealed secret away, with the company's print of it. */
export async function insertSecret(
  db: Connection,
  visit: string,
  { ref, thing, purpose, sealed }: SealedSecret,
  print: Buffer
): Promise<void> {
  await run(
    db,
    `
      INSERT INTO vault_secrets (id, visit_id, thing_id, purpose, sealed_value, company_print)
      VALUES (?, ?, ?, ?, ?, ?)
    `,
    [ref, visit, thing, purpose, sealed, print]
  )
}

/** Puts another sealed value and print in place of a secret's. */
export async function replaceSecret(
  db: Connection,
  visit: string,
  ref: string,
  sealed: Buffer,
  print: Buffer
): Promise<void> {
  await run(
    db,
    `
      UPDATE vault_secrets
      SET sealed_value = ?, company_print = ?
      WHERE id = ?
        AND visit_id = ?
    `,
    [sealed, print, ref, visit]
  )
}

/** Puts another print in place of a secret's. */
export async function replacePrint(db: Connection, ref: string, print: Buffer): Promise<void> {
  await run(db, 'UPDATE vault_secrets SET company_print = ? WHERE id = ?', [print, ref])
}

/** Empties every secret of a visit. */
export async function emptySecrets(db: Connection, visit: string): Promise<void> {
  await run(
    db,
    `
      UPDATE vault_secrets
      SET sealed_value = ?, company_print = ?
      WHERE visit_id = ?
    `,
    [Buffer.alloc(0), Buffer.alloc(32), visit]
  )
}

/** Empties one secret of a visit. */
export const emptySecret = (db: Connection, visit: string, ref: string): Promise<void> =>
  replaceSecret(db, visit, ref, Buffer.alloc(0), Buffer.alloc(32))

/** The company's prints of a visit's secrets that are not erased. */
export const companyPrints = (db: Connection, visit: string): Promise<{ ref: string; print: Buffer }[]> =>
  rows<{ ref: string; print: Buffer }>(
    db,
    `
      SELECT id AS ref, company_print AS print
      FROM vault_secrets
      WHERE visit_id = ?
        AND LENGTH(sealed_value) > 0
    `,
    [visit]
  )

/** Whether a value of this print is in use for the same purpose at another home than the visit's. */
export async function isUsedElsewhere(
  db: Connection,
  print: Buffer,
  purpose: SecretPurpose,
  visit: string
): Promise<boolean> {
  const found = await row(
    db,
    `
      SELECT 1
      FROM vault_secrets other
      JOIN visits there ON there.id = other.visit_id
      WHERE other.company_print = ?
        AND other.purpose = ?
        AND there.home_id <> (SELECT home_id FROM visits WHERE id = ?)
      LIMIT 1
    `,
    [print, purpose, visit]
  )
  return found !== null
}

import type { NearNames } from '@pasado/core/record/near-names'
import { createHash, randomBytes } from 'node:crypto'
import type { SecretAssessment, SecretPurpose } from '@pasado/core/record/answers'
import { isPrivateName } from '@pasado/core/secrets/names'
import { row, rows, run, type Connection } from '../db/pool'
import { strengthOf } from '../strength/judge'
import { openValue, printKeyOf, printOf, sealValue } from './envelope'
import type { CompanyKeys } from './master-key'

/** A secret as it is put into the vault. */
export interface SecretToKeep {
  ref: string
  visit: string
  thing: string
  purpose: SecretPurpose
  value: string
}

/** A secret out of the vault. */
export interface OpenSecret {
  ref: string
  thing: string
  purpose: SecretPurpose
  value: string
}

/** Said where a visit's data key was destroyed: its secrets are gone for good. */
export class SecretsErased extends Error {
  constructor() {
    super("this visit's secrets were erased")
  }
}

/** Secrets at rest: AES-256-GCM under a data key a visit, each data key wrapped by the master key. */
export class Vault {
  constructor(private readonly keys: CompanyKeys) {}

  /** Whether the vault has a key for a visit's secrets: one that came as a file without them has none. */
  async hasKey(db: Connection, visit: string): Promise<boolean> {
    return (await row(db, 'SELECT 1 FROM vault_keys WHERE visit_id = ? AND wrapped IS NOT NULL', [visit])) !== null
  }

  /** Puts a secret away and tells what is known about it without knowing it. */
  async keep(db: Connection, secret: SecretToKeep, near: NearNames): Promise<SecretAssessment> {
    const dataKey = await this.#dataKey(db, secret.visit, true)
    await this.#put(db, dataKey, secret)
    return this.#assess(db, secret, dataKey, near)
  }

  /** Judges a kept secret anew, after a name near it changed. */
  async assess(db: Connection, visit: string, secret: OpenSecret, near: NearNames): Promise<SecretAssessment> {
    return this.#assess(db, { ...secret, visit }, await this.#dataKey(db, visit, false), near)
  }

  /** Opens one secret of a visit; null where there is none. @throws SecretsErased where it was erased */
  async open(db: Connection, visit: string, ref: string): Promise<OpenSecret | null> {
    const secret = (await this.openAll(db, visit)).find((one) => one.ref === ref)
    if (!secret && (await row(db, 'SELECT 1 FROM vault_secrets WHERE id = ? AND visit_id = ?', [ref, visit])))
      throw new SecretsErased()
    return secret ?? null
  }

  /** Opens every secret of a visit. @throws SecretsErased where its key was destroyed */
  async openAll(db: Connection, visit: string): Promise<OpenSecret[]> {
    const sealed = await rows<{ id: string; thing_id: string; purpose: SecretPurpose; sealed_value: Buffer }>(
      db,
      `
        SELECT id, thing_id, purpose, sealed_value
        FROM vault_secrets
        WHERE visit_id = ?
      `,
      [visit]
    )
    if (sealed.length === 0) return []
    const dataKey = await this.#dataKey(db, visit, false)
    // Where some were kept, the erased ones stand empty beside them.
    return sealed
      .filter((one) => one.sealed_value.length > 0)
      .map((one) => ({
        ref: one.id,
        thing: one.thing_id,
        purpose: one.purpose,
        value: openValue(dataKey, one.sealed_value, `${visit}/${one.id}`).toString('utf8')
      }))
  }

  /** Seals octets that are a secret, the picture of a label, under the visit's data key. */
  async sealOctets(db: Connection, visit: string, ref: string, octets: Buffer): Promise<Buffer> {
    return sealValue(await this.#dataKey(db, visit, true), octets, `${visit}/${ref}`)
  }

  /** Opens what `sealOctets` made. @throws SecretsErased where the visit's key was destroyed */
  async openOctets(db: Connection, visit: string, ref: string, sealed: Buffer): Promise<Buffer> {
    return openValue(await this.#dataKey(db, visit, false), sealed, `${visit}/${ref}`)
  }

  /**
   * Destroys a visit's data key: none of its secrets can be opened again, by anybody. Those that are kept go under a new key first.
   * @returns the SHA-256 of the key that was destroyed, by which a copy of it in a backup can be told; null where there was none
   */
  async erase(db: Connection, visit: string, now: Date, kept: readonly string[] = []): Promise<string | null> {
    const held = await row<{ wrapped: Buffer | null }>(db, 'SELECT wrapped FROM vault_keys WHERE visit_id = ?', [visit])
    const print = held?.wrapped ? this.#printOfKey(held.wrapped, visit) : null
    const staying = kept.length ? (await this.openAll(db, visit)).filter(({ ref }) => kept.includes(ref)) : []
    await run(
      db,
      `
        UPDATE vault_secrets
        SET sealed_value = ?, company_print = ?
        WHERE visit_id = ?
      `,
      [Buffer.alloc(0), Buffer.alloc(32), visit]
    )
    if (staying.length === 0) {
      await run(
        db,
        `
          UPDATE vault_keys
          SET wrapped = NULL, destroyed_at = ?
          WHERE visit_id = ?
            AND destroyed_at IS NULL
        `,
        [now, visit]
      )
      return print
    }
    await this.#putUnder(db, visit, randomBytes(32), staying)
    return print
  }

  /** The company's prints of a visit's secrets, or of some of them, by reference: equal for equal values. Erased ones have none. */
  async printsOf(db: Connection, visit: string, refs: readonly string[] | null): Promise<Map<string, string>> {
    const found = await rows<{ id: string; print: Buffer }>(
      db,
      `
        SELECT id, company_print AS print
        FROM vault_secrets
        WHERE visit_id = ?
          AND LENGTH(sealed_value) > 0
      `,
      [visit]
    )
    return new Map(
      found.filter(({ id }) => refs === null || refs.includes(id)).map(({ id, print }) => [id, print.toString('hex')])
    )
  }

  /**
   * Erases some secrets of a visit that goes on: its data key is destroyed, the others go under a new one, and so do photos of labels.
   * @returns the SHA-256 of the key that was destroyed
   */
  async eraseSome(db: Connection, visit: string, refs: readonly string[]): Promise<string | null> {
    const held = await row<{ wrapped: Buffer | null }>(db, 'SELECT wrapped FROM vault_keys WHERE visit_id = ?', [visit])
    if (!held?.wrapped) return null
    const oldKey = await this.#dataKey(db, visit, false)
    const staying = (await this.openAll(db, visit)).filter(({ ref }) => !refs.includes(ref))
    const dataKey = randomBytes(32)
    for (const ref of refs)
      await run(
        db,
        `
          UPDATE vault_secrets
          SET sealed_value = ?, company_print = ?
          WHERE id = ?
            AND visit_id = ?
        `,
        [Buffer.alloc(0), Buffer.alloc(32), ref, visit]
      )
    await this.#putUnder(db, visit, dataKey, staying)
    for (const { ref, picture } of await rows<{ ref: string; picture: Buffer }>(
      db,
      'SELECT ref, picture FROM photos WHERE visit_id = ? AND label',
      [visit]
    )) {
      if (picture.length > 0)
        await run(db, 'UPDATE photos SET picture = ? WHERE ref = ? AND visit_id = ?', [
          sealValue(dataKey, openValue(oldKey, picture, `${visit}/${ref}`), `${visit}/${ref}`),
          ref,
          visit
        ])
    }
    return this.#printOfKey(held.wrapped, visit)
  }

  /** Puts a visit's secrets under another data key. */
  async #putUnder(db: Connection, visit: string, dataKey: Buffer, staying: readonly OpenSecret[]): Promise<void> {
    await run(db, 'UPDATE vault_keys SET wrapped = ? WHERE visit_id = ?', [
      sealValue(this.keys.wrap, dataKey, visit),
      visit
    ])
    for (const { ref, value } of staying) {
      await run(
        db,
        `
          UPDATE vault_secrets
          SET sealed_value = ?, company_print = ?
          WHERE id = ?
            AND visit_id = ?
        `,
        [sealValue(dataKey, Buffer.from(value, 'utf8'), `${visit}/${ref}`), printOf(this.keys.print, value), ref, visit]
      )
    }
  }

  /** The SHA-256 of a wrapped data key; null where it cannot be opened, as after a lost master key: it is destroyed all the same. */
  #printOfKey(wrapped: Buffer, visit: string): string | null {
    try {
      return createHash('sha256')
        .update(openValue(this.keys.wrap, wrapped, visit))
        .digest('hex')
    } catch {
      return null
    }
  }

  /** The data key of a visit, for an export that is to be taken in elsewhere. */
  exportKey(db: Connection, visit: string): Promise<Buffer> {
    return this.#dataKey(db, visit, false)
  }

  /** Takes in a visit's data key with its secrets, as an export holds them. */
  async takeIn(db: Connection, visit: string, dataKey: Buffer, secrets: readonly OpenSecret[]): Promise<void> {
    await run(db, 'INSERT INTO vault_keys (visit_id, wrapped) VALUES (?, ?)', [
      visit,
      sealValue(this.keys.wrap, dataKey, visit)
    ])
    for (const secret of secrets) await this.#put(db, dataKey, { ...secret, visit })
  }

  async #put(db: Connection, dataKey: Buffer, secret: SecretToKeep): Promise<void> {
    await run(
      db,
      `
        INSERT INTO vault_secrets (id, visit_id, thing_id, purpose, sealed_value, company_print)
        VALUES (?, ?, ?, ?, ?, ?)
      `,
      [
        secret.ref,
        secret.visit,
        secret.thing,
        secret.purpose,
        sealValue(dataKey, Buffer.from(secret.value, 'utf8'), `${secret.visit}/${secret.ref}`),
        printOf(this.keys.print, secret.value)
      ]
    )
  }

  async #assess(db: Connection, secret: SecretToKeep, dataKey: Buffer, near: NearNames): Promise<SecretAssessment> {
    const names = [...near.ssids, near.customer ?? '', near.street ?? ''].filter(Boolean)
    const { score, bits } = await strengthOf(secret.value, names)
    const elsewhere = await row(
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
      [printOf(this.keys.print, secret.value), secret.purpose, secret.visit]
    )
    const lower = secret.value.toLowerCase()
    return {
      score,
      bits: Math.round(bits * 10) / 10,
      print: printOf(printKeyOf(dataKey), secret.value).toString('base64url'),
      holdsName:
        near.ssids.some((ssid) => ssid.length >= 3 && lower.includes(ssid.toLowerCase())) ||
        isPrivateName(secret.value, [near.customer, near.street]) !== null,
      usedElsewhere: elsewhere !== null
    }
  }

  async #dataKey(db: Connection, visit: string, make: boolean): Promise<Buffer> {
    const held = await row<{ wrapped: Buffer | null }>(db, 'SELECT wrapped FROM vault_keys WHERE visit_id = ?', [visit])
    if (held?.wrapped) return openValue(this.keys.wrap, held.wrapped, visit)
    if (held || !make) throw new SecretsErased()
    const dataKey = randomBytes(32)
    await run(db, 'INSERT INTO vault_keys (visit_id, wrapped) VALUES (?, ?)', [
      visit,
      sealValue(this.keys.wrap, dataKey, visit)
    ])
    return dataKey
  }
}

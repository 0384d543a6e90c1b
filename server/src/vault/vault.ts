import { keyRow, destroyKey, insertKey, replaceKey, wrappedKey, type WrappedKey } from '../db/vault-keys'
import { epochInUse, noteKeyDestroyed } from '../db/key-epochs'
import {
  companyPrints,
  emptySecret,
  emptySecrets,
  hasSecret,
  insertSecret,
  isUsedElsewhere,
  replacePrint,
  replaceSecret,
  sealedSecrets
} from '../db/vault-secrets'
import { labelPictures, replacePicture } from '../db/photos'
import type { NearNames } from '@pasado/core/record/near-names'
import { createHash, randomBytes } from 'node:crypto'
import type { SecretAssessment, SecretPurpose } from '@pasado/core/record/answers'
import { passwordOfLogin } from '@pasado/core/secrets/login'
import { isPrivateName } from '@pasado/core/secrets/names'
import type { Connection } from '../db/pool'
import { strengthOf } from '../strength/judge'
import { openValue, printKeyOf, printOf, sealValue } from './envelope'
import type { EpochStore } from './epoch-store'
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

/** Secrets at rest: AES-256-GCM under a data key a visit, each data key wrapped by the master key and the key of an epoch. */
export class Vault {
  constructor(
    private readonly keys: CompanyKeys,
    private readonly epochs: EpochStore
  ) {}

  /** Whether the vault has a key for a visit's secrets: one that came as a file without them has none. */
  async hasKey(db: Connection, visit: string): Promise<boolean> {
    return (await wrappedKey(db, visit)) !== null
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
    const secret = (await this.openAll(db, visit)).find((candidate) => candidate.ref === ref)
    if (!secret && (await hasSecret(db, visit, ref))) throw new SecretsErased()
    return secret ?? null
  }

  /** Opens every secret of a visit. @throws SecretsErased where its key was destroyed */
  async openAll(db: Connection, visit: string): Promise<OpenSecret[]> {
    const sealed = await sealedSecrets(db, visit)
    if (sealed.length === 0) return []
    const dataKey = await this.#dataKey(db, visit, false)
    // Where some were kept, the erased ones stand empty beside them.
    return sealed
      .filter((secret) => secret.sealed.length > 0)
      .map(({ ref, thing, purpose, sealed }) => ({
        ref,
        thing,
        purpose,
        value: openValue(dataKey, sealed, `${visit}/${ref}`).toString('utf8')
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
    const held = await wrappedKey(db, visit)
    const print = held ? this.#printOfKey(held, visit) : null
    const staying = kept.length ? (await this.openAll(db, visit)).filter(({ ref }) => kept.includes(ref)) : []
    await emptySecrets(db, visit)
    await noteKeyDestroyed(db, now)
    if (staying.length === 0) {
      await destroyKey(db, visit, now)
      return print
    }
    await this.#putUnder(db, visit, randomBytes(32), staying)
    return print
  }

  /** The company's prints of a visit's secrets, or of some of them, by reference: equal for equal values. Erased ones have none. */
  async printsOf(db: Connection, visit: string, refs: readonly string[] | null): Promise<Map<string, string>> {
    const found = await companyPrints(db, visit)
    return new Map(
      found
        .filter(({ ref }) => refs === null || refs.includes(ref))
        .map(({ ref, print }) => [ref, print.toString('hex')])
    )
  }

  /**
   * Erases some secrets of a visit that goes on: its data key is destroyed, the others go under a new one, and so do photos of labels.
   * @returns the SHA-256 of the key that was destroyed
   */
  async eraseSome(db: Connection, visit: string, refs: readonly string[], now: Date): Promise<string | null> {
    const held = await wrappedKey(db, visit)
    if (!held) return null
    const oldKey = await this.#dataKey(db, visit, false)
    const staying = (await this.openAll(db, visit)).filter(({ ref }) => !refs.includes(ref))
    const dataKey = randomBytes(32)
    for (const ref of refs) await emptySecret(db, visit, ref)
    await this.#putUnder(db, visit, dataKey, staying)
    await noteKeyDestroyed(db, now)
    for (const { ref, picture } of await labelPictures(db, visit)) {
      if (picture.length === 0) continue
      const opened = openValue(oldKey, picture, `${visit}/${ref}`)
      await replacePicture(db, visit, ref, sealValue(dataKey, opened, `${visit}/${ref}`))
    }
    return this.#printOfKey(held, visit)
  }

  /** Makes the company's prints of a visit's secrets anew, under the master key of now. */
  async printAnew(db: Connection, visit: string): Promise<void> {
    for (const { ref, value } of await this.openAll(db, visit))
      await replacePrint(db, ref, printOf(this.keys.print, value))
  }

  /** Which secrets and pictures of labels of a visit its data key does not open: it is another one than they were sealed under. */
  async notOpened(db: Connection, visit: string): Promise<{ refs: string[]; pictures: string[] }> {
    const dataKey = await this.#dataKey(db, visit, false)
    const opens = (ref: string, sealed: Buffer) => {
      try {
        openValue(dataKey, sealed, `${visit}/${ref}`)
        return true
      } catch {
        return false
      }
    }
    const closed = <T extends { ref: string }>(list: readonly T[], of: (item: T) => Buffer) =>
      list.filter((item) => of(item).length > 0 && !opens(item.ref, of(item))).map(({ ref }) => ref)
    return {
      refs: closed(await sealedSecrets(db, visit), ({ sealed }) => sealed),
      pictures: closed(await labelPictures(db, visit), ({ picture }) => picture)
    }
  }

  /** Puts a visit's secrets under another data key. */
  async #putUnder(db: Connection, visit: string, dataKey: Buffer, staying: readonly OpenSecret[]): Promise<void> {
    await replaceKey(db, visit, await this.#wrap(db, dataKey, visit))
    for (const { ref, value } of staying) {
      const sealed = sealValue(dataKey, Buffer.from(value, 'utf8'), `${visit}/${ref}`)
      await replaceSecret(db, visit, ref, sealed, printOf(this.keys.print, value))
    }
  }

  /** The SHA-256 of a wrapped data key; null where it cannot be opened, as after a lost master key: it is destroyed all the same. */
  #printOfKey(held: WrappedKey, visit: string): string | null {
    try {
      return createHash('sha256').update(this.#unwrap(held, visit)).digest('hex')
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
    await insertKey(db, visit, await this.#wrap(db, dataKey, visit))
    for (const secret of secrets) await this.#put(db, dataKey, { ...secret, visit })
  }

  async #put(db: Connection, dataKey: Buffer, secret: SecretToKeep): Promise<void> {
    const { ref, visit, thing, purpose, value } = secret
    const sealed = sealValue(dataKey, Buffer.from(value, 'utf8'), `${visit}/${ref}`)
    await insertSecret(db, visit, { ref, thing, purpose, sealed }, printOf(this.keys.print, value))
  }

  async #assess(db: Connection, secret: SecretToKeep, dataKey: Buffer, near: NearNames): Promise<SecretAssessment> {
    const names = [...near.ssids, near.customer ?? '', near.street ?? ''].filter(Boolean)
    const { score, bits } = await strengthOf(secret.value, names)
    const print = printOf(this.keys.print, secret.value)
    const usedElsewhere = await isUsedElsewhere(db, print, secret.purpose, secret.visit)
    const lower = secret.value.toLowerCase()
    // A password of ours is held against that of the label, not against name and password together.
    const compared = secret.purpose === 'label-login' ? passwordOfLogin(secret.value) : secret.value
    return {
      score,
      bits: Math.round(bits * 10) / 10,
      print: printOf(printKeyOf(dataKey), compared).toString('base64url'),
      holdsName:
        near.ssids.some((ssid) => ssid.length >= 3 && lower.includes(ssid.toLowerCase())) ||
        isPrivateName(secret.value, [near.customer, near.street]) !== null,
      usedElsewhere
    }
  }

  /** A data key wrapped in the epoch that is in use. */
  async #wrap(db: Connection, dataKey: Buffer, visit: string): Promise<WrappedKey> {
    const epoch = await epochInUse(db)
    return { wrapped: sealValue(this.epochs.wrapping(epoch), dataKey, visit), epoch }
  }

  #unwrap({ wrapped, epoch }: WrappedKey, visit: string): Buffer {
    return openValue(this.epochs.wrapping(epoch), wrapped, visit)
  }

  async #dataKey(db: Connection, visit: string, make: boolean): Promise<Buffer> {
    const held = await keyRow(db, visit)
    if (held?.held) return this.#unwrap(held.held, visit)
    if (held || !make) throw new SecretsErased()
    const dataKey = randomBytes(32)
    await insertKey(db, visit, await this.#wrap(db, dataKey, visit))
    return dataKey
  }
}

import { transactionOn, type Connection, type Db } from '../db/pool'
import { anyKey, lockKeys, replaceKey } from '../db/vault-keys'
import { replacePrint, sealedSecrets } from '../db/vault-secrets'
import { addSealKey } from '../db/seal-keys'
import { openValue, printOf, sealValue } from './envelope'
import { setCompanyFact } from '../db/company-facts'
import { EpochStore } from './epoch-store'
import { companyKeys, type CompanyKeys } from './master-key'

/**
 * Puts every secret of the company under another master key, in one transaction: each visit's data key is wrapped anew in its epoch, each secret's
 * print made anew. Public keys of old seals stay known, so that what they sealed still verifies. No server may run meanwhile, as it
 * would go on with the key it knows.
 * @param epochFile the file of epoch keys
 * @returns how many visits' keys were wrapped anew
 */
export async function rotateMasterKey(db: Db, from: Buffer, to: Buffer, epochFile: string): Promise<number> {
  const [old, next] = [companyKeys(from), companyKeys(to)]
  const [before, after] = [old, next].map(({ wrap }) => new EpochStore(epochFile, wrap)) as [EpochStore, EpochStore]
  return transactionOn(db, null, async (connection) => {
    const held = await lockKeys(connection)
    for (const { visit, wrapped, epoch } of held) {
      const dataKey = openValue(before.wrapping(epoch), wrapped, visit)
      await replaceKey(connection, visit, { wrapped: sealValue(after.wrapping(epoch), dataKey, visit), epoch })
      for (const { ref, sealed } of await sealedSecrets(connection, visit)) {
        if (sealed.length === 0) continue
        const value = openValue(dataKey, sealed, `${visit}/${ref}`).toString('utf8')
        await replacePrint(connection, ref, printOf(next.print, value))
      }
    }
    await addSealKey(connection, old.keyName, old.publicKey)
    await addSealKey(connection, next.keyName, next.publicKey)
    await setCompanyFact(connection, 'key-print', next.check)
    return held.length
  })
}

/** Whether these keys open what the vault holds: a look at one wrapped data key; true where it holds nothing. */
export async function opensWhatIsKept(db: Connection, { wrap }: CompanyKeys, epochFile: string): Promise<boolean> {
  const held = await anyKey(db)
  if (!held) return true
  try {
    openValue(new EpochStore(epochFile, wrap).wrapping(held.epoch), held.wrapped, held.visit)
    return true
  } catch {
    return false
  }
}

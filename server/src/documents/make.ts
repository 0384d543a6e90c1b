import { packContentOf, type PackContent } from '@pasado/core/pack/content'
import type { Author } from '@pasado/core/record/entry'
import { packDigest } from '@pasado/core/record/seal'
import { standing } from '@pasado/core/record/record'
import { passphraseOf } from '@pasado/core/wifi/passphrase'
import { readVisit } from '../logbook/read'
import { erasedProblem } from '../logbook/visits'
import type { Services } from '../services'
import { packPdf } from './pack'
import { recordPdf } from './record-pdf'

/**
 * What the customer's pack says. That its passphrases were shown is logged with why, and on an open visit that a pack was made
 * from the record as it is now.
 */
export async function packOf({ logbook, vault, config, db }: Services, visit: string, by: Author, why: string): Promise<PackContent> {
  const { record, values } = await logbook.write(visit, new Date(), async (open) => {
    const before = open.state.record
    try {
      const wanted = new Set(standing(before.networks).map((network) => passphraseOf(before, network)?.ref))
      const opened = (await vault.openAll(open.connection, visit)).filter(({ ref }) => wanted.has(ref))
      for (const { ref } of opened) open.write('secret.shown', { ref, why }, by)
      if (!open.head.sealed_at) open.write('pack.made', { digest: packDigest(before) }, by)
      return { record: before, values: new Map(opened.map(({ ref, value }) => [ref, value])) }
    } catch (error) {
      throw erasedProblem(error)
    }
  })
  return packContentOf({ record, catalogue: await logbook.states.catalogueFor(db, record), values, company: { name: config.COMPANY_NAME, phone: config.COMPANY_PHONE } })
}

/** Makes the customer's pack on paper. */
export async function makePack(services: Services, visit: string, by: Author): Promise<Buffer> {
  return packPdf(await packOf(services, visit, by, 'making the pack'))
}

/** Makes the company's record of a visit as it is now. */
export async function makeRecordPdf(services: Services, visit: string): Promise<Buffer> {
  const { record, findings } = await readVisit(services.logbook, visit)
  return recordPdf(record, findings, await services.logbook.states.catalogueFor(services.db, record))
}

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
 * Makes the customer's pack. That its passphrases were shown is logged, and on an open visit that a pack was made
 * from the record as it is now.
 */
export async function makePack(services: Services, visit: string, by: Author): Promise<Buffer> {
  const { logbook, vault, config } = services
  const { record, values } = await logbook.write(visit, new Date(), async (open) => {
    const before = open.state.record
    try {
      const wanted = new Set(standing(before.networks).map((network) => passphraseOf(before, network)?.ref))
      const opened = (await vault.openAll(open.connection, visit)).filter(({ ref }) => wanted.has(ref))
      for (const { ref } of opened) open.write('secret.shown', { ref, why: 'making the pack' }, by)
      if (!open.head.sealed_at) open.write('pack.made', { digest: packDigest(before) }, by)
      return { record: before, values: new Map(opened.map(({ ref, value }) => [ref, value])) }
    } catch (error) {
      throw erasedProblem(error)
    }
  })
  const catalogue = await logbook.states.catalogueFor(services.db, record)
  return packPdf({ record, catalogue, values, company: { name: config.COMPANY_NAME, phone: config.COMPANY_PHONE } })
}

/** Makes the company's record of a visit as it is now. */
export async function makeRecordPdf(services: Services, visit: string): Promise<Buffer> {
  const { record, findings } = await readVisit(services.logbook, visit)
  return recordPdf(record, findings, await services.logbook.states.catalogueFor(services.db, record))
}

import type { VisitRecord } from './record'

/** The names near a visit that a guesser would try first. */
export interface NearNames {
  ssids: string[]
  customer?: string
  street?: string
}

/** The names that a guesser near this home would try first. */
export function nearNames(record: VisitRecord): NearNames {
  return {
    ssids: Object.values(record.networks).flatMap(({ facts, removedSeq }) =>
      facts.ssid && removedSeq === null ? [facts.ssid] : []
    ),
    customer: record.brief.facts.customerName,
    street: record.brief.facts.street
  }
}

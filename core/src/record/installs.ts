import { standing, type VisitRecord } from './record'

/** Whether a visit is to leave units behind it: every reason but a fault, and none recorded, where nothing says why it left none. */
export function installs({ brief: { facts } }: Pick<VisitRecord, 'brief'>): boolean {
  return facts.reason !== 'fault' && facts.noUnitReason === undefined
}

/** What keeps a visit that did nothing from being sealed as if all were proven, in words; null where it did something, or says why not. No company may switch this off. */
export function nothingDone(record: VisitRecord): string | null {
  if (record.brief.facts.noUnitReason !== undefined || standing(record.units).length > 0) return null
  if (installs(record))
    return 'no unit is recorded: add what was installed under Kit, or say under Brief why nothing was'
  const found =
    standing(record.measurements ?? {}).length > 0 ||
    Object.values(record.searches ?? {}).some((search) => search.found !== null)
  return found ? null : 'nothing was found, measured or changed: record it, or say under Brief why not'
}

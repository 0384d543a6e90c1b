import { unitName, type VisitRecord } from '@pasado/core/record/record'

/** What a search is about. */
export interface Complaint {
  unit?: string | undefined
  room?: string | undefined
}

/** What a search is about, in words. */
export const aboutWords = (record: VisitRecord, { unit, room }: Complaint) => {
  const [named, inRoom] = [unit ? record.units[unit] : undefined, room ? record.rooms?.[room] : undefined]
  return `${named ? `, ${unitName(named)}` : ''}${inRoom ? `, ${inRoom.facts.name ?? 'a room'}` : ''}`
}

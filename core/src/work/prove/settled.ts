import type { Folded } from '../../history/fold'
import type { Band } from '../../values/band'
import { z } from 'zod'
import type { Catalogue } from '../../catalogue/model'
import { measuredRun } from '../../record/things/measurement'
import type { Policy } from '../../policy/standard'
import { judgeRooms, roomFloor, sourceOf, type RoomFloor } from './rooms'

/** What is measured again in a home that has settled: each room as it was. */
export interface CheckRoom {
  room: string
  name: string
  band: Band | null
  dbm: number | null
  downMbps: number | null
  idleMs: number | null
}

/** What a check came to, room by room. */
export const checkResult = z.strictObject({
  rooms: z
    .array(
      z.strictObject({
        room: z.uuid(),
        dbm: z
          .number()
          .min(-110, 'must be -110 dBm or more')
          .max(-10, 'must be at most -10 dBm: signals are below zero')
          .optional(),
        run: measuredRun.pick({ downMbps: true, idleMs: true })
      })
    )
    .min(1, 'must hold at least one room')
    .max(60)
})
export type CheckResult = z.infer<typeof checkResult>

/** What a check is held against: the rooms as they were measured in the visit, and their floor. */
export function checkRooms(
  folded: Folded,
  catalogue: Catalogue,
  policy: Policy
): { rooms: CheckRoom[]; floor: RoomFloor; sourceMbps: number | null } {
  const source = sourceOf(folded, catalogue)
  return {
    rooms: judgeRooms(folded, catalogue, policy).map(({ room, bands: [best] }) => ({
      room: room.id,
      name: room.facts.name ?? 'Room',
      band: best?.measurement.facts.band ?? null,
      dbm: best?.measurement.facts.dbm ?? null,
      downMbps: best?.down?.median ?? null,
      idleMs: best?.idle?.median ?? null
    })),
    floor: roomFloor(policy, source),
    sourceMbps: source?.down?.median ?? null
  }
}

/** Signals vary by so much from day to day, and speeds by such a share: less than that is no change. */
const [VARIES_DB, VARIES_SHARE] = [6, 0.25]

/** A room now against the visit: whether it reaches its floor still, and what moved by more than a day's swing. */
export function compareCheck(
  before: CheckRoom,
  now: CheckResult['rooms'][number] | undefined,
  floor: RoomFloor
): { outcome: 'holds' | 'breaks' | 'unproven'; message: string } {
  if (!now || (now.run.downMbps === undefined && now.dbm === undefined))
    return { outcome: 'unproven', message: 'Not measured again.' }
  const low = [
    now.dbm !== undefined && now.dbm < floor.dbm ? `${now.dbm} dBm is below ${floor.dbm} dBm` : '',
    now.run.downMbps !== undefined && now.run.downMbps < floor.mbps
      ? `${now.run.downMbps} Mbit/s is below ${Math.round(floor.mbps)}`
      : ''
  ].filter(Boolean)
  const moved: string[] = []
  if (now.dbm !== undefined && before.dbm !== null && Math.abs(now.dbm - before.dbm) > VARIES_DB)
    moved.push(`signal ${now.dbm > before.dbm ? 'up' : 'down'} by ${Math.abs(now.dbm - before.dbm)} dB`)
  if (
    now.run.downMbps !== undefined &&
    before.downMbps !== null &&
    Math.abs(now.run.downMbps - before.downMbps) > VARIES_SHARE * before.downMbps
  )
    moved.push(
      `speed ${now.run.downMbps > before.downMbps ? 'up' : 'down'} from ${Math.round(before.downMbps)} to ${Math.round(now.run.downMbps)} Mbit/s`
    )
  if (low.length)
    return {
      outcome: 'breaks',
      message: `${low.join('; ')}${moved.length ? `: ${moved.join(', ')} since the visit` : ''}.`
    }
  return {
    outcome: 'holds',
    message: moved.length
      ? `${moved.join(', ').replace(/^./, (first) => first.toUpperCase())} since the visit, and still enough.`
      : 'As it was.'
  }
}

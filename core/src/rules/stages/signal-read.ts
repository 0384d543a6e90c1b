import { changesSince } from '../../history/stands'
import { fieldKey } from '../../record/keys'
import { standing, thingsOf } from '../../record/record'
import { roomAt, type PlacedUnit } from '../../work/plan/home-plan'
import { restsOfPlace } from '../../work/prove/rests'
import { apart, inPlan } from './in-plan'
import type { Home } from '../rule'

/** A reading was taken at a unit’s place where it was taken no farther from it, metres. */
const NEAR_M = 2

/**
 * The signal of one unit as somebody read it where another stands, dBm: at a point beside it, or in its room where no point is noted. The
 * latest of those that neither was moved since; null where there is none.
 */
export function signalRead(home: Home, from: PlacedUnit, at: PlacedUnit): number | null {
  const { record, history } = home
  const room = roomAt(inPlan(home).plan, at)
  const rests = [from, at].flatMap(({ unit }) => restsOfPlace(unit))
  const read = standing(thingsOf(record, 'reading')).flatMap(({ id, facts }) => {
    const { unit, band, dbm, x, y } = facts
    const isThere =
      x === undefined || y === undefined
        ? facts.room === room?.id
        : facts.room === room?.id && apart({ x, y }, at) <= NEAR_M
    const line = history.writes.get(fieldKey('reading', id, 'dbm'))?.at(-1)
    if (unit !== from.id || band !== '5' || dbm === undefined || !isThere || !line) return []
    return changesSince(history, line.seq, rests).length === 0 ? [{ dbm, seq: line.seq }] : []
  })
  return read.sort((a, b) => a.seq - b.seq).at(-1)?.dbm ?? null
}

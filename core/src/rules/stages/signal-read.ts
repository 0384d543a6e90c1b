import { whyNotStanding } from '../../history/stands'
import { fieldKey } from '../../record/keys'
import { thingsOf } from '../../record/record'
import { roomAt } from '../../work/plan/home-plan'
import { isOurs, type Placed, type PlacedUnit } from '../../work/plan/placed'
import { restsOfPlace } from '../../work/prove/rests'
import { apart, inPlan } from './in-plan'
import type { Home } from '../rule'

/** A reading was taken at a unit’s place where it was taken no farther from it, metres. */
const NEAR_M = 2

/** A signal as somebody read it. */
export interface SignalRead {
  dbm: number
  /** The line that says it. */
  seq: number
  /** Why it does not tell any more how it is; null where it does. */
  stale: string | null
}

/**
 * The signal of one unit as somebody read it last where another stands: at a point beside it, or in its room where no point is noted.
 * @returns null where nobody read it
 */
export function signalRead(home: Home, from: Placed, at: PlacedUnit): SignalRead | null {
  const { record, history } = home
  const room = roomAt(inPlan(home).plan, at)
  // Nobody reads the signal of one thing that stays by name: what is read is of ours.
  const rests = [from, at].flatMap((placed) => (isOurs(placed) ? restsOfPlace(placed.unit) : []))
  const read = Object.values(thingsOf(record, 'reading')).flatMap(({ id, facts, removedSeq }) => {
    const { unit, band, dbm, x, y } = facts
    const isNear = x === undefined || y === undefined || apart({ x, y }, at) <= NEAR_M
    const line = history.writes.get(fieldKey('reading', id, 'dbm'))?.at(-1)
    return line && unit === from.id && band === '5' && dbm !== undefined && facts.room === room?.id && isNear
      ? [{ dbm, seq: line.seq, isGone: removedSeq !== null }]
      : []
  })
  const last = read.sort((a, b) => a.seq - b.seq).at(-1)
  if (!last) return null
  const { dbm, seq, isGone } = last
  // One that was taken out was read all the same: what was said before it is not known to be so.
  return { dbm, seq, stale: isGone ? 'The reading was taken out.' : whyNotStanding(history, seq, rests) }
}

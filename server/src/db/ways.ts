import { conflictingState } from '../problem'
import { rows, run, transactionOn, type Connection, type Db } from './pool'

/** Minutes between two places, either way. */
export interface TravelTime {
  a: string
  b: string
  minutes: number
}
/** A stretch of the day in which a town can be reached. */
export interface ReachWindow {
  town: string
  fromMin: number
  toMin: number
}

/** Travel times between any two of some places. */
export function travelBetween(db: Connection, places: readonly string[]): Promise<TravelTime[]> {
  if (places.length === 0) return Promise.resolve([])
  const marks = places.map(() => '?').join(', ')
  return rows<TravelTime>(
    db,
    `
      SELECT a, b, minutes
      FROM travel_times
      WHERE a IN (${marks})
        AND b IN (${marks})
    `,
    [...places, ...places]
  )
}

/** Every travel time between towns and the depot. */
export function townTravel(db: Connection): Promise<TravelTime[]> {
  return rows<TravelTime>(
    db,
    `
      SELECT a, b, minutes
      FROM travel_times
      WHERE a < 'home'
        AND b NOT LIKE 'home %'
      UNION
      SELECT a, b, minutes
      FROM travel_times
      WHERE a >= 'town '
        AND b >= 'town '
      ORDER BY a, b
      LIMIT 2000
    `
  )
}

/** Sets how long it takes between two places; null forgets it. */
export async function setTravel(
  db: Connection,
  { a, b }: { a: string; b: string },
  minutes: number | null,
  by: string,
  at: Date
): Promise<void> {
  const [first, second] = a < b ? [a, b] : [b, a]
  if (minutes === null) await run(db, 'DELETE FROM travel_times WHERE a = ? AND b = ?', [first, second])
  else
    await run(
      db,
      `
        INSERT INTO travel_times (a, b, minutes, set_by, set_at)
        VALUES (?, ?, ?, ?, ?)
        ON DUPLICATE KEY UPDATE minutes = VALUES(minutes), set_by = VALUES(set_by), set_at = VALUES(set_at)
      `,
      [first, second, minutes, by, at]
    )
}

/** Every window of every town. */
export function reachWindows(db: Connection): Promise<ReachWindow[]> {
  return rows<ReachWindow>(
    db,
    `
      SELECT town, from_min AS fromMin, to_min AS toMin
      FROM reach_windows
      ORDER BY town, from_min
      LIMIT 2000
    `
  )
}

/**
 * Sets all windows of a town; none means that it is reached at any time.
 * @param before what stood there for whoever changed it; left out, whatever stands there is replaced
 * @throws DomainProblem where something else stands there by now: it would be lost without a word
 */
export async function setWindows(
  db: Db,
  town: string,
  windows: readonly Hours[],
  before?: readonly Hours[]
): Promise<void> {
  await transactionOn(db, null, async (connection) => {
    const standing = await rows<Hours>(
      connection,
      'SELECT from_min AS fromMin, to_min AS toMin FROM reach_windows WHERE town = ? FOR UPDATE',
      [town]
    )
    // Sent twice, or by somebody who wanted the same: it is so already.
    if (areSame(standing, windows)) return
    if (before && !areSame(standing, before))
      throw conflictingState(
        'changed-meanwhile',
        `Somebody changed the hours of ${town} meanwhile; they stand here now. Look, then change them again.`
      )
    await run(connection, 'DELETE FROM reach_windows WHERE town = ?', [town])
    for (const { fromMin, toMin } of windows)
      await run(connection, 'INSERT INTO reach_windows (town, from_min, to_min) VALUES (?, ?, ?)', [
        town,
        fromMin,
        toMin
      ])
  })
}

type Hours = Omit<ReachWindow, 'town'>

const areSame = (a: readonly Hours[], b: readonly Hours[]): boolean => {
  const told = (list: readonly Hours[]) =>
    list
      .map(({ fromMin, toMin }) => `${fromMin} ${toMin}`)
      .sort()
      .join()
  return told(a) === told(b)
}

/** Towns that have homes: those that travel times and ferries can be typed for. */
export async function towns(db: Connection): Promise<string[]> {
  return (await rows<{ town: string }>(db, 'SELECT DISTINCT town FROM homes FORCE INDEX (by_town) LIMIT 200')).map(
    ({ town }) => town
  )
}

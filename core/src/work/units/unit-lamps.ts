import { isGoodFor } from './good-look'
import type { Model, ModelState } from '../../catalogue/model'
import type { LampLook } from '../../catalogue/look'
import { Kept } from '../../record/kept'
import type { Unit } from '../../record/record'
import { followLamps } from '../../catalogue/follow'

/** What has lamps that were looked at: a unit, or something that stays. */
export type Lit = Pick<Unit, 'sightings' | 'events'>

/** What a unit's lamps say by its model's table, after all that was seen and done. */
export interface LampReading {
  /** The states it may be in: one where the look is clear; none where nobody looked since its lamps began anew. */
  candidates: ModelState[]
  /** The single state, with when it was first and last seen (ISO times). */
  state: ModelState | null
  since: string | null
  lastSeen: string | null
  overdue: boolean
  /** How many sightings no reachable state explains, and whether the last one is among them. */
  impossible: number
  lastImpossible: boolean
}

/**
 * Reads a unit's sightings through its model's table. A restart, a reset or an update starts the table anew,
 * so only what was seen after the last of them counts.
 */
export const readLamps = (unit: Lit, model: Model): LampReading =>
  readings.get(unit, [model], () => readAnew(unit, model))

const readings = new Kept<Lit, LampReading>()

/** What its lamps would say with one more look at them. */
export const readWith = (unit: Lit, model: Model, lamps: readonly LampLook[], at: string): LampReading =>
  readAnew(
    {
      events: unit.events,
      sightings: [
        ...unit.sightings,
        { seq: Number.MAX_SAFE_INTEGER, at, by: { id: '', name: '', role: 'technician' }, lamps: [...lamps] }
      ]
    },
    model
  )

/** What starts a unit's lamps anew. */
const startsAnew: ReadonlySet<string> = new Set(['powered', 'restarted', 'reset', 'updated'])

/** What a unit's lamps said at one of its sightings, by what was seen and done until then: what happened later says nothing of it. */
export function readLampsAt({ sightings, events }: Lit, model: Model, index: number): LampReading {
  const sighting = sightings[index]!
  const before = events.filter((event) => event.seq < sighting.seq)
  return readingsAt.get(sighting, [model, ...sightings.slice(0, index), ...before], () =>
    readAnew({ sightings: sightings.slice(0, index + 1), events: before }, model)
  )
}

const readingsAt = new Kept<Lit['sightings'][number], LampReading>()

/**
 * The state that lasted longer than its model allows, of all that was seen; null where none did. A restart does not make it as if it had
 * not been: only lamps that came up well in their time after it do.
 */
export const lastedTooLong = (unit: Unit, model: Model): ModelState | null =>
  tooLong.get(unit, [model], () => longestOf(unit, model))

const tooLong = new Kept<Unit, ModelState | null>()

function longestOf(unit: Unit, model: Model): ModelState | null {
  let state: ModelState | null = null
  for (let index = unit.sightings.length - 1; index >= 0; index--) {
    const reading = readLampsAt(unit, model, index)
    const began = unit.events.findLast(({ what, seq }) => startsAnew.has(what) && seq < unit.sightings[index]!.seq)
    const ofStretch = unit.sightings.flatMap(({ seq }, at) =>
      at <= index && (!began || seq > began.seq) ? [readLampsAt(unit, model, at)] : []
    )
    state = ofStretch.find(({ overdue }) => overdue)?.state ?? null
    if (state || (reading.state && isGoodFor(reading.state, unit))) break
    index -= ofStretch.length - 1
  }
  return state
}

function readAnew(unit: Lit, model: Model): LampReading {
  const fresh = unit.events.filter(({ what }) => startsAnew.has(what)).at(-1)
  const seen = unit.sightings.filter((sighting) => !fresh || sighting.seq > fresh.seq)
  // A clock set back between two sightings must not stop the reading: the order of the logbook stands.
  let latest = -Infinity
  const timed = seen.map((sighting) => {
    latest = Math.max(latest, Date.parse(sighting.at) / 60_000)
    return { atMin: latest, at: sighting.at, lamps: sighting.lamps }
  })
  if (timed.length === 0)
    return {
      candidates: [],
      state: null,
      since: null,
      lastSeen: null,
      overdue: false,
      impossible: 0,
      lastImpossible: false
    }
  const followed = followLamps({
    states: model.states.map(({ state, lamps, maxMin }) => ({
      state,
      lamps,
      ...(maxMin === undefined ? {} : { maxMin })
    })),
    moves: model.moves,
    start: model.start,
    seen: timed.map(({ atMin, lamps }) => ({ atMin, lamps }))
  })
  const possible = timed.filter((_, index) => !followed.impossible.includes(index))
  const byName = new Map(model.states.map((row) => [row.state, row]))
  return {
    candidates: followed.candidates.map((name) => byName.get(name)!),
    state: followed.state === null ? null : byName.get(followed.state)!,
    since: possible.length ? sinceOf(possible, model, followed.state) : null,
    lastSeen: possible.at(-1)?.at ?? null,
    overdue: followed.overdue,
    impossible: followed.impossible.length,
    lastImpossible: followed.impossible.includes(timed.length - 1)
  }
}

/** When the unbroken run of sightings that look like the present state began. */
function sinceOf(
  possible: { at: string; lamps: Unit['sightings'][number]['lamps'] }[],
  model: Model,
  state: string | null
): string | null {
  const expected = model.states.find((candidate) => candidate.state === state)
  if (!expected) return possible.at(-1)!.at
  let since = possible.at(-1)!.at
  for (const sighting of possible.toReversed()) {
    const alone = followLamps({
      states: [{ state: expected.state, lamps: expected.lamps }],
      moves: [],
      start: expected.state,
      seen: [{ atMin: 0, lamps: sighting.lamps }]
    })
    if (alone.impossible.length) break
    since = sighting.at
  }
  return since
}

import type { LampLook } from '../../catalogue/look'
import { modelOf, type Catalogue, type Model, type ModelState } from '../../catalogue/model'
import { equipmentOf } from '../../record/equipment'
import type { Unit, VisitRecord, Wait } from '../../record/record'
import { runningWaits, waitsEndedBy } from './ended-waits'
import { methodsFor } from './good-look'
import { stepsDone } from './method-steps'
import { readLamps, readWith } from './unit-lamps'

/** A clock that begins with a look. */
export type Clock = Pick<Wait, 'what' | 'usualMin' | 'mostMin'> & { task: string }

/** What a look at a unit's lamps moves: the waits it ends, and the clock that begins with it. */
export interface LookMoves {
  ended: string[]
  begins: Clock | null
}

/** The longest text a wait is called by. */
const WHAT = 80

/**
 * What a look moves. A unit that shows something that takes its time is waited for: by the step of its method that is under way, where that
 * has a wait, else by how long the model's table gives the state. A wait that runs already is not begun twice.
 */
export function movedBy(
  record: VisitRecord,
  catalogue: Catalogue,
  unitId: string,
  lamps: readonly LampLook[],
  at: string
): LookMoves {
  const ended = waitsEndedBy(record, catalogue, unitId, lamps, at)
  const lit = equipmentOf(record, unitId)
  const model = lit && modelOf(lit.thing, catalogue)
  const state = model && readWith(lit.thing, model, lamps, at).state
  const isWaitedFor = runningWaits(record).some(({ id, unit }) => unit === unitId && !ended.includes(id))
  if (!state || state.good || isWaitedFor || state.maxMin === undefined) return { ended, begins: null }
  const step = lit.unit && stepWaiting(lit.unit, model, state)
  return { ended, begins: step ?? clockOf(unitId, state) }
}

const clockOf = (unit: string, { state, meaning, usualMin, maxMin }: ModelState): Clock => ({
  what: `while ${meaning}`.slice(0, WHAT),
  task: `state:${unit}:${state}`,
  usualMin: usualMin ?? maxMin!,
  mostMin: maxMin!
})

/** The way a unit is set up: as chosen, else the first there is in its role. */
export const methodOf = (unit: Pick<Unit, 'facts'>, model: Model): Model['methods'][number] | undefined =>
  model.methods.find(({ id }) => id === unit.facts.method) ?? methodsFor(model, unit)[0]

/** The clock of a step of a method. */
export function clockOfStep(unit: string, model: Model, method: Model['methods'][number], at: number): Clock | null {
  const step = method.steps[at]
  if (!step?.wait) return null
  const expected = model.states.find(({ state }) => state === step.expect)
  return {
    what: (expected ? `until ${expected.meaning}` : step.do).slice(0, WHAT),
    task: `step:${unit}:${method.id}:${at}`,
    usualMin: step.wait.usualMin,
    mostMin: step.wait.mostMin
  }
}

/** The next step of a unit's method, where it waits for something else than what is shown. */
function stepWaiting(unit: Unit, model: Model, shown: ModelState): Clock | null {
  const method = methodOf(unit, model)
  if (!method) return null
  const next = stepsDone(unit, model, method).indexOf(false)
  return method.steps[next]?.expect === shown.state ? null : clockOfStep(unit.id, model, method, next)
}

/**
 * What is waited for once a unit was switched off and on: the next step of its method, where that has a wait; else as long as its table
 * gives all that it goes through until it is well.
 */
export function clockOfRestart(unit: Unit | null, id: string, model: Model | undefined): Clock {
  const method = unit && model && methodOf(unit, model)
  const step = method && clockOfStep(id, model, method, stepsDone(unit, model, method).indexOf(false))
  const [usualMin, mostMin] = model ? settlesIn(model) : SETTLES
  return step ?? { what: 'until its lights settle', task: `restart:${id}`, usualMin, mostMin }
}

/** How long something settles of whose table nothing is known, minutes. */
const SETTLES = [3, 5] as const

/** The usual and the longest time of what a unit goes through from its start until it is well, by its table; minutes. */
function settlesIn({ states, moves, start }: Model): readonly [number, number] {
  const row = (name: string) => states.find(({ state }) => state === name)
  const before = new Map<string, string | null>([[start, null]])
  const queue = [start]
  for (let at = queue.shift(); at !== undefined; at = queue.shift()) {
    if (row(at)?.good) {
      let [usual, most] = [0, 0]
      for (let on: string | null = before.get(at)!; on !== null; on = before.get(on)!) {
        usual += row(on)?.usualMin ?? 0
        most += row(on)?.maxMin ?? row(on)?.usualMin ?? 0
      }
      return most > 0 ? [usual, Math.max(usual, most)] : SETTLES
    }
    for (const [from, to] of moves.map((move) => [move.from, move.to] as const))
      if (from === at && !before.has(to)) {
        before.set(to, at)
        queue.push(to)
      }
  }
  return SETTLES
}

/**
 * Through which step of a method a unit has come, by what its lamps show now: steps that wait for something it passes on its way, and one
 * that shows just this. Whoever was there says that they are done; nothing that may have been left out is passed.
 * @returns -1 where none was passed
 */
export function passedThrough(unit: Unit, model: Model, method: Model['methods'][number]): number {
  const next = stepsDone(unit, model, method).indexOf(false)
  const { state: shown } = readLamps(unit, model)
  if (next < 0 || !shown) return -1
  const far = farFromStart(model)
  let passed = -1
  for (let at = next; at < method.steps.length; at++) {
    const expected = model.states.find(({ state }) => state === method.steps[at]!.expect)
    if (!expected) break
    // What the step before shows as well says nothing of this one.
    if (expected === shown) return at > next && method.steps[at - 1]!.expect !== shown.state ? at : passed
    if (expected.good || !(far(expected.state) < far(shown.state))) break
    passed = at
  }
  return passed
}

/** How many moves each state lies from the start of a unit; as far as can be where none leads to it. */
function farFromStart({ start, moves }: Model): (state: string) => number {
  const far = new Map([[start, 0]])
  const queue = [start]
  for (let at = queue.shift(); at !== undefined; at = queue.shift())
    for (const { from, to } of moves)
      if (from === at && !far.has(to)) {
        far.set(to, far.get(at)! + 1)
        queue.push(to)
      }
  return (state) => far.get(state) ?? Infinity
}

/** What is told who does not see what a step is to show: to wait, that it is longer than usual, or that something is to be tried. */
export type NotYet = { kind: 'wait' | 'long' | 'late'; goneMin: number; usualMin: number; mostMin: number } | null

/**
 * Whether it is too early to see it, by the wait that runs for a unit, else by the state its lamps show and since when.
 * @returns null where no clock tells
 */
export function notYet(record: VisitRecord, unit: Unit, model: Model, nowMs: number): NotYet {
  const wait = runningWaits(record).find((running) => running.unit === unit.id && !running.what.startsWith('pairing'))
  if (wait) return by(wait.at, wait.usualMin, wait.mostMin, nowMs)
  const { state, since } = readLamps(unit, model)
  if (!state || state.good || state.maxMin === undefined || since === null) return null
  return by(since, state.usualMin ?? state.maxMin, state.maxMin, nowMs)
}

function by(since: string, usualMin: number, mostMin: number, nowMs: number): NotYet {
  const goneMin = Math.max(0, (nowMs - Date.parse(since)) / 60_000)
  if (goneMin >= mostMin) return { kind: 'late', goneMin, usualMin, mostMin }
  return { kind: goneMin < usualMin ? 'wait' : 'long', goneMin, usualMin, mostMin }
}

import { firmwarePath } from './firmware-path'
import { compareVersions } from '../values/version'
import { lookKey } from './look'
import type { Model, ModelState } from './model'

/** Every fault that can be found in a model that its schema lets pass. */
export const modelFaults = [
  'unknown-name',
  'repeated-name',
  'unreached-state',
  'unreached-good-state',
  'no-good-state',
  'states-alike',
  'unknown-expectation',
  'times-out-of-order',
  'power-without-budget',
  'no-unit-in-box',
  'firmware-never-installed',
  'minimum-not-offered',
  'firmware-repeated',
  'not-named',
  'nothing-to-connect'
] as const
export type ModelFaultCode = (typeof modelFaults)[number]

/** One fault of a model: what, where, and how to mend it. */
export interface ModelFault {
  code: ModelFaultCode
  path: (string | number)[]
  message: string
}

/**
 * Finds what a schema cannot: names that lead nowhere, states that are never reached or look alike in the same
 * situation, steps that wait for what never comes, firmware that can never be installed.
 * @param model checked by the schema
 */
export function modelFaultsOf(model: Model): ModelFault[] {
  return [
    ...bareFaults(model),
    ...boxFaults(model),
    ...nameFaults(model),
    ...stateFaults(model),
    ...alikeFaults(model),
    ...methodFaults(model),
    ...firmwareFaults(model)
  ]
}

/** What a new model begins with, until somebody says what it is. */
const unnamed: ReadonlySet<string> = new Set(['maker', 'model', ''])

/** A model that was begun and not filled in. */
function bareFaults({ id, maker, name, ports, radios }: Model): ModelFault[] {
  const faults: ModelFault[] = []
  if (unnamed.has(maker.trim().toLowerCase()))
    faults.push({ code: 'not-named', path: ['maker'], message: 'is missing: who makes it' })
  if (unnamed.has(name.trim().toLowerCase()))
    faults.push({ code: 'not-named', path: ['name'], message: 'is missing: what it is called' })
  if (id === 'maker-model')
    faults.push({
      code: 'not-named',
      path: ['id'],
      message: 'must be its own: maker and name in small letters, joined by hyphens'
    })
  if (ports.length === 0 && radios.length === 0)
    faults.push({
      code: 'nothing-to-connect',
      path: ['ports'],
      message: 'is missing, and it has no radio either: nothing could ever be joined to it'
    })
  return faults
}

function boxFaults(model: Model): ModelFault[] {
  const faults: ModelFault[] = []
  const boxes = [
    { items: model.box, path: ['box'] as (string | number)[] },
    ...(model.kits ?? []).map(({ items }, at) => ({ items, path: ['kits', at, 'items'] as (string | number)[] }))
  ]
  for (const { items, path } of boxes) {
    // Models written before items named their units have none at all; in one that has some, every box holds a unit.
    if (
      boxes.some((box) => box.items.some(({ unit }) => unit !== undefined)) &&
      !items.some(({ unit }) => unit !== undefined)
    )
      faults.push({
        code: 'no-unit-in-box',
        path,
        message: 'no item of this box is a unit; name the model that one is'
      })
  }
  const powered = model.ports.findIndex(({ powerOutW }) => powerOutW !== undefined)
  if (powered >= 0 && model.powerBudgetW === undefined)
    faults.push({
      code: 'power-without-budget',
      path: ['powerBudgetW'],
      message: `is missing, but port ${model.ports[powered]!.name} gives power: say what all ports together can give`
    })
  return faults
}

function nameFaults(model: Model): ModelFault[] {
  const faults: ModelFault[] = []
  const unknown = (path: ModelFault['path'], what: string, name: string) =>
    faults.push({ code: 'unknown-name', path, message: `no ${what} of this model is called ${name}` })
  const once = (path: string, names: readonly string[], what: string) =>
    names.forEach((name, at) => {
      if (names.indexOf(name) !== at)
        faults.push({ code: 'repeated-name', path: [path, at], message: `the ${what} ${name} is listed twice` })
    })
  const lamps = new Set(model.lamps.map(({ id }) => id))
  const states = new Set(model.states.map(({ state }) => state))
  once(
    'lamps',
    model.lamps.map(({ id }) => id),
    'lamp'
  )
  once(
    'states',
    model.states.map(({ state }) => state),
    'state'
  )
  once(
    'ports',
    model.ports.map(({ id }) => id),
    'port'
  )
  once(
    'buttons',
    model.buttons.map(({ id }) => id),
    'button'
  )
  once(
    'methods',
    model.methods.map(({ id }) => id),
    'method'
  )
  for (const [kit, path] of [
    [{ items: model.box }, ['box']] as const,
    ...(model.kits ?? []).map((kit, at) => [kit, ['kits', at, 'items']] as const)
  ]) {
    kit.items.forEach(({ item }, at) => {
      if (kit.items.findIndex((other) => other.item === item) !== at)
        faults.push({ code: 'repeated-name', path: [...path, at], message: `${item} is listed twice; give it a count` })
    })
  }
  once(
    'kits',
    (model.kits ?? []).map(({ id }) => id),
    'kit'
  )
  once(
    'prompts',
    model.prompts.map(({ id }) => id),
    'prompt'
  )
  model.states.forEach((row, at) =>
    row.lamps.forEach((look, lamp) => {
      if (!lamps.has(look.lamp)) unknown(['states', at, 'lamps', lamp, 'lamp'], 'lamp', look.lamp)
    })
  )
  model.moves.forEach((move, at) => {
    for (const end of ['from', 'to'] as const)
      if (!states.has(move[end])) unknown(['moves', at, end], 'state', move[end])
  })
  if (!states.has(model.start)) unknown(['start'], 'state', model.start)
  model.buttons.forEach((button, at) =>
    button.presses.forEach((press, nth) => {
      if (press.confirms !== undefined && !states.has(press.confirms))
        unknown(['buttons', at, 'presses', nth, 'confirms'], 'state', press.confirms)
      if (press.mostS !== null && press.mostS < press.leastS)
        faults.push({
          code: 'times-out-of-order',
          path: ['buttons', at, 'presses', nth, 'mostS'],
          message: 'must be at least leastS'
        })
    })
  )
  return faults
}

/** Every state that can be reached from some states in zero or more moves. */
function reachedFrom(model: Model, from: readonly string[]): Set<string> {
  const reached = new Set(from)
  for (const state of reached) for (const move of model.moves) if (move.from === state) reached.add(move.to)
  return reached
}

function stateFaults(model: Model): ModelFault[] {
  const faults: ModelFault[] = []
  const entered = new Set(model.moves.filter(({ from, to }) => from !== to).map(({ to }) => to))
  const reached = reachedFrom(model, [model.start])
  model.states.forEach((row, at) => {
    if (row.state !== model.start && !entered.has(row.state))
      faults.push({
        code: 'unreached-state',
        path: ['states', at],
        message: `no move leads to ${row.state}; add one or take the state out`
      })
    else if (row.good && !reached.has(row.state))
      faults.push({
        code: 'unreached-good-state',
        path: ['states', at],
        message: `${row.state} is good but cannot be reached from ${model.start}`
      })
    if (row.usualMin !== undefined && row.maxMin !== undefined && row.maxMin < row.usualMin)
      faults.push({ code: 'times-out-of-order', path: ['states', at, 'maxMin'], message: 'must be at least usualMin' })
  })
  if (model.lamps.length > 0 && !model.states.some(({ good }) => good))
    faults.push({
      code: 'no-good-state',
      path: ['states'],
      message: 'none is good: no unit of this model could ever be signed off'
    })
  return faults
}

/** Whether one look at the lamps could be either of two states: every lamp that both name agrees, and they share one. */
function lookAlike(a: ModelState, b: ModelState): boolean {
  const shared = a.lamps.flatMap((look) =>
    b.lamps.filter((other) => other.lamp === look.lamp).map((other) => [look, other] as const)
  )
  return shared.length > 0 && shared.every(([look, other]) => lookKey(look) === lookKey(other))
}

/**
 * Two states that look alike are told apart by what came before, unless both can follow the same state. Lamps that are
 * dark by choice look like no power on purpose: a model whose lamps can be switched off is not blamed for that.
 */
function alikeFaults(model: Model): ModelFault[] {
  const faults: ModelFault[] = []
  const dark = (row: ModelState) => row.lamps.every((look) => lookKey(look) === 'dark')
  model.states.forEach((a, at) => {
    for (const b of model.states.slice(at + 1)) {
      if (!lookAlike(a, b) || (model.lampsCanBeOff && dark(a) && dark(b))) continue
      const situation = model.states.find(({ state }) => {
        const next = (to: string) => to === state || model.moves.some((move) => move.from === state && move.to === to)
        return next(a.state) && next(b.state)
      })
      if (situation)
        faults.push({
          code: 'states-alike',
          path: ['states', at, 'lamps'],
          message: `${a.state} and ${b.state} look alike, and both can follow ${situation.state}: name a lamp that tells them apart`
        })
    }
  })
  return faults
}

function methodFaults(model: Model): ModelFault[] {
  const faults: ModelFault[] = []
  const states = new Set(model.states.map(({ state }) => state))
  model.methods.forEach((method, at) =>
    method.steps.forEach((step, nth) => {
      const path = ['methods', at, 'steps', nth]
      if (step.expect !== undefined && !states.has(step.expect))
        faults.push({
          code: 'unknown-expectation',
          path: [...path, 'expect'],
          message: `waits for ${step.expect}, a state this model does not have`
        })
      const { wait } = step
      if (wait && !(wait.leastMin <= wait.usualMin && wait.usualMin <= wait.mostMin))
        faults.push({ code: 'times-out-of-order', path: [...path, 'wait'], message: 'least, usual and most must rise' })
    })
  )
  return faults
}

function firmwareFaults(model: Model): ModelFault[] {
  const { minimum, releases } = model.firmware
  const faults: ModelFault[] = []
  releases.forEach((release, at) => {
    if (releases.findIndex((other) => compareVersions(other.version, release.version) === 0) !== at)
      faults.push({
        code: 'firmware-repeated',
        path: ['firmware', 'releases', at, 'version'],
        message: `${release.version} is listed twice`
      })
  })
  if (faults.length || releases.length === 0) return faults
  releases.forEach((release, at) => {
    if (release.needs === undefined || release.withdrawn) return
    const older = releases.filter(
      (other) =>
        compareVersions(other.version, release.version) < 0 && compareVersions(other.version, release.needs!) >= 0
    )
    const oldest = releases.reduce((first, other) =>
      compareVersions(other.version, first.version) < 0 ? other : first
    )
    const upTo = releases
      .filter((other) => compareVersions(other.version, release.version) <= 0)
      .map(({ version, needs, withdrawn }) => ({ version, withdrawn, ...(needs === undefined ? {} : { needs }) }))
    const ends = firmwarePath({ current: oldest.version, releases: upTo }).path.at(-1)
    if (older.length === 0 || (ends !== release.version && older.every(({ withdrawn }) => withdrawn))) {
      faults.push({
        code: 'firmware-never-installed',
        path: ['firmware', 'releases', at, 'needs'],
        message: `${release.version} needs ${release.needs}, and no release leads there: it can never be installed`
      })
    }
  })
  if (!releases.some((release) => !release.withdrawn && compareVersions(release.version, minimum) >= 0)) {
    faults.push({
      code: 'minimum-not-offered',
      path: ['firmware', 'minimum'],
      message: `no release that is not withdrawn is at or above ${minimum}`
    })
  }
  return faults
}

import { modelKey, type Catalogue, type Model } from '../../catalogue/model'
import { updateWork } from '../../catalogue/firmware-work'
import { runningWaits } from '../units/ended-waits'
import { readLamps } from '../units/unit-lamps'
import { stepsDone } from '../units/method-steps'
import { standing, thingsOf, unitName, type Unit, type VisitRecord, type Wait } from '../../record/record'
import type { Stage } from '../../record/stages'

/** How long something takes, in minutes: at least, usually, at most. */
export interface Span {
  least: number
  usual: number
  most: number
}

/** One task of a visit: hands on, then a wait that runs by itself. */
export interface VisitTask {
  id: string
  name: string
  stage: Stage
  unit: string | null
  handsOn: Span
  wait: Span | null
  after: string[]
  /** Where the figures of the wait are from. */
  from: 'catalogue' | 'past visits' | 'usual'
  /** A task that was begun and only waits. */
  running: boolean
}

/** What past visits took for the same wait of the same model, by `durationKey`. */
export type Durations = ReadonlyMap<string, { count: number } & Span>

/** Under which key past waits of a task are kept: the model's, and what of its work it is. */
export const durationKey = (model: string, task: string): string =>
  `${model} ${task.replace(/^(step|update|restart):[^:]+/, '$1')}`

const hands = (least: number, usual: number, most: number): Span => ({ least, usual, most })
/** What hands need, in minutes: seen over and over, and refined by nobody yet. */
const handsOn = {
  kit: hands(2, 4, 8),
  place: hands(2, 3, 6),
  connect: hands(2, 4, 10),
  step: hands(1, 2, 5),
  update: hands(0.5, 1, 3),
  restart: hands(1, 2, 4),
  addresses: hands(3, 6, 15),
  wifi: hands(3, 5, 12),
  login: hands(1, 2, 5),
  source: hands(2, 3, 6),
  room: hands(1, 2, 4),
  handover: hands(5, 8, 15),
  signoff: hands(3, 5, 10),
  plan: hands(2, 4, 10)
} as const
const times = ({ least, usual, most }: Span, count: number): Span => hands(least * count, usual * count, most * count)
/** So many past waits are more worth than the catalogue. */
const ENOUGH = 5

interface KnownUnit {
  unit: Unit
  model: Model | undefined
  name: string
}

/** The tasks of a visit that are still to do, in the order that technicians work; what is done is left out. */
export function visitTasks(
  record: VisitRecord,
  catalogue: Catalogue,
  nowMs: number,
  durations: Durations = new Map()
): VisitTask[] {
  const units = standing(record.units).map((unit): KnownUnit => ({
    unit,
    name: unitName(unit),
    model: catalogue.get(modelKey(unit.facts.model ?? '', unit.facts.modelVersion ?? 1))
  }))
  const waits = runningWaits(record)
  const tasks: VisitTask[] = []
  const add = (task: Omit<VisitTask, 'running' | 'from'> & { from?: VisitTask['from'] }) => {
    const wait = waits.find((one) => one.task === task.id)
    tasks.push({
      from: task.wait ? 'catalogue' : 'usual',
      ...task,
      ...(wait ? { handsOn: hands(0, 0, 0), wait: left(wait, nowMs) } : {}),
      running: wait !== undefined
    })
  }
  const learned = (model: Model | undefined, id: string, catalogued: Span): { wait: Span; from: VisitTask['from'] } => {
    const past = model && durations.get(durationKey(model.id, id))
    return past && past.count >= ENOUGH
      ? { wait: hands(past.least, past.usual, past.most), from: 'past visits' }
      : { wait: catalogued, from: 'catalogue' }
  }
  const isGood = ({ unit, model }: KnownUnit) =>
    Boolean(model && unit.sightings.length && readLamps(unit, model).state?.good)
  const cabled = new Set(
    standing(thingsOf(record, 'cable'))
      .flatMap(({ facts: { a, b } }) => [a, b])
      .flatMap((end) => (end?.thing === 'unit' ? [end.id] : []))
  )

  for (const { unit, name } of units)
    if (!unit.facts.stayed && unit.facts.serial === undefined)
      add({
        id: `kit:${unit.id}`,
        name: `Unbox ${name}, read its label`,
        stage: 'kit',
        unit: unit.id,
        handsOn: handsOn.kit,
        wait: null,
        after: []
      })
  const unplaced = units.filter(({ unit }) => unit.facts.place === undefined)
  if (unplaced.length)
    add({
      id: 'place',
      name: 'Settle where each unit stays',
      stage: 'place',
      unit: null,
      handsOn: hands(
        handsOn.plan.least + unplaced.length,
        handsOn.plan.usual + handsOn.place.usual * unplaced.length,
        handsOn.plan.most + handsOn.place.most * unplaced.length
      ),
      wait: null,
      after: unplaced.map(({ unit }) => `kit:${unit.id}`)
    })

  // What others start from comes first: the line, then the router, then all that joins it.
  const rank = ({ unit }: KnownUnit) =>
    ({ modem: 0, gateway: 0, router: 1, switch: 1, controller: 2 })[unit.facts.role as 'modem'] ?? 3
  const inOrder = [...units].sort((a, b) => rank(a) - rank(b))
  const last = new Map<string, string>()
  for (const known of inOrder) {
    const { unit, model, name } = known
    const before = inOrder.filter((one) => rank(one) < rank(known)).flatMap((one) => last.get(one.unit.id) ?? [])
    let after = [`kit:${unit.id}`, 'place', ...before]
    const goes = (id: string) => {
      after = [id]
      last.set(unit.id, id)
    }
    const wantsCable =
      model?.ports.some(({ kind }) => ['internet', 'coax', 'telephone-line', 'fibre'].includes(kind)) ||
      ['access-point', 'switch', 'controller'].includes(unit.facts.role ?? '')
    if (wantsCable && !cabled.has(unit.id)) {
      add({
        id: `connect:${unit.id}`,
        name: `Cable ${name}`,
        stage: 'connect',
        unit: unit.id,
        handsOn: handsOn.connect,
        wait: null,
        after
      })
      goes(`connect:${unit.id}`)
    }
    const method = model?.methods.find(({ id }) => id === unit.facts.method) ?? model?.methods[0]
    if (method && !isGood(known)) {
      const done = stepsDone(unit, model!, method)
      method.steps.forEach((step, index) => {
        if (done[index]) return
        const id = `step:${unit.id}:${method.id}:${index}`
        const wait = step.wait
          ? learned(model, id, hands(step.wait.leastMin, step.wait.usualMin, step.wait.mostMin))
          : null
        add({
          id,
          name: `${name}: ${step.do}`,
          stage: 'start',
          unit: unit.id,
          handsOn: handsOn.step,
          wait: wait?.wait ?? null,
          ...(wait ? { from: wait.from } : {}),
          after
        })
        goes(id)
      })
    }
    if (model && unit.facts.firmwareAfter === undefined && model.firmware.releases.length > 0) {
      const work = unit.facts.firmwareBefore === undefined ? null : updateWork(model, unit.facts.firmwareBefore)
      const { installMin } = model.firmware
      // Of an unknown version one install is reckoned with.
      const installs = work?.path.length ?? 1
      if (installs > 0 && installMin) {
        const id = `update:${unit.id}`
        const { wait, from } = learned(
          model,
          id,
          times(hands(installMin.usual * 0.6, installMin.usual, installMin.most), installs)
        )
        add({
          id,
          name: `Update ${name}${work && work.path.length ? ` to ${work.path.at(-1)}` : ''}`,
          stage: 'configure',
          unit: unit.id,
          handsOn: handsOn.update,
          wait,
          from,
          after
        })
        goes(id)
      }
    }
  }
  const started = units.flatMap(({ unit }) => last.get(unit.id) ?? [])
  const lead = inOrder.filter((known) => rank(known) <= 1).flatMap(({ unit }) => last.get(unit.id) ?? [])
  const configure: string[] = []
  const settings = (open: boolean, id: string, name: string, span: Span, unit: string | null = null, after = lead) => {
    if (open) {
      add({ id, name, stage: 'configure', unit, handsOn: span, wait: null, after })
      configure.push(id)
    }
  }
  settings(standing(record.segments).length === 0, 'addresses', 'Addresses and ranges', handsOn.addresses)
  settings(standing(record.networks).length === 0, 'wifi', 'Names and passphrases', handsOn.wifi)
  for (const { unit, name, model } of units) {
    const has = Object.values(record.secrets).some(
      (secret) => secret.thing === 'unit' && secret.id === unit.id && secret.purpose === 'admin-password'
    )
    settings(
      !has && (model?.label.includes('login') ?? false),
      `login:${unit.id}`,
      `Admin password of ${name}`,
      handsOn.login,
      unit.id,
      [...lead, ...(last.get(unit.id) ? [last.get(unit.id)!] : [])]
    )
  }
  const measurements = standing(thingsOf(record, 'measurement')).filter(({ facts }) => facts.runs !== undefined)
  const listed = standing(thingsOf(record, 'room')).filter(({ facts }) => facts.listed !== false)
  const rooms = listed.filter(
    ({ id }) => !measurements.some(({ facts }) => facts.at === 'room' && facts.room === id)
  ).length
  const proven = [...started, ...configure]
  if (!measurements.some(({ facts }) => facts.at === 'source'))
    add({
      id: 'source',
      name: 'Measure at the source, by cable',
      stage: 'prove',
      unit: null,
      handsOn: handsOn.source,
      wait: null,
      after: lead
    })
  // Of a home whose rooms nobody named three are reckoned with.
  if (listed.length === 0 || rooms > 0)
    add({
      id: 'rooms',
      name: `Measure ${listed.length === 0 ? 'every room' : rooms === 1 ? 'one room' : `${rooms} rooms`}`,
      stage: 'prove',
      unit: null,
      handsOn: times(handsOn.room, listed.length === 0 ? 3 : rooms),
      wait: null,
      after: ['source', ...proven]
    })
  if (record.pack.givenAt === null)
    add({
      id: 'handover',
      name: 'Hand over',
      stage: 'handover',
      unit: null,
      handsOn: handsOn.handover,
      wait: null,
      after: ['source', 'rooms', ...proven]
    })
  add({
    id: 'signoff',
    name: 'Sign off',
    stage: 'signoff',
    unit: null,
    handsOn: handsOn.signoff,
    wait: null,
    after: ['source', 'rooms', 'handover', ...proven]
  })
  const open = new Set(tasks.map(({ id }) => id))
  return tasks.map((task) => ({ ...task, after: [...new Set(task.after)].filter((id) => open.has(id)) }))
}

/** What is left of a wait that runs. A clock that was set back makes it no longer than it is. */
function left({ at, usualMin, mostMin }: Wait, nowMs: number): Span {
  const gone = Math.max(0, (nowMs - Date.parse(at)) / 60_000)
  const usual = Math.max(0, usualMin - gone)
  return hands(0, usual, Math.max(usual, mostMin - gone))
}

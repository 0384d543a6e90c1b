import { z } from 'zod'
import { type ThingKind } from '../../record/facts'
import { openingFacts } from '../../record/things/opening'
import { outletFacts } from '../../record/things/outlet'
import { roomFacts } from '../../record/things/room'
import { storeyFacts } from '../../record/things/storey'
import { troubleFacts } from '../../record/things/trouble'
import { unitFacts } from '../../record/things/unit'
import { wallFacts } from '../../record/things/wall'
import { standing, thingsOf, unitName, type VisitRecord } from '../../record/record'
import type { HomePlan } from './home-plan'
import { firstWalls, wallsOf } from './walls'

const local = z.string().min(1).max(60)
const place = { x: roomFacts.shape.x, y: roomFacts.shape.y }
const ends = { x1: wallFacts.shape.x1, y1: wallFacts.shape.y1, x2: wallFacts.shape.x2, y2: wallFacts.shape.y2 }
const hasLength = ({ x1, y1, x2, y2 }: { x1: number; y1: number; x2: number; y2: number }) =>
  Math.hypot(x2 - x1, y2 - y1) >= 0.05
const longEnough = { path: ['x2'], message: 'ends where it begins: a wall has a length' }

const roomShape = roomFacts.shape
const storey = z.strictObject({
  name: storeyFacts.shape.name,
  floorM: storeyFacts.shape.floorM,
  heightM: storeyFacts.shape.heightM,
  ceilingMaterial: storeyFacts.shape.ceilingMaterial.optional(),
  ceilingMm: storeyFacts.shape.ceilingMm.optional(),
  rooms: z
    .array(
      z.strictObject({
        name: roomShape.name,
        ...place,
        widthM: roomShape.widthM,
        depthM: roomShape.depthM,
        building: roomShape.building.optional(),
        listed: roomShape.listed.optional(),
        complained: roomShape.complained.optional()
      })
    )
    .max(300, 'at most 300 rooms of a storey'),
  walls: z
    .array(
      z
        .strictObject({ ...ends, material: wallFacts.shape.material, thicknessMm: wallFacts.shape.thicknessMm })
        .refine(hasLength, longEnough)
    )
    .max(600, 'at most 600 single walls of a storey: set the others for all at once')
    .optional(),
  openings: z
    .array(z.strictObject({ kind: openingFacts.shape.kind, ...ends }).refine(hasLength, longEnough))
    .max(600, 'at most 600 openings of a storey')
    .optional(),
  outlets: z
    .array(
      z.strictObject({
        id: local.optional(),
        kind: outletFacts.shape.kind,
        ...place,
        circuit: outletFacts.shape.circuit.optional(),
        strip: outletFacts.shape.strip.optional(),
        cabinet: outletFacts.shape.cabinet.optional(),
        cableTo: local.optional()
      })
    )
    .max(600, 'at most 600 outlets of a storey')
    .optional(),
  troubles: z
    .array(z.strictObject({ kind: troubleFacts.shape.kind, ...place }))
    .max(300, 'at most 300 sources of trouble of a storey')
    .optional()
})

/** A home's plan in a file of its own: metres, from the upper left corner; outlets that a cable joins name each other by `id`. */
export const planFile = z.strictObject({
  format: z.literal('pasado.plan/1'),
  outer: z.strictObject({ material: wallFacts.shape.material, thicknessMm: wallFacts.shape.thicknessMm }).optional(),
  inner: z.strictObject({ material: wallFacts.shape.material, thicknessMm: wallFacts.shape.thicknessMm }).optional(),
  storeys: z.array(storey).min(1, 'holds no storey').max(12, 'at most 12 storeys'),
  /** Where units stand, by their names in the visit. */
  units: z
    .array(
      z.strictObject({
        name: unitFacts.shape.name,
        storey: storeyFacts.shape.name,
        ...place,
        heightM: unitFacts.shape.heightM.optional()
      })
    )
    .max(200)
    .optional()
})
export type PlanFile = z.infer<typeof planFile>

const given = <T extends object>(facts: T): T =>
  Object.fromEntries(Object.entries(facts).filter(([, value]) => value !== undefined)) as T
const whole = (facts: object, fields: readonly string[]) =>
  fields.every((field) => (facts as Record<string, unknown>)[field] !== undefined)

/** The plan of a record as a file; what is not whole is left out. */
export function planToFile(record: VisitRecord): PlanFile {
  const { outerMaterial, outerMm, innerMaterial, innerMm } = record.brief.facts
  const storeys = standing(thingsOf(record, 'storey')).sort((a, b) => (a.facts.floorM ?? 0) - (b.facts.floorM ?? 0))
  const on = <K extends 'room' | 'wall' | 'opening' | 'outlet' | 'trouble'>(
    kind: K,
    id: string,
    fields: readonly string[]
  ) =>
    standing(
      thingsOf(record, kind) as Record<
        string,
        { id: string; addedSeq: number; removedSeq: number | null; facts: { storey?: string } }
      >
    ).filter(({ facts }) => facts.storey === id && whole(facts, fields))
  const bare = ({ facts }: { facts: object }) => {
    const { storey: _, ...rest } = facts as Record<string, unknown>
    return given(rest) as never
  }
  const stretch = ['x1', 'y1', 'x2', 'y2']
  const names = new Map(storeys.map(({ id, facts }) => [id, facts.name ?? 'Storey']))
  const units = standing(record.units).flatMap((unit) => {
    const { storey: at, x, y, heightM } = unit.facts
    const name = at === undefined ? undefined : names.get(at)
    return name === undefined || x === undefined || y === undefined
      ? []
      : [given({ name: unitName(unit), storey: name, x, y, heightM })]
  })
  return {
    format: 'pasado.plan/1',
    ...(outerMaterial && outerMm ? { outer: { material: outerMaterial, thicknessMm: outerMm } } : {}),
    ...(innerMaterial && innerMm ? { inner: { material: innerMaterial, thicknessMm: innerMm } } : {}),
    storeys: storeys.map(({ id, facts }) =>
      given({
        name: facts.name ?? 'Storey',
        floorM: facts.floorM ?? 0,
        heightM: facts.heightM ?? 2.5,
        ceilingMaterial: facts.ceilingMaterial,
        ceilingMm: facts.ceilingMm,
        rooms: on('room', id, ['name', 'x', 'y', 'widthM', 'depthM']).map(bare),
        walls: on('wall', id, [...stretch, 'material', 'thicknessMm']).map(bare),
        openings: on('opening', id, [...stretch, 'kind']).map(bare),
        outlets: on('outlet', id, ['x', 'y', 'kind']).map(
          (outlet) => ({ id: outlet.id, ...(bare(outlet) as object) }) as never
        ),
        troubles: on('trouble', id, ['x', 'y', 'kind']).map(bare)
      })
    ),
    ...(units.length ? { units } : {})
  }
}

/** What an entry of a plan's import sets. */
export interface PlanEntry {
  kind: `${Extract<ThingKind, 'brief' | 'storey' | 'room' | 'wall' | 'opening' | 'outlet' | 'trouble' | 'unit'>}.set`
  body: { id?: string; set: Record<string, unknown> }
}

/**
 * The entries that draw a plan from a file, beside what is drawn already. Units are placed where the record has one of that name.
 * @param newId gives a new id each time
 */
export function planFromFile(file: PlanFile, record: VisitRecord, newId: () => string): PlanEntry[] {
  const entries: PlanEntry[] = []
  const brief = given({
    outerMaterial: file.outer?.material,
    outerMm: file.outer?.thicknessMm,
    innerMaterial: file.inner?.material,
    innerMm: file.inner?.thicknessMm
  })
  if (Object.keys(brief).length) entries.push({ kind: 'brief.set', body: { set: brief } })
  const storeyIds = new Map<string, string>()
  const outletIds = new Map(
    file.storeys.flatMap(({ outlets = [] }) =>
      outlets.flatMap(({ id }) => (id === undefined ? [] : [[id, newId()] as const]))
    )
  )
  for (const { rooms, walls = [], openings = [], outlets = [], troubles = [], ...facts } of file.storeys) {
    const id = newId()
    storeyIds.set(facts.name, id)
    entries.push({ kind: 'storey.set', body: { id, set: given(facts) } })
    const add = (kind: 'room' | 'wall' | 'opening' | 'trouble', list: readonly object[]) => {
      for (const set of list)
        entries.push({ kind: `${kind}.set`, body: { id: newId(), set: { storey: id, ...given(set) } } })
    }
    add(
      'room',
      rooms.map((room) => ({ listed: true, ...room }))
    )
    add('wall', walls)
    add('opening', openings)
    add('trouble', troubles)
    for (const { id: name, cableTo, ...outlet } of outlets) {
      const other = cableTo === undefined ? undefined : outletIds.get(cableTo)
      entries.push({
        kind: 'outlet.set',
        body: {
          id: (name === undefined ? undefined : outletIds.get(name)) ?? newId(),
          set: { storey: id, ...given(outlet), ...(other === undefined ? {} : { cableTo: other }) }
        }
      })
    }
  }
  const units = standing(record.units)
  for (const { name, storey: at, ...where } of file.units ?? []) {
    const unit = units.find((candidate) => unitName(candidate) === name)
    const storeyId = storeyIds.get(at)
    if (unit && storeyId)
      entries.push({ kind: 'unit.set', body: { id: unit.id, set: { storey: storeyId, ...given(where) } } })
  }
  return entries
}

/** What is wrong with a file, by field, in words; null where it is whole. */
export function planFileProblem(value: unknown): string | null {
  const result = planFile.safeParse(value)
  if (result.success) return null
  const [issue] = result.error.issues
  const format = (value as { format?: unknown } | null)?.format
  if (typeof format === 'string' && /^pasado\.plan\/\d+$/.test(format) && format !== 'pasado.plan/1')
    return `is of the later format ${format}: bring Pasado up to date, or export it as pasado.plan/1`
  return `${issue!.path.map((part) => (typeof part === 'number' ? part + 1 : String(part))).join(' › ') || 'the file'}: ${issue!.message}`
}

/** The plan of a file as coverage reads it; storeys go by their names. */
export function homePlanOf(file: PlanFile): HomePlan {
  const storeys = file.storeys
    .map(({ name, floorM, heightM, ceilingMaterial, ceilingMm }) => ({
      id: name,
      name,
      floorM,
      heightM,
      ceiling: { material: ceilingMaterial ?? ('wood' as const), thicknessMm: ceilingMm ?? 200 }
    }))
    .sort((a, b) => a.floorM - b.floorM)
  const on = <T extends object>(pick: (storey: PlanFile['storeys'][number]) => readonly T[] | undefined) =>
    file.storeys.flatMap((storey) => (pick(storey) ?? []).map((thing) => ({ ...thing, storey: storey.name })))
  const rooms = on(({ rooms: list }) => list).map((room, at) => ({
    ...room,
    id: `room ${at}`,
    building: room.building ?? '',
    listed: room.listed !== false,
    complained: room.complained === true
  }))
  const openings = on(({ openings: list }) => list)
  return {
    storeys,
    rooms,
    stairs: openings.filter(({ kind }) => kind === 'stairs'),
    walls: wallsOf(
      rooms,
      { outer: file.outer ?? firstWalls.outer, inner: file.inner ?? firstWalls.inner },
      on(({ walls }) => walls),
      openings.flatMap(({ kind, ...opening }) => (kind === 'stairs' ? [] : [{ ...opening, kind }]))
    )
  }
}

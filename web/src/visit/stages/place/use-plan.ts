import { useSame } from '../../../app/use-same'
import { useEffect, useMemo, useState } from 'react'
import { figureOf } from '@pasado/core/policy/figures'
import type { Catalogue } from '@pasado/core/catalogue/model'
import { expectedRate, joinsOf, type ExpectedRate } from '@pasado/core/work/plan/hops'
import {
  gridOf,
  obstaclesOf,
  planOf,
  roomFigures,
  servedBy,
  type HomePlan,
  type RoomFigures
} from '@pasado/core/work/plan/home-plan'
import {
  isOurs,
  placedStays,
  placedUnits,
  senderOf,
  stayingRoot,
  type Placed,
  type PlacedStays,
  type PlacedUnit
} from '@pasado/core/work/plan/placed'
import type { Band } from '@pasado/core/values/band'
import { askCoverage } from '../../../workers/coverage'
import type { CoverageAnswer } from '../../../workers/coverage.worker'
import { useVisit } from '../../session/visit-state'

/** The plan as it is drawn, with the units and what stays that stand in it; `serving` are those whose signal the home has together. */
export function usePlan(): { plan: HomePlan; units: PlacedUnit[]; staying: PlacedStays[]; serving: Placed[] } {
  const record = useVisit((state) => state.record)
  const { storeys, rooms, walls, openings, brief } = record
  // The plan is made anew only where something of it changed.
  const plan = useMemo(
    () => planOf({ storeys, rooms, walls, openings, brief }),
    [storeys, rooms, walls, openings, brief]
  )
  const units = useMemo(() => placedUnits(record, plan), [record, plan])
  const staying = useMemo(() => placedStays(record, plan), [record, plan])
  const root = useMemo(() => stayingRoot(record, plan), [record, plan])
  const serving = useMemo(() => (root ? [...units, root] : units), [units, root])
  return { plan, units, staying, serving }
}

/** Signal on every storey on a band, and the units that send it: coarse at once, fine a moment later. */
export function useCoverage(
  plan: HomePlan,
  units: readonly Placed[],
  band: Band,
  { exponent, wallFactor }: { exponent: number; wallFactor: number }
): { storeys: CoverageAnswer['storeys']; senders: readonly Placed[] } {
  const catalogue = useVisit((state) => state.catalogue)
  const [found, setFound] = useState<{ storeys: CoverageAnswer['storeys']; senders: readonly Placed[] }>({
    storeys: [],
    senders: []
  })
  const sources = useSame(units, units.map(({ id, x, y, z }) => `${id} ${x} ${y} ${z}`).join(';'))
  useEffect(() => {
    const sending = sources.flatMap((unit) => {
      const sender = senderOf(unit, catalogue, band)
      return sender ? [{ unit, sender }] : []
    })
    const senders = sending.map(({ unit }) => unit)
    if (senders.length === 0) {
      setFound({ storeys: [], senders })
      return
    }
    const { walls, floors } = obstaclesOf(plan, band, wallFactor)
    const ask = (cellM: number, then: () => void) =>
      askCoverage(
        {
          senders: sending.map(({ sender }) => sender),
          walls,
          floors,
          exponent,
          grids: plan.storeys.flatMap(({ id }) => {
            const grid = gridOf(plan, id, cellM)
            return grid ? [{ storey: id, grid }] : []
          })
        },
        (answer) => {
          setFound({ storeys: answer.storeys, senders })
          then()
        }
      )
    ask(0.5, () => ask(0.25, () => undefined))
  }, [plan, sources, band, catalogue, exponent, wallFactor])
  return found
}

/** What is told of a room: its signal, who serves it, and the rate to expect. */
export interface RoomTold extends RoomFigures {
  by: string
  rate: ExpectedRate
}

/** Figures of every room on a band, by the company's least signal of a room and of a hop. */
export function roomsOf(
  plan: HomePlan,
  storeys: CoverageAnswer['storeys'],
  senders: readonly Placed[],
  units: readonly Placed[],
  catalogue: Catalogue,
  band: Band,
  calibration: { exponent: number; wallFactor: number },
  least: { roomDbm: number; hopDbm: number }
): Map<string, RoomTold> {
  const found = new Map<string, RoomTold>()
  const roleOf = (at: Placed) => (isOurs(at) ? at.unit.facts.role : undefined)
  const serving = units.filter(
    (at) => !isOurs(at) || ['router', 'gateway', 'node', 'extender', 'access-point'].includes(roleOf(at) ?? '')
  )
  // A gateway before a router of ours is joined to it by a cable: the internet comes that way.
  const joinedByCable = serving.some((at) => roleOf(at) === 'router')
  const joins = joinsOf(
    plan,
    serving.map((at) => ({
      at,
      cabled: (isOurs(at) && at.unit.facts.cabled === true) || (roleOf(at) === 'gateway' && joinedByCable)
    })),
    catalogue,
    least.hopDbm,
    calibration
  )
  for (const room of plan.rooms) {
    const here = storeys.find(({ storey }) => storey === room.storey)
    const figures = here && roomFigures(room, here.grid, here.signal, least.roomDbm)
    const by = here && senders[servedBy(room, here.grid, here.by)]
    if (figures && by)
      found.set(room.id, { ...figures, by: by.name, rate: expectedRate(figures.median, by, joins, catalogue, band) })
  }
  return found
}

/** The company's floors of a plan: the least signal of a room and of a wireless hop, dBm. */
export function useFloors(): { roomDbm: number; hopDbm: number } {
  const policy = useVisit((state) => state.standard.policy)
  return useMemo(() => ({ roomDbm: figureOf(policy, 'roomDbm'), hopDbm: figureOf(policy, 'leastHopDbm') }), [policy])
}

import { useEffect, useMemo, useState } from 'react'
import { gridOf, obstaclesOf, placedUnits, planOf, ROOM_FLOOR_DBM, roomFigures, senderOf, type Band, type HomePlan, type PlacedUnit, type RoomFigures } from '@pasado/core/plan/home-plan'
import { askCoverage } from '../../workers/coverage'
import type { CoverageAnswer } from '../../workers/coverage.worker'
import { useVisit } from '../store'

/** The plan as it is drawn, with the units that stand in it. */
export function usePlan(): { plan: HomePlan; units: PlacedUnit[] } {
  const record = useVisit((state) => state.record)
  const { storeys, rooms, walls, openings } = record
  const brief = record.brief
  // The plan is made anew only where something of it changed.
  const plan = useMemo(() => planOf(useVisit.getState().record), [storeys, rooms, walls, openings, brief])
  const units = useMemo(() => placedUnits(record, plan), [record, plan])
  return { plan, units }
}

/** Signal on every storey on a band: coarse at once, fine a moment later. */
export function useCoverage(plan: HomePlan, units: readonly PlacedUnit[], band: Band, { exponent, wallFactor }: { exponent: number; wallFactor: number }): CoverageAnswer['storeys'] {
  const catalogue = useVisit((state) => state.catalogue)
  const [storeys, setStoreys] = useState<CoverageAnswer['storeys']>([])
  const places = units.map(({ id, x, y, z }) => `${id} ${x} ${y} ${z}`).join(';')
  useEffect(() => {
    const senders = units.flatMap((unit) => senderOf(unit, catalogue, band) ?? [])
    if (senders.length === 0) { setStoreys([]); return }
    const { walls, floors } = obstaclesOf(plan, band, wallFactor)
    const ask = (cellM: number, then: () => void) => askCoverage({ senders, walls, floors, exponent, grids: plan.storeys.flatMap(({ id }) => { const grid = gridOf(plan, id, cellM); return grid ? [{ storey: id, grid }] : [] }) }, (answer) => { setStoreys(answer.storeys); then() })
    ask(0.5, () => ask(0.25, () => undefined))
  }, [plan, places, band, catalogue, exponent, wallFactor])
  return storeys
}

/** Figures of every room on a band. */
export function figuresOf(plan: HomePlan, storeys: CoverageAnswer['storeys']): Map<string, RoomFigures> {
  const found = new Map<string, RoomFigures>()
  for (const room of plan.rooms) {
    const here = storeys.find(({ storey }) => storey === room.storey)
    const figures = here && roomFigures(room, here.grid, here.signal, ROOM_FLOOR_DBM)
    if (figures) found.set(room.id, figures)
  }
  return found
}

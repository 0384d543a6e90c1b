import { useEffect, useMemo, useState } from 'react'
import { v7 as uuidv7 } from 'uuid'
import type { Band } from '@pasado/core/values/band'
import { learnFrom, plannedReadings, signalAt, type PointSignal } from '@pasado/core/work/plan/readings'
import { planProblems } from '@pasado/core/work/plan/problems'
import { stayingOf, staysName } from '@pasado/core/record/equipment'
import { standing, unitName } from '@pasado/core/record/record'
import type { Placed } from '@pasado/core/work/plan/placed'
import { Chips } from '../../../ui/Chips'
import { useMayWrite } from '../../session/facts'
import { useVisit } from '../../session/visit-state'
import { write } from '../../session/write'
import { AddRoom } from './AddRoom'
import { ChosenFields } from './ChosenFields'
import { PlanFiles } from './PlanFiles'
import { PlanPicture } from './PlanPicture'
import type { Chosen, Moved, Tool } from './use-plan-drag'
import { PlanTools, type ToolKinds } from './PlanTools'
import { Readings } from './Readings'
import { RoomBars } from './RoomBars'
import { SignalLegend, type PlanView } from './SignalPicture'
import { Suggestions } from './Suggestions'
import { openingIn, openingWidthM, tenth, wallNear } from './snap'
import { roomsOf, useCoverage, useFloors, usePlan } from './use-plan'
import { Button } from '../../../ui/Button'

const bandWords: { value: Band; label: string }[] = [
  { value: '2.4', label: '2.4 GHz' },
  { value: '5', label: '5 GHz' },
  { value: '6', label: '6 GHz' }
]

/** What stands in the plan, with the one that is just dragged where it is dragged to. */
const asDragged = <T extends Placed>(of: readonly T[], dragged: { id: string; x: number; y: number } | null): T[] =>
  of.map((placed) => (dragged?.id === placed.id ? { ...placed, ...dragged } : placed))

/** The home's plan: drawn, furnished with what matters to signal and power, and shaded by what reaches where. */
export function PlanWork() {
  const { plan, units, staying, serving } = usePlan()
  const mayWrite = useMayWrite()
  const [storeyId, setStorey] = useState<string | null>(null)
  const [tool, setTool] = useState<Tool>('choose')
  const [kinds, setKinds] = useState<ToolKinds>({
    outlet: 'mains',
    trouble: 'fish-tank',
    opening: 'door',
    unit: null,
    cableFrom: null
  })
  const [band, setBand] = useState<Band>('5')
  const [view, setView] = useState<PlanView>('signal')
  const [chosen, setChosen] = useState<Chosen | null>(null)
  const [probe, setProbe] = useState<{ x: number; y: number } | null>(null)
  const [readAt, setReadAt] = useState<{ storey: string; x: number; y: number } | null>(null)
  const [dragged, setDragged] = useState<{ id: string; x: number; y: number } | null>(null)
  const storey = plan.storeys.find(({ id }) => id === storeyId) ?? plan.storeys[0]
  const shown = useMemo(() => asDragged(units, dragged), [units, dragged])
  const shownStaying = useMemo(() => asDragged(staying, dragged), [staying, dragged])
  const sending = useMemo(() => asDragged(serving, dragged), [serving, dragged])
  const record = useVisit((state) => state.record)
  const catalogue = useVisit((state) => state.catalogue)
  const readings = useMemo(
    () => plannedReadings(record, plan, units, catalogue, band),
    [record, plan, units, catalogue, band]
  )
  const { calibration } = useMemo(() => learnFrom(readings), [readings])
  const least = useFloors()
  const { storeys: coverage, senders } = useCoverage(plan, sending, band, calibration)
  const figures = useMemo(
    () => roomsOf(plan, coverage, senders, sending, catalogue, band, calibration, least),
    [plan, coverage, senders, sending, catalogue, band, calibration, least]
  )
  const problems = useMemo(() => planProblems(record, plan), [record, plan])
  const pointed = useMemo(() => {
    // Pointed at, or else the middle of the room that is chosen.
    const room = chosen?.kind === 'room' ? plan.rooms.find(({ id }) => id === chosen.id) : undefined
    const point = probe ?? (room && { x: room.x + room.widthM / 2, y: room.y + room.depthM / 2 })
    return storey && point
      ? signalAt(plan, sending, catalogue, band, { storey: storey.id, ...point }, calibration)
      : null
  }, [plan, sending, catalogue, band, storey, probe, chosen, calibration])
  const here = coverage.find((candidate) => candidate.storey === storey?.id) ?? null
  const waiting = [
    ...standing(record.units).map((unit) => ({ kind: 'unit' as const, id: unit.id, name: unitName(unit) })),
    ...stayingOf(record).map((stays) => ({ kind: 'stays' as const, id: stays.id, name: staysName(stays) }))
  ].filter(({ id }) => ![...units, ...staying].some((placed) => placed.id === id))
  useEffect(() => {
    setChosen(null)
  }, [storey?.id])
  const addStorey = (): string => {
    const id = uuidv7()
    const top = plan.storeys.at(-1)
    write('storey.set', {
      id,
      set: {
        name: top ? `Storey ${plan.storeys.length + 1}` : 'Ground floor',
        floorM: top ? tenth(top.floorM + top.heightM + 0.3) : 0,
        heightM: 2.5
      }
    })
    setStorey(id)
    return id
  }
  const addRoom = (room: { x: number; y: number; widthM: number; depthM: number }, name?: string) => {
    const id = uuidv7()
    write('room.set', {
      id,
      set: { name: name ?? `Room ${plan.rooms.length + 1}`, storey: storey?.id ?? addStorey(), listed: true, ...room }
    })
    // One that was typed leaves the form as it is, for the next.
    if (name === undefined) setChosen({ kind: 'room', id })
  }
  const drawn = (area: { x: number; y: number; widthM: number; depthM: number }) => {
    if (tool === 'room' || !storey) {
      addRoom(area)
      return
    }
    const id = uuidv7()
    write('opening.set', {
      id,
      set: {
        storey: storey.id,
        kind: 'stairs',
        x1: area.x,
        y1: area.y,
        x2: tenth(area.x + area.widthM),
        y2: tenth(area.y + area.depthM)
      }
    })
    setChosen({ kind: 'opening', id })
  }
  const put = (at: { x: number; y: number }) => {
    if (!storey) return
    const id = uuidv7()
    if (tool === 'outlet') write('outlet.set', { id, set: { storey: storey.id, kind: kinds.outlet, ...at } })
    else if (tool === 'trouble') write('trouble.set', { id, set: { storey: storey.id, kind: kinds.trouble, ...at } })
    else if (tool === 'reading') setReadAt({ storey: storey.id, ...at })
    else if (tool === 'opening') {
      const wall = wallNear(
        plan.walls.filter((candidate) => candidate.storey === storey.id),
        at
      )
      if (wall)
        write('opening.set', {
          id,
          set: { storey: storey.id, kind: kinds.opening, ...openingIn(wall, at, openingWidthM[kinds.opening]) }
        })
    } else if (tool === 'unit') {
      const next = waiting.find((candidate) => candidate.id === kinds.unit) ?? waiting[0]
      if (!next) return
      write(`${next.kind}.set`, { id: next.id, set: { storey: storey.id, ...at } })
      setKinds({ ...kinds, unit: null })
      setChosen({ kind: next.kind, id: next.id })
      if (waiting.length <= 1) setTool('choose')
    }
  }
  const move = (what: Moved, id: string, at: { x: number; y: number }, done: boolean) => {
    if (what === 'outlet' || what === 'trouble') {
      if (done) write(`${what}.set`, { id, set: at })
      return
    }
    setDragged(done ? null : { id, ...at })
    const was = [...units, ...staying].find((placed) => placed.id === id)
    if (done && was && (was.x !== at.x || was.y !== at.y)) write(`${what}.set`, { id, set: at })
  }
  const choose = (next: Chosen | null) => {
    setChosen(next)
    if (tool !== 'cable' || next?.kind !== 'outlet' || record.outlets?.[next.id]?.facts.kind !== 'network') return
    if (kinds.cableFrom === null || kinds.cableFrom === next.id) {
      setKinds({ ...kinds, cableFrom: next.id })
      return
    }
    write('outlet.set', { id: kinds.cableFrom, set: { cableTo: next.id } })
    setKinds({ ...kinds, cableFrom: null })
  }
  return (
    <div className="max-sm:[&_.plan-bar_[role=radiogroup]]:flex-nowrap max-sm:[&_.plan-bar_[role=radiogroup]]:overflow-x-auto max-sm:[&_.plan-bar_.chip]:shrink-0">
      <div className="plan-bar flex flex-wrap items-center gap-x-4 gap-y-2">
        {plan.storeys.length > 0 && (
          <Chips
            label="Storey"
            value={storey?.id}
            options={plan.storeys.map(({ id, name }) => ({ value: id, label: name }))}
            onChoose={setStorey}
          />
        )}
        {mayWrite && <Button onClick={addStorey}>Add a storey</Button>}
        <span className="grow" />
        {coverage.length > 0 && (
          <Chips
            label="Shown"
            value={view}
            options={[
              { value: 'signal', label: 'signal' },
              { value: 'serving', label: 'who serves' }
            ]}
            onChoose={setView}
          />
        )}
        <Chips label="Band" value={band} options={bandWords} onChoose={setBand} />
      </div>
      {mayWrite && storey && (
        <PlanTools
          tool={tool}
          kinds={kinds}
          waiting={waiting}
          onTool={(next) => {
            setTool(next)
            if (next !== 'reading') setReadAt(null)
          }}
          onKinds={setKinds}
        />
      )}
      <div className="mt-2 grid gap-4 xl:grid-cols-[minmax(0,1fr)_19rem]">
        <div>
          <PlanPicture
            plan={plan}
            storey={storey?.id ?? ''}
            units={shown}
            staying={shownStaying}
            coverage={here}
            view={view}
            tool={storey || tool === 'room' ? tool : 'choose'}
            chosen={chosen}
            onChoose={choose}
            onDraw={drawn}
            onMoveRoom={(id, to) => write('room.set', { id, set: to })}
            onPut={put}
            onMove={move}
            onProbe={setProbe}
            readAt={readAt?.storey === storey?.id ? readAt : null}
            mayWrite={mayWrite}
          />
          {coverage.length > 0 && <Working signal={pointed} bandDb={calibration.bandDb} />}
          {coverage.length > 0 && <SignalLegend band={band} view={view} units={senders.map(({ name }) => name)} />}
        </div>
        <RoomBars
          floorDbm={least.roomDbm}
          rooms={plan.rooms}
          storeys={plan.storeys}
          figures={figures}
          bandDb={calibration.bandDb}
          onChoose={(room) => {
            setStorey(room.storey)
            setChosen({ kind: 'room', id: room.id })
          }}
        />
      </div>
      {problems.length > 0 && (
        <ul role="alert" className="mt-2 bg-inv p-2 text-oninv">
          {problems.slice(0, 4).map((problem) => (
            <li key={problem} className="font-bold">
              {problem}
            </li>
          ))}
          {problems.length > 4 && <li>and {problems.length - 4} more</li>}
        </ul>
      )}
      <div className="mt-3 max-w-3xl">
        {chosen && (
          <div className="mb-4">
            <ChosenFields chosen={chosen} walls={plan.walls} onChoose={setChosen} />
          </div>
        )}
        {(!chosen || chosen.kind === 'room') && (
          <AddRoom
            onAdd={addRoom}
            nextX={plan.rooms
              .filter((room) => room.storey === storey?.id)
              .reduce((most, room) => Math.max(most, room.x + room.widthM), 0)}
          />
        )}
      </div>
      <Suggestions plan={plan} units={units} band={band} calibration={calibration} />
      <Readings
        plan={plan}
        units={units}
        band={band}
        readings={readings}
        readAt={readAt}
        onWritten={() => setReadAt(null)}
      />
      <PlanFiles plan={plan} units={units} coverage={coverage} band={band} storey={storey?.id ?? null} />
    </div>
  )
}

/** The signal at the point that is pointed at, with how it comes about. */
function Working({ signal, bandDb }: { signal: PointSignal | null; bandDb: number }) {
  if (!signal)
    return (
      <p className="fine mt-1">Point at the plan, or choose a room: its signal and how it comes about show here.</p>
    )
  const { dbm, unit, powerDbm, distanceM, distanceDb, wallsDb, wallsCrossed, floorsDb, floorsCrossed } = signal
  return (
    <p className="mt-1 text-sm">
      <b className="exact">
        {dbm.toFixed(0)} ± {bandDb.toFixed(0)} dBm
      </b>{' '}
      from {unit}: sends {powerDbm} dBm, {distanceM.toFixed(1)} m take {distanceDb.toFixed(0)} dB, {wallsCrossed}{' '}
      {wallsCrossed === 1 ? 'wall' : 'walls'} {wallsDb.toFixed(0)} dB, {floorsCrossed}{' '}
      {floorsCrossed === 1 ? 'floor' : 'floors'} {floorsDb.toFixed(0)} dB.
    </p>
  )
}

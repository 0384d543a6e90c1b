import { useEffect, useMemo, useState } from 'react'
import { v7 as uuidv7 } from 'uuid'
import type { Band } from '@pasado/core/plan/home-plan'
import { learnFrom, plannedReadings, signalAt, type PointSignal } from '@pasado/core/plan/readings'
import { overlaps } from '@pasado/core/plan/walls'
import { outletKinds, troubleKinds } from '@pasado/core/record/facts'
import { standing, unitName } from '@pasado/core/record/record'
import { Chips } from '../../ui/Chips'
import { useMayWrite } from '../facts'
import { useVisit, write } from '../store'
import { ChosenFields } from './ChosenFields'
import { PlanPicture, signalSteps, type Chosen, type Tool } from './PlanPicture'
import { Readings } from './Readings'
import { RoomBars } from './RoomBars'
import { Suggestions } from './Suggestions'
import { tenth } from './snap'
import { figuresOf, useCoverage, usePlan } from './use-plan'

const bandWords: { value: Band; words: string }[] = [{ value: '2.4', words: '2.4 GHz' }, { value: '5', words: '5 GHz' }, { value: '6', words: '6 GHz' }]
const toolWords: { value: Tool; words: string }[] = [{ value: 'choose', words: 'choose and move' }, { value: 'room', words: 'draw rooms' }, { value: 'outlet', words: 'outlets' }, { value: 'trouble', words: 'trouble' }, { value: 'unit', words: 'units' }]

/** The home's plan: drawn, furnished with what matters to signal and power, and coloured by what reaches where. */
export function PlanWork() {
  const { plan, units } = usePlan()
  const mayWrite = useMayWrite()
  const table = useVisit((state) => state.record.units)
  const [storeyId, setStorey] = useState<string | null>(null)
  const [tool, setTool] = useState<Tool>('choose')
  const [band, setBand] = useState<Band>('5')
  const [chosen, setChosen] = useState<Chosen | null>(null)
  const [outletKind, setOutletKind] = useState<(typeof outletKinds)[number]>('mains')
  const [troubleKind, setTroubleKind] = useState<(typeof troubleKinds)[number]>('fish-tank')
  const [unitToPlace, setUnitToPlace] = useState<string | null>(null)
  const [probe, setProbe] = useState<{ x: number; y: number } | null>(null)
  const [dragged, setDragged] = useState<{ id: string; x: number; y: number } | null>(null)
  const storey = plan.storeys.find(({ id }) => id === storeyId) ?? plan.storeys[0]
  const shown = useMemo(() => units.map((one) => (dragged?.id === one.id ? { ...one, ...dragged } : one)), [units, dragged])
  const record = useVisit((state) => state.record)
  const catalogue = useVisit((state) => state.catalogue)
  const readings = useMemo(() => plannedReadings(record, plan, units, catalogue, band), [record, plan, units, catalogue, band])
  const { calibration } = useMemo(() => learnFrom(readings), [readings])
  const coverage = useCoverage(plan, shown, band, calibration)
  const figures = useMemo(() => figuresOf(plan, coverage), [plan, coverage])
  const pointed = useMemo(() => {
    // Pointed at, or else the middle of the room that is chosen.
    const room = chosen?.kind === 'room' ? plan.rooms.find(({ id }) => id === chosen.id) : undefined
    const point = probe ?? (room && { x: room.x + room.widthM / 2, y: room.y + room.depthM / 2 })
    return storey && point ? signalAt(plan, shown, catalogue, band, { storey: storey.id, ...point }, calibration) : null
  }, [plan, shown, catalogue, band, storey, probe, chosen, calibration])
  const here = coverage.find((one) => one.storey === storey?.id) ?? null
  const waiting = standing(table).filter(({ id }) => !units.some((one) => one.id === id))
  const over = overlaps(plan.rooms)
  useEffect(() => { setChosen(null) }, [storey?.id])
  const addStorey = (): string => {
    const id = uuidv7()
    const top = plan.storeys.at(-1)
    write('storey.set', { id, set: { name: top ? `Storey ${plan.storeys.length + 1}` : 'Ground floor', floorM: top ? tenth(top.floorM + top.heightM + 0.3) : 0, heightM: 2.5 } })
    setStorey(id)
    return id
  }
  const addRoom = (room: { x: number; y: number; widthM: number; depthM: number }, name?: string) => {
    const id = uuidv7()
    write('room.set', { id, set: { name: name ?? `Room ${plan.rooms.length + 1}`, storey: storey?.id ?? addStorey(), listed: true, ...room } })
    setChosen({ kind: 'room', id })
  }
  const put = (at: { x: number; y: number }) => {
    if (!storey) return
    if (tool === 'outlet') write('outlet.set', { id: uuidv7(), set: { storey: storey.id, kind: outletKind, ...at } })
    else if (tool === 'trouble') write('trouble.set', { id: uuidv7(), set: { storey: storey.id, kind: troubleKind, ...at } })
    else {
      const id = unitToPlace ?? waiting[0]?.id
      if (!id) return
      write('unit.set', { id, set: { storey: storey.id, ...at } })
      setUnitToPlace(null)
      setChosen({ kind: 'unit', id })
      if (waiting.length <= 1) setTool('choose')
    }
  }
  const moveUnit = (id: string, at: { x: number; y: number }, done: boolean) => {
    setDragged(done ? null : { id, ...at })
    const was = units.find((one) => one.id === id)
    if (done && was && (was.x !== at.x || was.y !== at.y)) write('unit.set', { id, set: at })
  }
  return (
    <div>
      <div className="flex flex-wrap items-center gap-x-4 gap-y-2">
        {plan.storeys.length > 0 && <Chips label="Storey" value={storey?.id} options={plan.storeys.map(({ id, name }) => ({ value: id, words: name }))} onChoose={setStorey} />}
        {mayWrite && <button type="button" className="btn" onClick={addStorey}>Add a storey</button>}
        <span className="grow" />
        <Chips label="Band" value={band} options={bandWords} onChoose={setBand} />
      </div>
      {mayWrite && storey && (
        <div className="mt-2 flex flex-wrap items-center gap-x-4 gap-y-2">
          <Chips label="Tool" value={tool} options={toolWords} onChoose={setTool} />
          {tool === 'outlet' && <Chips label="Kind of outlet" value={outletKind} options={outletKinds.map((value) => ({ value, words: { mains: 'mains', line: 'the line', network: 'network' }[value] }))} onChoose={setOutletKind} />}
          {tool === 'trouble' && <select className="box w-auto" aria-label="Kind of trouble" value={troubleKind} onChange={(event) => setTroubleKind(event.target.value as typeof troubleKind)}>{troubleKinds.map((one) => <option key={one} value={one}>{one.replaceAll('-', ' ')}</option>)}</select>}
          {tool === 'unit' && (waiting.length ? <Chips label="Unit to place" value={unitToPlace ?? waiting[0]!.id} options={waiting.map((unit) => ({ value: unit.id, words: unitName(unit) }))} onChoose={setUnitToPlace} /> : <p className="fine">Every unit stands in the plan; drag one to move it.</p>)}
        </div>
      )}
      <div className="mt-2"><PlanPicture plan={plan} storey={storey?.id ?? ''} units={shown} coverage={here} tool={storey || tool === 'room' ? tool : 'choose'} chosen={chosen} onChoose={setChosen} onDraw={addRoom} onMoveRoom={(id, to) => write('room.set', { id, set: to })} onPlace={put} onMoveUnit={moveUnit} onProbe={setProbe} mayWrite={mayWrite} /></div>
      {coverage.length > 0 && <Working signal={pointed} />}
      {coverage.length > 0 && <p className="fine mt-1 flex flex-wrap items-center gap-x-3">Calculated signal, {band} GHz, 1 m above the floor:{signalSteps.map(({ fromDbm, dark }) => <span key={fromDbm} className="inline-flex items-center gap-1"><span aria-hidden className="inline-block h-3.5 w-5 border border-edge" style={{ background: `color-mix(in srgb, var(--ink) ${dark * 100}%, var(--sheet))` }} />{fromDbm === -Infinity ? 'weaker' : `${fromDbm} dBm`}</span>)}</p>}
      {over.length > 0 && <p role="alert" className="mt-2 bg-inv p-2 font-bold text-oninv">{over[0]![0].name} and {over[0]![1].name} lie over each other: move one, or make it smaller.</p>}
      <div className="mt-3 grid gap-5 xl:grid-cols-2">
        <div>{chosen ? <ChosenFields chosen={chosen} onGone={() => setChosen(null)} /> : <AddRoom onAdd={addRoom} nextX={plan.rooms.filter((room) => room.storey === storey?.id).reduce((most, room) => Math.max(most, room.x + room.widthM), 0)} />}</div>
        <RoomBars rooms={plan.rooms} storeys={plan.storeys} figures={figures} onChoose={(room) => { setStorey(room.storey); setChosen({ kind: 'room', id: room.id }) }} />
      </div>
      <Readings plan={plan} units={units} band={band} readings={readings} />
      <Suggestions plan={plan} units={units} band={band} />
    </div>
  )
}

/** The signal at the point that is pointed at, with how it comes about. */
function Working({ signal }: { signal: PointSignal | null }) {
  if (!signal) return <p className="fine mt-1">Point at the plan, or choose a room: its signal and how it comes about show here.</p>
  const { dbm, unit, powerDbm, distanceM, distanceDb, wallsDb, wallsCrossed, floorsDb, floorsCrossed } = signal
  return <p className="mt-1 text-sm"><b className="exact">{dbm.toFixed(0)} dBm</b> from {unit}: sends {powerDbm} dBm, {distanceM.toFixed(1)} m take {distanceDb.toFixed(0)} dB, {wallsCrossed} {wallsCrossed === 1 ? 'wall' : 'walls'} {wallsDb.toFixed(0)} dB, {floorsCrossed} {floorsCrossed === 1 ? 'floor' : 'floors'} {floorsDb.toFixed(0)} dB.</p>
}

/** A room by its size, for those who would rather type than draw. */
function AddRoom({ onAdd, nextX }: { onAdd: (room: { x: number; y: number; widthM: number; depthM: number }, name: string) => void; nextX: number }) {
  const [name, setName] = useState('')
  const [width, setWidth] = useState('')
  const [depth, setDepth] = useState('')
  const mayWrite = useMayWrite()
  const number = (text: string) => Number(text.replace(',', '.'))
  const wrong = [width, depth].some((text) => text !== '' && !(number(text) >= 0.5 && number(text) <= 60))
  if (!mayWrite) return null
  const add = (event: React.FormEvent) => {
    event.preventDefault()
    if (!name.trim() || !width || !depth || wrong) return
    onAdd({ x: tenth(nextX), y: 0, widthM: tenth(number(width)), depthM: tenth(number(depth)) }, name.trim())
    setName(''); setWidth(''); setDepth('')
  }
  return (
    <form onSubmit={add} aria-label="Add a room">
      <h3>Add a room</h3>
      <p className="fine">Draw it, or type how wide and how deep it is; it joins the last one, and can be moved.</p>
      <div className="mt-2 grid grid-cols-[2fr_1fr_1fr_auto] items-end gap-2">
        <div><label className="label" htmlFor="room-name">Room</label><input id="room-name" className="box mt-1" maxLength={60} autoComplete="off" value={name} onChange={(event) => setName(event.target.value)} /></div>
        <div><label className="label" htmlFor="room-width">Width, m</label><input id="room-width" className="box mt-1" inputMode="decimal" autoComplete="off" value={width} onChange={(event) => setWidth(event.target.value)} /></div>
        <div><label className="label" htmlFor="room-depth">Depth, m</label><input id="room-depth" className="box mt-1" inputMode="decimal" autoComplete="off" value={depth} onChange={(event) => setDepth(event.target.value)} /></div>
        <button type="submit" className="btn" disabled={!name.trim() || !width || !depth || wrong}>Add</button>
      </div>
      {wrong && <p role="alert" className="mt-1 font-bold">A room is 0.5 to 60 m wide and deep: enter metres.</p>}
    </form>
  )
}

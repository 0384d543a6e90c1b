import { useEffect, useMemo, useRef, useState } from 'react'
import type { HomePlan, NamedRoom, PlacedUnit } from '@pasado/core/plan/home-plan'
import { standing, type Outlet, type Trouble } from '@pasado/core/record/record'
import type { CoverageAnswer } from '../../workers/coverage.worker'
import { useVisit } from '../store'
import { edgesOf, movedTo, snapped, tenth } from './snap'

export type Tool = 'choose' | 'room' | 'outlet' | 'trouble' | 'unit'
export interface Chosen { kind: 'room' | 'unit' | 'outlet' | 'trouble'; id: string }

/** Steps of signal, weakest last, each with how dark it is drawn: told apart in grey, and never by a lamp's colour. */
export const signalSteps = [{ fromDbm: -50, dark: 0 }, { fromDbm: -60, dark: 0.07 }, { fromDbm: -67, dark: 0.15 }, { fromDbm: -75, dark: 0.34 }, { fromDbm: -85, dark: 0.52 }, { fromDbm: -Infinity, dark: 0.7 }] as const

type Drag = { what: 'room'; id: string; dx: number; dy: number; x: number; y: number } | { what: 'unit'; id: string; x: number; y: number } | { what: 'draw'; x: number; y: number; toX: number; toY: number }

/** One storey of the plan: rooms, walls, what stands in it, and the signal over it. */
export function PlanPicture({ plan, storey, units, coverage, tool, chosen, onChoose, onDraw, onMoveRoom, onPlace, onMoveUnit, onProbe, mayWrite }: {
  plan: HomePlan
  storey: string
  units: readonly PlacedUnit[]
  coverage: CoverageAnswer['storeys'][number] | null
  tool: Tool
  chosen: Chosen | null
  onChoose: (chosen: Chosen | null) => void
  onDraw: (room: { x: number; y: number; widthM: number; depthM: number }) => void
  onMoveRoom: (id: string, to: { x: number; y: number }) => void
  onPlace: (at: { x: number; y: number }) => void
  onMoveUnit: (id: string, at: { x: number; y: number }, done: boolean) => void
  /** The point that is pointed at, to tell its signal. */
  onProbe: (at: { x: number; y: number } | null) => void
  mayWrite: boolean
}) {
  const rooms = plan.rooms.filter((room) => room.storey === storey)
  const outlets = standing(useVisit((state) => state.record.outlets) ?? {}).filter(({ facts }) => facts.storey === storey && facts.x !== undefined && facts.y !== undefined)
  const troubles = standing(useVisit((state) => state.record.troubles) ?? {}).filter(({ facts }) => facts.storey === storey && facts.x !== undefined && facts.y !== undefined)
  const svg = useRef<SVGSVGElement>(null)
  const [drag, setDrag] = useState<Drag | null>(null)
  const frame = useMemo(() => frameOf(plan), [plan])
  const picture = useSignalPicture(coverage)
  const at = (event: React.PointerEvent): { x: number; y: number } => {
    const box = svg.current!.getBoundingClientRect()
    const scale = Math.max(frame.width / box.width, frame.height / box.height)
    return { x: frame.x + (event.clientX - box.left - (box.width - frame.width / scale) / 2) * scale, y: frame.y + (event.clientY - box.top - (box.height - frame.height / scale) / 2) * scale }
  }
  const down = (event: React.PointerEvent) => {
    if (!mayWrite) return
    const point = at(event)
    const { across, down: lines } = edgesOf(rooms)
    if (tool === 'room') {
      svg.current!.setPointerCapture(event.pointerId)
      const [x, y] = [snapped(point.x, across), snapped(point.y, lines)]
      setDrag({ what: 'draw', x, y, toX: x, toY: y })
    } else if (tool !== 'choose') onPlace({ x: tenth(point.x), y: tenth(point.y) })
    else onChoose(null)
  }
  const move = (event: React.PointerEvent) => {
    onProbe(at(event))
    if (!drag) return
    const point = at(event)
    const { across, down: lines } = edgesOf(rooms)
    if (drag.what === 'draw') setDrag({ ...drag, toX: snapped(point.x, across), toY: snapped(point.y, lines) })
    else if (drag.what === 'room') setDrag({ ...drag, x: point.x - drag.dx, y: point.y - drag.dy })
    else { setDrag({ ...drag, x: tenth(point.x), y: tenth(point.y) }); onMoveUnit(drag.id, { x: tenth(point.x), y: tenth(point.y) }, false) }
  }
  const up = () => {
    if (!drag) return
    if (drag.what === 'draw') {
      const [x, y] = [Math.min(drag.x, drag.toX), Math.min(drag.y, drag.toY)]
      const [widthM, depthM] = [tenth(Math.abs(drag.toX - drag.x)), tenth(Math.abs(drag.toY - drag.y))]
      if (widthM >= 0.5 && depthM >= 0.5) onDraw({ x: tenth(x), y: tenth(y), widthM, depthM })
    } else if (drag.what === 'room') {
      const room = rooms.find(({ id }) => id === drag.id)!
      const to = movedTo({ ...room, x: drag.x, y: drag.y }, rooms.filter(({ id }) => id !== drag.id))
      if (to.x !== room.x || to.y !== room.y) onMoveRoom(drag.id, to)
    } else onMoveUnit(drag.id, { x: drag.x, y: drag.y }, true)
    setDrag(null)
  }
  const takeRoom = (event: React.PointerEvent, room: NamedRoom) => {
    if (tool !== 'choose') return
    event.stopPropagation()
    onChoose({ kind: 'room', id: room.id })
    if (!mayWrite) return
    svg.current!.setPointerCapture(event.pointerId)
    const point = at(event)
    setDrag({ what: 'room', id: room.id, dx: point.x - room.x, dy: point.y - room.y, x: room.x, y: room.y })
  }
  const keys = (event: React.KeyboardEvent, room: NamedRoom) => {
    const step = event.shiftKey ? 1 : 0.1
    const by = ({ ArrowLeft: [-step, 0], ArrowRight: [step, 0], ArrowUp: [0, -step], ArrowDown: [0, step] } as Record<string, [number, number]>)[event.key]
    if (!by || !mayWrite) return
    event.preventDefault()
    onMoveRoom(room.id, { x: tenth(room.x + by[0]), y: tenth(room.y + by[1]) })
  }
  const marks = [...outlets.map(({ facts }) => ({ x: facts.x!, y: facts.y! })), ...troubles.map(({ facts }) => ({ x: facts.x!, y: facts.y! + 0.2 })), ...units.filter((one) => one.storey === storey).flatMap(({ x, y }) => [{ x, y }, { x: x - 0.5, y: y + 0.6 }, { x: x + 0.5, y: y + 0.6 }])]
  const placeOf = (room: NamedRoom) => (drag?.what === 'room' && drag.id === room.id ? { x: drag.x, y: drag.y } : room)
  return (
    <svg ref={svg} viewBox={`${frame.x} ${frame.y} ${frame.width} ${frame.height}`} className={`h-[46dvh] min-h-72 w-full touch-none border border-rule bg-sheet ${tool === 'choose' ? '' : 'cursor-crosshair'}`} role="group" aria-label="Plan of the storey" onPointerDown={down} onPointerMove={move} onPointerUp={up} onPointerCancel={() => setDrag(null)} onPointerLeave={() => onProbe(null)}>
      <defs><pattern id="plan-metres" width="1" height="1" patternUnits="userSpaceOnUse"><path d="M1 0H0V1" fill="none" stroke="var(--rule)" strokeWidth="0.02" /></pattern>
        <clipPath id="plan-rooms">{rooms.map((room) => <rect key={room.id} x={room.x} y={room.y} width={room.widthM} height={room.depthM} />)}</clipPath></defs>
      <rect x={frame.x - frame.width} y={frame.y - frame.height} width={frame.width * 3} height={frame.height * 3} fill="url(#plan-metres)" />
      {picture && coverage && <image href={picture} x={coverage.grid.x - coverage.grid.cellM / 2} y={coverage.grid.y - coverage.grid.cellM / 2} width={coverage.grid.columns * coverage.grid.cellM} height={coverage.grid.rows * coverage.grid.cellM} preserveAspectRatio="none" clipPath="url(#plan-rooms)" style={{ imageRendering: 'pixelated' }} />}
      {rooms.map((room) => {
        const { x, y } = placeOf(room)
        const label = namePlace(room, marks)
        const on = chosen?.kind === 'room' && chosen.id === room.id
        return (
          <g key={room.id} tabIndex={0} role="button" aria-pressed={on} aria-label={`${room.name}, ${room.widthM} by ${room.depthM} metres${room.complained ? ', complained of' : ''}`} onPointerDown={(event) => takeRoom(event, room)} onFocus={() => { if (tool === 'choose') onChoose({ kind: 'room', id: room.id }) }} onKeyDown={(event) => keys(event, room)} className="outline-none">
            <rect x={x} y={y} width={room.widthM} height={room.depthM} fill="transparent" stroke={on ? 'var(--plum)' : 'none'} strokeWidth={0.14} />
            <text x={x + label.dx} y={y + label.dy} fontSize={label.size} fill="var(--ink)" stroke="var(--sheet)" strokeWidth="0.1" paintOrder="stroke" className="pointer-events-none select-none font-bold">{room.name}{room.complained ? ' ✗' : ''}</text>
          </g>
        )
      })}
      {plan.walls.filter((wall) => wall.storey === storey).map((wall, index) => <line key={index} x1={wall.x1} y1={wall.y1} x2={wall.x2} y2={wall.y2} stroke="var(--ink)" strokeWidth={wall.opening ? 0.05 : Math.min(0.3, Math.max(0.07, wall.thicknessMm / 1600))} strokeDasharray={wall.opening ? '0.15 0.12' : undefined} className="pointer-events-none" />)}
      {outlets.map((one) => <OutletMark key={one.id} outlet={one} on={chosen?.id === one.id} onChoose={() => onChoose({ kind: 'outlet', id: one.id })} />)}
      {troubles.map((one) => <TroubleMark key={one.id} trouble={one} on={chosen?.id === one.id} onChoose={() => onChoose({ kind: 'trouble', id: one.id })} />)}
      {units.filter((one) => one.storey === storey).map((one) => {
        const on = chosen?.kind === 'unit' && chosen.id === one.id
        return (
          <g key={one.id} tabIndex={0} role="button" aria-pressed={on} aria-label={`Unit ${one.name}`} className="cursor-grab outline-none" onFocus={() => onChoose({ kind: 'unit', id: one.id })}
            onPointerDown={(event) => { event.stopPropagation(); onChoose({ kind: 'unit', id: one.id }); if (mayWrite) { svg.current!.setPointerCapture(event.pointerId); setDrag({ what: 'unit', id: one.id, x: one.x, y: one.y }) } }}
            onKeyDown={(event) => { const by = ({ ArrowLeft: [-0.1, 0], ArrowRight: [0.1, 0], ArrowUp: [0, -0.1], ArrowDown: [0, 0.1] } as Record<string, [number, number]>)[event.key]; if (by && mayWrite) { event.preventDefault(); onMoveUnit(one.id, { x: tenth(one.x + by[0]), y: tenth(one.y + by[1]) }, true) } }}>
            <circle cx={one.x} cy={one.y} r="0.32" fill={on ? 'var(--plum)' : 'var(--ink)'} stroke="var(--sheet)" strokeWidth="0.08" />
            <path d={`M${one.x - 0.16} ${one.y + 0.03}a0.22 0.22 0 0 1 0.32 0M${one.x - 0.08} ${one.y + 0.12}a0.1 0.1 0 0 1 0.16 0`} fill="none" stroke="var(--sheet)" strokeWidth="0.06" />
            <text x={one.x} y={one.y + 0.72} textAnchor="middle" fontSize="0.36" fill="var(--ink)" stroke="var(--sheet)" strokeWidth="0.12" paintOrder="stroke" className="pointer-events-none select-none font-bold">{one.name}</text>
          </g>
        )
      })}
      {drag?.what === 'draw' && <rect x={Math.min(drag.x, drag.toX)} y={Math.min(drag.y, drag.toY)} width={Math.abs(drag.toX - drag.x)} height={Math.abs(drag.toY - drag.y)} fill="var(--plumwash)" fillOpacity="0.6" stroke="var(--plum)" strokeWidth="0.08" />}
      {drag?.what === 'draw' && <text x={(drag.x + drag.toX) / 2} y={(drag.y + drag.toY) / 2} textAnchor="middle" fontSize="0.45" fill="var(--ink)">{Math.abs(drag.toX - drag.x).toFixed(1)} × {Math.abs(drag.toY - drag.y).toFixed(1)} m</text>}
    </svg>
  )
}

function OutletMark({ outlet: { facts }, on, onChoose }: { outlet: Outlet; on: boolean; onChoose: () => void }) {
  const [x, y] = [facts.x!, facts.y!]
  return (
    <g tabIndex={0} role="button" aria-pressed={on} aria-label={`${{ mains: 'Mains outlet', line: 'Outlet of the line', network: 'Network socket' }[facts.kind ?? 'mains']}${facts.circuit ? `, circuit ${facts.circuit}` : ''}`} className="outline-none" onFocus={onChoose} onPointerDown={(event) => { event.stopPropagation(); onChoose() }}>
      <rect x={x - 0.17} y={y - 0.17} width="0.34" height="0.34" fill="var(--sheet)" stroke={on ? 'var(--plum)' : 'var(--ink)'} strokeWidth="0.06" />
      {facts.kind === 'network' ? <path d={`M${x - 0.09} ${y + 0.07}V${y - 0.05}H${x + 0.09}V${y + 0.07}Z`} fill="var(--ink)" /> : facts.kind === 'line' ? <path d={`M${x - 0.1} ${y}H${x + 0.1}`} stroke="var(--ink)" strokeWidth="0.08" /> : <><circle cx={x - 0.06} cy={y} r="0.035" fill="var(--ink)" /><circle cx={x + 0.06} cy={y} r="0.035" fill="var(--ink)" /></>}
    </g>
  )
}

function TroubleMark({ trouble: { facts }, on, onChoose }: { trouble: Trouble; on: boolean; onChoose: () => void }) {
  const [x, y] = [facts.x!, facts.y!]
  return (
    <g tabIndex={0} role="button" aria-pressed={on} aria-label={`Trouble: ${(facts.kind ?? '').replaceAll('-', ' ')}`} className="outline-none" onFocus={onChoose} onPointerDown={(event) => { event.stopPropagation(); onChoose() }}>
      <path d={`M${x} ${y - 0.25}L${x + 0.25} ${y + 0.2}H${x - 0.25}Z`} fill="var(--sheet)" stroke={on ? 'var(--plum)' : 'var(--ink)'} strokeWidth="0.06" />
      <text x={x} y={y + 0.5} textAnchor="middle" fontSize="0.26" fill="var(--soft)" className="select-none">{(facts.kind ?? '').replaceAll('-', ' ')}</text>
    </g>
  )
}

/** What of the plane is shown: all storeys alike, so that they lie over each other. */
function frameOf(plan: HomePlan): { x: number; y: number; width: number; height: number } {
  if (plan.rooms.length === 0) return { x: -1, y: -1, width: 16, height: 11 }
  const room = 1
  const [left, top] = [Math.min(...plan.rooms.map(({ x }) => x)) - room, Math.min(...plan.rooms.map(({ y }) => y)) - room]
  const [right, bottom] = [Math.max(...plan.rooms.map(({ x, widthM }) => x + widthM)) + room, Math.max(...plan.rooms.map(({ y, depthM }) => y + depthM)) + room]
  return { x: left, y: top, width: Math.max(8, right - left), height: Math.max(6, bottom - top) }
}

/** Where the name of a room stands in it: of four places the one that is clearest of what stands there. */
function namePlace(room: NamedRoom, marks: readonly { x: number; y: number }[]): { dx: number; dy: number; size: number } {
  const size = Math.min(0.4, room.widthM / 6)
  const length = (room.name.length + (room.complained ? 2 : 0)) * size * 0.55
  const [near, far] = [0.32, Math.max(0.32, room.widthM - length - 0.32)]
  const [high, low] = [Math.min(0.72, room.depthM * 0.6), room.depthM - 0.35]
  const places = [{ dx: near, dy: high }, { dx: near, dy: low }, { dx: far, dy: high }, { dx: (room.widthM - length) / 2, dy: room.depthM / 2 }]
  const clear = ({ dx, dy }: { dx: number; dy: number }) => Math.min(1.2, ...marks.map((mark) => Math.hypot(mark.x - Math.min(room.x + dx + length, Math.max(room.x + dx, mark.x)), mark.y - (room.y + dy - size / 3))))
  return { ...places.reduce((best, one) => (clear(one) > clear(best) + 1e-9 ? one : best)), size }
}

/** The signal as a picture, a pixel a cell. */
function useSignalPicture(coverage: CoverageAnswer['storeys'][number] | null): string | null {
  const [picture, setPicture] = useState<string | null>(null)
  useEffect(() => {
    if (!coverage) { setPicture(null); return }
    const { grid: { columns, rows }, signal } = coverage
    const canvas = document.createElement('canvas')
    canvas.width = columns
    canvas.height = rows
    const pen = canvas.getContext('2d')
    if (!pen) return
    const dark = document.documentElement.classList.contains('cupboard')
    const octets = pen.createImageData(columns, rows)
    for (let at = 0; at < signal.length; at++) {
      const step = signalSteps.find(({ fromDbm }) => signal[at]! >= fromDbm)!
      const ink = dark ? 236 : 29
      octets.data.set([ink, ink, ink, Math.round(step.dark * 255)], at * 4)
    }
    pen.putImageData(octets, 0, 0)
    setPicture(canvas.toDataURL())
  }, [coverage])
  return picture
}

import { useMemo, useRef, useState, type KeyboardEvent, type PointerEvent } from 'react'
import type { HomePlan, NamedRoom, PlacedUnit } from '@pasado/core/work/plan/home-plan'
import { cornersOf, drawnWallM, type PlanWall } from '@pasado/core/work/plan/walls'
import { standing, type Outlet, type Storey, type Trouble } from '@pasado/core/record/record'
import type { CoverageAnswer } from '../../../workers/coverage.worker'
import { useVisit } from '../../session/store'
import { frameOf, namePlace } from './frame'
import { OutletMark, StairsMark, TroubleMark, UnitMark } from './PlanMarks'
import { SignalPicture, type PlanView } from './SignalPicture'
import { edgesOf, movedTo, snapped, tenth } from './snap'

export type Tool = 'choose' | 'room' | 'opening' | 'stairs' | 'outlet' | 'cable' | 'trouble' | 'unit' | 'reading'
export type Chosen =
  | { kind: 'room' | 'unit' | 'outlet' | 'trouble' | 'opening'; id: string }
  | { kind: 'stretch'; id: string; wall: PlanWall }

type Place = { x: number; y: number }
type Moved = 'unit' | 'outlet' | 'trouble'
type Drag =
  | { what: 'room'; id: string; dx: number; dy: number; x: number; y: number }
  | { what: Moved; id: string; x: number; y: number }
  | { what: 'draw'; x: number; y: number; toX: number; toY: number }

/** A stretch of wall, by where it lies. */
export const stretchId = ({ storey, x1, y1, x2, y2 }: PlanWall) => `${storey} ${x1} ${y1} ${x2} ${y2}`

/** One storey of the plan: rooms, walls, what stands in it, and the signal over it. */
export function PlanPicture({
  plan,
  storey,
  units,
  coverage,
  view,
  tool,
  chosen,
  onChoose,
  onDraw,
  onMoveRoom,
  onPut,
  onMove,
  onProbe,
  readAt,
  mayWrite
}: {
  plan: HomePlan
  storey: string
  units: readonly PlacedUnit[]
  coverage: CoverageAnswer['storeys'][number] | null
  view: PlanView
  tool: Tool
  chosen: Chosen | null
  onChoose: (chosen: Chosen | null) => void
  onDraw: (area: Place & { widthM: number; depthM: number }) => void
  onMoveRoom: (id: string, to: Place) => void
  onPut: (at: Place) => void
  onMove: (what: Moved, id: string, at: Place, done: boolean) => void
  /** The point that is pointed at, to tell its signal. */
  onProbe: (at: Place | null) => void
  /** Where a reading is to be noted. */
  readAt: Place | null
  mayWrite: boolean
}) {
  const record = useVisit((state) => state.record)
  const rooms = plan.rooms.filter((room) => room.storey === storey)
  const here = <T extends Outlet | Trouble>(table: Record<string, T> | undefined) =>
    standing(table ?? {}).filter(
      ({ facts }) => facts.storey === storey && facts.x !== undefined && facts.y !== undefined
    )
  const [outlets, troubles] = [here(record.outlets), here(record.troubles)]
  const stairs = standing(record.openings ?? {}).filter(
    ({ facts }) => facts.storey === storey && facts.kind === 'stairs'
  )
  const paper = record.storeys?.[storey]
  const svg = useRef<SVGSVGElement>(null)
  const [drag, setDrag] = useState<Drag | null>(null)
  const frame = useMemo(() => frameOf(plan), [plan])
  const corners = useMemo(() => cornersOf(plan.walls.filter((wall) => wall.storey === storey)), [plan, storey])
  const at = (event: PointerEvent): Place => {
    const box = svg.current!.getBoundingClientRect()
    const scale = Math.max(frame.width / box.width, frame.height / box.height)
    return {
      x: frame.x + (event.clientX - box.left - (box.width - frame.width / scale) / 2) * scale,
      y: frame.y + (event.clientY - box.top - (box.height - frame.height / scale) / 2) * scale
    }
  }
  const drawsArea = tool === 'room' || tool === 'stairs'
  const down = (event: PointerEvent) => {
    if (!mayWrite) return
    const point = at(event)
    const { across, down: lines } = edgesOf(rooms)
    if (drawsArea) {
      svg.current!.setPointerCapture(event.pointerId)
      const [x, y] = [snapped(point.x, across), snapped(point.y, lines)]
      setDrag({ what: 'draw', x, y, toX: x, toY: y })
    } else if (tool !== 'choose' && tool !== 'cable') onPut({ x: tenth(point.x), y: tenth(point.y) })
    else onChoose(null)
  }
  const move = (event: PointerEvent) => {
    onProbe(at(event))
    if (!drag) return
    const point = at(event)
    const { across, down: lines } = edgesOf(rooms)
    if (drag.what === 'draw') setDrag({ ...drag, toX: snapped(point.x, across), toY: snapped(point.y, lines) })
    else if (drag.what === 'room') setDrag({ ...drag, x: point.x - drag.dx, y: point.y - drag.dy })
    else {
      setDrag({ ...drag, x: tenth(point.x), y: tenth(point.y) })
      onMove(drag.what, drag.id, { x: tenth(point.x), y: tenth(point.y) }, false)
    }
  }
  const up = () => {
    if (!drag) return
    if (drag.what === 'draw') {
      const [x, y] = [Math.min(drag.x, drag.toX), Math.min(drag.y, drag.toY)]
      const [widthM, depthM] = [tenth(Math.abs(drag.toX - drag.x)), tenth(Math.abs(drag.toY - drag.y))]
      if (widthM >= 0.5 && depthM >= 0.5) onDraw({ x: tenth(x), y: tenth(y), widthM, depthM })
    } else if (drag.what === 'room') {
      const room = rooms.find(({ id }) => id === drag.id)!
      const to = movedTo(
        { ...room, x: drag.x, y: drag.y },
        rooms.filter(({ id }) => id !== drag.id)
      )
      if (to.x !== room.x || to.y !== room.y) onMoveRoom(drag.id, to)
    } else onMove(drag.what, drag.id, { x: drag.x, y: drag.y }, true)
    setDrag(null)
  }
  const takeRoom = (event: PointerEvent, room: NamedRoom) => {
    if (tool !== 'choose') return
    event.stopPropagation()
    onChoose({ kind: 'room', id: room.id })
    if (!mayWrite) return
    svg.current!.setPointerCapture(event.pointerId)
    const point = at(event)
    setDrag({ what: 'room', id: room.id, dx: point.x - room.x, dy: point.y - room.y, x: room.x, y: room.y })
  }
  const steps = (event: KeyboardEvent, from: Place, to: (place: Place) => void) => {
    const step = event.shiftKey ? 1 : 0.1
    const by = (
      { ArrowLeft: [-step, 0], ArrowRight: [step, 0], ArrowUp: [0, -step], ArrowDown: [0, step] } as Record<
        string,
        [number, number]
      >
    )[event.key]
    if (!by || !mayWrite) return
    event.preventDefault()
    to({ x: tenth(from.x + by[0]), y: tenth(from.y + by[1]) })
  }
  /** What a mark that can be moved answers to. */
  const movable = (what: Moved, id: string, from: Place) => ({
    on: chosen?.kind === what && chosen.id === id,
    onChoose: () => onChoose({ kind: what, id }),
    onDown: (event: PointerEvent) => {
      event.stopPropagation()
      onChoose({ kind: what, id })
      if (!mayWrite || tool === 'cable') return
      svg.current!.setPointerCapture(event.pointerId)
      setDrag({ what, id, ...from })
    },
    onKeyDown: (event: KeyboardEvent) => steps(event, from, (to) => onMove(what, id, to, true))
  })
  const whereIs = (what: Moved, { id, facts }: Outlet | Trouble): Place =>
    drag?.what === what && drag.id === id ? { x: drag.x, y: drag.y } : { x: facts.x!, y: facts.y! }
  const marks = [
    ...outlets.map(({ facts }) => ({ x: facts.x!, y: facts.y! })),
    ...troubles.map(({ facts }) => ({ x: facts.x!, y: facts.y! + 0.2 })),
    ...units
      .filter((one) => one.storey === storey)
      .flatMap(({ x, y }) => [
        { x, y },
        { x: x - 0.5, y: y + 0.6 },
        { x: x + 0.5, y: y + 0.6 }
      ])
  ]
  const placeOf = (room: NamedRoom) => (drag?.what === 'room' && drag.id === room.id ? { x: drag.x, y: drag.y } : room)
  return (
    <svg
      ref={svg}
      viewBox={`${frame.x} ${frame.y} ${frame.width} ${frame.height}`}
      className={`h-[46dvh] min-h-72 w-full touch-none border border-rule bg-sheet ${tool === 'choose' ? '' : 'cursor-crosshair'}`}
      role="group"
      aria-label="Plan of the storey"
      onPointerDown={down}
      onPointerMove={move}
      onPointerUp={up}
      onPointerCancel={() => setDrag(null)}
      onPointerLeave={() => onProbe(null)}
    >
      <defs>
        <pattern id="plan-metres" width="1" height="1" patternUnits="userSpaceOnUse">
          <path d="M1 0H0V1" fill="none" stroke="var(--rule)" strokeWidth="0.02" />
        </pattern>
        <clipPath id="plan-rooms">
          {rooms.map((room) => (
            <rect key={room.id} x={room.x} y={room.y} width={room.widthM} height={room.depthM} />
          ))}
        </clipPath>
      </defs>
      <rect
        x={frame.x - frame.width}
        y={frame.y - frame.height}
        width={frame.width * 3}
        height={frame.height * 3}
        fill="url(#plan-metres)"
      />
      {paper && <PaperUnder storey={paper} />}
      {coverage && <SignalPicture coverage={coverage} view={view} />}
      {stairs.map(({ id, facts: { x1 = 0, y1 = 0, x2 = 0, y2 = 0 } }) => (
        <StairsMark
          key={id}
          stretch={{ storey, x1, y1, x2, y2 }}
          on={chosen?.id === id}
          onChoose={() => onChoose({ kind: 'opening', id })}
        />
      ))}
      {rooms.map((room) => {
        const { x, y } = placeOf(room)
        const label = namePlace(room, marks)
        const on = chosen?.kind === 'room' && chosen.id === room.id
        return (
          <g
            key={room.id}
            tabIndex={0}
            role="button"
            aria-pressed={on}
            aria-label={`${room.name}, ${room.widthM} by ${room.depthM} metres${room.complained ? ', complained of' : ''}`}
            onPointerDown={(event) => takeRoom(event, room)}
            onFocus={() => {
              if (tool === 'choose') onChoose({ kind: 'room', id: room.id })
            }}
            onKeyDown={(event) => steps(event, room, (to) => onMoveRoom(room.id, to))}
            className="outline-none"
          >
            <rect
              x={x}
              y={y}
              width={room.widthM}
              height={room.depthM}
              fill="transparent"
              stroke={on ? 'var(--plum)' : 'none'}
              strokeWidth={0.14}
            />
            <text
              x={x + label.dx}
              y={y + label.dy}
              fontSize={label.size}
              fill="var(--ink)"
              stroke="var(--sheet)"
              strokeWidth="0.1"
              paintOrder="stroke"
              className="pointer-events-none select-none font-bold"
            >
              {room.name}
              {room.complained ? ' ✗' : ''}
            </text>
          </g>
        )
      })}
      {corners.map(({ x, y, widthM }) => (
        <rect
          key={`${x} ${y}`}
          x={x - widthM / 2}
          y={y - widthM / 2}
          width={widthM}
          height={widthM}
          fill="var(--ink)"
          className="pointer-events-none"
        />
      ))}
      {plan.walls
        .filter((wall) => wall.storey === storey)
        .map((wall) => (
          <WallLine
            key={stretchId(wall)}
            wall={wall}
            takes={tool === 'choose'}
            on={chosen?.kind === 'stretch' && chosen.id === stretchId(wall)}
            onChoose={() => onChoose({ kind: 'stretch', id: stretchId(wall), wall })}
          />
        ))}
      {outlets.flatMap((one) => {
        const other = outlets.find(({ id }) => id === one.facts.cableTo)
        if (!other) return []
        const [from, to] = [whereIs('outlet', one), whereIs('outlet', other)]
        return [
          <path
            key={`cable ${one.id}`}
            d={`M${from.x} ${from.y}Q${(from.x + to.x) / 2} ${(from.y + to.y) / 2 + 0.5} ${to.x} ${to.y}`}
            fill="none"
            stroke="var(--plum)"
            strokeWidth="0.06"
            className="pointer-events-none"
          />
        ]
      })}
      {outlets.map((one) => {
        const place = whereIs('outlet', one)
        return <OutletMark key={one.id} outlet={one} {...place} {...movable('outlet', one.id, place)} />
      })}
      {troubles.map((one) => {
        const place = whereIs('trouble', one)
        return <TroubleMark key={one.id} trouble={one} {...place} {...movable('trouble', one.id, place)} />
      })}
      {units
        .filter((one) => one.storey === storey)
        .map((one) => (
          <UnitMark key={one.id} unit={one} {...movable('unit', one.id, { x: one.x, y: one.y })} />
        ))}
      {readAt && (
        <path
          d={`M${readAt.x - 0.25} ${readAt.y}h0.5M${readAt.x} ${readAt.y - 0.25}v0.5`}
          stroke="var(--plum)"
          strokeWidth="0.1"
          className="pointer-events-none"
        />
      )}
      {drag?.what === 'draw' && (
        <rect
          x={Math.min(drag.x, drag.toX)}
          y={Math.min(drag.y, drag.toY)}
          width={Math.abs(drag.toX - drag.x)}
          height={Math.abs(drag.toY - drag.y)}
          fill="var(--plumwash)"
          fillOpacity="0.6"
          stroke="var(--plum)"
          strokeWidth="0.08"
        />
      )}
      {drag?.what === 'draw' && (
        <text
          x={(drag.x + drag.toX) / 2}
          y={(drag.y + drag.toY) / 2}
          textAnchor="middle"
          fontSize="0.45"
          fill="var(--ink)"
        >
          {Math.abs(drag.toX - drag.x).toFixed(1)} × {Math.abs(drag.toY - drag.y).toFixed(1)} m
        </text>
      )}
    </svg>
  )
}

/** A wall: as thick as it is, with a broader strip under it to take it by. */
function WallLine({
  wall,
  takes,
  on,
  onChoose
}: {
  wall: PlanWall
  takes: boolean
  on: boolean
  onChoose: () => void
}) {
  const { x1, y1, x2, y2, opening, thicknessMm, material, outer } = wall
  const ends = { x1, y1, x2, y2 }
  const length = Math.hypot(x2 - x1, y2 - y1)
  return (
    <g
      {...(takes
        ? {
            tabIndex: 0,
            role: 'button',
            'aria-pressed': on,
            'aria-label': `${opening ?? `${outer ? 'Outer' : 'Inner'} wall`}, ${length.toFixed(1)} m${opening ? '' : `, ${material.replace('-', ' ')} ${thicknessMm} mm`}`,
            onFocus: onChoose,
            onPointerDown: (event: PointerEvent) => {
              event.stopPropagation()
              onChoose()
            }
          }
        : {})}
      className={takes ? 'outline-none' : 'pointer-events-none'}
    >
      <rect
        x={Math.min(x1, x2) - 0.12}
        y={Math.min(y1, y2) - 0.12}
        width={Math.abs(x2 - x1) + 0.24}
        height={Math.abs(y2 - y1) + 0.24}
        fill="transparent"
      />
      <line
        {...ends}
        stroke={on ? 'var(--plum)' : 'var(--ink)'}
        strokeWidth={Math.max(on ? 0.14 : 0, drawnWallM(wall))}
        strokeDasharray={opening ? '0.15 0.12' : undefined}
      />
    </g>
  )
}

/** The photo of a paper plan, faint, to draw over. */
function PaperUnder({
  storey: {
    facts: { paper, paperX = 0, paperY = 0, paperWidthM = 10 }
  }
}: {
  storey: Storey
}) {
  const visit = useVisit((state) => state.id)
  const photo = useVisit((state) => (paper ? state.record.photos?.[paper] : undefined))
  if (!photo || photo.removedSeq !== null) return null
  return (
    <image
      href={`/api/visits/${visit}/photos/${photo.ref}`}
      x={paperX}
      y={paperY}
      width={paperWidthM}
      height={(paperWidthM * photo.height) / photo.width}
      opacity="0.45"
      className="pointer-events-none"
    />
  )
}

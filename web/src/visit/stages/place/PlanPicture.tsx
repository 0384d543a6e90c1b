import { useMemo } from 'react'
import type { HomePlan } from '@pasado/core/work/plan/home-plan'
import type { PlacedStays, PlacedUnit } from '@pasado/core/work/plan/placed'
import { cornersOf, type PlanWall } from '@pasado/core/work/plan/walls'
import { standing, type Outlet, type Trouble } from '@pasado/core/record/record'
import type { CoverageAnswer } from '../../../workers/coverage.worker'
import { useVisit } from '../../session/visit-state'
import { frameOf, namePlace } from './frame'
import { OutletMark, StairsMark, TroubleMark, StaysMark, UnitMark } from './PlanMarks'
import { SignalPicture, type PlanView } from './SignalPicture'
import { PaperUnder, WallLine } from './WallLine'

import { usePlanDrag, type Place, type PlanChanges } from './use-plan-drag'

/** A stretch of wall, by where it lies. */
export const stretchId = ({ storey, x1, y1, x2, y2 }: PlanWall) => `${storey} ${x1} ${y1} ${x2} ${y2}`

/** One storey of the plan: rooms, walls, what stands in it, and the signal over it. */
export function PlanPicture({
  plan,
  storey,
  units,
  staying,
  coverage,
  view,
  readAt,
  ...changes
}: PlanChanges & {
  plan: HomePlan
  storey: string
  units: readonly PlacedUnit[]
  /** What stays and stands in the plan. */
  staying: readonly PlacedStays[]
  coverage: CoverageAnswer['storeys'][number] | null
  view: PlanView
  /** Where a reading is to be noted. */
  readAt: Place | null
}) {
  const { tool, chosen, onChoose, onMoveRoom, onProbe } = changes
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
  const frame = useMemo(() => frameOf(plan), [plan])
  const corners = useMemo(() => cornersOf(plan.walls.filter((wall) => wall.storey === storey)), [plan, storey])
  const { svg, drag, cancel, down, pressed, move, up, takeRoom, steps, movable, whereIs, placeOf } = usePlanDrag(
    frame,
    rooms,
    changes
  )
  const marks = [
    ...outlets.map(({ facts }) => ({ x: facts.x!, y: facts.y! })),
    ...troubles.map(({ facts }) => ({ x: facts.x!, y: facts.y! + 0.2 })),
    ...[...units, ...staying]
      .filter((unit) => unit.storey === storey)
      .flatMap(({ x, y }) => [
        { x, y },
        { x: x - 0.5, y: y + 0.6 },
        { x: x + 0.5, y: y + 0.6 }
      ])
  ]
  return (
    <svg
      ref={svg}
      viewBox={`${frame.x} ${frame.y} ${frame.width} ${frame.height}`}
      className={`h-[46dvh] min-h-72 w-full touch-none border border-rule bg-sheet ${tool === 'choose' ? '' : 'cursor-crosshair'}`}
      role="group"
      aria-label="Plan of the storey"
      onPointerDown={down}
      onMouseDown={pressed}
      onPointerMove={move}
      onPointerUp={up}
      onPointerCancel={cancel}
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
      {outlets.flatMap((outlet) => {
        const other = outlets.find(({ id }) => id === outlet.facts.cableTo)
        if (!other) return []
        const [from, to] = [whereIs('outlet', outlet), whereIs('outlet', other)]
        return [
          <path
            key={`cable ${outlet.id}`}
            d={`M${from.x} ${from.y}Q${(from.x + to.x) / 2} ${(from.y + to.y) / 2 + 0.5} ${to.x} ${to.y}`}
            fill="none"
            stroke="var(--plum)"
            strokeWidth="0.06"
            className="pointer-events-none"
          />
        ]
      })}
      {outlets.map((outlet) => {
        const place = whereIs('outlet', outlet)
        return <OutletMark key={outlet.id} outlet={outlet} {...place} {...movable('outlet', outlet.id, place)} />
      })}
      {troubles.map((trouble) => {
        const place = whereIs('trouble', trouble)
        return <TroubleMark key={trouble.id} trouble={trouble} {...place} {...movable('trouble', trouble.id, place)} />
      })}
      {staying
        .filter((stays) => stays.storey === storey)
        .map((stays) => (
          <StaysMark key={stays.id} stays={stays} {...movable('stays', stays.id, { x: stays.x, y: stays.y })} />
        ))}
      {units
        .filter((unit) => unit.storey === storey)
        .map((unit) => (
          <UnitMark key={unit.id} unit={unit} {...movable('unit', unit.id, { x: unit.x, y: unit.y })} />
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

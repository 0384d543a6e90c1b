import type { KeyboardEvent, PointerEvent, ReactNode } from 'react'
import type { Placed, PlacedStays, PlacedUnit } from '@pasado/core/work/plan/placed'
import type { PlanStretch } from '@pasado/core/work/plan/walls'
import type { Outlet, Trouble } from '@pasado/core/record/record'

interface MarkProps {
  on: boolean
  onChoose: () => void
  onDown: (event: PointerEvent) => void
  onKeyDown: (event: KeyboardEvent) => void
}

const outletWords = { mains: 'Mains outlet', line: 'Outlet of the line', network: 'Network socket' } as const

/** An outlet or socket: a square. */
export function OutletMark({
  outlet: { facts },
  x,
  y,
  on,
  onChoose,
  onDown,
  onKeyDown
}: MarkProps & { outlet: Outlet; x: number; y: number }) {
  return (
    <g
      tabIndex={0}
      role="button"
      aria-pressed={on}
      aria-label={`${outletWords[facts.kind ?? 'mains']}${facts.circuit ? `, circuit ${facts.circuit}` : ''}${facts.cableTo ? ', with a cable' : ''}`}
      className="outline-none"
      onFocus={onChoose}
      onPointerDown={onDown}
      onKeyDown={onKeyDown}
    >
      <circle cx={x} cy={y} r="0.4" fill="transparent" />
      <rect
        x={x - 0.17}
        y={y - 0.17}
        width="0.34"
        height="0.34"
        fill="var(--sheet)"
        stroke={on ? 'var(--plum)' : 'var(--ink)'}
        strokeWidth={on ? 0.1 : 0.06}
      />
      <OutletSign kind={facts.kind} x={x} y={y} />
    </g>
  )
}

/** What an outlet is, drawn in it: a socket's wedge for the network, a line for the telephone, two holes for power. */
function OutletSign({ kind, x, y }: { kind: string | null | undefined; x: number; y: number }) {
  if (kind === 'network')
    return <path d={`M${x - 0.09} ${y + 0.07}V${y - 0.05}H${x + 0.09}V${y + 0.07}Z`} fill="var(--ink)" />
  if (kind === 'line') return <path d={`M${x - 0.1} ${y}H${x + 0.1}`} stroke="var(--ink)" strokeWidth="0.08" />
  return (
    <>
      <circle cx={x - 0.06} cy={y} r="0.035" fill="var(--ink)" />
      <circle cx={x + 0.06} cy={y} r="0.035" fill="var(--ink)" />
    </>
  )
}

/** A source of trouble: a triangle with its name. */
export function TroubleMark({
  trouble: { facts },
  x,
  y,
  on,
  onChoose,
  onDown,
  onKeyDown
}: MarkProps & { trouble: Trouble; x: number; y: number }) {
  const name = (facts.kind ?? '').replaceAll('-', ' ')
  return (
    <g
      tabIndex={0}
      role="button"
      aria-pressed={on}
      aria-label={`Trouble: ${name}`}
      className="outline-none"
      onFocus={onChoose}
      onPointerDown={onDown}
      onKeyDown={onKeyDown}
    >
      <path
        d={`M${x} ${y - 0.25}L${x + 0.25} ${y + 0.2}H${x - 0.25}Z`}
        fill="var(--sheet)"
        stroke={on ? 'var(--plum)' : 'var(--ink)'}
        strokeWidth={on ? 0.1 : 0.06}
      />
      <text
        x={x}
        y={y + 0.5}
        textAnchor="middle"
        fontSize="0.26"
        fill="var(--ink)"
        stroke="var(--sheet)"
        strokeWidth="0.08"
        paintOrder="stroke"
        className="pointer-events-none select-none"
      >
        {name}
      </text>
    </g>
  )
}

/** What stands in the plan and can be taken up: its sign, its name under it. */
function Standing({
  placed: { x, y, name },
  label,
  isOurs,
  on,
  onChoose,
  onDown,
  onKeyDown,
  children
}: MarkProps & { placed: Placed; label: string; isOurs: boolean; children: ReactNode }) {
  return (
    <g
      tabIndex={0}
      role="button"
      aria-pressed={on}
      aria-label={label}
      className="cursor-grab outline-none"
      onFocus={onChoose}
      onPointerDown={onDown}
      onKeyDown={onKeyDown}
    >
      {children}
      <text
        x={x}
        y={y + 0.72}
        textAnchor="middle"
        fontSize={isOurs ? 0.36 : 0.32}
        fill="var(--ink)"
        stroke="var(--sheet)"
        strokeWidth="0.12"
        paintOrder="stroke"
        className={`pointer-events-none select-none ${isOurs ? 'font-bold' : ''}`}
      >
        {name}
      </text>
    </g>
  )
}

/** A unit where it stands. */
export function UnitMark({ unit, ...mark }: MarkProps & { unit: PlacedUnit }) {
  const { x, y, name } = unit
  return (
    <Standing placed={unit} label={`Unit ${name}`} isOurs {...mark}>
      <circle
        cx={x}
        cy={y}
        r="0.32"
        fill={mark.on ? 'var(--plum)' : 'var(--ink)'}
        stroke="var(--sheet)"
        strokeWidth="0.08"
      />
      <path
        d={`M${x - 0.16} ${y + 0.03}a0.22 0.22 0 0 1 0.32 0M${x - 0.08} ${y + 0.12}a0.1 0.1 0 0 1 0.16 0`}
        fill="none"
        stroke="var(--sheet)"
        strokeWidth="0.06"
      />
    </Standing>
  )
}

/** What stays, where it stands: hollow, for it is not ours. */
export function StaysMark({ stays, ...mark }: MarkProps & { stays: PlacedStays }) {
  const { x, y, name } = stays
  const ink = mark.on ? 'var(--plum)' : 'var(--ink)'
  return (
    <Standing placed={stays} label={`Stays: ${name}`} isOurs={false} {...mark}>
      <circle cx={x} cy={y} r="0.32" fill="var(--sheet)" stroke={ink} strokeWidth="0.08" />
      <circle cx={x} cy={y} r="0.09" fill={ink} />
    </Standing>
  )
}

/** A staircase: its treads, and the way up along the longer side. */
export function StairsMark({
  stretch: { x1, y1, x2, y2 },
  on,
  onChoose
}: {
  stretch: PlanStretch
  on: boolean
  onChoose: () => void
}) {
  const [left, top, width, height] = [Math.min(x1, x2), Math.min(y1, y2), Math.abs(x2 - x1), Math.abs(y2 - y1)]
  const along = width >= height
  const treads = Math.max(3, Math.round((along ? width : height) / 0.28))
  const lines = Array.from({ length: treads + 1 }, (_, at) =>
    along ? `M${left + (width * at) / treads} ${top}v${height}` : `M${left} ${top + (height * at) / treads}h${width}`
  )
  return (
    <g
      tabIndex={0}
      role="button"
      aria-pressed={on}
      aria-label="Stairs"
      className="outline-none"
      onFocus={onChoose}
      onPointerDown={(event) => {
        event.stopPropagation()
        onChoose()
      }}
    >
      <rect
        x={left}
        y={top}
        width={width}
        height={height}
        fill="transparent"
        stroke={on ? 'var(--plum)' : 'none'}
        strokeWidth="0.1"
      />
      <path d={lines.join('')} stroke="var(--ink)" strokeWidth="0.03" fill="none" />
    </g>
  )
}

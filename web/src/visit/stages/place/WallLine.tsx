import { type PointerEvent } from 'react'
import { drawnWallM, type PlanWall } from '@pasado/core/work/plan/walls'
import { type Storey } from '@pasado/core/record/record'
import { useVisit } from '../../session/visit-state'

/** A wall: as thick as it is, with a broader strip under it to take it by. */
export function WallLine({
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
export function PaperUnder({
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

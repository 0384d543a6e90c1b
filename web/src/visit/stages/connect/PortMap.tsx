import { useMemo, useRef, useState, type PointerEvent } from 'react'
import { type CableProblem, type KnownCable } from '@pasado/core/work/cabling/known-cable'
import { endKey, type Port, type PortOwner } from '@pasado/core/work/cabling/ports'
import { plasticOf } from '../../../catalogue/plastic'
import { useVisit } from '../../session/visit-state'
import { BOX_H, layOut, PORT_W } from './layout'

const MOST_W = 900
/** How each kind of cable is drawn. */
const strokes = {
  network: { width: 3.5, dashes: undefined },
  telephone: { width: 2.5, dashes: '9 4' },
  coax: { width: 6, dashes: undefined },
  fibre: { width: 2, dashes: '2 4' }
} as const

/** Everything with ports and the cables between: drawn from port to port by dragging, or by choosing one port and then the other. */
export function PortMap({
  owners,
  cables,
  problems,
  chosen,
  from,
  mayWrite,
  onPort,
  onCable
}: {
  owners: readonly PortOwner[]
  cables: readonly KnownCable[]
  problems: readonly CableProblem[]
  chosen: string | null
  /** The port that a cable begins at. */
  from: Port | null
  mayWrite: boolean
  onPort: (port: Port, end: 'begin' | 'choose' | 'drop') => void
  onCable: (id: string) => void
}) {
  const record = useVisit((state) => state.record)
  const { placed, width, height, ports } = useMemo(() => layOut(owners, record, MOST_W), [owners, record])
  const byKey = useMemo(
    () => new Map(owners.flatMap((owner) => owner.ports.map((port) => [endKey(port.end), port]))),
    [owners]
  )
  const svg = useRef<SVGSVGElement>(null)
  const [drag, setDrag] = useState<{ from: string; x: number; y: number; moved: boolean } | null>(null)
  const at = (event: PointerEvent) => {
    const box = svg.current!.getBoundingClientRect()
    return { x: ((event.clientX - box.left) * width) / box.width, y: ((event.clientY - box.top) * height) / box.height }
  }
  const portAt = ({ x, y }: { x: number; y: number }) =>
    [...ports].find(([, place]) => Math.abs(place.x - x) <= PORT_W / 2 && Math.abs(place.y - y) <= 26)?.[0]
  const move = (event: PointerEvent) => {
    if (!drag) return
    const point = at(event)
    const start = ports.get(drag.from)!
    setDrag({ ...drag, ...point, moved: drag.moved || Math.hypot(point.x - start.x, point.y - start.y) > 14 })
  }
  const up = (event: PointerEvent) => {
    if (!drag) return
    const key = portAt(at(event))
    if (drag.moved && key && key !== drag.from) {
      onPort(byKey.get(drag.from)!, 'begin')
      onPort(byKey.get(key)!, 'drop')
    } else if (!drag.moved) onPort(byKey.get(drag.from)!, 'choose')
    setDrag(null)
  }
  return (
    <div className="overflow-x-auto border border-rule bg-sheet">
      <svg
        ref={svg}
        viewBox={`0 0 ${width} ${height}`}
        className="block"
        style={{ minWidth: Math.min(width, 640), width: '100%', maxWidth: width }}
        role="group"
        aria-label="Port map"
        onPointerMove={move}
        onPointerUp={up}
        onPointerCancel={() => setDrag(null)}
      >
        {placed.map(({ owner, x, y, width: wide }) => (
          <g key={`${owner.thing} ${owner.id}`} role="group" aria-label={owner.name}>
            <rect
              x={x}
              y={y}
              width={wide}
              height={BOX_H}
              fill="var(--well)"
              stroke="var(--ink)"
              strokeWidth={owner.thing === 'unit' ? 2 : 1}
              strokeDasharray={owner.thing === 'unit' ? undefined : '4 3'}
            />
            {owner.ports.map((port) => {
              const key = endKey(port.end)
              const place = ports.get(key)!
              const taken = cables.filter(
                ({ a, b }) => (a && endKey(a.end) === key) || (b && endKey(b.end) === key)
              ).length
              return (
                <g
                  key={key}
                  tabIndex={mayWrite ? 0 : -1}
                  role="button"
                  aria-pressed={from !== null && endKey(from.end) === key}
                  aria-label={`${owner.name}, ${port.name}${taken ? ', with a cable' : ', free'}`}
                  className="outline-none [&:focus-visible>rect:first-child]:stroke-[3px]"
                  onPointerDown={(event) => {
                    if (mayWrite) {
                      svg.current!.setPointerCapture(event.pointerId)
                      setDrag({ from: key, ...at(event), moved: false })
                    }
                  }}
                  onKeyDown={(event) => {
                    if (mayWrite && (event.key === 'Enter' || event.key === ' ')) {
                      event.preventDefault()
                      onPort(port, 'choose')
                    }
                  }}
                >
                  <rect
                    x={place.x - PORT_W / 2 + 1}
                    y={place.y - 40}
                    width={PORT_W - 2}
                    height={62}
                    fill="transparent"
                    stroke={from && endKey(from.end) === key ? 'var(--plum)' : 'none'}
                    strokeWidth="3"
                  />
                  <rect
                    x={place.x - 14}
                    y={place.y - 12}
                    width="28"
                    height="24"
                    rx={port.kind === 'coax' ? 12 : 2}
                    fill={plasticOf(port.colour)}
                    stroke="var(--ink)"
                    strokeWidth="2"
                  />
                  {port.kind === 'coax' ? (
                    <circle cx={place.x} cy={place.y} r="3.5" fill="#1D1822" />
                  ) : (
                    <path d={`M${place.x - 8} ${place.y + 7}v-9h4v-3h8v3h4v9z`} fill="#1D1822" />
                  )}
                </g>
              )
            })}
          </g>
        ))}
        {cables.map(({ cable, a, b }) => {
          const [start, end] = [a && ports.get(endKey(a.end)), b && ports.get(endKey(b.end))]
          if (!start || !end) return null
          const mine = problems.filter((problem) => problem.cable === cable.id)
          const kind = strokes[cable.facts.kind ?? 'network']
          const sag = 34 + Math.abs(start.x - end.x) / 14
          const middle = { x: (start.x + end.x) / 2, y: (start.y + end.y) / 2 + sag * 0.75 }
          const worst = mine.find(({ outcome }) => outcome === 'breaks') ?? mine[0]
          return (
            <g
              key={cable.id}
              tabIndex={0}
              role="button"
              aria-pressed={chosen === cable.id}
              aria-label={`Cable from ${a!.owner}, ${a!.name} to ${b!.owner}, ${b!.name}${worst ? `: ${worst.outcome === 'breaks' ? 'breaks' : 'unproven'}` : ''}`}
              className="cursor-pointer outline-none"
              onFocus={() => onCable(cable.id)}
              onPointerDown={(event) => {
                event.stopPropagation()
                onCable(cable.id)
              }}
            >
              <path
                d={`M${start.x} ${start.y + 8}C${start.x} ${start.y + sag} ${end.x} ${end.y + sag} ${end.x} ${end.y + 8}`}
                fill="none"
                stroke="transparent"
                strokeWidth="18"
                pointerEvents="stroke"
              />
              <path
                d={`M${start.x} ${start.y + 8}C${start.x} ${start.y + sag} ${end.x} ${end.y + sag} ${end.x} ${end.y + 8}`}
                fill="none"
                stroke={chosen === cable.id ? 'var(--plum)' : 'var(--ink)'}
                strokeWidth={kind.width}
                strokeDasharray={kind.dashes}
                strokeLinecap="round"
              />
              {worst && (
                <>
                  <rect
                    x={middle.x - 12}
                    y={middle.y - 12}
                    width="24"
                    height="24"
                    fill={worst.outcome === 'breaks' ? 'var(--inv)' : 'var(--sheet)'}
                    stroke="var(--ink)"
                    strokeWidth="2"
                    strokeDasharray={worst.outcome === 'breaks' ? undefined : '3 3'}
                  />
                  <text
                    x={middle.x}
                    y={middle.y + 5}
                    textAnchor="middle"
                    fontSize="14"
                    fontWeight="700"
                    fill={worst.outcome === 'breaks' ? 'var(--oninv)' : 'var(--ink)'}
                  >
                    {problems.indexOf(worst) + 1}
                  </text>
                </>
              )}
            </g>
          )
        })}
        {placed.map(({ owner, x, y, width: wide }) => (
          <g
            key={`names ${owner.thing} ${owner.id}`}
            aria-hidden
            className="pointer-events-none select-none"
            fill="var(--ink)"
            stroke="var(--well)"
            strokeWidth="4"
            paintOrder="stroke"
          >
            <NameInside name={owner.name} x={x + 8} y={y + 19} wide={wide - 16} />
            {owner.ports.map((port) => {
              const place = ports.get(endKey(port.end))!
              return (
                <text key={endKey(port.end)} x={place.x} y={place.y - 20} fontSize="12" textAnchor="middle">
                  {port.name}
                </text>
              )
            })}
          </g>
        ))}
        {drag?.moved && (
          <path
            d={`M${ports.get(drag.from)!.x} ${ports.get(drag.from)!.y}L${drag.x} ${drag.y}`}
            stroke="var(--plum)"
            strokeWidth="3"
            strokeDasharray="6 4"
            className="pointer-events-none"
          />
        )}
      </svg>
    </div>
  )
}

/** About as wide is a sign of a name. */
const SIGN = 8.1
/** A name is drawn narrower by this much at most, before it is cut. */
const NARROWER = 1.2

/** A name inside its box: drawn narrower where it is a little too long, cut where it is longer. */
function NameInside({ name, x, y, wide }: { name: string; x: number; y: number; wide: number }) {
  const most = Math.floor((wide * NARROWER) / SIGN)
  const shown = name.length > most ? `${name.slice(0, most - 1)}…` : name
  return (
    <text
      x={x}
      y={y}
      fontSize="15"
      fontWeight="700"
      {...(shown.length * SIGN > wide ? { textLength: wide, lengthAdjust: 'spacingAndGlyphs' } : {})}
    >
      {shown}
    </text>
  )
}

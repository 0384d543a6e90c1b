import type { Model } from '@pasado/core/catalogue/model'
import { placeStates } from '@pasado/core/catalogue/state-graph'
import { useEffect, useRef, useState } from 'react'
import { Lens } from '../ui/Lens'

const COLUMN = 190
const ROW = 66
const WIDTH = 140
const HEIGHT = 52
const BAND_GAP = 26

/** A model's states as a graph: from the start at the left, moves as lines; those of the chosen state stand out. Press one to act it out. */
export function StateGraph({
  model,
  chosen,
  onChoose
}: {
  model: Model
  chosen: string
  onChoose: (state: string) => void
}) {
  const [columns, setColumns] = useState(4)
  const frame = useRef<HTMLDivElement>(null)
  useEffect(() => {
    const fit = () => setColumns(Math.max(1, Math.floor((frame.current!.clientWidth - WIDTH - 30) / COLUMN) + 1))
    const watcher = new ResizeObserver(fit)
    watcher.observe(frame.current!)
    return () => watcher.disconnect()
  }, [])
  const placed = wrapped(model, columns)
  const width = Math.max(...[...placed.values()].map(({ x }) => x)) + WIDTH + (columns === 1 ? 120 : 30)
  const height = Math.max(...[...placed.values()].map(({ y }) => y)) + HEIGHT + 16
  const moves = model.moves.toSorted((a, b) => Number(a.from === chosen) - Number(b.from === chosen))
  return (
    <div ref={frame} className="min-w-0 overflow-x-auto" tabIndex={0} role="group" aria-label="States and moves">
      <div className="relative" style={{ width, height }}>
        <svg className="absolute inset-0 text-ink" width={width} height={height} aria-hidden>
          <defs>
            <marker id="move-end" viewBox="0 0 8 8" refX="7" refY="4" markerWidth="4" markerHeight="4" orient="auto">
              <path d="M0 0L8 4L0 8Z" fill="currentColor" />
            </marker>
          </defs>
          {moves.map(({ from, to }) => {
            const a = placed.get(from)!
            const b = placed.get(to)!
            const leads = from === chosen
            return (
              <path
                key={`${from} ${to}`}
                d={curve(a, b)}
                fill="none"
                stroke="currentColor"
                strokeWidth={leads ? 2.2 : 1}
                opacity={leads ? 1 : 0.14}
                markerEnd={leads ? 'url(#move-end)' : undefined}
              />
            )
          })}
        </svg>
        {model.states.map((state) => {
          const { x, y } = placed.get(state.state)!
          const on = state.state === chosen
          return (
            <button
              key={state.state}
              type="button"
              aria-pressed={on}
              aria-label={`${state.meaning}${state.good ? ', good' : ''}`}
              onClick={() => onChoose(state.state)}
              style={{ left: x, top: y, width: WIDTH, height: HEIGHT }}
              className={`absolute flex items-center gap-1.5 border px-1.5 text-left text-sm leading-tight ${on ? 'border-2 border-plum bg-plumwash font-bold' : `bg-sheet ${state.good ? 'border-2 border-ink' : 'border-edge'}`}`}
            >
              <span className="flex shrink-0 flex-wrap" style={{ maxWidth: 40 }}>
                {state.lamps.slice(0, 4).map((look) => (
                  <Lens
                    key={look.lamp}
                    colour={look.colour}
                    pattern={look.pattern}
                    size={state.lamps.length > 1 ? 19 : 26}
                  />
                ))}
              </span>
              <span className="line-clamp-3">{state.meaning}</span>
            </button>
          )
        })}
      </div>
    </div>
  )
}

/** Places states by their layers, a new band below where a screen's width is used up. */
function wrapped(model: Model, columns: number): Map<string, { x: number; y: number }> {
  const states = placeStates(model)
  const tops: number[] = []
  for (let band = 0, top = 0; states.some(({ layer }) => Math.floor(layer / columns) >= band); band++) {
    tops[band] = top
    top +=
      (Math.max(0, ...states.filter(({ layer }) => Math.floor(layer / columns) === band).map(({ row }) => row)) + 1) *
        ROW +
      BAND_GAP
  }
  return new Map(
    states.map(({ state, layer, row }) => [
      state,
      { x: (layer % columns) * COLUMN, y: tops[Math.floor(layer / columns)]! + row * ROW }
    ])
  )
}

/** A line from one state to another: out at the right and in at the left when it goes on, around outside when it goes back. */
function curve(a: { x: number; y: number }, b: { x: number; y: number }): string {
  const middle = HEIGHT / 2
  if (b.x > a.x)
    return `M${a.x + WIDTH} ${a.y + middle}C${a.x + COLUMN} ${a.y + middle} ${b.x - 22} ${b.y + middle} ${b.x - 1} ${b.y + middle}`
  if (b.x === a.x) {
    const bulge = 12 + (14 * Math.abs(b.y - a.y)) / ROW
    return `M${a.x + WIDTH} ${a.y + middle + 8}C${a.x + WIDTH + bulge} ${a.y + middle + 8} ${b.x + WIDTH + bulge} ${b.y + middle - 8} ${b.x + WIDTH + 1} ${b.y + middle - 8}`
  }
  return `M${a.x + 20} ${a.y + HEIGHT}C${a.x + 20} ${a.y + HEIGHT + 20} ${b.x + WIDTH - 20} ${b.y + HEIGHT + 20} ${b.x + WIDTH - 20} ${b.y + HEIGHT + 1}`
}

import { useEffect, useMemo, useState } from 'react'
import { contoursOf, signalSteps, stepOf } from '@pasado/core/radio/contours'
import type { CoverageAnswer } from '../../../workers/coverage.worker'

type Storey = CoverageAnswer['storeys'][number]
export type PlanView = 'signal' | 'serving'

/** Greys by which units' cells are told apart; more units than these begin again, and every one is named. */
const servingGreys = [0.06, 0.4, 0.2, 0.55, 0.3, 0.12] as const

/** How dark a cell is that the unit at this place in the list serves; none does: not at all. */
const greyOf = (unit: number) => (unit < 0 ? 0 : servingGreys[unit % servingGreys.length]!)

/** The signal, or which unit serves, as a picture with a pixel a cell; over it the lines of equal signal. */
export function SignalPicture({ coverage, view }: { coverage: Storey; view: PlanView }) {
  const { grid } = coverage
  const picture = useCells(coverage, view)
  const lines = useMemo(() => (view === 'signal' ? contoursOf(grid, coverage.signal) : []), [grid, coverage, view])
  return (
    <g clipPath="url(#plan-rooms)" className="pointer-events-none">
      {picture && (
        <image
          href={picture}
          x={grid.x - grid.cellM / 2}
          y={grid.y - grid.cellM / 2}
          width={grid.columns * grid.cellM}
          height={grid.rows * grid.cellM}
          preserveAspectRatio="none"
          style={{ imageRendering: 'pixelated' }}
        />
      )}
      {lines.map(
        ({ dbm, d, dashes }) =>
          d && (
            <path
              key={dbm}
              d={d}
              data-contour={dbm}
              fill="none"
              stroke="var(--ink)"
              strokeWidth={dbm === -67 ? 0.07 : 0.04}
              strokeDasharray={dashes || undefined}
            />
          )
      )}
    </g>
  )
}

function useCells({ grid: { columns, rows }, signal, by }: Storey, view: PlanView): string | null {
  const [picture, setPicture] = useState<string | null>(null)
  useEffect(() => {
    const canvas = document.createElement('canvas')
    canvas.width = columns
    canvas.height = rows
    const pen = canvas.getContext('2d')
    if (!pen) return
    const ink = document.documentElement.classList.contains('cupboard') ? 236 : 29
    const octets = pen.createImageData(columns, rows)
    for (let at = 0; at < signal.length; at++) {
      const dark = view === 'signal' ? signalSteps[stepOf(signal[at]!)]!.dark : greyOf(by[at]!)
      octets.data.set([ink, ink, ink, Math.round(dark * 255)], at * 4)
    }
    pen.putImageData(octets, 0, 0)
    setPicture(canvas.toDataURL())
  }, [columns, rows, signal, by, view])
  return picture
}

/** How dark each step, or each unit's part of the storey, is drawn. */
export function SignalLegend({ band, view, units }: { band: string; view: PlanView; units: readonly string[] }) {
  const box = (dark: number) => (
    <span
      aria-hidden
      className="inline-block h-3.5 w-5 border border-edge"
      style={{ background: `color-mix(in srgb, var(--ink) ${dark * 100}%, var(--sheet))` }}
    />
  )
  if (view === 'serving')
    return (
      <p className="fine mt-1 flex flex-wrap items-center gap-x-3">
        Which unit serves, {band} GHz:
        {units.map((name, at) => (
          <span key={name} className="inline-flex items-center gap-1">
            {box(servingGreys[at % servingGreys.length]!)}
            {name}
          </span>
        ))}
      </p>
    )
  return (
    <p className="fine mt-1 flex flex-wrap items-center gap-x-3">
      {band} GHz, 1 m above the floor, thick line -67 dBm:
      {signalSteps.map(({ fromDbm, dark }) => (
        <span key={fromDbm} className="inline-flex items-center gap-1">
          {box(dark)}
          {fromDbm === -Infinity ? 'weaker' : `${fromDbm} dBm`}
        </span>
      ))}
    </p>
  )
}

import { spectrumOf } from '@pasado/core/radio/channels'
import type { Band } from '@pasado/core/values/band'
import type { ChannelChoice, Neighbour } from '@pasado/core/radio/channel-plan'
import { permissionOf } from '@pasado/core/radio/permissions'

interface Own {
  name: string
  now: ChannelChoice | null
  planned: ChannelChoice | null
}
const edges: Record<Band, [number, number]> = { '2.4': [2400, 2490], '5': [5150, 5895], '6': [5945, 6430] }
const [WIDE, SKY, ROW, FOOT] = [900, 90, 26, 24]
const ticks: Record<Band, readonly number[]> = {
  '2.4': [1, 6, 11, 13],
  '5': [36, 52, 100, 116, 132, 149, 165],
  '6': [1, 17, 33, 49, 65, 81]
}

/** A band as it is used here: neighbours above, as high as they are heard; our radios below, now open and planned filled. */
export function Spectrum({
  band,
  own,
  neighbours,
  country
}: {
  band: Band
  own: readonly Own[]
  neighbours: readonly Neighbour[]
  country: string | undefined
}) {
  const [from, to] = edges[band]
  const x = (mhz: number) => ((mhz - from) / (to - from)) * WIDE
  const block = (choice: ChannelChoice) => {
    const found = spectrumOf(band, choice.channel, choice.widthMHz)
    return found && { x: x(found.fromMHz), width: x(found.toMHz) - x(found.fromMHz) }
  }
  const theirs = neighbours.filter((neighbour) => neighbour.band === band)
  const height = SKY + own.length * ROW * 2 + FOOT
  const radar = band === '5' ? [...(permissionOf(country)?.radar ?? [])] : []
  return (
    <figure className="mt-3">
      <div
        className="overflow-x-auto border border-rule bg-sheet"
        tabIndex={0}
        role="group"
        aria-label={`Spectrum at ${band} GHz`}
      >
        <svg
          viewBox={`0 0 ${WIDE} ${height}`}
          className="block w-full min-w-[36rem]"
          role="img"
          aria-label={`${band} GHz: ${theirs.length} neighbours' networks; ${own.map(({ name, now, planned }) => `${name} ${now ? `now on ${now.channel}` : 'not recorded'}${planned ? `, planned ${planned.channel} at ${planned.widthMHz} MHz` : ''}`).join('; ')}`}
        >
          {radar.map((channel) => {
            const at = block({ channel, widthMHz: 20 })
            return (
              at && <rect key={channel} x={at.x} y="0" width={at.width} height={height - FOOT} fill="var(--well)" />
            )
          })}
          {theirs.map((their, index) => {
            const at = block(their)
            if (!at) return null
            const high = Math.max(4, Math.min(1, (their.dbm + 95) / 55) * (SKY - 8))
            return (
              <rect
                key={index}
                x={at.x + 1}
                y={SKY - high}
                width={Math.max(2, at.width - 2)}
                height={high}
                fill="var(--ink)"
                fillOpacity={0.08 + their.busy * 0.3}
                stroke="var(--edge)"
                strokeWidth="0.7"
              />
            )
          })}
          <path d={`M0 ${SKY}H${WIDE}`} stroke="var(--ink)" />
          {own.map(({ name, now, planned }, index) => {
            const top = SKY + index * ROW * 2
            const [a, b] = [now && block(now), planned && block(planned)]
            return (
              <g key={name}>
                {a && (
                  <rect
                    x={a.x}
                    y={top + 4}
                    width={a.width}
                    height={ROW - 8}
                    fill="none"
                    stroke="var(--ink)"
                    strokeWidth="2"
                    strokeDasharray="5 3"
                  />
                )}
                {b && <rect x={b.x} y={top + ROW + 2} width={b.width} height={ROW - 8} fill="var(--plum)" />}
                <text
                  x={Math.max(4, Math.min(WIDE - 140, (b ?? a)?.x ?? 4))}
                  y={top + ROW - 2}
                  fontSize="13"
                  fill="var(--ink)"
                  stroke="var(--sheet)"
                  strokeWidth="4"
                  paintOrder="stroke"
                >
                  {name}
                </text>
              </g>
            )
          })}
          {ticks[band].map((channel) => {
            const at = block({ channel, widthMHz: 20 })
            return (
              at && (
                <text
                  key={channel}
                  x={at.x + at.width / 2}
                  y={height - 7}
                  textAnchor="middle"
                  fontSize="13"
                  fill="var(--ink)"
                >
                  {channel}
                </text>
              )
            )
          })}
        </svg>
      </div>
      <figcaption className="fine">
        {band} GHz by channel. Above: neighbours, as high as they are heard, as dark as they are busy. Below: ours,
        dashed as set now, filled as planned.{radar.length ? ' Shaded: shared with radar.' : ''}
      </figcaption>
    </figure>
  )
}

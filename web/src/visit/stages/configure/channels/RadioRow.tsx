import { useMemo } from 'react'
import { type Facts } from '@pasado/core/record/facts'
import { type ChannelChoice } from '@pasado/core/radio/channel-plan'
import { type HomeRadio } from '@pasado/core/work/channels/home-channels'
import { foundOn, radarMinutes } from '@pasado/core/radio/permitted'
import { useMayWrite } from '../../../session/facts'
import { placeKey } from '../../../session/place'
import { FigureSelect } from './FigureSelect'

export const recordedChoice = ({ recorded }: HomeRadio): ChannelChoice | null =>
  recorded?.facts.channel !== undefined && recorded.facts.widthMHz !== undefined
    ? { channel: recorded.facts.channel, widthMHz: recorded.facts.widthMHz }
    : null

/** What stands for a channel that nobody sets. */
const BY_ITSELF = 'by-itself'

export function RadioRow({
  radio,
  planned,
  lost,
  country,
  set24,
  byItself,
  onSet,
  onByItself
}: {
  radio: HomeRadio
  planned: ChannelChoice | null
  lost: number | null
  country: string | undefined
  set24: readonly number[]
  /** Whether its unit chooses channels by itself. */
  byItself: boolean
  onSet: (change: Facts<'radio'>) => void
  onByItself: () => void
}) {
  const mayWrite = useMayWrite()
  const { recorded, band, name } = radio
  const channels = useMemo(
    () =>
      [
        ...new Set([
          ...(band === '2.4' ? set24 : foundOn(country, band)),
          ...(recorded?.facts.channel === undefined ? [] : [recorded.facts.channel])
        ])
      ].sort((a, b) => a - b),
    [band, country, set24, recorded?.facts.channel]
  )
  const isFree = byItself && recorded?.facts.channel === undefined
  const watch = planned ? radarMinutes(country, band, planned.channel, planned.widthMHz) : 0
  return (
    <li
      data-place={placeKey({ kind: 'radio', id: radio.id, field: 'channel' })}
      className="grid items-center gap-x-4 gap-y-1 py-2 sm:grid-cols-[10rem_9rem_8rem_minmax(0,1fr)]"
    >
      <b>
        {name}
        {radio.backhaul && <span className="fine block font-normal">and the mesh’s own way</span>}
      </b>
      <FigureSelect
        label={`Channel of ${name}, ${band} GHz`}
        what="channel"
        disabled={!mayWrite}
        value={recorded?.facts.channel ?? (isFree ? BY_ITSELF : undefined)}
        from={channels}
        onChoose={(value) => (value === BY_ITSELF ? onByItself() : onSet({ channel: Number(value) }))}
      >
        <option value={BY_ITSELF}>by itself</option>
      </FigureSelect>
      <FigureSelect
        label={`Width of ${name}, ${band} GHz`}
        what="width"
        unit=" MHz"
        disabled={!mayWrite || isFree}
        value={recorded?.facts.widthMHz}
        from={radio.widthsMHz}
        onChoose={(value) => onSet({ widthMHz: Number(value) as 20 })}
      />
      <span className="text-sm">
        {planned ? (
          <>
            planned{' '}
            <b>
              {planned.channel}, {planned.widthMHz} MHz
            </b>
            {lost === null ? '' : `: ${Math.round(lost * 100)} % lost`}
            {watch > 0
              ? `; listens ${watch === 1 ? 'a minute' : 'ten minutes'} for radar, and leaves when it hears one`
              : ''}
          </>
        ) : (
          ''
        )}
      </span>
    </li>
  )
}

import { useState } from 'react'
import { ARRIVES } from '@pasado/core/work/plan/hops'
import { linkRate } from '@pasado/core/radio/link-rate'
import { readNumber } from '@pasado/core/values/number'
import { BenchPage, BigFigure, NumberBox, SelectBox } from './parts'

const widths = [20, 40, 80, 160] as const
type Width = `${(typeof widths)[number]}`
const guards = ['0.8', '1.6', '3.2'] as const

/** What a signal carries, at every width. */
export function RatePage() {
  const [typed, setTyped] = useState('-64')
  const [streams, setStreams] = useState('2')
  const [width, setWidth] = useState<Width>('80')
  const [guard, setGuard] = useState<(typeof guards)[number]>('0.8')
  const [dbm, many] = [readNumber(typed), readNumber(streams)]
  const wrongDbm = dbm >= -110 && dbm <= 0 ? null : 'must be from -110 to 0 dBm: signals are below zero'
  const wrongStreams = Number.isInteger(many) && many >= 1 && many <= 8 ? null : 'must be a whole number from 1 to 8'
  const at = (widthMHz: (typeof widths)[number]) =>
    linkRate({ rssiDbm: dbm, widthMHz, streams: many, guardIntervalUs: Number(guard) as 0.8 })
  const right = !wrongDbm && !wrongStreams
  const most = right ? Math.max(1, ...widths.map((offered) => at(offered).phyMbps)) : 1
  const chosen = right ? at(Number(width) as 20) : null
  return (
    <BenchPage
      title="What a signal carries"
      source="IEEE 802.11ax: the highest scheme whose least signal is reached, 3 dB more for each doubling of the width. About 60 % of the rate on the air arrives."
      inputs={
        <>
          <NumberBox label="Signal" unit="dBm" value={typed} onChange={setTyped} problem={wrongDbm} />
          <SelectBox
            label="Width"
            value={width}
            options={widths.map((offered): { value: Width; label: string } => ({
              value: `${offered}`,
              label: `${offered} MHz`
            }))}
            onChange={setWidth}
          />
          <NumberBox label="Streams" unit="" value={streams} onChange={setStreams} problem={wrongStreams} />
          <SelectBox
            label="Guard interval"
            value={guard}
            options={guards.map((value) => ({ value, label: `${value} µs` }))}
            onChange={setGuard}
          />
        </>
      }
      result={
        chosen ? (
          <BigFigure
            value={chosen.phyMbps.toFixed(0)}
            unit="Mbit/s on the air"
            label={
              chosen.mcs === null
                ? 'No rate holds: nearer, or a narrower channel.'
                : `scheme ${chosen.mcs}; about ${(chosen.phyMbps * ARRIVES).toFixed(0)} Mbit/s arrive.`
            }
          />
        ) : (
          <p className="text-soft">Mend what is wrong on the left.</p>
        )
      }
    >
      {right && (
        <table className="mt-4 w-full text-sm">
          <caption className="label pb-1 text-left">Wider is faster only while the signal lasts</caption>
          <tbody>
            {widths.map((offered) => {
              const rate = at(offered)
              return (
                <tr key={offered} className="border-t border-rule">
                  <th scope="row" className="w-24 py-1.5 text-left font-normal">
                    {offered} MHz
                  </th>
                  <td className="exact w-32 text-right">
                    {rate.mcs === null ? 'none holds' : `${rate.phyMbps.toFixed(0)} Mbit/s`}
                  </td>
                  <td className="pl-3">
                    <span aria-hidden className="block h-4 bg-well">
                      <span
                        className={`block h-4 ${String(offered) === width ? 'bg-plum' : 'bg-soft'}`}
                        style={{ width: `${(rate.phyMbps / most) * 100}%` }}
                      />
                    </span>
                  </td>
                </tr>
              )
            })}
          </tbody>
        </table>
      )}
    </BenchPage>
  )
}

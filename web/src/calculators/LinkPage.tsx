import { useState } from 'react'
import { bandLoss, plannedBands } from '@pasado/core/work/plan/home-plan'
import type { Band } from '@pasado/core/values/band'
import { ARRIVES } from '@pasado/core/work/plan/hops'
import { linkRate } from '@pasado/core/radio/link-rate'
import { pathLoss } from '@pasado/core/radio/path-loss'
import type { Material } from '@pasado/core/radio/wall-loss'
import { materialOptions } from '../visit/stages/place/materials'
import { readNumber } from '@pasado/core/values/number'
import { BenchPage, BigFigure, NumberBox, SelectBox } from './parts'
import { Button } from '../ui/Button'

const bandOptions = (Object.keys(plannedBands) as Band[]).map((value) => ({ value, label: `${value} GHz` }))
interface Slab {
  material: Material
  mm: string
}
const MOST_SLABS = 12

/** What arrives between two points: what is sent, less distance, walls and floors. */
export function LinkPage() {
  const [band, setBand] = useState<Band>('5')
  const [power, setPower] = useState('23')
  const [distance, setDistance] = useState('9')
  const [exponent, setExponent] = useState('2')
  const [floors, setFloors] = useState('0')
  const [slabs, setSlabs] = useState<Slab[]>([{ material: 'brick', mm: '150' }])
  const [dbm, metres, fall, storeys] = [
    readNumber(power),
    readNumber(distance),
    readNumber(exponent),
    readNumber(floors)
  ]
  const wrong = {
    power: dbm >= -10 && dbm <= 36 ? null : 'must be from -10 to 36 dBm',
    distance: metres > 0 && metres <= 1000 ? null : 'must be above 0 and at most 1000 m',
    fall: fall >= 1 && fall <= 6 ? null : 'must be from 1 to 6',
    floors: Number.isInteger(storeys) && storeys >= 0 && storeys <= 6 ? null : 'must be a whole number from 0 to 6'
  }
  const wrongSlab = slabs.findIndex(({ mm }) => !(readNumber(mm) > 0 && readNumber(mm) <= 3000))
  const right = Object.values(wrong).every((candidate) => candidate === null) && wrongSlab < 0
  const set = (at: number, change: Partial<Slab>) =>
    setSlabs(slabs.map((slab, index) => (index === at ? { ...slab, ...change } : slab)))
  const loss = right
    ? pathLoss({
        frequencyMHz: plannedBands[band].middleMHz,
        exponent: fall,
        from: { x: 0, y: 0, z: 1 },
        to: { x: metres, y: 0, z: 1 },
        walls: slabs.map(({ material, mm }, at) => ({
          from: { x: (metres * (at + 1)) / (slabs.length + 1), y: -1 },
          to: { x: (metres * (at + 1)) / (slabs.length + 1), y: 1 },
          lossDb: bandLoss(material, readNumber(mm), band)
        }))
      })
    : null
  // Floors lie across the way, not beside it: their loss is that of as many wooden ceilings.
  const floorsDb =
    right && storeys > 0
      ? pathLoss({
          frequencyMHz: 5500,
          from: { x: 0, y: 0, z: 0 },
          to: { x: 0, y: 0, z: storeys },
          floors: Array.from({ length: storeys }, (_, at) => ({ z: at + 0.5, lossDb: bandLoss('wood', 200, band) }))
        }).floorsDb
      : 0
  const arrives = loss ? dbm - loss.totalDb - floorsDb : NaN
  const rate = loss ? linkRate({ rssiDbm: arrives, widthMHz: band === '2.4' ? 20 : 80 }) : null
  return (
    <BenchPage
      title="What arrives between two points"
      source="Free space to one metre, then the exponent; each wall by Recommendation ITU-R P.2040 as the mean over the band; floors in the manner of COST 231, as wooden ceilings of 200 mm. The rate is that of IEEE 802.11ax, two streams."
      inputs={
        <>
          <SelectBox label="Band" value={band} options={bandOptions} onChange={setBand} />
          <NumberBox label="Sent" unit="dBm" value={power} onChange={setPower} problem={wrong.power} />
          <NumberBox label="Distance" unit="m" value={distance} onChange={setDistance} problem={wrong.distance} />
          <NumberBox label="Exponent" unit="" value={exponent} onChange={setExponent} problem={wrong.fall} />
          <NumberBox label="Floors between" unit="" value={floors} onChange={setFloors} problem={wrong.floors} />
          <fieldset className="flex flex-col gap-2">
            <legend className="label">Walls between</legend>
            {slabs.map(({ material, mm }, at) => (
              <div key={at} className="grid grid-cols-[minmax(0,1fr)_5.5rem_44px] items-end gap-2">
                <SelectBox
                  label={`Wall ${at + 1}`}
                  value={material}
                  options={materialOptions}
                  onChange={(next) => set(at, { material: next })}
                />
                <NumberBox
                  label="Thick"
                  unit="mm"
                  value={mm}
                  onChange={(next) => set(at, { mm: next })}
                  problem={wrongSlab === at ? 'must be above 0, at most 3000 mm' : null}
                />
                <button
                  type="button"
                  className="min-h-11 text-xl"
                  aria-label={`Take out wall ${at + 1}`}
                  onClick={() => setSlabs(slabs.filter((_, index) => index !== at))}
                >
                  ×
                </button>
              </div>
            ))}
            <Button
              disabled={slabs.length >= MOST_SLABS}
              onClick={() => setSlabs([...slabs, { material: 'brick', mm: '150' }])}
            >
              Add a wall
            </Button>
          </fieldset>
        </>
      }
      result={
        loss && rate ? (
          <>
            <BigFigure
              value={arrives.toFixed(0)}
              unit="dBm"
              label={
                rate.mcs === null
                  ? 'carries nothing: below the weakest scheme.'
                  : `carries ${rate.phyMbps.toFixed(0)} Mbit/s on the air (scheme ${rate.mcs}, ${band === '2.4' ? 20 : 80} MHz), of which about ${(rate.phyMbps * ARRIVES).toFixed(0)} arrive.`
              }
            />
            <Budget
              sent={dbm}
              steps={[
                { label: `${metres} m of way`, db: loss.distanceDb },
                ...slabs.map(({ material, mm }, at) => ({
                  label: `Wall ${at + 1}: ${material.replace('-', ' ')} ${mm} mm`,
                  db: bandLoss(material, readNumber(mm), band)
                })),
                ...(storeys > 0 ? [{ label: `${storeys} ${storeys === 1 ? 'floor' : 'floors'}`, db: floorsDb }] : [])
              ]}
              arrives={arrives}
            />
          </>
        ) : (
          <p className="text-soft">Mend what is wrong on the left.</p>
        )
      }
    />
  )
}

/** The way of a signal as a stair: what is sent, and what each thing takes. */
function Budget({
  sent,
  steps,
  arrives
}: {
  sent: number
  steps: readonly { label: string; db: number }[]
  arrives: number
}) {
  const least = Math.min(-100, arrives)
  const share = (dbm: number) => ((dbm - least) / (sent - least)) * 100
  let level = sent
  return (
    <table className="mt-4 w-full text-sm">
      <caption className="label pb-1 text-left">Where it goes</caption>
      <tbody>
        {steps.map(({ label, db }, at) => {
          const from = level
          level -= db
          return (
            <tr key={at} className="border-t border-rule">
              <th scope="row" className="w-48 py-1.5 text-left font-normal">
                {label}
              </th>
              <td className="exact w-24 whitespace-nowrap text-right">−{db.toFixed(1)} dB</td>
              <td className="pl-3">
                <span aria-hidden className="relative block h-4 bg-well">
                  <span
                    className="absolute inset-y-0 bg-ink"
                    style={{ left: `${share(level)}%`, width: `${Math.max(0.5, share(from) - share(level))}%` }}
                  />
                </span>
              </td>
            </tr>
          )
        })}
        <tr className="border-t-2 border-ink font-bold">
          <th scope="row" className="py-1.5 text-left">
            Arrives
          </th>
          <td className="exact whitespace-nowrap text-right">{arrives.toFixed(1)} dBm</td>
          <td />
        </tr>
      </tbody>
    </table>
  )
}

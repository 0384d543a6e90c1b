import { useMemo, useState } from 'react'
import { CartesianGrid, Line, LineChart, ReferenceArea, ResponsiveContainer, Tooltip, XAxis, YAxis } from 'recharts'
import { plannedBands } from '@pasado/core/work/plan/home-plan'
import type { Band } from '@pasado/core/values/band'
import { wallLoss, type Material } from '@pasado/core/radio/wall-loss'
import { materialOptions } from '../visit/stages/place/materials'
import { readNumber } from '@pasado/core/values/number'
import { BenchPage, BigFigure, NumberBox, SelectBox } from './parts'

const bandOptions = (Object.keys(plannedBands) as Band[]).map((value) => ({ value, label: `${value} GHz` }))
const CURVE_POINTS = 160
const [CURVE_FROM_MHZ, CURVE_TO_MHZ] = [2200, 7200]

/** What a wall takes: for a band, and over frequency. */
export function WallPage() {
  const [material, setMaterial] = useState<Material>('brick')
  const [typed, setTyped] = useState('150')
  const [angle, setAngle] = useState('0')
  const [band, setBand] = useState<Band>('5')
  const [mm, degrees] = [readNumber(typed), readNumber(angle)]
  const wrongMm = mm > 0 && mm <= 3000 ? null : 'must be above 0 and at most 3000 mm'
  const wrongAngle = degrees >= 0 && degrees < 90 ? null : 'must be from 0 to below 90°'
  const right = !wrongMm && !wrongAngle
  const losses = useMemo(
    () =>
      right
        ? (Object.keys(plannedBands) as Band[]).map((plannedBand) => ({
            band: plannedBand,
            db: wallLoss({
              material,
              thicknessMm: mm,
              incidenceDeg: degrees,
              frequencyMHz: plannedBands[plannedBand].middleMHz,
              averageOverMHz: plannedBands[plannedBand].overMHz
            }).lossDb
          }))
        : [],
    [right, material, mm, degrees]
  )
  const curve = useMemo(
    () =>
      right
        ? Array.from({ length: CURVE_POINTS + 1 }, (_, at) => {
            const frequencyMHz = CURVE_FROM_MHZ + ((CURVE_TO_MHZ - CURVE_FROM_MHZ) * at) / CURVE_POINTS
            return {
              ghz: frequencyMHz / 1000,
              db: wallLoss({ material, thicknessMm: mm, incidenceDeg: degrees, frequencyMHz }).lossDb
            }
          })
        : [],
    [right, material, mm, degrees]
  )
  const chosen = losses.find((loss) => loss.band === band)
  return (
    <BenchPage
      title="What a wall takes"
      source={`Permittivity and conductivity by Recommendation ITU-R P.2040; one slab, the electric field across the plane of incidence. The figure is the mean over the band; the curve shows each frequency by itself, where a slab rings.${material === 'granite' ? ' Granite is our own estimate.' : ''}${material === 'floorboard' ? ' Floorboard is extrapolated from 50–100 GHz.' : ''}`}
      inputs={
        <>
          <SelectBox label="Material" value={material} options={materialOptions} onChange={setMaterial} />
          <NumberBox label="Thickness" unit="mm" value={typed} onChange={setTyped} problem={wrongMm} />
          <NumberBox label="Angle from straight on" unit="°" value={angle} onChange={setAngle} problem={wrongAngle} />
          <SelectBox label="Band" value={band} options={bandOptions} onChange={setBand} />
        </>
      }
      result={
        chosen ? (
          <BigFigure
            value={chosen.db.toFixed(1)}
            unit="dB"
            label={`of ${band} GHz. ${losses
              .filter((loss) => loss.band !== band)
              .map((loss) => `${loss.db.toFixed(1)} dB of ${loss.band} GHz`)
              .join(', ')}.`}
          />
        ) : (
          <p className="text-soft">Mend what is wrong on the left.</p>
        )
      }
    >
      {right && (
        <div
          className="mt-4"
          role="img"
          aria-label={`Loss over frequency, from ${Math.min(...curve.map(({ db }) => db)).toFixed(1)} to ${Math.max(...curve.map(({ db }) => db)).toFixed(1)} dB`}
        >
          <ResponsiveContainer width="100%" height={280}>
            <LineChart data={curve} margin={{ top: 8, right: 12, bottom: 22, left: 6 }} accessibilityLayer={false}>
              <CartesianGrid stroke="var(--rule)" />
              {Object.entries(plannedBands).map(([planned, { middleMHz, overMHz }]) => (
                <ReferenceArea
                  key={planned}
                  x1={(middleMHz - overMHz / 2) / 1000}
                  x2={(middleMHz + overMHz / 2) / 1000}
                  fill="var(--plumwash)"
                  fillOpacity={planned === band ? 1 : 0.4}
                  label={{ value: `${planned} GHz`, position: 'insideTop', fill: 'var(--ink)', fontSize: 12 }}
                  ifOverflow="hidden"
                />
              ))}
              <XAxis
                dataKey="ghz"
                type="number"
                domain={[CURVE_FROM_MHZ / 1000, CURVE_TO_MHZ / 1000]}
                ticks={[3, 4, 5, 6, 7]}
                stroke="var(--soft)"
                tick={{ fill: 'var(--ink)', fontSize: 13 }}
                label={{
                  value: 'frequency, GHz',
                  position: 'insideBottom',
                  offset: -12,
                  fill: 'var(--ink)',
                  fontSize: 13
                }}
              />
              <YAxis
                stroke="var(--soft)"
                width={58}
                domain={[0, 'auto']}
                tick={{ fill: 'var(--ink)', fontSize: 13 }}
                label={{ value: 'loss, dB', angle: -90, position: 'insideLeft', fill: 'var(--ink)', fontSize: 13 }}
              />
              <Tooltip
                isAnimationActive={false}
                formatter={(value) => [`${Number(value).toFixed(1)} dB`, 'loss']}
                labelFormatter={(value) => `${Number(value).toFixed(2)} GHz`}
                contentStyle={{ background: 'var(--sheet)', border: '1px solid var(--edge)', borderRadius: 3 }}
              />
              <Line dataKey="db" stroke="var(--ink)" strokeWidth={2} dot={false} isAnimationActive={false} />
            </LineChart>
          </ResponsiveContainer>
        </div>
      )}
    </BenchPage>
  )
}

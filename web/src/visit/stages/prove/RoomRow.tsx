import { equipmentHere, equipmentOf } from '@pasado/core/record/equipment'
import { modelOf } from '@pasado/core/catalogue/model'
import { useState } from 'react'
import { couldArrive, wayTo } from '@pasado/core/work/prove/way'
import { measured, type RoomVerdict } from '@pasado/core/work/prove/rooms'
import { bandsSentBy } from '@pasado/core/work/units/unit-bands'
import type { Band } from '@pasado/core/values/band'
import { Chips } from '../../../ui/Chips'
import { Mark } from '../../../ui/Mark'
import { useFolded, useMayWrite } from '../../session/facts'
import { placeKey } from '../../session/place'
import { useVisit } from '../../session/visit-state'
import { MeasureForm } from './MeasureForm'
import { OnItsWay } from './OnItsWay'
import { RunsLine } from './RunsLine'
import { Button } from '../../../ui/Button'
import { Field, Select } from '../../../ui/Field'

/** A room: what was measured, how it stands against the floor, and the slowest link on its way. */
export function RoomRow({
  verdict,
  floorMbps,
  most,
  open,
  onOpen,
  onFault
}: {
  verdict: RoomVerdict
  floorMbps: number
  most: number
  open: boolean
  onOpen: () => void
  onFault: (about: { room: string; unit: string | undefined }) => void
}) {
  const { room, outcome, bands, message, shareOfSource, addedMs } = verdict
  const folded = useFolded()
  const catalogue = useVisit((state) => state.catalogue)
  const mayWrite = useMayWrite()
  const [best] = bands
  const carried = useCarried(bands)
  const name = room.facts.name ?? 'Room'
  const others = measured(folded, catalogue, ({ at, room: of }) => at === 'room' && of === room.id).slice(bands.length)
  return (
    <li
      data-place={placeKey({ kind: 'room', id: room.id, field: 'measured' })}
      aria-label={`Room ${name}`}
      className="py-3"
    >
      <div className="grid grid-cols-[34px_minmax(0,1fr)_auto] items-center gap-x-4 gap-y-2 sm:grid-cols-[34px_8.5rem_minmax(0,1fr)_auto]">
        <Mark outcome={outcome} />
        <b className="break-words">{name}</b>
        <div className="order-last col-span-3 sm:order-none sm:col-span-1">
          <SpeedBar
            value={best?.down?.median ?? null}
            floor={floorMbps}
            most={most}
            label={`${name}: ${best?.down ? `${Math.round(best.down.median)} Mbit/s down` : 'not measured'}, floor ${Math.round(floorMbps)} Mbit/s`}
          />
        </div>
        {mayWrite && (
          <Button aria-expanded={open} aria-label={`Measure ${name}`} onClick={onOpen}>
            Measure
          </Button>
        )}
      </div>
      <p className={`mt-1 ${outcome === 'breaks' ? 'font-bold' : ''}`}>
        {outcome === 'holds' && addedMs !== null ? `${Math.round(addedMs)} ms added to the source’s latency.` : message}
        {shareOfSource === null ? (
          ''
        ) : (
          <span className="text-soft"> {Math.round(shareOfSource * 100)} % of the source.</span>
        )}
      </p>
      {bands.map((band) => (
        <RunsLine key={band.measurement.id} result={band} />
      ))}
      {others.length > 0 && (
        <details>
          <summary className="min-h-11 py-2 text-sm">Earlier measurements</summary>
          {others.map((other) => (
            <RunsLine key={other.measurement.id} result={other} />
          ))}
        </details>
      )}
      {best && <OnItsWay best={best} holds={outcome === 'holds'} />}
      {outcome === 'breaks' && (
        <Button className="mt-2" onClick={() => onFault({ room: room.id, unit: best?.measurement.facts.unit })}>
          Find the fault: {name}
        </Button>
      )}
      {open && <MeasureRoom room={room} bands={bands} carried={carried} />}
    </li>
  )
}

/** Kinds of what stays that may have a network of their own on the air. */
const SEND: readonly string[] = ['router', 'access-point', 'mesh-node', 'other']

/** Which unit carries what is measured in a room, and on which band: kept while the row is there, open or not. */
function useCarried([best]: RoomVerdict['bands']) {
  const record = useVisit((state) => state.record)
  const catalogue = useVisit((state) => state.catalogue)
  // Which unit carried it only a person knows: none is taken for granted but the one that was named here before.
  const [unit, setUnit] = useState<string>(best?.measurement.facts.unit ?? '')
  const [chosenBand, setBand] = useState<Band | undefined>(best?.measurement.facts.band)
  const has = bandsSentBy(equipmentOf(record, unit)?.thing, catalogue)
  const onlyBand = has.length === 1 ? has[0] : undefined
  const band = chosenBand !== undefined && has.includes(chosenBand) ? chosenBand : onlyBand
  return { unit, setUnit, has, band, setBand }
}

/** Measuring in a room: which unit carries it, on which band, and what is measured. */
function MeasureRoom({
  room,
  bands,
  carried: { unit, setUnit, has, band, setBand }
}: Pick<RoomVerdict, 'room' | 'bands'> & { carried: ReturnType<typeof useCarried> }) {
  const folded = useFolded()
  const { record } = folded
  const { speedDownMbps, speedUpMbps } = record.brief.facts
  const catalogue = useVisit((state) => state.catalogue)
  const senders = equipmentHere(record).filter(({ unit: ours, stays }) =>
    ours ? (modelOf(ours, catalogue)?.radios.length ?? 0) > 0 : SEND.includes(stays?.facts.kind ?? '')
  )
  const name = room.facts.name ?? 'Room'
  return (
    <div className="mt-2">
      <div className="mb-2 flex flex-wrap items-end gap-3">
        <Field label="Connected to">
          <Select value={unit} onChange={(event) => setUnit(event.target.value)}>
            <option value="">not noted</option>
            {senders.map((sender) => (
              <option key={sender.id} value={sender.id}>
                {sender.name}
              </option>
            ))}
          </Select>
        </Field>
        <div>
          <p className="label mb-1">Band</p>
          <Chips
            label={`Band in ${name}`}
            value={band}
            options={has.map((value) => ({ value, label: `${value} GHz` }))}
            onChoose={setBand}
          />
        </div>
      </div>
      <MeasureForm
        key={`${unit} ${band}`}
        spot={{
          at: 'room',
          room: room.id,
          ...(unit ? { unit } : {}),
          ...(band ? { band } : {}),
          dbm: bands.find(({ measurement }) => measurement.facts.band === band && measurement.facts.unit === unit)
            ?.measurement.facts.dbm
        }}
        withSignal
        expected={(dbm) => {
          // A room may be as slow as it is: units are asked about only where the way could have carried the figure.
          const carriesMbps = couldArrive(wayTo(folded, catalogue, { unit: unit || undefined, band, dbm }))
          return carriesMbps === null
            ? { mostMbps: 10_000 }
            : { mostMbps: 10_000, carriesMbps, paidDownMbps: speedDownMbps, paidUpMbps: speedUpMbps }
        }}
      />
    </div>
  )
}

/** A room's speed as a bar, its floor marked. */
function SpeedBar({ value, floor, most, label }: { value: number | null; floor: number; most: number; label: string }) {
  const share = (figure: number) => `${Math.min(100, (100 * figure) / Math.max(most, 1))}%`
  return (
    <div role="img" aria-label={label} className="relative h-7 border border-edge bg-well">
      {value !== null && (
        <span
          className={`absolute inset-y-0 left-0 ${value >= floor ? 'bg-ink' : 'border-2 border-ink bg-[repeating-linear-gradient(135deg,var(--ink)_0_2px,transparent_2px_7px)]'}`}
          style={{ width: share(value) }}
        />
      )}
      <span
        className="absolute -inset-y-1 w-[3px] bg-plum outline outline-1 outline-sheet"
        style={{ left: share(floor) }}
      />
      {value !== null && (
        <span className="absolute inset-y-0 flex items-center bg-sheet px-1 text-sm font-bold" style={{ right: 4 }}>
          {Math.round(value)} Mbit/s
        </span>
      )}
    </div>
  )
}

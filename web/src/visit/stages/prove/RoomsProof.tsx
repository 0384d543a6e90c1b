import { modelKey } from '@pasado/core/catalogue/model'
import { FileButton } from '../../../ui/FileButton'
import { useMemo, useState } from 'react'
import { v7 as uuidv7 } from 'uuid'
import { bottleneckOf } from '@pasado/core/work/prove/bottleneck'
import { measurementsFromCsv } from '@pasado/core/documents/measurements-csv'
import { judgeRooms, measured, roomFloor, sourceOf, type RoomVerdict } from '@pasado/core/work/prove/rooms'
import { bandsSentBy } from '@pasado/core/work/units/unit-bands'
import type { Band } from '@pasado/core/values/band'
import { standing, thingsOf, unitName } from '@pasado/core/record/record'
import { Chips } from '../../../ui/Chips'
import { Mark } from '../../../ui/Mark'
import { TextFact } from '../../fields/FactField'
import { useMayWrite } from '../../session/facts'
import { placeKey } from '../../session/place'
import { useVisit, write } from '../../session/store'
import { MeasureForm } from './MeasureForm'
import { MeasureHouse } from './MeasureHouse'
import { RunsLine } from './RunsLine'
import { fileMark, readBefore, recordRun } from './use-record-measure'
import { Button } from '../../../ui/Button'

/** The source by cable, and every room of the list against its floor. */
export function RoomsProof({ onFault }: { onFault: (about: { room: string; unit: string | undefined }) => void }) {
  const record = useVisit((state) => state.record)
  const catalogue = useVisit((state) => state.catalogue)
  const policy = useVisit((state) => state.standard.policy)
  const mayWrite = useMayWrite()
  const verdicts = useMemo(() => judgeRooms(record, catalogue, policy), [record, catalogue, policy])
  const source = useMemo(() => sourceOf(record, catalogue), [record, catalogue])
  const [open, setOpen] = useState<string | null>(null)
  const floor = roomFloor(policy, source)
  const most = Math.max(
    floor.mbps * 2,
    source?.down?.median ?? 0,
    ...verdicts.flatMap(({ bands }) => bands.flatMap(({ down }) => down?.median ?? []))
  )
  const { speedDownMbps, speedUpMbps } = record.brief.facts
  const lan = Math.max(
    0,
    ...standing(record.units).flatMap(
      (unit) =>
        catalogue
          .get(`${unit.facts.model}@${unit.facts.modelVersion}`)
          ?.ports.filter(({ kind }) => kind === 'lan')
          .map((port) => port.mbps ?? 0) ?? []
    )
  )
  return (
    <div className="flex flex-col gap-4">
      <section
        aria-label="Source"
        className="paper p-4"
        data-place={placeKey({ kind: 'measurement', id: 'source', field: 'runs' })}
      >
        <div className="flex flex-wrap items-center gap-3">
          <h3 className="grow">
            The source, by cable{' '}
            {speedDownMbps !== undefined && (
              <span className="fine font-normal">
                {speedDownMbps}
                {speedUpMbps === undefined ? '' : ` / ${speedUpMbps}`} Mbit/s paid for
              </span>
            )}
          </h3>
          {mayWrite && (
            <Button aria-expanded={open === 'source'} onClick={() => setOpen(open === 'source' ? null : 'source')}>
              Measure the source
            </Button>
          )}
        </div>
        {source ? (
          <div className="mt-1">
            <RunsLine one={source} />
            {source.down && speedDownMbps !== undefined && (
              <p className="fine">{Math.round((100 * source.down.median) / speedDownMbps)} % of what is paid for.</p>
            )}
          </div>
        ) : (
          <p className="mt-1">Not measured. A laptop by cable on the modem or gateway, nothing else running.</p>
        )}
        {open === 'source' && (
          <div className="mt-2">
            <MeasureForm
              spot={{ at: 'source' }}
              expected={{ paidDownMbps: speedDownMbps, paidUpMbps: speedUpMbps, ...(lan ? { mostMbps: lan } : {}) }}
            />
          </div>
        )}
        {source?.down &&
          speedDownMbps !== undefined &&
          source.down.median < speedDownMbps * (policy.sourceShare ?? 0.9) && (
            <div className="mt-2 max-w-md">
              <TextFact
                kind="brief"
                id="brief"
                field="providerReference"
                label="The provider was told; its reference"
                exact
              />
            </div>
          )}
      </section>
      <section
        aria-label="Rooms"
        className="paper p-4"
        data-place={placeKey({ kind: 'room', id: 'new', field: 'name' })}
      >
        <div className="flex flex-wrap items-center gap-3">
          <h3 className="grow">
            Rooms{' '}
            <span className="fine font-normal">
              at least {floor.dbm} dBm, {Math.round(floor.mbps)} Mbit/s down ({floor.says}), at most {floor.addedMs} ms
              added
            </span>
          </h3>
          {mayWrite && <ReadList />}
          <MeasureHouse />
        </div>
        {verdicts.length === 0 && (
          <p className="mt-2">No room is on the list yet. Draw the home under Place, or name the rooms here.</p>
        )}
        <ul className="mt-2 divide-y divide-rule border-y border-rule">
          {verdicts.map((verdict) => (
            <RoomRow
              key={verdict.room.id}
              verdict={verdict}
              floorMbps={floor.mbps}
              most={most}
              open={open === verdict.room.id}
              onOpen={() => setOpen(open === verdict.room.id ? null : verdict.room.id)}
              onFault={onFault}
            />
          ))}
        </ul>
        {mayWrite && <AddRoom />}
      </section>
    </div>
  )
}

function AddRoom() {
  const [name, setName] = useState('')
  const add = (event: React.FormEvent) => {
    event.preventDefault()
    if (name.trim()) {
      write('room.set', { id: uuidv7(), set: { name: name.trim().slice(0, 60), listed: true }, origin: 'typed' })
      setName('')
    }
  }
  return (
    <form onSubmit={add} className="mt-3 flex flex-wrap items-end gap-2">
      <label className="label">
        Another room
        <input
          className="box mt-1 font-normal"
          maxLength={60}
          autoComplete="off"
          value={name}
          onChange={(event) => setName(event.target.value)}
        />
      </label>
      <Button type="submit" disabled={!name.trim()}>
        Put it on the list
      </Button>
    </form>
  )
}

function RoomRow({
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
  const { room, outcome, bands, says, shareOfSource, addedMs } = verdict
  const record = useVisit((state) => state.record)
  const catalogue = useVisit((state) => state.catalogue)
  const mayWrite = useMayWrite()
  const senders = standing(record.units).filter(
    (unit) => (catalogue.get(modelKey(unit.facts.model ?? '', unit.facts.modelVersion ?? 1))?.radios.length ?? 0) > 0
  )
  const [best] = bands
  // Which unit carried it only a person knows: none is taken for granted but the one that was named here before.
  const [unit, setUnit] = useState<string>(best?.measurement.facts.unit ?? '')
  const [chosenBand, setBand] = useState<Band | undefined>(best?.measurement.facts.band)
  const has = bandsSentBy(record.units[unit], catalogue)
  const band = chosenBand !== undefined && has.includes(chosenBand) ? chosenBand : has.length === 1 ? has[0] : undefined
  const way = useMemo(
    () => (best ? bottleneckOf(record, catalogue, best, sourceOf(record, catalogue)) : null),
    [record, catalogue, best]
  )
  const name = room.facts.name ?? 'Room'
  const others = measured(record, catalogue, ({ at, room: of }) => at === 'room' && of === room.id).slice(bands.length)
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
            words={`${name}: ${best?.down ? `${Math.round(best.down.median)} Mbit/s down` : 'not measured'}, floor ${Math.round(floorMbps)} Mbit/s`}
          />
        </div>
        {mayWrite && (
          <Button aria-expanded={open} aria-label={`Measure ${name}`} onClick={onOpen}>
            Measure
          </Button>
        )}
      </div>
      <p className={`mt-1 ${outcome === 'breaks' ? 'font-bold' : ''}`}>
        {outcome === 'holds' && addedMs !== null ? `${Math.round(addedMs)} ms added to the source’s latency.` : says}
        {shareOfSource === null ? (
          ''
        ) : (
          <span className="text-soft"> {Math.round(shareOfSource * 100)} % of the source.</span>
        )}
      </p>
      {bands.map((one) => (
        <RunsLine key={one.measurement.id} one={one} />
      ))}
      {others.length > 0 && (
        <details>
          <summary className="min-h-11 py-2 text-sm">Earlier measurements</summary>
          {others.map((one) => (
            <RunsLine key={one.measurement.id} one={one} />
          ))}
        </details>
      )}
      {way && (
        <p className="text-sm">
          <span className="text-soft">
            On its way the slowest {way.unknown.length > 0 ? 'that is known ' : ''}is {way.links[0]!.name},{' '}
            {Math.round(way.expectedMbps)} Mbit/s {way.links[0]!.from}
            {best?.down && way.unknown.length === 0 && best.down.median <= way.expectedMbps
              ? `: ${Math.round((100 * best.down.median) / way.expectedMbps)} % of it arrived`
              : ''}
            .{way.unknown.length > 0 && ` Not known: ${way.unknown.join(', ')}.`}
          </span>{' '}
          {way.finding && outcome !== 'holds' && <b>{way.finding}</b>}
        </p>
      )}
      {outcome === 'breaks' && (
        <Button className="mt-2" onClick={() => onFault({ room: room.id, unit: best?.measurement.facts.unit })}>
          Find the fault: {name}
        </Button>
      )}
      {open && (
        <div className="mt-2">
          <div className="mb-2 flex flex-wrap items-end gap-3">
            <label className="label">
              Connected to
              <select className="box mt-1 font-normal" value={unit} onChange={(event) => setUnit(event.target.value)}>
                <option value="">not noted, or one that stays</option>
                {senders.map((one) => (
                  <option key={one.id} value={one.id}>
                    {unitName(one)}
                  </option>
                ))}
              </select>
            </label>
            <div>
              <p className="label mb-1">Band</p>
              <Chips
                label={`Band in ${name}`}
                value={band}
                options={has.map((value) => ({ value, words: `${value} GHz` }))}
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
            expected={{ mostMbps: 10_000 }}
          />
        </div>
      )}
    </li>
  )
}

/** A room's speed as a bar, its floor marked. */
function SpeedBar({ value, floor, most, words }: { value: number | null; floor: number; most: number; words: string }) {
  const share = (one: number) => `${Math.min(100, (100 * one) / Math.max(most, 1))}%`
  return (
    <div role="img" aria-label={words} className="relative h-7 border border-edge bg-well">
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

/** Measurements from a list: every line a run; rooms by their names. */
function ReadList() {
  const record = useVisit((state) => state.record)
  const [told, setTold] = useState<string | null>(null)
  const [problems, setProblems] = useState<{ line: number; problem: string }[]>([])
  const read = async (file: File) => {
    setTold(null)
    setProblems([])
    if (file.size > 2_000_000) {
      setTold(`${file.name} is larger than 2 MB: take the lines of this home.`)
      return
    }
    const text = await file.text()
    const mark = await fileMark(text)
    if (readBefore(mark)) {
      setTold(`${file.name} was read already. It is not taken twice.`)
      return
    }
    const byName = new Map(
      standing(thingsOf(record, 'room')).map(({ id, facts }) => [(facts.name ?? '').trim().toLowerCase(), id])
    )
    const found = measurementsFromCsv(text, (name) => byName.get(name.trim().toLowerCase()) ?? null)
    setProblems(found.problems.slice(0, 6))
    for (const one of found.measurements)
      if (one.runs.length)
        recordRun(
          {
            at: one.room === null ? 'source' : 'room',
            ...(one.room === null ? {} : { room: one.room, band: one.band! }),
            ...(one.dbm === null ? {} : { dbm: one.dbm })
          },
          one.runs,
          { by: 'laptop', how: 'list', ...(mark ? { file: mark } : {}) }
        )
    setTold(
      found.measurements.length
        ? `${found.measurements.length} measurements taken from ${file.name}.`
        : found.problems.length
          ? null
          : `${file.name} holds no measurement.`
    )
  }
  return (
    <>
      <FileButton accept=".csv,text/csv" onFile={(file) => void read(file)}>
        From a list (CSV)
      </FileButton>
      {told && (
        <p role="status" className="basis-full font-bold">
          {told}
        </p>
      )}
      {problems.length > 0 && (
        <ul role="alert" className="basis-full border-l-4 border-ink bg-well p-3">
          {problems.map(({ line, problem }) => (
            <li key={`${line} ${problem}`}>
              Line {line}: {problem}.
            </li>
          ))}
        </ul>
      )}
    </>
  )
}

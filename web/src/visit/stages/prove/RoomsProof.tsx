import { useMemo, useState } from 'react'
import { v7 as uuidv7 } from 'uuid'
import { judgeRooms, roomFloor, sourceOf } from '@pasado/core/work/prove/rooms'
import { standing } from '@pasado/core/record/record'
import { TextFact } from '../../fields/FactField'
import { useFolded, useMayWrite } from '../../session/facts'
import { placeKey } from '../../session/place'
import { useVisit } from '../../session/visit-state'
import { write } from '../../session/write'
import { MeasureForm } from './MeasureForm'
import { MeasureHouse } from './MeasureHouse'
import { RunsLine } from './RunsLine'
import { Button } from '../../../ui/Button'
import { ReadList } from './ReadList'
import { RoomRow } from './RoomRow'
import { List } from '../../../ui/List'
import { Field, Input } from '../../../ui/Field'

/** The source by cable, and every room of the list against its floor. */
export function RoomsProof({ onFault }: { onFault: (about: { room: string; unit: string | undefined }) => void }) {
  const folded = useFolded()
  const { record } = folded
  const catalogue = useVisit((state) => state.catalogue)
  const policy = useVisit((state) => state.standard.policy)
  const mayWrite = useMayWrite()
  const verdicts = useMemo(() => judgeRooms(folded, catalogue, policy), [folded, catalogue, policy])
  const source = useMemo(() => sourceOf(folded, catalogue), [folded, catalogue])
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
            <RunsLine result={source} />
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
              at least {floor.dbm} dBm, {Math.round(floor.mbps)} Mbit/s down ({floor.reason}), at most {floor.addedMs}{' '}
              ms added
            </span>
          </h3>
          {mayWrite && <ReadList />}
          <MeasureHouse />
        </div>
        {verdicts.length === 0 && (
          <p className="mt-2">No room is on the list yet. Draw the home under Place, or name the rooms here.</p>
        )}
        <List framed className="mt-2">
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
        </List>
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
      <Field label="Another room">
        <Input maxLength={60} autoComplete="off" value={name} onChange={(event) => setName(event.target.value)} />
      </Field>
      <Button type="submit" disabled={!name.trim()}>
        Put it on the list
      </Button>
    </form>
  )
}

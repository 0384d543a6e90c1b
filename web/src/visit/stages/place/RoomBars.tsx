import { type NamedRoom, type PlanStorey } from '@pasado/core/work/plan/home-plan'
import type { RoomTold } from './use-plan'
import { List } from '../../../ui/List'

const [WEAKEST, STRONGEST] = [-95, -30]
const share = (dbm: number) => Math.min(1, Math.max(0, (dbm - WEAKEST) / (STRONGEST - WEAKEST))) * 100

/** Every room as a bar from its worst to its median signal, against the floor. */
export function RoomBars({
  rooms,
  storeys,
  figures,
  bandDb,
  floorDbm,
  onChoose
}: {
  rooms: readonly NamedRoom[]
  storeys: readonly PlanStorey[]
  figures: ReadonlyMap<string, RoomTold>
  bandDb: number
  /** The least signal of a room, by the company's standard. */
  floorDbm: number
  onChoose: (room: NamedRoom) => void
}) {
  const named = rooms.filter(({ listed }) => listed)
  if (named.length === 0 || figures.size === 0)
    return (
      <p className="text-soft">
        {rooms.length === 0
          ? 'Draw the rooms, then put the units where they stand: what reaches each room shows here.'
          : 'Put a unit into the plan: what reaches each room shows here.'}
      </p>
    )
  return (
    <section aria-label="Rooms" className="flex min-h-0 flex-col">
      <h3>What reaches each room</h3>
      <div
        className="mt-1 min-h-0 overflow-y-auto border-y border-rule xl:max-h-[calc(max(46dvh,18rem)-5.5rem)]"
        tabIndex={0}
        aria-label="Rooms, one by one"
        role="group"
      >
        {storeys.map((storey) => {
          const here = named.filter((room) => room.storey === storey.id && figures.has(room.id))
          if (here.length === 0) return null
          return (
            <div key={storey.id}>
              {storeys.length > 1 && <h4 className="fine bg-well px-1 py-0.5">{storey.name}</h4>}
              <List>
                {here.map((room) => (
                  <RoomBar
                    key={room.id}
                    room={room}
                    told={figures.get(room.id)!}
                    floorDbm={floorDbm}
                    onChoose={() => onChoose(room)}
                  />
                ))}
              </List>
            </div>
          )
        })}
      </div>
      <p className="fine mt-1">
        Calculated, ± {bandDb.toFixed(0)} dB: worst place to median, the line is the floor of {floorDbm} dBm. Rates are
        60 % of the slowest on the air; a hop on a shared radio halves.
      </p>
    </section>
  )
}

function RoomBar({
  room,
  told: {
    worst,
    median,
    share: part,
    by,
    rate: { mbps, hops, halved }
  },
  floorDbm,
  onChoose
}: {
  room: NamedRoom
  told: RoomTold
  floorDbm: number
  onChoose: () => void
}) {
  const holds = worst >= floorDbm
  return (
    <li>
      <button type="button" className="block w-full px-1 py-1.5 text-left hover:bg-well" onClick={onChoose}>
        <span className="flex items-baseline justify-between gap-2">
          <b className="truncate">{room.name}</b>
          <span className="shrink-0 text-sm">
            <b>{Math.round(worst)} dBm</b> {holds ? 'holds' : 'too weak'}, {Math.round(part * 100)} %
          </span>
        </span>
        <span
          className="relative my-0.5 block h-3.5 border border-edge bg-well"
          role="img"
          aria-label={`worst ${Math.round(worst)} dBm, median ${Math.round(median)} dBm, floor ${floorDbm} dBm`}
        >
          <span
            className={`absolute inset-y-0 ${holds ? 'bg-soft' : 'bg-ink'}`}
            style={{ left: `${share(worst)}%`, width: `${Math.max(1.5, share(median) - share(worst))}%` }}
          />
          <span className="absolute -inset-y-1 w-0.5 bg-plum" style={{ left: `${share(floorDbm)}%` }} />
        </span>
        <span className="fine flex justify-between gap-2">
          <span className="truncate">by {by}</span>
          <span className="shrink-0">
            {Math.round(mbps)} Mbit/s
            {hops > 0 ? `, ${hops} ${halved > 0 ? 'shared ' : ''}${hops === 1 ? 'hop' : 'hops'}` : ''}
          </span>
        </span>
      </button>
    </li>
  )
}

import { ROOM_FLOOR_DBM, type NamedRoom, type PlanStorey, type RoomFigures } from '@pasado/core/plan/home-plan'
import { linkRate } from '@pasado/core/radio/link-rate'

const [WEAKEST, STRONGEST] = [-95, -30]
const share = (dbm: number) => Math.min(1, Math.max(0, (dbm - WEAKEST) / (STRONGEST - WEAKEST))) * 100
/** What of the rate on the air arrives, as everybody's experience has it. */
const ARRIVES = 0.6

/** Every room as a bar from its worst to its median signal, against the floor. */
export function RoomBars({ rooms, storeys, figures, onChoose }: { rooms: readonly NamedRoom[]; storeys: readonly PlanStorey[]; figures: ReadonlyMap<string, RoomFigures>; onChoose: (room: NamedRoom) => void }) {
  const named = rooms.filter(({ listed }) => listed)
  if (named.length === 0 || figures.size === 0) return <p className="text-soft">{rooms.length === 0 ? 'Draw the rooms, then put the units where they stand: what reaches each room shows here.' : 'Put a unit into the plan: what reaches each room shows here.'}</p>
  return (
    <section aria-label="Rooms">
      <h3>What reaches each room</h3>
      <ul className="mt-1 divide-y divide-rule border-y border-rule">
        {named.map((room) => {
          const found = figures.get(room.id)
          if (!found) return null
          const holds = found.worst >= ROOM_FLOOR_DBM
          const rate = Math.round(linkRate({ rssiDbm: found.median, widthMHz: 80 }).phyMbps * ARRIVES)
          return (
            <li key={room.id}>
              <button type="button" className="grid w-full grid-cols-[minmax(0,9rem)_minmax(0,1fr)_8.5rem] items-center gap-3 py-1.5 text-left hover:bg-well" onClick={() => onChoose(room)}>
                <span className="min-w-0"><b className="block truncate">{room.name}</b><span className="fine">{storeys.find(({ id }) => id === room.storey)?.name}</span></span>
                <span className="relative block h-5 border border-edge bg-well" role="img" aria-label={`worst ${Math.round(found.worst)} dBm, median ${Math.round(found.median)} dBm, floor ${ROOM_FLOOR_DBM} dBm`}>
                  <span className={`absolute inset-y-0 ${holds ? 'bg-soft' : 'bg-ink'}`} style={{ left: `${share(found.worst)}%`, width: `${Math.max(1.5, share(found.median) - share(found.worst))}%` }} />
                  <span className="absolute -inset-y-1 w-0.5 bg-plum" style={{ left: `${share(ROOM_FLOOR_DBM)}%` }} />
                </span>
                <span className="text-sm"><b>{Math.round(found.worst)} dBm</b> {holds ? 'holds' : 'too weak'}<span className="fine block">about {rate} Mbit/s</span></span>
              </button>
            </li>
          )
        })}
      </ul>
      <p className="fine mt-1">Calculated: the worst place to the median, the line is the floor of {ROOM_FLOOR_DBM} dBm. Rates are 60 % of the rate on the air at the median, 80 MHz wide, hops not counted.</p>
    </section>
  )
}

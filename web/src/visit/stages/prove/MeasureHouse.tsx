import { useState } from 'react'
import { measureAir, measureCable } from '@pasado/core/house/measure'
import { listedRooms } from '@pasado/core/work/prove/rooms'
import { standing } from '@pasado/core/record/record'
import { failureTitle } from '../../../app/api'
import { useMayWrite } from '../../session/facts'
import { useVisit } from '../../session/visit-state'
import { openHouse } from './open-house'
import { recordRun } from './use-record-measure'
import { Button } from '../../../ui/Button'

/** Measures the source and every room in the simulated house; rooms of the same name are the same, others are in its middle. */
export function MeasureHouse() {
  const house = useVisit((state) => state.record.house)
  const mayWrite = useMayWrite()
  const [told, setTold] = useState<string | null>(null)
  if (!house || !mayWrite) return null
  const measure = async () => {
    try {
      const { record } = useVisit.getState()
      const played = await openHouse()
      const all = [...played.units.values()]
      const line = all.find(({ definition }) => definition.role === 'modem' || definition.role === 'gateway')
      if (line)
        recordRun({ at: 'source' }, [measureCable(played, line.definition.id)], {
          by: 'laptop',
          how: 'simulated-house'
        })
      const drawn =
        played.definition.plan?.storeys.flatMap((storey) =>
          storey.rooms.map((room) => ({
            name: room.name,
            where: { storey: storey.name, x: room.x + room.widthM / 2, y: room.y + room.depthM / 2, heightM: 1 }
          }))
        ) ?? []
      const silent: string[] = []
      for (const room of listedRooms(record)) {
        const at = drawn.find(({ name }) => name.toLowerCase() === room.facts.name?.toLowerCase()) ?? drawn[0]
        const found = at ? measureAir(played, at.where) : null
        if (!found?.run || found.dbm === null) {
          silent.push(room.facts.name ?? 'a room')
          continue
        }
        const serial = played.units.get(found.unit!)?.definition.serial
        const unit = standing(record.units).find(({ facts }) => facts.serial === serial)
        recordRun(
          { at: 'room', room: room.id, ...(unit ? { unit: unit.id } : {}), band: found.band!, dbm: found.dbm },
          [found.run],
          { by: 'phone', how: 'simulated-house' }
        )
      }
      setTold(silent.length ? `Nothing is heard in ${silent.join(', ')}.` : 'Measured in the simulated house.')
    } catch (error) {
      setTold(failureTitle(error, 'The server is not in reach; try again.'))
    }
  }
  return (
    <>
      <Button onClick={() => void measure()}>Measure in the simulated house</Button>
      {told && (
        <p role="status" className="basis-full font-bold">
          {told}
        </p>
      )}
    </>
  )
}

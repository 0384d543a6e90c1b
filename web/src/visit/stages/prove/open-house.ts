import { playHouse, type House } from '@pasado/core/house/house'
import { ask } from '../../../app/api'
import { useVisit } from '../../session/visit-state'

/** The simulated house that the open visit is practised on, as it is now. */
export async function openHouse(): Promise<House> {
  const { record, catalogue } = useVisit.getState()
  const file = await ask('GET /houses/:id', { params: { id: record.house! } })
  return playHouse(file.definition, file.actions, catalogue)
}

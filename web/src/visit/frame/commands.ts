import { runningWaits } from '@pasado/core/work/units/ended-waits'
import { standing } from '@pasado/core/record/record'
import { callUp } from '../../app/called-up'
import { undo, write } from '../session/write'
import { useVisit } from '../session/visit-state'

/** Something that can be done wherever one stands in a visit, by its key or by its words. */
export interface Doing {
  key: string
  label: string
  act: () => void
}

function stepUnit(by: 1 | -1, go: (path: string) => void): void {
  const units = standing(useVisit.getState().record.units)
  if (units.length === 0) return
  const at = units.findIndex(({ id }) => id === new URLSearchParams(location.search).get('unit'))
  const next = units[(Math.max(at, 0) + (at < 0 ? 0 : by) + units.length) % units.length]!
  go(`${location.pathname}?unit=${next.id}`)
}

function endOldestWait(): void {
  const [oldest] = runningWaits(useVisit.getState().record)
  if (oldest) write('wait.ended', { id: oldest.id })
}

/** What can be done in a visit. @param go goes to an address of the program, as one who asked for it */
export function doingsOf(visit: string, go: (path: string) => void): Doing[] {
  const unit = () => new URLSearchParams(location.search).get('unit')
  return [
    { key: 'd', label: 'docket', act: () => callUp('docket') },
    { key: 'b', label: 'logbook', act: () => callUp('logbook') },
    { key: 'r', label: 'run plan', act: () => callUp('plan') },
    {
      key: 'l',
      label: 'log a lamp',
      act: () => go(`/visit/${visit}/start?at=lamp.now.log${unit() ? `&unit=${unit()}` : ''}`)
    },
    { key: 'w', label: 'end the oldest wait', act: endOldestWait },
    { key: 'm', label: 'measure', act: () => go(`/visit/${visit}/prove?part=rooms`) },
    { key: 'n', label: 'write a note', act: () => go(`/visit/${visit}/brief?at=brief.brief.note`) },
    { key: 'u', label: 'undo', act: () => void undo() },
    { key: '[', label: 'previous unit', act: () => stepUnit(-1, go) },
    { key: ']', label: 'next unit', act: () => stepUnit(1, go) }
  ]
}

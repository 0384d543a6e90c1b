import type { AnswerOf } from '@pasado/core/api/all'
import type { ListedVisit } from '@pasado/core/api/day'
import { addDays, endOfDay, isBefore } from 'date-fns'
import { useEffect, useState } from 'react'
import { ask } from '../app/api'
import { copyOf, takeAlong } from '../app/offline-copy'
import { useReading } from '../app/read'
import { takeVisitsAlong, whichAreTaken } from '../visit/session/load'

export type DayList = AnswerOf<'GET /day'>

/** So many visits of one person are taken along at most. */
const MOST_TAKEN = 12

/** What may have to be opened without a connection: what is nearest to now of the visits until tomorrow evening, and of the overdue ones. */
function nearest(visits: readonly ListedVisit[]): ListedVisit[] {
  const awayMs = ({ plannedAt }: ListedVisit) => Math.abs(new Date(plannedAt!).getTime() - Date.now())
  return visits
    .filter(({ plannedAt }) => plannedAt !== null && isBefore(new Date(plannedAt), endOfDay(addDays(new Date(), 1))))
    .sort((a, b) => awayMs(a) - awayMs(b))
    .slice(0, MOST_TAKEN)
}

/** A day as it was taken along. */
interface TakenDay {
  whose: 'mine' | 'all'
  list: DayList
  /** When it was, and how many of its visits are on this device. */
  taken: { at: number; visits: number }
}

/** Takes a day along as it stands, with the visits that may have to be opened without a connection. */
async function takeDay(whose: 'mine' | 'all', list: DayList): Promise<void> {
  await takeAlong(`day ${whose}`, list)
  if (whose === 'mine') await takeVisitsAlong(nearest(list.visits))
}

async function takenDay(whose: 'mine' | 'all'): Promise<TakenDay | null> {
  const copy = await copyOf<DayList>(`day ${whose}`)
  if (!copy) return null
  return {
    whose,
    list: copy.value,
    taken: { at: copy.at, visits: (await whichAreTaken(copy.value.visits)).length }
  }
}

/** The day as the server has it; without a connection as it was taken along. */
export function useDay(whose: 'mine' | 'all') {
  const { value, problem, away, put, again } = useReading(
    ['the day', whose],
    async () => {
      const list = await ask('GET /day', { query: { whose } })
      void takeDay(whose, list)
      return list
    },
    { otherwise: 'The day could not be loaded.', keep: true }
  )
  const [copy, setCopy] = useState<TakenDay | null>(null)
  useEffect(() => {
    if (!away) return
    let here = true
    void takenDay(whose).then((found) => {
      if (here) setCopy(found)
    })
    return () => {
      here = false
    }
  }, [away, whose])
  const shown = away && copy?.whose === whose ? copy : null
  return { list: shown?.list ?? value ?? null, taken: shown?.taken ?? null, problem, put, again }
}

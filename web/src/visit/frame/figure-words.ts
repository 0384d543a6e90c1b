import { addMinutes, format } from 'date-fns'
import type { AgendaPlan } from '@pasado/core/agenda/planned'

/** The two figures of a visit that every view names alike: minutes of hands that are left, and when it can be over. */
export const figureWords = ({ agenda, at }: { agenda: AgendaPlan; at: number }): string =>
  `${Math.round(agenda.handsOnMin)} min hands on, over about ${format(addMinutes(new Date(at), agenda.likelyMin), 'HH:mm')}`

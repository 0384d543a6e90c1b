import type { Wait } from '../../record/record'

/** What the wait for the second press of a pairing is called. */
const PAIRING = 'pairing window'

/** A wait that a unit has to come through, whatever is to be done on it. */
export const isOfUnit = ({ task }: Wait): boolean => task === undefined || /^(state|restart):/.test(task)

/** The wait for the second press of a pairing. */
export const isWindow = ({ what }: Wait): boolean => what.startsWith(PAIRING)

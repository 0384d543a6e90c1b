import { listed } from '../values/list'

/**
 * Devices that were not heard from, in words.
 * @param moment how a moment is told, from its ISO text
 */
export const unheardTold = (
  outboxes: readonly { person: string; since: string }[],
  moment: (iso: string) => string
): string => listed(outboxes.map(({ person, since }) => `a device of ${person}, last heard from ${moment(since)}`))

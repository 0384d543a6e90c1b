/**
 * The keys of all that a logbook sets: a field of a thing, an answer, a choice, custody, an item of a box. Two who set the
 * same key to different values without having seen each other are in conflict.
 */

/** A field of a thing, or of the brief. */
export const fieldKey = (kind: string, id: string, field: string): string => `${kind}.${id}.${field}`

/** Whether a thing is in the visit or was taken out of it. */
export const presenceKey = (kind: string, id: string): string => fieldKey(kind, id, IS_HERE)
const IS_HERE = 'is-here'

/** Whether a key tells that a thing is in the visit. */
export const isPresence = ({ field }: { field: string }): boolean => field === IS_HERE

/** The answer to a rule, by the key that answers stand under. */
export const answerKey = (rule: string): string => fieldKey('answer', rule, 'answer')

/** The answer to a choice of hand-over. */
export const choiceKey = (choice: string): string => fieldKey('choice', choice, 'answer')

/** Who keeps the secrets. */
export const custodyKey = fieldKey('custody', 'custody', 'custody')

/** The answer to a consent prompt of a unit. */
export const promptKey = (unit: string, prompt: string): string => fieldKey('prompt', unit, prompt)

/** An item of a box. */
export const itemKey = (box: string, item: string): string => fieldKey('item', box, item)

/** A secret of a thing, by its purpose: its value is its keyed print. */
export const secretKey = (thing: string, purpose: string): string => fieldKey('secret', thing, purpose)

/** A key in its parts. */
export function partsOf(key: string): { kind: string; id: string; field: string } {
  const first = key.indexOf('.')
  const second = key.indexOf('.', first + 1)
  return { kind: key.slice(0, first), id: key.slice(first + 1, second), field: key.slice(second + 1) }
}

import type { Model } from './model'

type Button = Model['buttons'][number]
export type Press = Button['presses'][number]

/** What a press of this length does on a button; undefined where it does nothing. */
export function pressOf(button: Button, seconds: number): Press | undefined {
  return button.presses.find(({ leastS, mostS }) => seconds >= leastS && (mostS === null || seconds <= mostS))
}

/** What kind of thing a press does, by the words of the catalogue: forgetting a partner is a reset as well. */
export function pressKind({ does }: Press): 'reset' | 'restart' | 'pairing' | 'other' {
  if (/reset|forget/.test(does)) return 'reset'
  if (/restart/.test(does)) return 'restart'
  return /pair|join/.test(does) ? 'pairing' : 'other'
}

/** How long a button is held for a press, in words. */
export function pressLength({ leastS, mostS }: Press): string {
  return mostS === null ? `from ${leastS} s` : `${leastS} to ${mostS} s`
}

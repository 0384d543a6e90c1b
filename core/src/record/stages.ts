/** The nine stages of a visit, in the order the work is done. */
export const stages = [
  'brief',
  'kit',
  'place',
  'connect',
  'start',
  'configure',
  'prove',
  'handover',
  'signoff'
] as const
export type Stage = (typeof stages)[number]

/** What each stage is called on the strand. */
export const stageNames: Record<Stage, string> = {
  brief: 'Brief',
  kit: 'Kit',
  place: 'Place',
  connect: 'Connect',
  start: 'Start up',
  configure: 'Configure',
  prove: 'Prove',
  handover: 'Hand over',
  signoff: 'Sign off'
}

/** What a stage is called; a text that is none, as lines from before may hold, as it is. */
export function nameOfStage(text: string): string {
  return Object.hasOwn(stageNames, text) ? stageNames[text as Stage] : text
}

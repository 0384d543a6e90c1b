import { materialNames } from '@pasado/core/radio/wall-loss'

const doubts: Record<string, string> = { granite: ' (estimate)', floorboard: ' (extrapolated)' }

/** What walls and ceilings can be of, in words; what is our own estimate or an extrapolation says so. */
export const materialOptions = materialNames.map((value) => ({
  value,
  label: `${value.replace('-', ' ')}${doubts[value] ?? ''}`
}))

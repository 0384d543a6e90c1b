import { materialNames } from '@pasado/core/radio/wall-loss'

/** What walls and ceilings can be of, in words; what is our own estimate or an extrapolation says so. */
export const materialOptions = materialNames.map((value) => ({
  value,
  words: `${value.replace('-', ' ')}${value === 'granite' ? ' (estimate)' : value === 'floorboard' ? ' (extrapolated)' : ''}`
}))

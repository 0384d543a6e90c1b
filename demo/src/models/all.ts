import type { Model } from '@pasado/core/catalogue/model'
import { brackwater } from './brackwater'
import { fenmarrow } from './fenmarrow'
import { ostrel } from './ostrel'
import { others } from './others'
import { quillet } from './quillet'
import { tolvane } from './tolvane'

/** Every model of the made-up makers. */
export const demoModels: Model[] = [...ostrel, ...fenmarrow, ...quillet, ...brackwater, ...others, ...tolvane]

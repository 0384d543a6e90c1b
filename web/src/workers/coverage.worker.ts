import { coverage, type Grid, type Sender } from '@pasado/core/radio/coverage'
import type { PathLossInput } from '@pasado/core/radio/path-loss'
import { strongest } from '@pasado/core/work/plan/home-plan'
import { answering } from './answering'

/** What is asked: the signal of some senders on some storeys. */
export interface CoverageAsk {
  senders: Sender[]
  grids: { storey: string; grid: Grid }[]
  walls: NonNullable<PathLossInput['walls']>
  floors: NonNullable<PathLossInput['floors']>
  exponent: number
}

/** For each grid the strongest signal, and which sender gives it. */
export interface CoverageAnswer {
  storeys: { storey: string; grid: Grid; signal: Float32Array; by: Int16Array }[]
}

answering(({ senders, grids, walls, floors, exponent }: CoverageAsk): CoverageAnswer => ({
  storeys: grids.map(({ storey, grid }) => ({
    storey,
    grid,
    ...strongest(senders.map((sender) => coverage(sender, grid, walls, floors, exponent)))
  }))
}))

import { box } from './box'
import { storey } from './storey'
import { room } from './room'
import { wall } from './wall'
import { opening } from './opening'
import { outlet } from './outlet'
import { trouble } from './trouble'
import { reading } from './reading'
import { fitting } from './fitting'
import { cable } from './cable'
import { stays } from './stays'
import { unit } from './unit'
import { segment } from './segment'
import { pool } from './pool'
import { host } from './host'
import { network } from './network'
import { radio } from './radio'
import { device } from './device'
import { measurement } from './measurement'

/** Every kind of thing, in the order in which a new visit takes them over. */
export const things = {
  box,
  storey,
  room,
  wall,
  opening,
  outlet,
  trouble,
  reading,
  fitting,
  cable,
  unit,
  segment,
  stays,
  pool,
  host,
  network,
  radio,
  device,
  measurement
} as const
export type Things = typeof things

/** A kind of thing that stands in a table of the record. */
export type StoredKind = keyof Things
export const storedKinds = Object.keys(things) as [StoredKind, ...StoredKind[]]

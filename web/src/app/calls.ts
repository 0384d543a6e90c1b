import type { BareName, CallName } from '@pasado/core/api/all'

/** Functions as one: which of them is called, its first argument tells. */
export type Together<F> = (F extends unknown ? (one: F) => void : never) extends (all: infer A) => void ? A : never

/** A function on a call of the API; one that needs nothing may be made with nothing. */
export type On<N extends CallName, S, R> = N extends BareName ? (call: N, sent?: S) => R : (call: N, sent: S) => R

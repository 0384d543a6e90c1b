import type { Model } from '../../catalogue/model'
import type { Facts } from '../../record/facts'

/** Volts of an adapter may differ this much from the model's; more or less than that harms the unit. */
const VOLTS_WITHIN = 0.05

/** What is read on an adapter. */
export type ReadAdapter = Pick<Facts<'unit'>, 'adapterPlug' | 'adapterVolts' | 'adapterAmps'>

/**
 * Which field of an adapter does not suit a model, the first that does not: another plug, another voltage, or too little current.
 * @returns null where it suits, or where not all three are known yet
 */
export function adapterFault(
  { plug, volts, amps }: NonNullable<Model['power']>,
  { adapterPlug, adapterVolts, adapterAmps }: ReadAdapter
): keyof ReadAdapter | null {
  if (adapterPlug === undefined || adapterVolts === undefined || adapterAmps === undefined) return null
  if (adapterPlug.toLowerCase() !== plug.toLowerCase()) return 'adapterPlug'
  if (Math.abs(adapterVolts - volts) > volts * VOLTS_WITHIN) return 'adapterVolts'
  return adapterAmps < amps ? 'adapterAmps' : null
}

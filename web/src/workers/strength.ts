import type { Strength } from '@pasado/core/secrets/strength'
import { asking } from './asking'

const { ask } = asking<{ value: string; hints: string[] }, Strength>(
  'How strong a passphrase is',
  () => new Worker(new URL('./strength.worker.ts', import.meta.url), { type: 'module' })
)

/** Judges a passphrase in a worker, which is loaded when it is first needed. @throws WorkFailed */
export const strengthOf = (value: string, hints: string[]): Promise<Strength> => ask({ value, hints })

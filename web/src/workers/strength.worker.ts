import { judgeStrength } from '@pasado/core/secrets/strength'
import { answering } from './answering'

/** Judges passphrases beside the main thread; what is judged never leaves the device. */
answering(({ value, hints }: { value: string; hints: string[] }) => judgeStrength(value, hints))

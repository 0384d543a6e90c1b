import { judgeStrength } from '@pasado/core/secrets/strength'

/** Judges passphrases beside the main thread; what is judged never leaves the device. */
addEventListener('message', (event: MessageEvent<{ id: number; value: string; hints: string[] }>) => {
  const { id, value, hints } = event.data
  postMessage({ id, strength: judgeStrength(value, hints) })
})

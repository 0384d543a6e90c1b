import { useEffect, useRef } from 'react'

/** A short tone twice, made here: nothing is loaded. */
function sound(): void {
  try {
    const audio = new AudioContext()
    for (const at of [0, 0.35]) {
      const tone = audio.createOscillator()
      const volume = audio.createGain()
      tone.frequency.value = 880
      volume.gain.value = 0.15
      tone.connect(volume).connect(audio.destination)
      tone.start(audio.currentTime + at)
      tone.stop(audio.currentTime + at + 0.2)
    }
    setTimeout(() => void audio.close(), 1500)
  } catch {
    // Without sound the strip and the vibration still tell.
  }
}

/** Calls out once for each wait that has reached its usual end or is over its longest: sound, vibration, a notification where allowed. */
export function useWaitCalls(
  waits: readonly { id: string; what: string; at: string; usualMin: number; mostMin: number }[],
  now: number
): void {
  const called = useRef(new Set<string>())
  const began = useRef(Date.now())
  useEffect(() => {
    for (const { id, what, at, usualMin, mostMin } of waits) {
      for (const [name, minutes] of [
        ['usual', usualMin],
        ['most', mostMin]
      ] as const) {
        const end = Date.parse(at) + minutes * 60_000
        // What was over before this page was opened is shown, not called.
        if (now < end || end < began.current || called.current.has(`${id} ${name}`)) continue
        called.current.add(`${id} ${name}`)
        sound()
        navigator.vibrate?.([200, 100, 200])
        if (typeof Notification !== 'undefined' && Notification.permission === 'granted')
          new Notification(name === 'usual' ? `Look: ${what}` : `Late: ${what}`, { tag: id })
      }
    }
  }, [waits, now])
}

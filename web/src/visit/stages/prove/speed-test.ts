import type { MeasuredRun } from '@pasado/core/record/things/measurement'
import { medianOf } from '@pasado/core/values/median'

const STREAMS = 4
/** What comes in this long after the beginning is dropped: connections are still growing. */
const WARM_UP_MS = 800
const MEASURE_MS = 3000
const DOWN_OCTETS = 32 * 1024 * 1024
const UP_OCTETS = 2 * 1024 * 1024
const PINGS = 9

const address = (path: string) => `/stand-ins/speed/${path}`

async function ping(): Promise<number> {
  const began = performance.now()
  const answer = await fetch(address('ping'), { cache: 'no-store' })
  if (!answer.ok) throw new Error('the speed source does not answer')
  return performance.now() - began
}

async function pings(count: number): Promise<number> {
  const times: number[] = []
  for (let at = 0; at < count; at++) times.push(await ping())
  // The first opens the connection.
  return medianOf(times.slice(1))
}

/** Runs several streams for a while and counts what they carry once warm, Mbit/s. */
async function streams(
  load: (signal: AbortSignal, count: (octets: number) => void) => Promise<void>
): Promise<{ mbps: number; loadedMs: number }> {
  const stop = new AbortController()
  const began = performance.now()
  let octets = 0
  const count = (more: number) => {
    if (performance.now() - began > WARM_UP_MS) octets += more
  }
  const running = Array.from({ length: STREAMS }, async () => {
    while (!stop.signal.aborted) await load(stop.signal, count)
  })
  const settled = Promise.allSettled(running)
  await new Promise((resolve) => setTimeout(resolve, WARM_UP_MS))
  const loaded: number[] = []
  while (performance.now() - began < WARM_UP_MS + MEASURE_MS) {
    loaded.push(await ping())
    await new Promise((resolve) => setTimeout(resolve, 120))
  }
  const seconds = (performance.now() - began - WARM_UP_MS) / 1000
  const carried = octets
  stop.abort()
  const failed = (await settled).find((each) => each.status === 'rejected' && !(each.reason instanceof DOMException))
  if (carried === 0 && failed) throw new Error('the speed source broke off')
  return { mbps: (carried * 8) / 1e6 / seconds, loadedMs: medianOf(loaded) }
}

const rounded = (value: number) => (value < 10 ? Math.round(value * 100) / 100 : Math.round(value * 10) / 10)

/**
 * One run against the speed source that ships: latency idle, then four streams down and up with the warm-up dropped, latency
 * measured beside them. It is the way from this browser to Pasado's server that is measured.
 */
export async function runSpeedTest(onStep: (words: string) => void): Promise<MeasuredRun> {
  onStep('latency')
  const idleMs = await pings(PINGS)
  onStep('down')
  const down = await streams(async (signal, count) => {
    const answer = await fetch(`${address('down')}?octets=${DOWN_OCTETS}`, { signal, cache: 'no-store' })
    const reader = answer.body!.getReader()
    for (let part = await reader.read(); !part.done; part = await reader.read()) count(part.value.length)
  })
  onStep('up')
  const body = new Uint8Array(UP_OCTETS)
  const up = await streams(async (signal, count) => {
    await fetch(address('up'), { method: 'POST', body, signal, cache: 'no-store' })
    count(UP_OCTETS)
  })
  return {
    downMbps: rounded(down.mbps),
    upMbps: rounded(up.mbps),
    idleMs: rounded(idleMs),
    loadedMs: rounded(Math.max(down.loadedMs, up.loadedMs))
  }
}

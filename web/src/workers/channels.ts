import type { HomeChannels } from '@pasado/core/radio/home-channels'
import type { ChannelsAsk } from './channels.worker'

let worker: Worker | null = null
let asked = 0
let heard: ((found: HomeChannels | null) => void) | null = null

/** Plans channels in a worker; null where a radio may take none. Only the newest question is answered. */
export function askChannels(what: Omit<ChannelsAsk, 'id'>, onFound: (found: HomeChannels | null) => void): void {
  if (!worker) {
    worker = new Worker(new URL('./channels.worker.ts', import.meta.url), { type: 'module' })
    worker.addEventListener('message', (event: MessageEvent<{ id: number; found: HomeChannels | null }>) => { if (event.data.id === asked) heard?.(event.data.found) })
  }
  heard = onFound
  worker.postMessage({ id: ++asked, ...what } satisfies ChannelsAsk)
}

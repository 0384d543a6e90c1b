import type { ChannelPlan } from '@pasado/core/radio/channel-plan'
import type { HomeChannels } from '@pasado/core/work/channels/home-channels'
import type { BareAsk, ChannelsAsk, ChannelsFound, HomeAsk } from './channels.worker'

let worker: Worker | null = null
let asked = 0
let heard: ((found: ChannelsFound) => void) | null = null

/** Asks the worker; only the newest question is answered. */
function send(what: { home: HomeAsk } | { bare: BareAsk }, onFound: (found: ChannelsFound) => void): void {
  if (!worker) {
    worker = new Worker(new URL('./channels.worker.ts', import.meta.url), { type: 'module' })
    worker.addEventListener('message', (event: MessageEvent<{ id: number; found: ChannelsFound }>) => {
      if (event.data.id === asked) heard?.(event.data.found)
    })
  }
  heard = onFound
  worker.postMessage({ id: ++asked, ...what } satisfies ChannelsAsk)
}

/** Plans the channels of a home; null where a radio may take none. */
export function askChannels(home: HomeAsk, onFound: (found: HomeChannels | null) => void): void {
  send({ home }, (found) => onFound(found as HomeChannels | null))
}

/** Plans channels without a visit; null where a radio may take none. */
export function askBareChannels(bare: BareAsk, onFound: (found: ChannelPlan | null) => void): void {
  send({ bare }, (found) => onFound(found as ChannelPlan | null))
}

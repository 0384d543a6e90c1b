import type { ChannelPlan } from '@pasado/core/radio/channel-plan'
import type { HomeChannels } from '@pasado/core/work/channels/home-channels'
import { asking } from './asking'
import type { BareAsk, ChannelsAsk, ChannelsFound, HomeAsk } from './channels.worker'

const { newest } = asking<ChannelsAsk, ChannelsFound>(
  'The channel plan',
  () => new Worker(new URL('./channels.worker.ts', import.meta.url), { type: 'module' })
)

/** Plans the channels of a home; null where a radio may take none. */
export function askChannels(home: HomeAsk, onFound: (found: HomeChannels | null) => void): void {
  newest({ home }, (found) => onFound(found as HomeChannels | null))
}

/** Plans channels without a visit; null where a radio may take none. */
export function askBareChannels(bare: BareAsk, onFound: (found: ChannelPlan | null) => void): void {
  newest({ bare }, (found) => onFound(found as ChannelPlan | null))
}

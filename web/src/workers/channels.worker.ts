import type { Model } from '@pasado/core/catalogue/model'
import { planChannels, type ChannelPlan, type ChannelQuestion } from '@pasado/core/radio/channel-plan'
import { planHomeChannels, type HomeChannels } from '@pasado/core/work/channels/home-channels'
import type { VisitRecord } from '@pasado/core/record/record'

/** What is asked of a home: the parts of a record that channels hang on, with its models. */
export interface HomeAsk {
  record: VisitRecord
  models: [string, Model][]
  set24: readonly number[]
  radar: boolean
}

/** What is asked without a visit: radios that all hear each other at one signal, dBm. */
export interface BareAsk extends Omit<ChannelQuestion, 'hears'> {
  hearDbm: number
}

export type ChannelsAsk = { id: number } & ({ home: HomeAsk } | { bare: BareAsk })
export type ChannelsFound = HomeChannels | ChannelPlan | null

addEventListener('message', (event: MessageEvent<ChannelsAsk>) => {
  const { id } = event.data
  let found: ChannelsFound = null
  try {
    if ('home' in event.data) {
      const { record, models, set24, radar } = event.data.home
      found = planHomeChannels(record, new Map(models), { set24, radar })
    } else {
      const { hearDbm, ...question } = event.data.bare
      found = planChannels({ ...question, hears: () => hearDbm })
    }
  } catch (error) {
    if (!(error instanceof RangeError)) throw error
  }
  postMessage({ id, found })
})

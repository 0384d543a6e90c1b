import type { Model } from '@pasado/core/catalogue/model'
import { planChannels, type ChannelPlan, type ChannelQuestion } from '@pasado/core/radio/channel-plan'
import { planHomeChannels, type HomeChannels } from '@pasado/core/work/channels/home-channels'
import type { VisitRecord } from '@pasado/core/record/record'
import { answering } from './answering'

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

export type ChannelsAsk = { home: HomeAsk } | { bare: BareAsk }
export type ChannelsFound = HomeChannels | ChannelPlan | null

function found(asked: ChannelsAsk): ChannelsFound {
  if ('home' in asked) {
    const { record, models, set24, radar } = asked.home
    return planHomeChannels(record, new Map(models), { set24, radar })
  }
  const { hearDbm, ...question } = asked.bare
  return planChannels({ ...question, hears: () => hearDbm })
}

answering((asked: ChannelsAsk): ChannelsFound => {
  try {
    return found(asked)
  } catch (error) {
    // A radio that may take no channel: nothing is found, which is no failure.
    if (error instanceof RangeError) return null
    throw error
  }
})

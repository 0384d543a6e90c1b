import type { Model } from '@pasado/core/catalogue/model'
import { planHomeChannels, type HomeChannels } from '@pasado/core/radio/home-channels'
import type { VisitRecord } from '@pasado/core/record/record'

/** What is asked: the parts of a record that channels hang on, with its models. */
export interface ChannelsAsk {
  id: number
  record: VisitRecord
  models: [string, Model][]
  set24: readonly number[]
  radar: boolean
}

addEventListener('message', (event: MessageEvent<ChannelsAsk>) => {
  const { id, record, models, set24, radar } = event.data
  let found: HomeChannels | null = null
  try { found = planHomeChannels(record, new Map(models), { set24, radar }) } catch (error) { if (!(error instanceof RangeError)) throw error }
  postMessage({ id, found })
})

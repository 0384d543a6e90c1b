import type { Model } from '../catalogue/model'
import type { KnownModel } from './reading'

/** What the parser of labels needs to know of models. */
export function knownModels(models: Iterable<Model>): KnownModel[] {
  return [...models].map(({ id, maker, name, masks, defaultSsidPrefix }) => ({
    id,
    maker,
    name,
    masks,
    ssidPrefix: defaultSsidPrefix
  }))
}

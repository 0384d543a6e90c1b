import type { KitInVisit } from '../../record/record'
import { modelKey, type BoxItem, type Catalogue, type Model } from '../../catalogue/model'

/** A box that a model comes in. */
export interface KitBox {
  id: string
  name: string
  items: readonly BoxItem[]
}

/** The id of the box of a single unit. */
export const singleBox = 'single'

/** Every box that a model comes in, that of a single unit first. */
export function boxesOf(model: Model): KitBox[] {
  return [{ id: singleBox, name: 'single', items: model.box }, ...(model.kits ?? [])]
}

/** What should be in a box of a visit, and what the box is called; null where the catalogue does not hold it. */
export function contentsOf(
  box: KitInVisit,
  catalogue: Catalogue
): { title: string; model: Model; items: readonly BoxItem[] } | null {
  const { model: id, modelVersion, kit } = box.facts
  const model = id === undefined ? undefined : catalogue.get(modelKey(id, modelVersion ?? 1))
  const found = model && boxesOf(model).find((candidate) => candidate.id === (kit ?? singleBox))
  return found
    ? {
        title: `${model.maker} ${model.name}${found.id === singleBox ? '' : `, ${found.name}`}`,
        model,
        items: found.items
      }
    : null
}

/** A unit that a box holds and that is not recorded yet. */
export interface UnitToAdd {
  model: Model
  /** A name for it: that of its model, numbered where the box holds several. */
  name: string
}

/**
 * The units of a box that are not recorded yet.
 * @param newest the model in its newest version, for models that the box names without a version
 * @param recorded the models of the units that are said to come from this box
 */
export function unitsToAdd(
  items: readonly BoxItem[],
  newest: (id: string) => Model | undefined,
  recorded: readonly string[]
): UnitToAdd[] {
  const left = [...recorded]
  return items.flatMap(({ unit, count }) => {
    const model = unit === undefined ? undefined : newest(unit)
    if (!model) return []
    return Array.from({ length: count }, (_, at) => {
      const held = left.indexOf(model.id)
      if (held >= 0) {
        left.splice(held, 1)
        return null
      }
      return { model, name: count === 1 ? model.name : `${model.name} ${at + 1}` }
    }).filter((candidate) => candidate !== null)
  })
}

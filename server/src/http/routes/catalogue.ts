import { catalogueApi } from '@pasado/core/api/catalogue'
import { currentStandard, retiredModels, addModel, allModels, retireModel } from '../../db/catalogue'
import { routesOf } from '../route'
import { conflictingState, notFound, refused } from '../../problem'
import { breaksOnMove } from '@pasado/core/work/units/breaks-on-move'
import { type Model } from '@pasado/core/catalogue/model'
import { modelFaultsOf } from '@pasado/core/catalogue/validate'
import { canonicalJson } from '@pasado/core/values/canonical'
import { transactionOn } from '../../db/pool'
import { openVisitsWithModel } from '../../db/units'
import { readVisit } from '../../logbook/read'
import type { Services } from '../../services'

/** Models: what there is, publishing, taking in. */
export const catalogueRoutes = routesOf(catalogueApi, {
  readCatalogue: async ({ services }) => ({
    json: {
      models: await allModels(services.db),
      retired: await retiredModels(services.db),
      standard: await currentStandard(services.db)
    }
  }),
  publishModel: async ({ services, body }) => {
    const faults = modelFaultsOf(body.model)
    if (faults.length) throw refused(faults.map(({ path, message }) => ({ path: ['model', ...path], message })))
    const newest = Math.max(
      0,
      ...(await allModels(services.db)).filter(({ id }) => id === body.model.id).map(({ version }) => version)
    )
    if (body.model.version !== newest + 1)
      throw refused([
        { path: ['model', 'version'], message: `must be ${newest + 1}, the next after the newest of this model` }
      ])
    if (!(await addModel(services.db, body.model)))
      throw conflictingState(
        'published-meanwhile',
        'Somebody published this version just now; look at it, then publish the next.'
      )
    return { json: { id: body.model.id, version: body.model.version } }
  },
  offerModel: async ({ services, person, params, body }) => {
    if (!(await allModels(services.db)).some(({ id }) => id === params.id)) throw notFound('model')
    await retireModel(services.db, params.id, !body.offered, person, new Date())
    return {}
  },
  readModelEffect: async ({ services, body }) => ({ json: { visits: await effectOf(services, body.model) } }),
  importModels: async ({ services, body }) => ({ json: await importModels(services, body.catalogue.models) })
})

async function effectOf({ db, logbook }: Services, next: Model) {
  return Promise.all(
    (await openVisitsWithModel(db, next.id)).map(async (visit) => {
      const { record } = await readVisit(logbook, visit.visit)
      const units = Object.values(record.units).filter(
        ({ facts, removedSeq }) => removedSeq === null && facts.model === next.id
      )
      return {
        ...visit,
        units: units.map((unit) => ({
          name: unit.facts.name ?? unit.id,
          version: unit.facts.modelVersion ?? 1,
          breaks: breaksOnMove(unit, next)
        }))
      }
    })
  )
}

async function importModels(
  { db }: Services,
  models: readonly Model[]
): Promise<{ published: string[]; known: number }> {
  return transactionOn<never, { published: string[]; known: number }>(db, null, async (connection) => {
    const held = new Map<string, string>()
    const newest = new Map<string, number>()
    for (const model of await allModels(connection)) {
      held.set(`${model.id}@${model.version}`, canonicalJson(model))
      newest.set(model.id, Math.max(newest.get(model.id) ?? 0, model.version))
    }
    const published: string[] = []
    let known = 0
    const problems: { path: (string | number)[]; message: string }[] = []
    const inOrder = models.map((model, at) => ({ model, at })).sort((a, b) => a.model.version - b.model.version)
    for (const { model, at } of inOrder) {
      const key = `${model.id}@${model.version}`
      if (held.has(key)) {
        if (held.get(key) === canonicalJson(model)) known++
        else
          problems.push({
            path: ['catalogue', 'models', at],
            message: `is version ${model.version} of ${model.id}, which is published with other contents; give it version ${newest.get(model.id)! + 1}`
          })
        continue
      }
      for (const { path, message } of modelFaultsOf(model))
        problems.push({ path: ['catalogue', 'models', at, ...path], message })
      if (model.version !== (newest.get(model.id) ?? 0) + 1)
        problems.push({
          path: ['catalogue', 'models', at, 'version'],
          message: `must be ${(newest.get(model.id) ?? 0) + 1}, the next after the newest of this model`
        })
      newest.set(model.id, model.version)
      await addModel(connection, model)
      published.push(key)
    }
    if (problems.length) throw refused(problems)
    return { published, known }
  })
}

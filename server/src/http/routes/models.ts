import { conflictingState, notFound, refused } from '../../problem'
import { z } from 'zod'
import { catalogueFile } from '@pasado/core/catalogue/file'
import { breaksOnMove } from '@pasado/core/work/units/breaks-on-move'
import { model, type Model } from '@pasado/core/catalogue/model'
import { modelFaultsOf } from '@pasado/core/catalogue/validate'
import { canonicalJson } from '@pasado/core/values/canonical'
import { addModel, allModels, retireModel } from '../../db/catalogue'
import { transactionOn } from '../../db/pool'
import { openVisitsWithModel } from '../../db/units'
import { readVisit } from '../../logbook/read'
import type { Services } from '../../services'
import { route } from '../route'

/** Publishing models. */
export const modelRoutes = [
  route({
    method: 'post',
    path: '/models',
    does: 'Publish a model, or the next version of one',
    roles: ['lead'],
    body: z.strictObject({ model }),
    run: async ({ services, body }) => {
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
      return { status: 201, json: { id: body.model.id, version: body.model.version } }
    }
  }),
  route({
    method: 'post',
    path: '/models/:id/offered',
    does: 'Take a model out of what is offered for new visits, or put it back; records keep the versions that they name',
    roles: ['lead'],
    params: z.strictObject({ id: z.string().max(60) }),
    body: z.strictObject({ offered: z.boolean() }),
    run: async ({ services, person, params, body }) => {
      if (!(await allModels(services.db)).some(({ id }) => id === params.id)) throw notFound('model')
      await retireModel(services.db, params.id, !body.offered, person, new Date())
      return {}
    }
  }),
  route({
    method: 'post',
    path: '/models/effect',
    does: 'Open visits with units of a model, and what of their records this version would no longer know',
    roles: ['lead'],
    body: z.strictObject({ model }),
    run: async ({ services, body }) => ({ json: { visits: await effectOf(services, body.model) } })
  }),
  route({
    method: 'post',
    path: '/models/import',
    does: 'Take in a pasado.catalogue/1 file: versions that are here already are left, the next ones published, all or none',
    roles: ['lead'],
    takes: 'file',
    body: z.strictObject({ catalogue: catalogueFile }),
    run: async ({ services, body }) => ({ json: await importModels(services, body.catalogue.models) })
  })
]

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
    for (const one of await allModels(connection)) {
      held.set(`${one.id}@${one.version}`, canonicalJson(one))
      newest.set(one.id, Math.max(newest.get(one.id) ?? 0, one.version))
    }
    const published: string[] = []
    let known = 0
    const problems: { path: (string | number)[]; message: string }[] = []
    const inOrder = models.map((one, at) => ({ one, at })).sort((a, b) => a.one.version - b.one.version)
    for (const { one, at } of inOrder) {
      const key = `${one.id}@${one.version}`
      if (held.has(key)) {
        if (held.get(key) === canonicalJson(one)) known++
        else
          problems.push({
            path: ['catalogue', 'models', at],
            message: `is version ${one.version} of ${one.id}, which is published with other contents; give it version ${newest.get(one.id)! + 1}`
          })
        continue
      }
      for (const { path, message } of modelFaultsOf(one))
        problems.push({ path: ['catalogue', 'models', at, ...path], message })
      if (one.version !== (newest.get(one.id) ?? 0) + 1)
        problems.push({
          path: ['catalogue', 'models', at, 'version'],
          message: `must be ${(newest.get(one.id) ?? 0) + 1}, the next after the newest of this model`
        })
      newest.set(one.id, one.version)
      await addModel(connection, one)
      published.push(key)
    }
    if (problems.length) throw refused(problems)
    return { published, known }
  })
}

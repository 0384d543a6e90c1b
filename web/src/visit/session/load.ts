import type { WholeVisit } from '@pasado/core/api/visits'
import type { Model } from '@pasado/core/catalogue/model'
import { ask } from '../../app/api'
import { useSession } from '../../app/session'
import { copyOf, takeAlong, takenKeys } from '../../app/offline-copy'

/** A visit as the server gives it: its logbook, the standard it is checked by, and the models in the versions that it names. */
export type LoadedVisit = Pick<WholeVisit, 'entries' | 'standard' | 'models'> &
  // Left out by copies from before.
  Partial<Pick<WholeVisit, 'verdicts' | 'foreign' | 'broken'>>

/** What a visit is opened with: itself, and every model there is to choose from. */
export type Loaded = LoadedVisit & {
  all: Model[]
  /** When the server gave it; null where that is now. */
  asOf: number | null
}

/** As long as this the server is waited for where the visit is on the device. */
const SLOW_MS = 6_000
const visitKey = (id: string) => `visit ${id}`

/** What is no longer offered is not chosen any more; what a visit names comes with the visit. */
const offered = (models: Model[], retired: readonly string[]) => models.filter(({ id }) => !retired.includes(id))

/** Asks the server for a visit, and takes it along. @throws ApiProblem */
export async function fetchVisit(id: string): Promise<Loaded> {
  const [visit, { models, retired = [] }] = await Promise.all([
    ask('GET /visits/:id', { params: { id } }),
    ask('GET /catalogue')
  ])
  const all = offered(models, retired)
  void takeVisit(id, visit)
  void takeAlong('catalogue', all)
  return { ...visit, all, asOf: null }
}

/** The visit as it was taken along; null where it was not. */
export async function takenVisit(id: string): Promise<Loaded | null> {
  const [visit, all] = await Promise.all([copyOf<LoadedVisit>(visitKey(id)), copyOf<Model[]>('catalogue')])
  return visit && all ? { ...visit.value, all: all.value, asOf: visit.at } : null
}

/** The visit from the server; what was taken along of it where there is no connection, or one so slow that nobody would wait. @throws ApiProblem where there is neither */
export async function loadVisit(id: string): Promise<Loaded> {
  const fetching = fetchVisit(id)
  const slow = new Promise<'slow'>((resolve) => setTimeout(() => resolve('slow'), SLOW_MS))
  try {
    const first = await Promise.race([fetching, slow])
    return first === 'slow' ? ((await takenVisit(id)) ?? (await fetching)) : first
  } catch (error) {
    const taken = isPassing(error) ? await takenVisit(id) : null
    if (taken) return taken
    throw error
  } finally {
    fetching.catch(() => undefined)
  }
}

/** Takes a visit along as it stands now; not where the session has ended meanwhile. */
export async function takeVisit(
  id: string,
  { entries, standard, models, verdicts = null, foreign = null, broken = null }: LoadedVisit
): Promise<void> {
  if (useSession.getState().me)
    await takeAlong(visitKey(id), { entries, standard, models, verdicts, foreign, broken } satisfies LoadedVisit)
}

/** Takes visits along that are not on the device as they stand now; one after another, so that nothing else waits for it. */
export async function takeVisitsAlong(visits: readonly { id: string; seq: number }[]): Promise<void> {
  try {
    if (visits.length > 0) {
      const { models, retired = [] } = await ask('GET /catalogue')
      await takeAlong('catalogue', offered(models, retired))
    }
    for (const { id, seq } of visits) {
      const copy = await copyOf<LoadedVisit>(visitKey(id))
      if ((copy?.value.entries.at(-1)?.seq ?? -1) < seq)
        await takeVisit(id, await ask('GET /visits/:id', { params: { id } }))
    }
  } catch {
    // The connection went, or the session: the next look at the day goes on with it.
  }
}

/** Which of these visits are on the device. */
export async function whichAreTaken<V extends { id: string }>(visits: readonly V[]): Promise<V[]> {
  const taken = new Set(await takenKeys())
  return visits.filter(({ id }) => taken.has(visitKey(id)))
}

const isPassing = (error: unknown) => (error as { passing?: boolean }).passing === true

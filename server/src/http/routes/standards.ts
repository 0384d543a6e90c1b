import { routesOf } from '../route'
import { standardsApi } from '@pasado/core/api/standards'
import { conflictingState, refused } from '../../problem'
import { standardProblems } from '@pasado/core/rules/check-standard'
import { evaluate, type Finding } from '@pasado/core/rules/evaluate'
import type { Standard } from '@pasado/core/policy/standard'
import { allStandards, currentStandard, publishStandard } from '../../db/catalogue'
import { sealedBefore } from '../../db/visits'
import { judgedVisit } from '../../logbook/read'

/** So many sealed visits are judged in one call, and no more than so many in all. */
const AT_ONCE = 20

function checked(value: unknown): Standard {
  const problems = standardProblems(value)
  if (problems.length) throw refused(problems.map(({ path, message }) => ({ path: ['standard', ...path], message })))
  return value as Standard
}

/** The company's standard: its versions, what a draft would have changed, publishing, and moving an open visit. */
export const standardsRoutes = routesOf(standardsApi, {
  listStandards: async ({ services }) => ({ json: { standards: await allStandards(services.db) } }),
  readNewestStandard: async ({ services }) => ({ json: { standard: await currentStandard(services.db) } }),
  publishStandard: async ({ services, body: { standard: given } }) => {
    const standard = checked(given)
    const current = await currentStandard(services.db)
    if (standard.id !== current.id)
      throw refused([{ path: ['standard', 'id'], message: `must be ${current.id}, the company's standard` }])
    if (standard.version !== current.version + 1)
      throw refused([
        { path: ['standard', 'version'], message: `must be ${current.version + 1}, the next after the newest` }
      ])
    if (!standard.note?.trim())
      throw refused([{ path: ['standard', 'note'], message: 'is missing: say why this version is made' }])
    if (!(await publishStandard(services.db, standard)))
      throw conflictingState(
        'published-meanwhile',
        'Somebody published this version just now; look at it, then publish the next.'
      )
    return { json: { id: standard.id, version: standard.version } }
  },
  readStandardEffect: async ({ services, body: { standard: given, before } }) => {
    const draft = checked(given)
    const visits = await services.reads.ask((db) =>
      sealedBefore(db, before ? new Date(before) : new Date(Date.now() + 1000), AT_ONCE)
    )
    const changes: {
      rule: string
      name: string
      subject: string | null
      visit: string
      street: string
      was: string
      is: string
    }[] = []
    for (const { id: visit, street } of visits) {
      const { record, history, findings } = await judgedVisit(services.logbook, visit)
      changes.push(
        ...changed(
          findings,
          evaluate({ record, history }, await services.logbook.states.catalogueFor(services.db, record), draft)
        ).map((change) => ({ ...change, visit, street }))
      )
    }
    return {
      json: { looked: visits.length, next: visits.length === AT_ONCE ? visits.at(-1)!.sealedAt : null, changes }
    }
  }
})

/** Findings whose outcome or weight is another under a draft. */
function changed(
  was: readonly Finding[],
  is: readonly Finding[]
): { rule: string; name: string; subject: string | null; was: string; is: string }[] {
  const words = (finding: Finding | undefined) =>
    finding
      ? `${finding.outcome}${finding.outcome === 'breaks' || finding.outcome === 'unproven' ? `, ${finding.level}` : ''}`
      : 'not in force'
  const key = ({ rule, subject }: Finding) => `${rule} ${subject?.id ?? ''}`
  const after = new Map(is.map((finding) => [key(finding), finding]))
  const before = new Map(was.map((finding) => [key(finding), finding]))
  return [...new Set([...before.keys(), ...after.keys()])].flatMap((item) => {
    const [a, b] = [before.get(item), after.get(item)]
    // A rule of the house that there was not yet could not be answered then.
    if (a === undefined && b?.rule.startsWith('own-')) return []
    if (
      words(a) === words(b) ||
      // A rule that came with the program and holds would have stood in nobody's way.
      (a === undefined && (b?.outcome === 'not-here' || b?.outcome === 'holds')) ||
      (b === undefined && a?.outcome === 'not-here')
    )
      return []
    const shown = (b ?? a)!
    return [{ rule: shown.rule, name: shown.name, subject: shown.subject?.name ?? null, was: words(a), is: words(b) }]
  })
}

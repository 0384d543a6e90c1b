import { equipmentOf } from '@pasado/core/record/equipment'
import { byMaker, newestModels } from '@pasado/core/catalogue/model'
import { standing, unitName } from '@pasado/core/record/record'
import { stageNames, stages } from '@pasado/core/record/stages'
import { titleOf } from '@pasado/core/agenda/title'
import { blocks, heaviestFirst } from '@pasado/core/rules/weigh'
import { benchPages } from '../calculators/Calculators'
import { doingsOf } from '../visit/frame/commands'
import { modelOf } from '@pasado/core/catalogue/model'
import { addressOf } from '../visit/session/place'
import { useVisit } from '../visit/session/visit-state'
import { write } from '../visit/session/write'

/** Something that can be done from wherever one stands. */
interface Offer {
  id: string
  label: string
  /** What stands small behind the words. */
  hint?: string
  key?: string
  /** What else it is found by. */
  also?: string
  act: () => void
}

export interface OfferGroup {
  name: string
  offers: Offer[]
}

type Go = (path: string) => void

/** What the visit that is open offers: its doings, stages, waits, units, and what its docket asks for. */
export function offersOfVisit(visit: string, go: Go): OfferGroup[] {
  const { record, findings, catalogue } = useVisit.getState()
  if (record.lastSeq === 0) return []
  const open = findings.filter(blocks)
  const waits = Object.values(record.waits).filter(({ endedAt }) => endedAt === null)
  const sealed = record.seal !== null
  return [
    {
      name: 'To mend',
      offers: heaviestFirst(open).flatMap((finding) =>
        finding.place
          ? [
              {
                id: `mend ${finding.rule} ${finding.subject?.id ?? ''}`,
                label: titleOf(finding),
                hint: stageNames[finding.place.stage],
                act: () => go(addressOf(visit, finding.place!))
              }
            ]
          : []
      )
    },
    {
      name: 'This visit',
      offers: [
        ...waits
          .filter(() => !sealed)
          .map((wait) => ({
            id: `wait ${wait.id}`,
            label: `End the wait: ${wait.what}`,
            hint: equipmentOf(record, wait.unit ?? undefined)?.name,
            act: () => write('wait.ended', { id: wait.id })
          })),
        ...doingsOf(visit, go)
          .filter(({ key }) => !(sealed && (key === 'w' || key === 'u')))
          .map(({ key, label, act }) => ({
            id: `doing ${key}`,
            label: label[0]!.toUpperCase() + label.slice(1),
            key,
            act
          }))
      ]
    },
    {
      name: 'Stages',
      offers: stages.map((stage, at) => {
        const left = open.filter((finding) => finding.stage === stage).length
        return {
          id: `stage ${stage}`,
          label: stageNames[stage],
          hint: left ? `${left} open` : undefined,
          key: String(at + 1),
          act: () => go(`/visit/${visit}/${stage}`)
        }
      })
    },
    {
      name: 'Units',
      offers: standing(record.units).map((unit) => ({
        id: `unit ${unit.id}`,
        label: unitName(unit),
        hint: modelOf(unit, catalogue)?.name,
        act: () => go(`/visit/${visit}/kit?unit=${unit.id}`)
      }))
    }
  ]
}

/** The views of the program. */
export function offersOfViews(lead: boolean, go: Go): OfferGroup {
  const to = (path: string, label: string, hint?: string): Offer => ({
    id: `view ${path}`,
    label,
    hint,
    act: () => go(path)
  })
  return {
    name: 'Go to',
    offers: [
      to('/', 'Day'),
      to('/visit/new', 'New visit'),
      to('/homes', 'Homes'),
      to('/catalogue', 'Catalogue'),
      to('/standard', 'Standard'),
      to('/standard/figures', 'Figures of the standard', 'how often each rule breaks'),
      to('/day/ways', 'How far it is', 'minutes between homes, ferries'),
      to('/practice', 'Practice', 'the simulated house'),
      ...(lead ? [to('/people', 'People', 'who works here')] : []),
      ...benchPages.map(({ id, name, description }) => to(`/bench/${id}`, `Bench: ${name}`, description))
    ]
  }
}

/** The models of the catalogue, each in its newest version. */
export function offersOfModels(models: Parameters<typeof newestModels>[0], go: Go): OfferGroup {
  return {
    name: 'Models',
    offers: [...newestModels(models).values()].sort(byMaker).map(({ id, maker, name }) => ({
      id: `model ${id}`,
      label: `${maker} ${name}`,
      act: () => go(`/catalogue/${id}`)
    }))
  }
}

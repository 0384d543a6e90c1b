import { modelOf, type Catalogue } from '../catalogue/model'
import type { LampLook } from '../catalogue/look'
import { readLamps } from '../work/units/unit-lamps'
import { choices, choiceNames } from '../record/answers'
import { standing, unitName, type VisitRecord } from '../record/record'
import type { Finding } from '../rules/evaluate'

/** What stands at a home now, by its latest sealed visit: for whoever answers the telephone. */
export interface HomeNow {
  visit: string
  sealedAt: string
  secretsErased: boolean
  units: {
    id: string
    name: string
    model: string | null
    modelName: string | null
    role: string | null
    place: string | null
    serial: string | null
    mac: string | null
    firmware: string | null
    lamps: LampLook[]
    /** What the lamps seen last mean. */ means: string | null
  }[]
  networks: { id: string; ssid: string; use: string | null; bands: string[]; security: string | null }[]
  choices: { choice: string; answer: string }[]
  /** What was left with a reason, and until when it is to be put right. */
  left: { rule: string; about: string; kind: 'waived' | 'acknowledged'; reason: string; until: string | null }[]
}

/** Draws what stands now from a sealed record; null where it is not sealed. */
export function homeNowOf(record: VisitRecord, findings: readonly Finding[], catalogue: Catalogue): HomeNow | null {
  if (!record.seal) return null
  return {
    visit: record.visit.id,
    sealedAt: record.seal.at,
    secretsErased: record.secretsErased,
    units: standing(record.units).map((unit) => {
      const model = modelOf(unit, catalogue)
      return {
        id: unit.id,
        name: unitName(unit),
        model: unit.facts.model ?? null,
        modelName: model ? `${model.maker} ${model.name}` : null,
        role: unit.facts.role ?? null,
        place: unit.facts.place ?? null,
        serial: unit.facts.serial ?? null,
        mac: unit.facts.mac ?? null,
        firmware: unit.facts.firmwareAfter ?? unit.facts.firmwareBefore ?? null,
        lamps: unit.sightings.at(-1)?.lamps ?? [],
        means: model ? (readLamps(unit, model).state?.meaning ?? null) : null
      }
    }),
    networks: standing(record.networks).flatMap(({ id, facts }) =>
      facts.ssid === undefined
        ? []
        : [{ id, ssid: facts.ssid, use: facts.use ?? null, bands: facts.bands ?? [], security: facts.security ?? null }]
    ),
    choices: choiceNames.flatMap((choice) => {
      const said = record.choices[choice]
      return said ? [{ choice: choices[choice], answer: said.answer }] : []
    }),
    left: findings.flatMap(({ granted, name, rule, subject }) =>
      granted
        ? [
            {
              rule,
              about: subject ? `${subject.name}: ${name.toLowerCase()}` : name,
              kind: granted.kind,
              reason: granted.reason,
              until: granted.until ?? null
            }
          ]
        : []
    )
  }
}

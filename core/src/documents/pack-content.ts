import { isGoodFor } from '../work/units/good-look'
import { z } from 'zod'
import { modelOf, type Catalogue, type Model, type ModelState } from '../catalogue/model'
import { lampColours, lampPatterns, type LampLook } from '../catalogue/look'
import { planOf } from '../work/plan/home-plan'
import { placedUnits } from '../work/plan/placed'
import { planSvg } from '../work/plan/plan-svg'
import { choiceNames } from '../record/answers'
import { readLamps } from '../work/units/unit-lamps'
import { isOnPaper } from '../values/on-paper'
import { groupBy } from '../values/group-by'
import { secretFor, standing, unitName, type Network, type Secret, type Unit, type VisitRecord } from '../record/record'
import { isAccessPoint, isMeshMember } from '../work/units/known-unit'
import { passphraseOf } from '../work/wifi/passphrase'
import { wifiQr } from '../values/wifi-qr'
import { packWords, type PackLanguage, type PackWords } from './pack-words'

const networkUses = ['main', 'guest', 'office', 'equipment'] as const

const look = z.strictObject({
  lamp: z.string(),
  colour: z.string(),
  pattern: z.enum(lampPatterns),
  /** The look in words, with the lamp's name where there are several. */ words: z.string()
})

/** What a customer's pack says, whatever it is shown on: paper or a page. Secrets are in it. */
export const packContent = z.strictObject({
  format: z.literal('pasado.pack/1'),
  language: z.enum(['en', 'es']),
  customer: z.string(),
  /** The customer's name as paper shows it, where it is another. */
  customerOnPaper: z.string().optional(),
  street: z.string(),
  company: z.strictObject({ name: z.string(), phone: z.string() }),
  networks: z.array(
    z.strictObject({
      guests: z.boolean(),
      /** Left out in packs of before, where it is the home's or its guests'. */ use: z.enum(networkUses).optional(),
      ssid: z.string(),
      /** How it is said, where paper cannot show it. */ transcription: z.string().optional(),
      open: z.boolean(),
      passphrase: z.string().nullable(),
      /** What the code to join holds; null where the passphrase is not kept. */ qr: z.string().nullable()
    })
  ),
  units: z.array(
    z.strictObject({
      name: z.string(),
      place: z.string().nullable(),
      model: z.string().nullable(),
      well: z.array(look),
      wrong: z.array(z.strictObject({ looks: z.array(look), says: z.string() }))
    })
  ),
  /** Logins of the units' own pages that are the customer's; left out in packs of before. */
  logins: z
    .array(
      z.strictObject({
        units: z.array(z.string()),
        pages: z.array(z.string()),
        name: z.string().nullable(),
        password: z.string().nullable()
      })
    )
    .optional(),
  plan: z.array(z.strictObject({ storey: z.string(), svg: z.string() })),
  mesh: z.boolean(),
  /** The zone that its moments are told in; left out in packs of before. */
  zone: z.string().optional(),
  /** When the home is looked at again, ISO. */
  check: z.string().nullable(),
  choices: z.array(z.strictObject({ choice: z.enum(choiceNames), answer: z.string().nullable() })),
  telephone: z.boolean()
})
export type PackContent = z.infer<typeof packContent>
export type PackLook = z.infer<typeof look>

/** What a pack is made from. */
export interface PackParts {
  record: VisitRecord
  catalogue: Catalogue
  /** The values of the visit's secrets, by reference. */
  values: ReadonlyMap<string, string>
  company: { name: string; phone: string }
  /** The company's time zone. */
  zone?: string
}

const MOST_WRONG = 4

/** Draws the content of a pack from a record, in the language that was chosen. */
export function packContentOf({ record, catalogue, values, company, zone }: PackParts): PackContent {
  const { street = '', customerName = '', nameOnPaper, language = 'en', telephone = false } = record.brief.facts
  const units = standing(record.units)
  const [check] = Object.values(record.checks ?? {})
    .filter(({ cancelled }) => !cancelled)
    .sort((a, b) => Date.parse(a.from) - Date.parse(b.from))
  return {
    format: 'pasado.pack/1',
    language,
    customer: customerName,
    ...(nameOnPaper === undefined ? {} : { customerOnPaper: nameOnPaper }),
    street,
    company,
    networks: once(
      standing(record.networks)
        .filter(({ facts }) => facts.ssid !== undefined)
        .map((network) => networkContent(record, network, values))
    ),
    units: units.map((unit) => unitContent(unit, modelOf(unit, catalogue) ?? null, record, packWords[language])),
    logins: loginsContent(record, values),
    plan: planContent(record),
    mesh: units.filter((unit) => isMeshMember({ unit, model: modelOf(unit, catalogue) ?? null })).length >= 2,
    ...(zone === undefined ? {} : { zone }),
    check: check?.from ?? null,
    choices: choiceNames.map((choice) => ({ choice, answer: record.choices[choice]?.answer ?? null })),
    telephone
  }
}

function networkContent(
  record: VisitRecord,
  network: Network,
  values: ReadonlyMap<string, string>
): PackContent['networks'][number] {
  const { ssid, transcription, security, hidden, use } = network.facts
  const secret = passphraseOf(record, network)
  const passphrase = (secret ? values.get(secret.ref) : undefined) ?? null
  const kind = security === 'open' || security === 'wep' ? security : 'wpa'
  const canJoin = kind === 'open' || passphrase !== null
  return {
    guests: use === 'guest',
    use: use ?? 'main',
    ssid: ssid!,
    ...(transcription === undefined || isOnPaper(ssid!) ? {} : { transcription }),
    open: kind === 'open',
    passphrase: kind === 'open' ? null : passphrase,
    qr: canJoin
      ? wifiQr({
          ssid: ssid!,
          security: kind,
          ...(kind === 'open' || passphrase === null ? {} : { passphrase }),
          ...(hidden ? { hidden } : {})
        }).payload
      : null
  }
}

/** What joins the same way is one network to the customer, whoever sends it. */
function once(networks: PackContent['networks']): PackContent['networks'] {
  return [
    ...new Map(
      networks.map((network) => [
        JSON.stringify([network.ssid, network.passphrase, network.open, network.use]),
        network
      ])
    ).values()
  ]
}

/** Secrets of the pages of units that the customer keeps: every admin password, but where the company keeps those. */
export function customersLogins(record: VisitRecord): Secret[] {
  const { custody, units, secrets } = record
  if (custody?.custody === 'company-keeps' && custody.keeps?.includes('admin-password')) return []
  return Object.values(secrets).filter(
    (secret) =>
      secret.purpose === 'admin-password' &&
      secret.thing === 'unit' &&
      units[secret.id]?.removedSeq === null &&
      secretFor(record, 'admin-password', secret.id)?.ref === secret.ref
  )
}

/** The logins, those that are one given once with all their units. */
function loginsContent(record: VisitRecord, values: ReadonlyMap<string, string>): NonNullable<PackContent['logins']> {
  const all = customersLogins(record).map((secret) => {
    const unit = record.units[secret.id]!
    const host = standing(record.hosts).find(({ facts }) => facts.unit === unit.id && facts.address !== undefined)
    return {
      unit: unitName(unit),
      page: host?.facts.address ?? unit.facts.pageAddress ?? null,
      name: unit.facts.adminName ?? null,
      password: values.get(secret.ref) ?? null
    }
  })
  return [...groupBy(all, ({ name, password }) => JSON.stringify([name, password])).values()].map((group) => ({
    units: group.map(({ unit }) => unit),
    pages: [...new Set(group.flatMap(({ page }) => page ?? []))],
    name: group[0]!.name,
    password: group[0]!.password
  }))
}

/** The good look of a unit: what it was last seen to show where that is good; else the one that goes with its role; else the first of its model. */
function goodState(unit: Unit, model: Model | null): ModelState | undefined {
  if (!model) return undefined
  const seen = unit.sightings.length ? readLamps(unit, model).state : null
  if (seen && isGoodFor(seen, unit)) return seen
  const good = model.states.filter((state) => isGoodFor(state, unit))
  const fits = isAccessPoint({ unit }) ? 'as-access-point' : 'as-router'
  return (
    good.find(({ is }) => is === fits) ??
    good.find(({ is }) => is !== 'as-access-point' && is !== 'as-router') ??
    good[0]
  )
}

function unitContent(
  unit: Unit,
  model: Model | null,
  record: VisitRecord,
  words: PackWords
): PackContent['units'][number] {
  const dark = record.choices.lamp?.answer === 'off' && model?.lampsCanBeOff
  const good = goodState(unit, model)
  const wrong = (model?.states ?? [])
    .filter((state) => !state.good && state.maxMin === undefined && state.state !== model!.start)
    .slice(0, MOST_WRONG)
  const looksOf = (lamps: readonly LampLook[]): PackLook[] =>
    lamps.map((lamp) => ({ ...lamp, words: `${nameOf(lamp.lamp, model)}${words.look(lamp)}` }))
  return {
    name: unitName(unit),
    place: unit.facts.place ?? null,
    model: model ? `${model.maker} ${model.name}` : null,
    well: dark ? looksOf([{ lamp: '', colour: lampColours[0], pattern: 'off' }]) : looksOf(good?.lamps ?? []),
    wrong: wrong.map((state) => ({ looks: looksOf(state.lamps), says: words.state(state) }))
  }
}

/** The name of a lamp before its look, where a model has several. */
function nameOf(lamp: string, model: Model | null): string {
  return !model || lamp === '' || model.lamps.length < 2
    ? ''
    : `${model.lamps.find(({ id }) => id === lamp)?.name ?? lamp} `
}

/** The plan of each storey that holds a unit, where the home was drawn. */
function planContent(record: VisitRecord): PackContent['plan'] {
  const drawn = planOf(record)
  // What was complained of is the technician's note, not the customer's.
  const plan = { ...drawn, rooms: drawn.rooms.map((room) => ({ ...room, complained: false })) }
  const placed = placedUnits(record, plan)
  return plan.storeys.flatMap(({ id, name }) => {
    const units = placed
      .filter(({ storey }) => storey === id)
      .map(({ x, y, storey, unit }) => ({ x, y, storey, name: unitName(unit) }))
    return units.length ? [{ storey: name, svg: planSvg(plan, { storey: id, title: name, units }) }] : []
  })
}

/** The words of a pack's language. */
export const wordsOfPack = (language: PackLanguage): PackWords => packWords[language]

/** When the home is looked at again, in words; null where no look is booked. */
export function checkWords({ check, language, zone }: Pick<PackContent, 'check' | 'language' | 'zone'>): string | null {
  return check === null
    ? null
    : new Intl.DateTimeFormat(packWords[language].locale, {
        ...(zone === undefined ? {} : { timeZone: zone }),
        weekday: 'long',
        day: 'numeric',
        month: 'long',
        hour: '2-digit',
        minute: '2-digit'
      }).format(new Date(check))
}

/** What the customer chose, choice by choice, in the words of the pack. */
export function choiceWords({
  choices,
  language
}: Pick<PackContent, 'choices' | 'language'>): { choice: string; answer: string }[] {
  const words = packWords[language]
  return choices.map(({ choice, answer }) => ({
    choice: words.choices[choice],
    answer: answer === null ? words.notAsked : (words.answers[answer] ?? answer)
  }))
}

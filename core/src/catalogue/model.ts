import { bands } from '../values/band'
import { z } from 'zod'
import { lampLooks } from './look'
import { maskProblem } from '../values/mask'

const slug = z
  .string()
  .regex(/^[a-z0-9]+(?:-[a-z0-9]+)*$/, 'must be lower-case words joined by hyphens')
  .max(60)
const line = z.string().min(1).max(300)
const mask = z
  .string()
  .min(1)
  .max(60)
  .superRefine((text, context) => {
    const message = maskProblem(text)
    if (message) context.addIssue({ code: 'custom', message })
  })
const minutes = z
  .number()
  .min(0)
  .max(24 * 60)

/** What a unit can be in a home's network. */
export const roles = [
  'modem',
  'gateway',
  'router',
  'node',
  'extender',
  'access-point',
  'switch',
  'powerline-adapter',
  'controller'
] as const
export type Role = (typeof roles)[number]

/** How a unit can be set up. */
export const methodKinds = [
  'app',
  'push-button',
  'own-page',
  'utility',
  'adoption',
  'powerline-copy',
  'activation',
  'access-point'
] as const

/** What a setup method may need before it can start, in the technician's words. */
export const methodNeeds = {
  'app-latest': "the maker's app at its latest version",
  'customer-account': "an account that is the customer's own",
  bluetooth: 'Bluetooth on',
  'mobile-data-off': 'mobile data off: the phone must stay on the unit’s network',
  'mobile-data-on': 'mobile data on: the line is down meanwhile',
  location: 'location permission for the app',
  'local-network': 'local-network permission for the app',
  laptop: 'a laptop with a network port',
  controller: 'the controller in reach',
  'line-credentials': "the provider's login"
} as const
export type MethodNeed = keyof typeof methodNeeds

/** What a unit can be doing, whatever its lamps make of it. */
export const conditions = [
  'off',
  'booting',
  'ready',
  'pairing',
  'updating',
  'good',
  'weak',
  'no-link',
  'no-internet',
  'failed',
  'resetting',
  'lamps-off',
  'radio-off',
  'line-seeking',
  'line-training',
  'line-login',
  'login-refused',
  'no-line',
  'as-router',
  'as-access-point',
  'over-budget'
] as const
export type Condition = (typeof conditions)[number]

const state = z.strictObject({
  state: slug,
  lamps: lampLooks,
  /** What the look means on this model, and what to do about it. */
  meaning: line,
  action: line,
  good: z.boolean(),
  /** In which roles it is a good one, where not in all. */
  goodAs: z.array(z.enum(roles)).min(1).optional(),
  /** What the unit is doing when it looks like that, for the simulated house; left out where nobody said. */
  is: z.enum(conditions).optional(),
  usualMin: minutes.optional(),
  maxMin: minutes.optional()
})

/** One kind of thing in a box. */
const boxItem = z.strictObject({
  item: line,
  count: z.int().min(1),
  /** The model that this item is a unit of, where it is one. */
  unit: slug.optional(),
  /** True for the power adapters of the units. */
  adapter: z.boolean().optional()
})
export type BoxItem = z.infer<typeof boxItem>

const method = z.strictObject({
  id: slug,
  name: line,
  kind: z.enum(methodKinds),
  /** In which roles a unit can be set up so, where not in all. */
  as: z.array(z.enum(roles)).min(1).optional(),
  needs: z.array(z.enum(Object.keys(methodNeeds) as [MethodNeed, ...MethodNeed[]])),
  steps: z
    .array(
      z.strictObject({
        do: line,
        expect: slug.optional(),
        wait: z.strictObject({ leastMin: minutes, usualMin: minutes, mostMin: minutes }).optional(),
        ifNot: line.optional()
      })
    )
    .min(1)
})

/** A model of the catalogue: everything the program knows about a kind of unit. Its version rises with each change. */
export const model = z.strictObject({
  format: z.literal('pasado.model/1'),
  id: slug,
  version: z.int().min(1),
  maker: line,
  name: line,
  /** Members of one family can form a mesh with each other; null where the model meshes with nothing. */
  family: slug.nullable(),
  roles: z.array(z.enum(roles)).min(1),
  /** What is in the box of a single unit. */
  box: z.array(boxItem),
  /** Other boxes it comes in: packs of several, sets with other models. */
  kits: z.array(z.strictObject({ id: slug, name: line, items: z.array(boxItem).min(1) })).optional(),
  /** How a unit is told from another that looks the same. */
  twin: line.optional(),
  power: z.strictObject({ plug: line, volts: z.number().positive(), amps: z.number().positive() }).nullable(),
  ports: z.array(
    z.strictObject({
      id: slug,
      name: line,
      colour: line,
      kind: z.enum(['internet', 'lan', 'coax', 'telephone-line', 'fibre', 'telephone', 'usb', 'mains']),
      mbps: z.number().positive().optional(),
      powerOutW: z.number().min(0).optional(),
      powerInClass: z.int().min(1).max(8).optional()
    })
  ),
  /** What all powered ports together can give, where it has some. */
  powerBudgetW: z.number().positive().optional(),
  buttons: z.array(
    z.strictObject({
      id: slug,
      name: line,
      presses: z.array(
        z.strictObject({
          leastS: z.number().min(0),
          mostS: z.number().positive().nullable(),
          does: line,
          /** True where it begins pairing, with whatever asks for it. */
          pairs: z.boolean().optional(),
          confirms: slug.optional()
        })
      )
    })
  ),
  lamps: z.array(z.strictObject({ id: slug, name: line })),
  states: z.array(state).min(1),
  moves: z.array(z.strictObject({ from: slug, to: slug })),
  start: slug,
  lampsCanBeOff: z.boolean(),
  /** True where its access-point mode switches its DHCP server off by itself. */
  modeStopsDhcp: z.boolean().optional(),
  methods: z.array(method),
  prompts: z.array(z.strictObject({ id: slug, text: line })),
  /** The kinds of field on the unit's label, never their values. */
  label: z.array(z.enum(['model', 'serial', 'mac', 'ssid', 'key', 'setup-code', 'address', 'login'])),
  /** What values on the label look like, as masks of `fitsMask`. */
  masks: z
    .strictObject({
      serial: mask.optional(),
      mac: mask.optional(),
      key: mask.optional(),
      setupCode: mask.optional(),
      password: mask.optional()
    })
    .optional(),
  /** How the network names of a unit fresh from its box begin; null where it has none. */
  defaultSsidPrefix: z.string().min(1).max(32).nullable(),
  radios: z.array(
    z.strictObject({
      band: z.enum(bands),
      widthsMHz: z.array(z.union([z.literal(20), z.literal(40), z.literal(80), z.literal(160)])).min(1),
      streams: z.int().min(1).max(8),
      powerDbm: z.number().min(-10).max(36),
      countries: z.array(z.string().regex(/^[A-Z]{2}$/))
    })
  ),
  /** Of how many members a mesh of it may be: null where of any number, left out where its maker does not say. */
  mesh: z.strictObject({ members: z.int().min(1).nullable().optional(), hops: z.int().min(1) }).nullable(),
  updates: z.enum(['automatic', 'managed', 'either', 'none']),
  /** What it is made to be put on, where that is no shelf, and between which heights; without them at any. */
  mount: z
    .strictObject({
      on: z.enum(['ceiling', 'wall', 'wall-socket']),
      leastM: z.number().min(0).max(20).optional(),
      mostM: z.number().min(0).max(20).optional()
    })
    .optional(),
  /** Its own page insists on recovery questions for the administrator. */
  recoveryQuestions: z.boolean().optional(),
  firmware: z.strictObject({
    minimum: z.string().min(1).max(40),
    /** How long one install takes, the restart with it. */
    installMin: z.strictObject({ usual: minutes, most: minutes }).optional(),
    releases: z.array(
      z.strictObject({
        version: z.string().min(1).max(40),
        date: z.iso.date(),
        needs: z.string().min(1).max(40).optional(),
        fixesHole: z.boolean(),
        withdrawn: z.boolean()
      })
    )
  })
})

export type Model = z.infer<typeof model>
export type ModelState = Model['states'][number]

/** Models by id and version, as a record or a check needs them. */
export type Catalogue = ReadonlyMap<string, Model>

/** The key under which a catalogue holds a model. */
export function modelKey(id: string, version: number): string {
  return `${id}@${version}`
}

/** The model of a unit, a box or what stays, in the version that its record names; none where the catalogue has it not. */
export function modelOf(
  { facts: { model, modelVersion } }: { facts: { model?: string; modelVersion?: number } },
  catalogue: Catalogue
): Model | undefined {
  return catalogue.get(modelKey(model ?? '', modelVersion ?? 1))
}

/** Each of some models in its newest version, by id. */
export function newestModels(models: Iterable<Model>): Map<string, Model> {
  const newest = new Map<string, Model>()
  for (const model of models) if ((newest.get(model.id)?.version ?? 0) < model.version) newest.set(model.id, model)
  return newest
}

/** Models in the order people look for them: by maker, then by name. */
export function byMaker(a: Model, b: Model): number {
  return `${a.maker} ${a.name}`.localeCompare(`${b.maker} ${b.name}`)
}

/** Gathers models into a catalogue. */
export function catalogueOf(models: Iterable<Model>): Catalogue {
  return new Map([...models].map((model) => [modelKey(model.id, model.version), model]))
}

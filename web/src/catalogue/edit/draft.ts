import { createContext, useContext } from 'react'
import { pathText, problemsOf } from '@pasado/core/values/problem'
import { model as modelSchema, type Model } from '@pasado/core/catalogue/model'
import { modelFaultsOf } from '@pasado/core/catalogue/validate'

export type Path = readonly (string | number)[]

/** Something that is wrong with a draft: where, and how to mend it. */
export interface DraftFault {
  path: Path
  message: string
}

/** The value at a path; undefined where it leads nowhere. */
export function valueAt(draft: unknown, path: Path): unknown {
  return path.reduce<unknown>(
    (value, part) =>
      value === null || typeof value !== 'object' ? undefined : (value as Record<string | number, unknown>)[part],
    draft
  )
}

/** The draft with another value at a path; undefined takes the field away. The draft given is not changed. */
export function withValue(draft: unknown, path: Path, value: unknown): unknown {
  const [part, ...rest] = path
  if (part === undefined) return value
  if (Array.isArray(draft)) return draft.map((item: unknown, at) => (at === part ? withValue(item, rest, value) : item))
  const record = { ...(draft as Record<string, unknown> | undefined) }
  const next = rest.length ? withValue(record[part], rest, value) : value
  if (next === undefined) delete record[part]
  else record[part] = next
  return record
}

/** The draft with another value at a path; where that is the name of a state or lamp, whatever names it goes with it. */
export function withChange(draft: unknown, path: Path, value: unknown): unknown {
  const next = withValue(draft, path, value)
  const [part, , field] = path
  const before = valueAt(draft, path)
  if (path.length !== 3 || typeof before !== 'string' || typeof value !== 'string') return next
  const model = next as Model
  // A name that another one has already would mix the two up for good.
  const taken = (names: readonly string[]) => names.filter((name) => name === value).length > 1
  const renamed = <T extends string | undefined>(name: T) => (name === before ? (value as T) : name)
  if (part === 'states' && field === 'state' && !taken(model.states.map(({ state }) => state))) {
    return {
      ...model,
      start: renamed(model.start),
      moves: model.moves.map(({ from, to }) => ({ from: renamed(from), to: renamed(to) })),
      methods: model.methods.map((method) => ({
        ...method,
        steps: method.steps.map((step) => (step.expect === before ? { ...step, expect: value } : step))
      })),
      buttons: model.buttons.map((button) => ({
        ...button,
        presses: button.presses.map((press) => (press.confirms === before ? { ...press, confirms: value } : press))
      }))
    }
  }
  if (part === 'lamps' && field === 'id' && !taken(model.lamps.map(({ id }) => id))) {
    return {
      ...model,
      states: model.states.map((state) => ({
        ...state,
        lamps: state.lamps.map((look) => ({ ...look, lamp: renamed(look.lamp) }))
      }))
    }
  }
  return next
}

/** Everything that is wrong with a draft: first what its schema says, and once that is right, what the validator finds. */
export function faultsOf(draft: unknown): { model: Model | null; faults: DraftFault[] } {
  const checked = modelSchema.safeParse(draft, { reportInput: true })
  if (!checked.success)
    return {
      model: null,
      faults: problemsOf(checked.error).map(({ path, message }) => ({ path: path, message }))
    }
  return { model: checked.data, faults: modelFaultsOf(checked.data) }
}

/** Where a fault is, in words. */
export function faultPlace({ path }: DraftFault): string {
  return pathText([...path])
}

interface Editing {
  draft: unknown
  faults: readonly DraftFault[]
  set: (path: Path, value: unknown) => void
}

export const EditingContext = createContext<Editing | null>(null)

/** The draft that is being edited. */
export function useEditing(): Editing {
  const editing = useContext(EditingContext)
  if (!editing) throw new Error('no model is being edited here')
  return editing
}

/** A new model, as little as a model can be. */
export const bareModel: Model = {
  format: 'pasado.model/1',
  id: 'maker-model',
  version: 1,
  maker: 'Maker',
  name: 'Model',
  family: null,
  roles: ['router'],
  box: [],
  power: null,
  ports: [],
  buttons: [],
  lamps: [{ id: 'status', name: 'Status' }],
  states: [
    {
      state: 'unpowered',
      lamps: [{ lamp: 'status', colour: 'off', pattern: 'off' }],
      meaning: 'no power',
      action: 'Check its adapter and socket',
      good: false
    },
    {
      state: 'well',
      lamps: [{ lamp: 'status', colour: 'green', pattern: 'solid' }],
      meaning: 'all is well',
      action: 'Nothing to do',
      good: true
    }
  ],
  moves: [
    { from: 'unpowered', to: 'well' },
    { from: 'well', to: 'unpowered' }
  ],
  start: 'unpowered',
  lampsCanBeOff: false,
  methods: [],
  prompts: [],
  label: ['model', 'serial', 'mac'],
  defaultSsidPrefix: null,
  radios: [],
  mesh: null,
  updates: 'none',
  firmware: { minimum: '1', releases: [] }
}

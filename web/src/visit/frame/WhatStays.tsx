import { useState } from 'react'
import { useShallow } from 'zustand/react/shallow'
import { v7 as uuidv7 } from 'uuid'
import { byMaker, modelOf, newestModels, type Catalogue, type Model } from '@pasado/core/catalogue/model'
import { stayKindWords, staysWords } from '@pasado/core/documents/stays-words'
import { stayingOf, staysName } from '@pasado/core/record/equipment'
import { checkField, type Facts } from '@pasado/core/record/facts'
import { standing, type Stays } from '@pasado/core/record/record'
import { stayKinds } from '@pasado/core/record/things/stays'
import { rangeOfStays } from '@pasado/core/work/addresses/staying'
import { ChoiceFact, SelectFact, TextFact } from '../fields/FactField'
import { LampLog } from '../stages/start/LampLog'
import { useMayWrite } from '../session/facts'
import { placeKey } from '../session/place'
import { useVisit } from '../session/visit-state'
import { write } from '../session/write'
import { Button } from '../../ui/Button'
import { Chips } from '../../ui/Chips'
import { Field, Input, Select } from '../../ui/Field'
import { List } from '../../ui/List'
import { Problem } from '../../ui/Problem'
import { ItIsOurs } from './ItIsOurs'
import { TakeOut } from './TakeOut'

type Kind = (typeof stayKinds)[number]
const yesOrNo = [
  { value: 'yes', label: 'Yes' },
  { value: 'no', label: 'No' }
] as const
const nothing = { makeModel: '', address: '', givesAddresses: undefined as 'yes' | 'no' | undefined }

/** What is at the home, is not ours and stays: recorded in one line each, with nothing of ours asked of it. */
export function WhatStays({ className = '' }: { className?: string }) {
  const staying = useVisit(useShallow((state) => stayingOf(state.record)))
  const isExisting = useVisit((state) => state.record.brief.facts.accessLine === 'existing-router')
  const mayWrite = useMayWrite()
  const [chosen, setChosen] = useState<Kind | null>(null)
  // Where the line is said to end at a router that stays, that one is asked for.
  const kind = chosen ?? (isExisting && staying.length === 0 ? 'router' : null)
  return (
    <section aria-label="What stays here" className={className} data-place={placeKey(atNew)}>
      <h3 className="label">What stays here</h3>
      {staying.length > 0 && (
        <List framed className="mt-1">
          {staying.map((stays) => (
            <li key={stays.id}>
              <OneThatStays stays={stays} />
            </li>
          ))}
        </List>
      )}
      {mayWrite && (
        <div className="mt-1">
          <p className="fine mb-2">
            Theirs or the provider’s, and not touched: a router, a modem, a printer. Nothing of ours is asked of it.
          </p>
          <Chips
            label="Record what stays"
            value={kind ?? undefined}
            options={stayKinds.map((value) => ({ value, label: stayKindWords[value] }))}
            onChoose={setChosen}
          />
          {kind && <RecordStays key={kind} kind={kind} autoFocus={chosen !== null} onDone={() => setChosen(null)} />}
        </div>
      )}
    </section>
  )
}

const atNew = { kind: 'stays', id: 'new', field: 'kind' } as const

/** Make and model as text, its address, whether it gives addresses: kept with one press, with the range it lies in. */
export function RecordStays({
  kind,
  autoFocus = false,
  onDone
}: {
  kind: Kind
  autoFocus?: boolean
  onDone: (id: string) => void
}) {
  const record = useVisit((state) => state.record)
  const catalogue = useVisit((state) => state.catalogue)
  const [typed, setTyped] = useState(nothing)
  const [problem, setProblem] = useState<string | null>(null)
  const routes = kind === 'router' || kind === 'modem'
  const submit = (event: React.FormEvent) => {
    event.preventDefault()
    const [makeModel, address] = [typed.makeModel.trim(), typed.address.trim()]
    const wrong = address ? checkField('stays', 'address', address) : { value: null }
    if ('problem' in wrong) {
      setProblem(`Address ${wrong.problem}`)
      return
    }
    const facts: Facts<'stays'> = {
      kind,
      ...(makeModel ? { makeModel, ...fromCatalogue(catalogue, makeModel) } : {}),
      ...(address ? { address } : {}),
      ...(typed.givesAddresses ? { givesAddresses: typed.givesAddresses } : {})
    }
    const range = rangeOfStays(record, facts)
    let segment = range && 'segment' in range ? range.segment : undefined
    if (range && 'add' in range) {
      segment = uuidv7()
      write('segment.set', { id: segment, set: range.add })
    }
    const id = uuidv7()
    write('stays.set', { id, set: { ...facts, ...(segment ? { segment } : {}) } })
    onDone(id)
  }
  return (
    <form
      onSubmit={submit}
      aria-label={`Record the ${stayKindWords[kind]} that stays`}
      className="mt-3 flex flex-wrap items-end gap-3 border border-rule bg-well p-3"
    >
      <Field label="Make and model" className="grow basis-48">
        <Input
          autoFocus={autoFocus}
          value={typed.makeModel}
          maxLength={80}
          autoComplete="off"
          list="models-that-stay"
          onChange={(event) => setTyped({ ...typed, makeModel: event.target.value })}
        />
        <datalist id="models-that-stay">
          {modelsKnown(catalogue).map((model) => (
            <option key={model.id} value={titleOf(model)} />
          ))}
        </datalist>
      </Field>
      <Field label="Address" className="basis-40">
        <Input
          exact
          inputMode="decimal"
          autoComplete="off"
          placeholder="192.168.1.1"
          value={typed.address}
          onChange={(event) => setTyped({ ...typed, address: event.target.value })}
        />
      </Field>
      {routes && (
        <div>
          <p className="label mb-1">Gives addresses</p>
          <Chips
            label="Gives addresses"
            value={typed.givesAddresses}
            options={yesOrNo}
            onChoose={(givesAddresses) => setTyped({ ...typed, givesAddresses })}
          />
        </div>
      )}
      <Button type="submit" kind="main">
        It stays
      </Button>
      <Problem message={problem} className="basis-full" />
    </form>
  )
}

const titleOf = ({ maker, name }: Model) => `${maker} ${name}`
const modelsKnown = (catalogue: Catalogue): Model[] => [...newestModels(catalogue.values()).values()].sort(byMaker)

/** The model of the catalogue that somebody typed by its maker and name; nothing where it has none so called. */
function fromCatalogue(catalogue: Catalogue, makeModel: string): Facts<'stays'> {
  const found = modelsKnown(catalogue).find((model) => titleOf(model).toLowerCase() === makeModel.toLowerCase())
  return found ? { model: found.id, modelVersion: found.version } : {}
}

/** Which model of the catalogue it is: its ports, its lamps and what they mean are then known. */
function ModelThatStays({ stays }: { stays: Stays }) {
  const catalogue = useVisit((state) => state.catalogue)
  const mayWrite = useMayWrite()
  const models = modelsKnown(catalogue)
  const { model = '' } = stays.facts
  return (
    <Field label="In the catalogue">
      <Select
        value={model}
        disabled={!mayWrite}
        onChange={({ target: { value } }) => {
          const found = models.find(({ id }) => id === value)
          write('stays.set', {
            id: stays.id,
            set: { model: found?.id ?? null, modelVersion: found?.version ?? null },
            origin: 'catalogue'
          })
        }}
      >
        <option value="">not in it</option>
        {models.map((known) => (
          <option key={known.id} value={known.id}>
            {titleOf(known)}
          </option>
        ))}
      </Select>
    </Field>
  )
}

/** What is known of something that stays, each of it one field; nothing has to be filled in. */
function OneThatStays({ stays }: { stays: Stays }) {
  const segments = standing(useVisit((state) => state.record.segments))
  const mayWrite = useMayWrite()
  const catalogue = useVisit((state) => state.catalogue)
  const model = modelOf(stays, catalogue)
  const field = { kind: 'stays', id: stays.id } as const
  return (
    <details>
      <summary className="min-h-11 py-2">
        <b>{staysName(stays)}</b> <span className="text-soft">{staysWords(stays)}</span>
      </summary>
      <div className="grid gap-3 pb-3 sm:grid-cols-2">
        <TextFact {...field} field="name" label="Name" hint="As the customer calls it." />
        <TextFact {...field} field="makeModel" label="Make and model" />
        <ModelThatStays stays={stays} />
        <ChoiceFact
          {...field}
          field="whose"
          label="Whose"
          options={[
            { value: 'customer', label: 'the customer’s' },
            { value: 'provider', label: 'the provider’s' }
          ]}
        />
        <ChoiceFact {...field} field="givesAddresses" label="Gives addresses" options={yesOrNo} />
        <TextFact {...field} field="address" label="Address" exact />
        <SelectFact
          {...field}
          field="segment"
          label="Lies in"
          none="not recorded"
          options={segments.map(({ id, facts }) => ({ value: id, label: facts.name ?? facts.cidr ?? 'segment' }))}
        />
        <TextFact {...field} field="place" label="Stands at" />
        <ChoiceFact
          {...field}
          field="login"
          label="Its login"
          options={[
            { value: 'customer', label: 'the customer has it' },
            { value: 'provider', label: 'the provider has it' },
            { value: 'nobody', label: 'nobody has it' }
          ]}
        />
        {model && model.lamps.length > 0 && (
          <div className="sm:col-span-2">
            <LampLog unit={stays} model={model} />
          </div>
        )}
        {mayWrite && (
          <div className="sm:col-span-2">
            <p className="label">Was done to it here</p>
            <p className="fine">What was proven through it before is then looked at again.</p>
            <p className="mt-1 flex flex-wrap gap-2">
              <WasTouched stays={stays} />
            </p>
          </div>
        )}
        {mayWrite && (
          <p className="-ml-2 flex flex-wrap gap-x-4 sm:col-span-2">
            <ItIsOurs id={stays.id} />
            <TakeOut thing="stays" id={stays.id}>
              It is gone: take it out
            </TakeOut>
          </p>
        )}
      </div>
    </details>
  )
}

/** What was done to it all the same. */
function WasTouched({ stays }: { stays: Stays }) {
  const acts = [
    ['restarted', 'Restarted'],
    ['moved', 'Moved'],
    ['updated', 'Updated'],
    ['reset', 'Reset']
  ] as const
  return acts.map(([what, label]) => (
    <Button
      key={what}
      aria-label={`${label}: ${staysName(stays)}`}
      onClick={() => write('unit.event', { unit: stays.id, what })}
    >
      {label}
    </Button>
  ))
}

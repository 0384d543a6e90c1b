import { useState } from 'react'
import { useSearchParams } from 'react-router'
import { v7 as uuidv7 } from 'uuid'
import { modelKey, type Model } from '@pasado/core/catalogue/model'
import type { Unit } from '@pasado/core/record/record'
import { Sheet } from '../../ui/Sheet'
import { ChoiceFact, TextFact, YesNoFact } from '../FactField'
import { useMayWrite } from '../facts'
import { SecretFact } from '../SecretFact'
import { useVisit, write } from '../store'
import { ByUnit } from '../UnitColumn'

/** Kit: what came out of the boxes, read from each unit's own label. */
export function Kit() {
  const mayWrite = useMayWrite()
  const [adding, setAdding] = useState(false)
  const add = mayWrite ? <button type="button" className="btn w-full" onClick={() => setAdding(true)}>Add a unit</button> : null
  return (
    <>
      <ByUnit foot={add} empty={<div className="max-w-xl"><h2 className="text-xl">Kit</h2><p className="mt-2">Unbox, and add each unit while its label can still be read.</p></div>}>
        {(unit) => <UnitLabel unit={unit} />}
      </ByUnit>
      <AddUnit open={adding} onClose={() => setAdding(false)} />
    </>
  )
}

function UnitLabel({ unit }: { unit: Unit }) {
  const catalogue = useVisit((state) => state.catalogue)
  const mayWrite = useMayWrite()
  const model = catalogue.get(modelKey(unit.facts.model ?? '', unit.facts.modelVersion ?? 1))
  const field = { kind: 'unit', id: unit.id } as const
  const label = new Set(model?.label ?? [])
  return (
    <div>
      <div className="flex flex-wrap items-baseline justify-between gap-x-4">
        <h2 className="text-xl">{unit.facts.name ?? model?.name}</h2>
        <p className="text-soft">{model ? `${model.maker} ${model.name}` : 'model not in the catalogue'}</p>
      </div>
      {model?.twin && <p className="mt-2 border-l-4 border-plum bg-well p-2 text-sm">{model.twin}</p>}
      <div className="mt-4 grid gap-x-6 gap-y-4 xl:grid-cols-2">
        <TextFact {...field} field="name" label="Name" hint="As the customer will find it: by its room." />
        <ChoiceFact {...field} field="role" label="Role here" options={(model?.roles ?? []).map((value) => ({ value, words: value.replace('-', ' ') }))} />
        <TextFact {...field} field="serial" label="Serial" exact />
        <TextFact {...field} field="mac" label="MAC address" exact hint="In pairs, in fours or bare: it is put in order." mend={(typed) => (/[oOlI]/.test(typed) && typed.length > 10 ? { words: 'Use 0 for O and 1 for l or I', value: typed.replace(/[oO]/g, '0').replace(/[lI]/g, '1') } : null)} />
        {label.has('ssid') && <TextFact {...field} field="defaultSsid" label="Network name on the label" exact />}
        {label.has('key') && <SecretFact purpose="label-key" thing="unit" id={unit.id} label="Network key on the label" />}
        {label.has('setup-code') && <SecretFact purpose="setup-code" thing="unit" id={unit.id} label="Setup code" />}
        {label.has('login') && <SecretFact purpose="label-login" thing="unit" id={unit.id} label="Login on the label" />}
        <YesNoFact {...field} field="used" label="Used before" yes="Yes, used" no="New" />
        {unit.facts.used && <YesNoFact {...field} field="wasReset" label="Factory-reset before it was configured" />}
      </div>
      {mayWrite && <p className="mt-6"><button type="button" className="btn btn-quiet -ml-2" onClick={() => write('thing.removed', { thing: 'unit', id: unit.id })}>Take this unit out of the visit</button></p>}
    </div>
  )
}

/** The catalogue to choose from; a model in its newest version. */
function AddUnit({ open, onClose }: { open: boolean; onClose: () => void }) {
  const catalogue = useVisit((state) => state.catalogue)
  const [, setSearch] = useSearchParams()
  const [wanted, setWanted] = useState('')
  const newest = new Map<string, Model>()
  for (const model of catalogue.values()) if ((newest.get(model.id)?.version ?? 0) < model.version) newest.set(model.id, model)
  const found = [...newest.values()].filter((model) => `${model.maker} ${model.name} ${model.roles.join(' ')}`.toLowerCase().includes(wanted.toLowerCase()))
  const add = (model: Model) => {
    const id = uuidv7()
    write('unit.set', { id, set: { name: model.name, model: model.id, modelVersion: model.version, ...(model.roles.length === 1 ? { role: model.roles[0] } : {}) }, origin: 'catalogue' })
    setSearch({ unit: id, at: `unit.${id}.name` }, { replace: true })
    onClose()
  }
  return (
    <Sheet open={open} onClose={onClose} title="Add a unit" says="Which model is it?">
      <label className="label" htmlFor="model-wanted">Find a model</label>
      <input id="model-wanted" className="box mt-1" value={wanted} onChange={(event) => setWanted(event.target.value)} placeholder="maker, name or role" />
      <ul className="mt-3 divide-y divide-rule border-y border-rule">
        {found.map((model) => (
          <li key={model.id}>
            <button type="button" className="flex min-h-14 w-full flex-wrap items-center justify-between gap-x-4 px-2 py-2 text-left hover:bg-well" onClick={() => add(model)}>
              <span><b>{model.maker} {model.name}</b><span className="fine block">{model.twin ?? model.box.map(({ item, count }) => `${count} × ${item}`).slice(0, 2).join(', ')}</span></span>
              <span className="fine">{model.roles.map((role) => role.replace('-', ' ')).join(', ')}</span>
            </button>
          </li>
        ))}
      </ul>
      {found.length === 0 && <p className="mt-3">No model is called that. A lead can add it to the catalogue.</p>}
    </Sheet>
  )
}

import { useEffect, useMemo, useState } from 'react'
import { useLocation } from 'react-router'
import { v7 as uuidv7 } from 'uuid'
import { checkCabling } from '@pasado/core/work/cabling/check'
import { knownCables } from '@pasado/core/work/cabling/known-cable'
import { cableBetween, endKey, fittingName, fittingWords, portOwners, type Port } from '@pasado/core/work/cabling/ports'
import type { Facts } from '@pasado/core/record/facts'
import { equipmentHere, isModem } from '@pasado/core/record/equipment'
import { standing, thingsOf } from '@pasado/core/record/record'
import { Cautions } from '../../frame/Cautions'
import { WhatStays } from '../../frame/WhatStays'
import { ChoiceFact, TextFact, YesNoFact } from '../../fields/FactField'
import { useMayWrite } from '../../session/facts'
import { CableFields } from './CableFields'
import { ModemRestart } from './ModemRestart'
import { PortMap } from './PortMap'
import { useVisit } from '../../session/visit-state'
import { write } from '../../session/write'
import { List } from '../../../ui/List'
import { TakeOut } from '../../frame/TakeOut'

type FittingKind = NonNullable<Facts<'fitting'>['kind']>
const drawn: FittingKind[] = [
  'splitter',
  'telephone',
  'provider-box',
  'injector',
  'computer',
  'television',
  'network-telephone',
  'alarm'
]
const old: FittingKind[] = ['old-modem', 'old-router', 'old-other']

/** Connect: every port and every cable, checked as it is drawn; the modem's restart; old equipment. */
export function Connect() {
  const record = useVisit((state) => state.record)
  const catalogue = useVisit((state) => state.catalogue)
  const mayWrite = useMayWrite()
  const owners = useMemo(() => portOwners(record, catalogue), [record, catalogue])
  const cables = useMemo(() => knownCables(record, owners), [record, owners])
  const problems = useMemo(() => checkCabling(record, catalogue), [record, catalogue])
  const [from, setFrom] = useState<Port | null>(null)
  const [chosen, setChosen] = useState<string | null>(null)
  const known = cables.find(({ cable }) => cable.id === chosen)
  const location = useLocation()
  // Whoever is led to a cable finds it chosen.
  useEffect(() => {
    const [kind, id] = (new URLSearchParams(location.search).get('at') ?? '').split('.')
    if (kind === 'cable' && id !== 'new') setChosen(id ?? null)
  }, [location])
  const join = (a: Port, b: Port) => {
    const id = uuidv7()
    const kind = cableBetween(a.kind, b.kind)
    write('cable.set', { id, set: { a: a.end, b: b.end, ...(kind ? { kind } : {}) } })
    setFrom(null)
    setChosen(id)
  }
  const onPort = (port: Port, how: 'begin' | 'choose' | 'drop') => {
    setFrom((before) => {
      if (how === 'begin') return port
      if (before && endKey(before.end) !== endKey(port.end)) {
        queueMicrotask(() => join(before, port))
        return null
      }
      return how === 'drop' || before ? null : port
    })
  }
  const modems = equipmentHere(record).filter(isModem)
  const oldThings = standing(thingsOf(record, 'fitting')).filter(({ facts }) => facts.kind?.startsWith('old-'))
  const others = standing(thingsOf(record, 'fitting')).filter(({ facts }) => !facts.kind?.startsWith('old-'))
  const add = (kind: FittingKind) => write('fitting.set', { id: uuidv7(), set: { kind } })
  return (
    <div className="p-4 lg:p-5">
      <div className="flex flex-wrap items-baseline justify-between gap-x-4">
        <h2 className="text-xl">Connect</h2>
        <p className="fine">
          {from
            ? `From ${from.owner}, ${from.name}: now the other port. The same port again lets go.`
            : 'Drag from port to port, or choose one and then the other.'}
        </p>
      </div>
      <div className="mt-3" data-place="cable.new.a">
        <PortMap
          owners={owners}
          cables={cables}
          problems={problems}
          chosen={chosen}
          from={from}
          mayWrite={mayWrite}
          onPort={onPort}
          onCable={setChosen}
        />
      </div>
      {owners.length === 0 && <p className="mt-3">No unit yet: add them under Kit.</p>}
      {mayWrite && (
        <div role="group" aria-label="Add to the map" className="mt-2 flex flex-wrap items-center gap-2">
          <span className="label">Add</span>
          {(['line', 'network'] as const).map(
            (kind) =>
              (kind === 'network' ||
                !standing(thingsOf(record, 'outlet')).some(({ facts }) => facts.kind === 'line')) && (
                <button
                  key={kind}
                  type="button"
                  className="chip"
                  onClick={() => write('outlet.set', { id: uuidv7(), set: { kind } })}
                >
                  {kind === 'line' ? 'outlet of the line' : 'wall socket'}
                </button>
              )
          )}
          {drawn.map((kind) => (
            <button key={kind} type="button" className="chip" onClick={() => add(kind)}>
              {fittingWords[kind].toLowerCase()}
            </button>
          ))}
        </div>
      )}
      <div className="mt-4 grid gap-6 xl:grid-cols-2">
        <div>
          {known ? (
            <CableFields key={known.cable.id} known={known} onGone={() => setChosen(null)} />
          ) : (
            <p className="text-soft">
              {cables.length ? 'Choose a cable: its category, length and link speed show here.' : 'No cable yet.'}
            </p>
          )}
        </div>
        <section aria-label="What is wrong">
          <h3>
            {problems.length > 0 && `${problems.length} to mend or to note`}
            {problems.length === 0 && cables.length > 0 && 'Every cable is as it is to be'}
          </h3>
          <ol className="mt-1 flex flex-col gap-2">
            {problems.map(({ cable, code, message, remedy, outcome }, at) => (
              <li key={`${cable} ${code}`}>
                <button
                  type="button"
                  className={`grid w-full grid-cols-[1.75rem_1fr] gap-2 p-2 text-left ${outcome === 'breaks' ? 'bg-inv text-oninv' : 'border border-dashed border-edge bg-well'}`}
                  onClick={() => setChosen(cable)}
                >
                  <b>{at + 1}</b>
                  <span>
                    <b className="block">{message}</b>
                    {remedy}
                  </span>
                </button>
              </li>
            ))}
          </ol>
        </section>
      </div>
      {others.length > 0 && (
        <section aria-label="Things beside the units" className="mt-5">
          <h3>Beside the units</h3>
          <ul className="mt-1 flex flex-wrap gap-2">
            {others.map((other) => (
              <li
                key={other.id}
                data-place={`fitting.${other.id}.kind`}
                className="flex items-center gap-1 border border-rule pl-3"
              >
                {fittingName(other)}
                {other.facts.kind === 'network-telephone' && (
                  <span className="flex flex-wrap gap-2 py-2 pl-2">
                    <TextFact
                      kind="fitting"
                      id={other.id}
                      field="powerClass"
                      type="number"
                      label="Power class"
                      hint="As its label says, 1 to 8."
                    />
                    <YesNoFact kind="fitting" id={other.id} field="ownPower" label="An adapter of its own" />
                  </span>
                )}
                {mayWrite && (
                  <button
                    type="button"
                    className="min-h-11 min-w-11 text-lg"
                    aria-label={`Take out: ${fittingName(other)}`}
                    onClick={() => write('thing.removed', { thing: 'fitting', id: other.id })}
                  >
                    ×
                  </button>
                )}
              </li>
            ))}
          </ul>
        </section>
      )}
      <div className="mt-5 grid gap-6 xl:grid-cols-2">
        {modems.map((modem) => (
          <ModemRestart key={modem.id} modem={modem} />
        ))}
        <WhatStays />
        <section aria-label="Old equipment" data-place="fitting.new.old">
          <h3>Old equipment</h3>
          <List className="mt-1">
            {oldThings.map((oldThing) => (
              <li key={oldThing.id} className="grid gap-2 py-2 sm:grid-cols-2">
                <TextFact
                  kind="fitting"
                  id={oldThing.id}
                  field="name"
                  label={fittingName(oldThing)}
                  hint="Make and model, as it stands on it."
                />
                <div className="flex flex-col gap-2">
                  <YesNoFact kind="fitting" id={oldThing.id} field="disconnected" label="Disconnected" />
                  <ChoiceFact
                    kind="fitting"
                    id={oldThing.id}
                    field="returns"
                    label="Goes"
                    options={[
                      { value: 'provider', label: 'to the provider' },
                      { value: 'customer', label: 'stays' },
                      { value: 'recycled', label: 'recycled' }
                    ]}
                  />
                </div>
                {mayWrite && (
                  <p>
                    <TakeOut thing="fitting" className="-ml-2" id={oldThing.id}>
                      Take it out
                    </TakeOut>
                  </p>
                )}
              </li>
            ))}
          </List>
          {mayWrite && (
            <div className="mt-2 flex flex-wrap gap-2">
              {old.map((kind) => (
                <button key={kind} type="button" className="chip" onClick={() => add(kind)}>
                  {fittingWords[kind].toLowerCase()}
                </button>
              ))}
            </div>
          )}
        </section>
      </div>
      <Cautions stage="connect" />
    </div>
  )
}

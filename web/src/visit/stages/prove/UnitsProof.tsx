import { equipmentHere } from '@pasado/core/record/equipment'
import { useMemo, useRef, useState } from 'react'
import { judgePath } from '@pasado/core/work/prove/path'
import { stalePath } from '@pasado/core/work/prove/stale'
import { readNumber } from '@pasado/core/values/number'
import { standing, unitName, type Unit } from '@pasado/core/record/record'
import { homeOf } from '@pasado/core/rules/rule'
import { extendingUnits, testedUnits, wiredUnits } from '@pasado/core/rules/stages/prove'
import { Mark } from '../../../ui/Mark'
import { failureTitle } from '../../../app/api'
import { draftOf, useDraft } from '../../../app/draft'
import { useFolded, useMayWrite } from '../../session/facts'
import { placeKey } from '../../session/place'
import type { Look } from '../../../outbox/outbox'
import { takeLook } from '../../session/record-now'
import { useVisit } from '../../session/visit-state'
import { write } from '../../session/write'
import { openHouse } from './open-house'
import { Button } from '../../../ui/Button'
import { Problem } from '../../../ui/Problem'
import { LinkTest, Port } from './PortProof'
import { Field, Input, Select } from '../../../ui/Field'

/** Each unit: was somebody really on it, is its link good, does a port of it carry. */
export function UnitsProof() {
  const folded = useFolded()
  const catalogue = useVisit((state) => state.catalogue)
  const policy = useVisit((state) => state.standard.policy)
  const home = useMemo(() => homeOf(folded, catalogue, policy), [folded, catalogue, policy])
  const [extending, tested, wired] = [extendingUnits(home.units), testedUnits(home.units), wiredUnits(home.units)].map(
    (list) => new Set(list.map(({ unit }) => unit.id))
  ) as [Set<string>, Set<string>, Set<string>]
  const shown = home.units.filter(({ unit }) => extending.has(unit.id) || tested.has(unit.id) || wired.has(unit.id))
  if (shown.length === 0) return <p>No unit here carries the network farther: nothing to prove on units.</p>
  return (
    <ul className="flex flex-col gap-4">
      {shown.map(({ unit, name }) => (
        <li key={unit.id} className="paper p-4" aria-label={`Proof of ${name}`}>
          <h3>{name}</h3>
          <div className="mt-2 flex flex-col divide-y divide-rule">
            {extending.has(unit.id) && <Path unit={unit} />}
            {tested.has(unit.id) && <LinkTest unit={unit} />}
            {wired.has(unit.id) && <Port unit={unit} />}
          </div>
        </li>
      ))}
    </ul>
  )
}

/** Guided: count its clients, join, count again, look at the address and who gave it. */
function Path({ unit }: { unit: Unit }) {
  const folded = useFolded()
  const { record } = folded
  const mayWrite = useMayWrite()
  const [open, setOpen] = useState(false)
  const nothing = { before: '', after: '', address: '', server: '', network: '' }
  const [typed, setTyped] = useDraft(`path ${unit.id}`, nothing)
  const [problem, setProblem] = useState<string | null>(null)
  const look = useRef<Look | null>(null)
  const verdict = judgePath(record, unit)
  const stale = stalePath(folded, unit)
  const named = standing(record.networks).filter(({ facts }) => facts.ssid !== undefined)
  const name = unitName(unit)
  const count = (text: string) => (text.trim() === '' ? undefined : readNumber(text))
  const submit = (event: React.FormEvent) => {
    event.preventDefault()
    const [before, after] = [count(typed.before), count(typed.after)]
    for (const [what, value] of [
      ['Clients before', before],
      ['Clients after', after]
    ] as const)
      if (value !== undefined && !(Number.isInteger(value) && value >= 0 && value <= 500)) {
        setProblem(`${what} must be a whole number from 0 to 500.`)
        return
      }
    if (!typed.address.trim()) {
      setProblem('Address is missing: look it up on the phone.')
      return
    }
    const { server, network } = typed
    write(
      'path.seen',
      {
        unit: unit.id,
        ...(before === undefined ? {} : { before }),
        ...(after === undefined ? {} : { after }),
        address: typed.address.trim().slice(0, 64),
        ...(server ? { server } : {}),
        ...(network ? { network } : {})
      },
      look.current ? { look: look.current } : {}
    )
    setProblem(null)
    setOpen(false)
    // It stays in the form, to be mended; after a reload it is not there again.
    draftOf.keep(`path ${unit.id}`, nothing, nothing)
  }
  const fromHouse = async () => {
    try {
      const house = await openHouse()
      const here = [...house.units.values()].find(({ definition }) => definition.serial === unit.facts.serial)
      if (!here) {
        setProblem('No unit of the house has this serial.')
        return
      }
      const id = here.definition.id
      const before = [...house.units.values()].filter(
        (candidate) => candidate.uplink === id && candidate.powered
      ).length
      const [server] = house.network.serversOf(id)
      const given = server === undefined ? undefined : house.units.get(server)
      const from = given?.running['dhcp.from']
      const address =
        from === undefined ? '169.254.7.7' : from.replace(/\d+$/, (last) => String(Math.min(254, Number(last) + 7)))
      const serves = standing(record.units).find(({ facts }) => facts.serial === given?.definition.serial)
      const joins = here.powered && house.network.online.has(id)
      write('path.seen', {
        unit: unit.id,
        before,
        after: before + (joins ? 1 : 0),
        address,
        ...(serves ? { server: serves.id } : {})
      })
      setProblem(null)
    } catch (error) {
      setProblem(failureTitle(error, 'The server is not in reach; try again.'))
    }
  }
  return (
    <div className="py-2" data-place={placeKey({ kind: 'unit', id: unit.id, field: 'path' })}>
      <div className="flex flex-wrap items-center gap-3">
        <Mark outcome={stale && verdict.outcome === 'holds' ? 'unproven' : verdict.outcome} />
        <p className="grow basis-60">
          <b>Proof of path.</b> {stale && verdict.outcome === 'holds' ? `${stale} Join it once more.` : verdict.message}{' '}
          {verdict.remedy && <span className="text-soft">{verdict.remedy}</span>}
        </p>
        {mayWrite && record.house && (
          <Button aria-label={`Read the path of ${name} from the house`} onClick={() => void fromHouse()}>
            From the house
          </Button>
        )}
        {mayWrite && (
          <Button
            aria-expanded={open}
            aria-label={`Prove the path of ${name}`}
            onClick={() => {
              look.current = takeLook()
              setOpen(!open)
            }}
          >
            Prove it
          </Button>
        )}
      </div>
      <Problem message={!open && problem} className="mt-1" />
      {open && (
        <form onSubmit={submit} aria-label={`Path of ${name}`} className="mt-2 bg-well p-3">
          <ol className="ml-5 list-decimal text-sm">
            <li>Go beside {name}. On its page or in the app, read how many clients it has.</li>
            <li>On the phone forget the network, and join it again.</li>
            <li>Read its clients again, then the phone’s address and who gave it.</li>
          </ol>
          <div className="mt-2 grid grid-cols-2 gap-2 md:grid-cols-4">
            <Field label="Clients before">
              <Input
                exact
                className="text-lg"
                inputMode="numeric"
                autoComplete="off"
                value={typed.before}
                onChange={(event) => setTyped({ ...typed, before: event.target.value })}
              />
            </Field>
            <Field label="Clients after">
              <Input
                exact
                className="text-lg"
                inputMode="numeric"
                autoComplete="off"
                value={typed.after}
                onChange={(event) => setTyped({ ...typed, after: event.target.value })}
              />
            </Field>
            <Field label="Address">
              <Input
                exact
                className="text-lg"
                inputMode="decimal"
                autoComplete="off"
                value={typed.address}
                onChange={(event) => setTyped({ ...typed, address: event.target.value })}
              />
            </Field>
            <Field label="Given by">
              <Select value={typed.server} onChange={(event) => setTyped({ ...typed, server: event.target.value })}>
                <option value="">not seen</option>
                {equipmentHere(record).map((giver) => (
                  <option key={giver.id} value={giver.id}>
                    {giver.name}
                  </option>
                ))}
              </Select>
            </Field>
            {named.length > 1 && (
              <Field label="Joined">
                <Select value={typed.network} onChange={(event) => setTyped({ ...typed, network: event.target.value })}>
                  <option value="">not noted</option>
                  {named.map(({ id, facts }) => (
                    <option key={id} value={id}>
                      {facts.ssid}
                    </option>
                  ))}
                </Select>
              </Field>
            )}
          </div>
          <Problem message={problem} className="mt-2" />
          <Button type="submit" kind="main" className="mt-3">
            Record what was seen
          </Button>
        </form>
      )}
    </div>
  )
}

import { useMemo, useState } from 'react'
import { v7 as uuidv7 } from 'uuid'
import { standing, type Network } from '@pasado/core/record/record'
import { makeNetworkName } from '@pasado/core/work/wifi/make-name'
import { nameProblem, proposeNetworks, type ProposedNetwork } from '@pasado/core/work/wifi/propose'
import { ChoiceFact, TextFact, YesNoFact } from '../../../fields/FactField'
import { useMayWrite } from '../../../session/facts'
import { pick } from '../../../session/secrets'
import { useVisit } from '../../../session/visit-state'
import { write } from '../../../session/write'
import { securityWords } from './words'
import { Button } from '../../../../ui/Button'
import { Problem } from '../../../../ui/Problem'
import { Field, Input } from '../../../../ui/Field'
import { List } from '../../../../ui/List'

const useNames = { main: 'home', guest: 'guests', office: 'office', equipment: 'equipment' } as const

/** The home's networks as the schools in force would name them, recorded with one press. */
export function NameProposals() {
  const record = useVisit((state) => state.record)
  const catalogue = useVisit((state) => state.catalogue)
  const policy = useVisit((state) => state.standard.policy)
  const mayWrite = useMayWrite()
  const { oldSsid, keepName } = record.brief.facts
  const networks = standing(record.networks)
  const head = networks.find(({ facts }) => (facts.use ?? 'main') === 'main' && facts.extender === undefined)?.facts
    .ssid
  const [typed, setTyped] = useState<string | null>(null)
  const base = typed ?? (keepName && oldSsid !== undefined ? oldSsid : (head ?? ''))
  const found = useMemo(
    () => (base === '' ? null : proposeNetworks(record, catalogue, policy, base)),
    [record, catalogue, policy, base]
  )
  const stays = useMemo(
    () => (oldSsid === undefined ? null : nameProblem(oldSsid, record, catalogue)),
    [oldSsid, record, catalogue]
  )
  const proposals = found && 'networks' in found ? found : null
  const changes = proposals?.networks.filter((network) => !asRecorded(network, networks)) ?? []
  const take = () => {
    for (const { existing, set } of changes)
      write('network.set', { id: existing ?? uuidv7(), set, origin: 'calculated' })
    for (const id of proposals?.surplus ?? []) write('thing.removed', { thing: 'network', id })
    setTyped(null)
  }
  const settled = proposals !== null && changes.length === 0 && proposals.surplus.length === 0
  return (
    <section aria-label="Names by the school" className="paper p-4">
      <div className="grid gap-x-6 gap-y-3 lg:grid-cols-3">
        <TextFact
          kind="brief"
          id="brief"
          field="oldSsid"
          label="Name the home had before"
          exact
          {...(oldSsid === undefined
            ? {}
            : {
                hint: stays
                  ? `It cannot stay: it ${stays}.`
                  : 'Kept, with its passphrase, everything rejoins by itself.'
              })}
        />
        {oldSsid !== undefined && <YesNoFact kind="brief" id="brief" field="keepName" label="Keep the old name" />}
        <ChoiceFact
          kind="brief"
          id="brief"
          field="bandNames"
          label={`Bands (the standard: ${policy.bandNames === 'one-name' ? 'one name' : 'one a band'})`}
          options={[
            { value: 'one-name', label: 'one name' },
            { value: 'one-a-band', label: 'one name a band' }
          ]}
        />
      </div>
      {mayWrite && (
        <div className="mt-3 flex flex-wrap items-end gap-2">
          <Field label="The home’s name on the air" className="grow basis-56">
            <Input
              exact
              autoComplete="off"
              value={base}
              aria-invalid={found !== null && !proposals}
              onChange={(event) => setTyped(event.target.value)}
            />
          </Field>
          <Button onClick={() => setTyped(makeNetworkName(pick))}>Make a name</Button>
          <Button kind="main" disabled={!proposals || settled} onClick={take}>
            {settled ? 'These are recorded' : 'Record these networks'}
          </Button>
        </div>
      )}
      <Problem message={found && 'problem' in found && `The name ${found.problem}.`} className="mt-2" />
      {proposals && (
        <List framed className="mt-3" aria-label="Proposed networks">
          {proposals.networks.map((network) => (
            <li
              key={`${network.set.use} ${network.set.extender ?? ''} ${network.set.bands!.join()} ${network.set.ssid}`}
              className={`grid gap-x-5 gap-y-0.5 py-2 md:grid-cols-[minmax(11.5rem,1fr)_8.5rem_8.5rem_minmax(0,1.6fr)] ${asRecorded(network, networks) ? 'text-soft' : ''}`}
            >
              <b className="exact break-all">{network.set.ssid}</b>
              <span>
                {useNames[network.set.use!]}, {network.set.bands!.join(' + ')} GHz
              </span>
              <span>{securityWords[network.set.security!]}</span>
              <span className="fine">
                {network.why}
                {asRecorded(network, networks) && ' As recorded.'}
                {!asRecorded(network, networks) && !network.existing && ' New.'}
              </span>
            </li>
          ))}
          {proposals.surplus.map((id) => (
            <li key={id} className="py-2">
              <b className="exact">
                {networks.find((network) => network.id === id)?.facts.ssid ?? 'A network without a name'}
              </b>{' '}
              has no place in this school and is taken out.
            </li>
          ))}
        </List>
      )}
    </section>
  )
}

/** Whether the record says of a network what is proposed. */
function asRecorded({ existing, set }: ProposedNetwork, networks: readonly Network[]): boolean {
  const facts = networks.find(({ id }) => id === existing)?.facts as Record<string, unknown> | undefined
  return (
    facts !== undefined &&
    Object.entries(set).every(
      ([field, value]) =>
        JSON.stringify(facts[field] ?? (field === 'isolated' ? false : undefined)) === JSON.stringify(value)
    )
  )
}

import { useMemo } from 'react'
import { v7 as uuidv7 } from 'uuid'
import { servingOn } from '@pasado/core/work/addresses/servers'
import { equipmentHere } from '@pasado/core/record/equipment'
import { auditRecord, type HomeAudit } from '@pasado/core/work/addresses/home-audit'
import { formatIpv4, parseCidr, parseIpv4, type Range4 } from '@pasado/core/values/ipv4'
import { standing, type Segment } from '@pasado/core/record/record'
import { ChoiceFact, SelectFact, TextFact } from '../../../fields/FactField'
import { Conversions } from './Conversions'
import { PasteClients } from './PasteClients'
import { PoolMove } from './PoolMove'
import { useMayWrite } from '../../../session/facts'
import { placeKey } from '../../../session/place'
import { useVisit } from '../../../session/visit-state'
import { write } from '../../../session/write'
import { Button } from '../../../../ui/Button'
import { Hosts } from './Hosts'
import { RangePicture } from './RangePicture'
import { TakeOut } from '../../../frame/TakeOut'

const useWords = {
  home: 'home',
  guests: 'guests',
  office: 'office',
  equipment: 'equipment',
  provider: 'provider’s side'
} as const

function useAudit(): HomeAudit {
  const record = useVisit((state) => state.record)
  const school = useVisit((state) => state.standard.policy.poolSchool)
  return useMemo(() => auditRecord(record, school), [record, school])
}

/** Segments with their pools, and every fixed address in them. */
export function Addresses() {
  const segments = useVisit((state) => state.record.segments)
  const mayWrite = useMayWrite()
  const audit = useAudit()
  const shown = standing(segments)
  const add = () => {
    const first = shown.length === 0
    write('segment.set', {
      id: uuidv7(),
      set: first ? { name: 'Home', use: 'home' } : { name: 'Guests', use: 'guests' },
      origin: 'typed'
    })
  }
  return (
    <div className="flex flex-col gap-6" data-place={placeKey({ kind: 'segment', id: 'new', field: 'cidr' })}>
      {shown.length === 0 && (
        <p>No segment yet. The home’s range is mostly that of its router: add it, then every fixed address in it.</p>
      )}
      {shown.map((segment) => (
        <SegmentSheet
          key={segment.id}
          segment={segment}
          others={shown.filter(({ id }) => id !== segment.id)}
          audit={audit}
        />
      ))}
      {mayWrite && (
        <p>
          <Button onClick={add}>Add a segment</Button>
        </p>
      )}
      <Conversions />
    </div>
  )
}

function addWords(hasPools: boolean, isGiven: boolean): string {
  if (hasPools) return 'A second DHCP server'
  return isGiven ? 'Its pool is known: record it' : 'Add its DHCP pool'
}

function SegmentSheet({ segment, others, audit }: { segment: Segment; others: Segment[]; audit: HomeAudit }) {
  const pools = standing(useVisit((state) => state.record.pools)).filter(({ facts }) => facts.segment === segment.id)
  const record = useVisit((state) => state.record)
  const givers = equipmentHere(record)
  // What stays and gives addresses needs no pool; where it is known, it is that one's.
  const giving = pools.length ? undefined : servingOn(record, segment).servers.find(({ stays }) => stays)
  const mayWrite = useMayWrite()
  const field = { kind: 'segment', id: segment.id } as const
  const range = segment.facts.cidr === undefined ? null : (parseCidr(segment.facts.cidr) as Range4)
  const name = segment.facts.name ?? 'Segment'
  const suggested =
    range && range.last - range.first >= 255
      ? { from: formatIpv4(range.first + 100), to: formatIpv4(range.first + 199) }
      : null
  const addPool = () =>
    write('pool.set', {
      id: uuidv7(),
      set: { segment: segment.id, ...(giving ? { unit: giving.id } : suggested) },
      origin: suggested && !giving ? 'calculated' : 'typed'
    })
  return (
    <section aria-label={`Segment ${name}`} className="paper p-4">
      <div className="grid gap-3 md:grid-cols-[1fr_1.3fr_1.3fr]">
        <TextFact {...field} field="name" label="Segment" />
        <TextFact
          {...field}
          field="cidr"
          label="Range"
          exact
          hint="Such as 192.168.1.0/24"
          suggest={(typed) => fullRange(typed)}
        />
        <TextFact
          {...field}
          field="gateway"
          label="Gateway"
          exact
          suggest={(typed) =>
            range && typed === ''
              ? { label: `Use ${formatIpv4(range.first + 1)}`, value: formatIpv4(range.first + 1) }
              : null
          }
        />
      </div>
      <div className="mt-3 grid gap-3 lg:grid-cols-[1.6fr_1fr]">
        <ChoiceFact
          {...field}
          field="use"
          label="For"
          options={(Object.keys(useWords) as (keyof typeof useWords)[]).map((value) => ({
            value,
            label: useWords[value]
          }))}
        />
        {others.length > 0 && (
          <SelectFact
            {...field}
            field="behind"
            label="Behind, by translation"
            none="nothing of this home"
            options={others.map(({ id, facts }) => ({ value: id, label: facts.name ?? facts.cidr ?? 'segment' }))}
          />
        )}
      </div>
      <SegmentServices segment={segment} />
      {range && <RangePicture segment={segment} range={range} audit={audit} />}
      <div className="mt-3" data-place={placeKey({ kind: 'segment', id: segment.id, field: 'dhcp' })}>
        {pools.map((pool) => {
          const of = { kind: 'pool', id: pool.id } as const
          return (
            <div
              key={pool.id}
              className="mt-2 grid items-end gap-3 md:grid-cols-[1.4fr_1fr_1fr_auto]"
              role="group"
              aria-label={`DHCP pool of ${name}`}
            >
              <SelectFact
                {...of}
                field="unit"
                label="DHCP server"
                none="choose"
                options={givers.map(({ id, name: giver }) => ({ value: id, label: giver }))}
              />
              <TextFact {...of} field="from" label="Pool from" exact />
              <TextFact {...of} field="to" label="Pool to" exact />
              {mayWrite && (
                <TakeOut thing="pool" aria-label={`Take this DHCP pool of ${name} out`} id={pool.id}>
                  Switched off
                </TakeOut>
              )}
              <PoolMove pool={pool} />
            </div>
          )
        })}
        {giving && <p>{giving.name}, which stays, gives addresses here.</p>}
        {mayWrite && (
          <button type="button" className={pools.length ? 'btn btn-quiet -ml-2' : 'btn mt-3'} onClick={addPool}>
            {addWords(pools.length > 0, giving !== undefined)}
          </button>
        )}
      </div>
      <SegmentFindings audit={audit} id={segment.id} />
      <Hosts segment={segment} audit={audit} />
      <PasteClients segment={segment} />
      {mayWrite && (
        <p className="mt-2 text-right">
          <TakeOut thing="segment" id={segment.id}>
            Take this segment out
          </TakeOut>
        </p>
      )}
    </section>
  )
}

/** How long addresses are lent, and who answers for names. */
function SegmentServices({ segment }: { segment: Segment }) {
  const choices = useVisit((state) => state.standard.policy.dnsChoices) ?? []
  const mayWrite = useMayWrite()
  const field = { kind: 'segment', id: segment.id } as const
  return (
    <div className="mt-3 grid gap-3 md:grid-cols-[8rem_8rem_auto_minmax(0,1fr)]">
      <TextFact {...field} field="leaseHours" label="Lease" type="number" unit="h" />
      <TextFact {...field} field="vlan" label="VLAN" type="number" />
      <ChoiceFact
        {...field}
        field="dns"
        label="Name servers (DNS)"
        options={[
          { value: 'provider', label: 'the provider’s' },
          { value: 'by-hand', label: 'by hand' }
        ]}
      />
      {segment.facts.dns === 'by-hand' && (
        <div>
          <TextFact {...field} field="dnsServers" label="Servers" exact />
          {mayWrite && (
            <p className="mt-1 flex flex-wrap gap-2">
              {choices
                .filter(({ servers }) => servers !== segment.facts.dnsServers)
                .map(({ name, servers }) => (
                  <button
                    key={name}
                    type="button"
                    className="chip"
                    onClick={() =>
                      write('segment.set', { id: segment.id, set: { dnsServers: servers }, origin: 'catalogue' })
                    }
                  >
                    {name}
                  </button>
                ))}
            </p>
          )}
        </div>
      )}
    </div>
  )
}

/** Completes a range that was begun: three groups, or an address with bits behind its prefix. */
function fullRange(typed: string): { label: string; value: string } | null {
  const three = /^(\d+\.\d+\.\d+)\.?$/.exec(typed)
  if (three && parseIpv4(`${three[1]}.0`) !== null) return { label: `Use ${three[1]}.0/24`, value: `${three[1]}.0/24` }
  const withBits = /^(\d+\.\d+\.\d+)\.\d+(?:\/(\d+))?$/.exec(typed)
  const parsed = withBits ? parseCidr(typed) : null
  if (!withBits || (parsed && !('problem' in parsed))) return null
  const prefix = Number(withBits[2] ?? 24)
  const address = parseIpv4(typed.split('/')[0]!)
  if (address === null || prefix > 32) return null
  const own = `${formatIpv4(Math.floor(address / 2 ** (32 - prefix)) * 2 ** (32 - prefix))}/${prefix}`
  return { label: `Use ${own}`, value: own }
}

function SegmentFindings({ audit, id }: { audit: HomeAudit; id: string }) {
  const findings = (audit.ofSegment.get(id) ?? []).filter(({ code }) => code !== 'no-dhcp')
  if (findings.length === 0) return null
  return (
    <ul className="mt-3">
      {findings.map((finding) => (
        <li key={finding.code} className="bg-inv px-3 py-2 font-bold text-oninv">
          {finding.detail}
        </li>
      ))}
    </ul>
  )
}

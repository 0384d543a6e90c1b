import { Trash2 } from 'lucide-react'
import { useMemo } from 'react'
import { v7 as uuidv7 } from 'uuid'
import { auditRecord, type HomeAudit } from '@pasado/core/work/addresses/home-audit'
import { formatIpv4, parseCidr, parseIpv4, type Range4 } from '@pasado/core/values/ipv4'
import { standing, unitName, type Host, type Segment } from '@pasado/core/record/record'
import { Chips } from '../../../../ui/Chips'
import { ChoiceFact, SelectFact, TextFact, YesNoFact } from '../../../fields/FactField'
import { Conversions } from './Conversions'
import { PasteClients } from './PasteClients'
import { PoolMove } from './PoolMove'
import { useMayWrite } from '../../../session/facts'
import { placeKey } from '../../../session/place'
import { useVisit, write } from '../../../session/store'
import { Button } from '../../../../ui/Button'

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

function SegmentSheet({ segment, others, audit }: { segment: Segment; others: Segment[]; audit: HomeAudit }) {
  const pools = standing(useVisit((state) => state.record.pools)).filter(({ facts }) => facts.segment === segment.id)
  const units = standing(useVisit((state) => state.record.units))
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
      set: { segment: segment.id, ...(suggested ?? {}) },
      origin: suggested ? 'calculated' : 'typed'
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
          mend={(typed) => fullRange(typed)}
        />
        <TextFact
          {...field}
          field="gateway"
          label="Gateway"
          exact
          mend={(typed) =>
            range && typed === ''
              ? { words: `Use ${formatIpv4(range.first + 1)}`, value: formatIpv4(range.first + 1) }
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
            words: useWords[value]
          }))}
        />
        {others.length > 0 && (
          <SelectFact
            {...field}
            field="behind"
            label="Behind, by translation"
            none="nothing of this home"
            options={others.map(({ id, facts }) => ({ value: id, words: facts.name ?? facts.cidr ?? 'segment' }))}
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
                options={units.map((unit) => ({ value: unit.id, words: unitName(unit) }))}
              />
              <TextFact {...of} field="from" label="Pool from" exact />
              <TextFact {...of} field="to" label="Pool to" exact />
              {mayWrite && (
                <Button
                  kind="quiet"
                  aria-label={`Take this DHCP pool of ${name} out`}
                  onClick={() => write('thing.removed', { thing: 'pool', id: pool.id })}
                >
                  Switched off
                </Button>
              )}
              <PoolMove pool={pool} />
            </div>
          )
        })}
        {mayWrite && (
          <button type="button" className={pools.length ? 'btn btn-quiet -ml-2' : 'btn mt-3'} onClick={addPool}>
            {pools.length ? 'A second DHCP server' : 'Add its DHCP pool'}
          </button>
        )}
      </div>
      <SegmentFindings audit={audit} id={segment.id} />
      <Hosts segment={segment} audit={audit} />
      <PasteClients segment={segment} />
      {mayWrite && (
        <p className="mt-2 text-right">
          <Button kind="quiet" onClick={() => write('thing.removed', { thing: 'segment', id: segment.id })}>
            Take this segment out
          </Button>
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
    <div className="mt-3 grid gap-3 md:grid-cols-[8rem_auto_minmax(0,1fr)]">
      <TextFact {...field} field="leaseHours" label="Lease" type="number" unit="h" />
      <ChoiceFact
        {...field}
        field="dns"
        label="Name servers (DNS)"
        options={[
          { value: 'provider', words: 'the provider’s' },
          { value: 'by-hand', words: 'by hand' }
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
function fullRange(typed: string): { words: string; value: string } | null {
  const three = /^(\d+\.\d+\.\d+)\.?$/.exec(typed)
  if (three && parseIpv4(`${three[1]}.0`) !== null) return { words: `Use ${three[1]}.0/24`, value: `${three[1]}.0/24` }
  const withBits = /^(\d+\.\d+\.\d+)\.\d+(?:\/(\d+))?$/.exec(typed)
  const parsed = withBits ? parseCidr(typed) : null
  if (!withBits || (parsed && !('problem' in parsed))) return null
  const prefix = Number(withBits[2] ?? 24)
  const address = parseIpv4(typed.split('/')[0]!)
  if (address === null || prefix > 32) return null
  const own = `${formatIpv4(Math.floor(address / 2 ** (32 - prefix)) * 2 ** (32 - prefix))}/${prefix}`
  return { words: `Use ${own}`, value: own }
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

/** The whole range as a bar: where the pool is, where the fixed addresses and the gateway are. Also told in words. */
function RangePicture({ segment, range, audit }: { segment: Segment; range: Range4; audit: HomeAudit }) {
  const pools = standing(useVisit((state) => state.record.pools)).filter(
    ({ facts }) => facts.segment === segment.id && facts.from && facts.to
  )
  const hosts = standing(useVisit((state) => state.record.hosts)).filter(
    ({ facts }) => facts.segment === segment.id && facts.address
  )
  const size = range.last - range.first + 1
  const share = (address: number) => (100 * (address - range.first)) / size
  const inside = (address: number | null): address is number =>
    address !== null && address >= range.first && address <= range.last
  const gateway = segment.facts.gateway === undefined ? null : parseIpv4(segment.facts.gateway)
  const clashes = hosts.filter(({ id }) => (audit.ofHost.get(id) ?? []).length > 0).length
  return (
    <div
      className="mt-4"
      role="img"
      aria-label={`${segment.facts.cidr}: ${pools.map(({ facts }) => `pool ${facts.from} to ${facts.to}`).join(', ') || 'no pool'}; ${hosts.length} fixed addresses${clashes ? `, ${clashes} of them wrong` : ''}`}
    >
      <div className="relative h-9 border-2 border-ink bg-sheet">
        {pools.map(({ id, facts }) => {
          const [from, to] = [parseIpv4(facts.from!), parseIpv4(facts.to!)]
          if (from === null || to === null || to < range.first || from > range.last) return null
          return (
            <span
              key={id}
              className="absolute inset-y-0 bg-[repeating-linear-gradient(135deg,var(--edge)_0_1.5px,transparent_1.5px_7px)]"
              style={{
                left: `${share(Math.max(from, range.first))}%`,
                width: `${Math.max(0.8, (100 * (Math.min(to, range.last) - Math.max(from, range.first) + 1)) / size)}%`
              }}
            />
          )
        })}
        {inside(gateway) && (
          <span className="absolute -inset-y-1 w-1.5 bg-plum" style={{ left: `calc(${share(gateway)}% - 1px)` }} />
        )}
        {hosts.map((host) => {
          const address = parseIpv4(host.facts.address!)
          if (!inside(address) || address === gateway) return null
          const wrong = (audit.ofHost.get(host.id) ?? []).length > 0
          return (
            <span
              key={host.id}
              className={`absolute bottom-0 w-[3px] bg-ink ${wrong ? 'top-0 outline-2 outline-ink' : 'top-1/2'}`}
              style={{ left: `${share(address)}%` }}
            />
          )
        })}
      </div>
      <p className="fine mt-1 flex flex-wrap gap-x-5" aria-hidden>
        <span className="exact">{formatIpv4(range.first)}</span>
        <span className="grow text-center">
          <span className="mr-1 inline-block h-3 w-5 border border-edge bg-[repeating-linear-gradient(135deg,var(--edge)_0_1.5px,transparent_1.5px_7px)]" />
          pool <span className="ml-3 mr-1 inline-block h-3 w-1.5 bg-plum" />
          gateway <span className="ml-3 mr-1 inline-block h-3 w-[3px] bg-ink" />
          fixed
          {clashes > 0 && (
            <>
              <span className="ml-4 mr-2 inline-block h-3 w-[3px] bg-ink outline-2 outline-ink" />
              {clashes === 1 ? 'one clashes' : `${clashes} clash`}
            </>
          )}
        </span>
        <span className="exact">{formatIpv4(range.last)}</span>
      </p>
    </div>
  )
}

function Hosts({ segment, audit }: { segment: Segment; audit: HomeAudit }) {
  const hosts = standing(useVisit((state) => state.record.hosts)).filter(({ facts }) => facts.segment === segment.id)
  const all = useVisit((state) => state.record.hosts)
  const units = standing(useVisit((state) => state.record.units))
  const mayWrite = useMayWrite()
  const placed = new Set(standing(all).map(({ facts }) => facts.unit))
  const left = units.filter((unit) => !placed.has(unit.id) && unit.facts.role !== 'modem')
  const suggestion = audit.suggestionFor.get(segment.id)
  const addUnit = (unit: string) => {
    const serves =
      segment.facts.gateway !== undefined &&
      ['gateway', 'router'].includes(units.find(({ id }) => id === unit)?.facts.role ?? '') &&
      !hosts.some(({ facts }) => facts.address === segment.facts.gateway)
    const address = serves ? segment.facts.gateway : suggestion
    write('host.set', {
      id: uuidv7(),
      set: { unit, segment: segment.id, ...(address ? { address } : {}) },
      origin: 'calculated'
    })
  }
  return (
    <div className="mt-4">
      <h3>Fixed addresses</h3>
      <ul className="mt-1 divide-y divide-rule border-y border-rule">
        {hosts.map((host) => (
          <HostRow
            key={host.id}
            host={host}
            audit={audit}
            name={host.facts.unit ? unitName(units.find(({ id }) => id === host.facts.unit) ?? units[0]!) : null}
            suggestion={suggestion}
          />
        ))}
      </ul>
      {mayWrite && (
        <div className="mt-2 flex flex-wrap gap-2">
          {left.map((unit) => (
            <Button key={unit.id} onClick={() => addUnit(unit.id)}>
              Address of {unitName(unit)}
            </Button>
          ))}
          <Button
            kind="quiet"
            onClick={() =>
              write('host.set', {
                id: uuidv7(),
                set: { name: 'Device', segment: segment.id, ...(suggestion ? { address: suggestion } : {}) },
                origin: 'calculated'
              })
            }
          >
            A device of the customer’s
          </Button>
        </div>
      )}
    </div>
  )
}

function HostRow({
  host,
  audit,
  name,
  suggestion
}: {
  host: Host
  audit: HomeAudit
  name: string | null
  suggestion: string | undefined
}) {
  const mayWrite = useMayWrite()
  const answer = useVisit((state) => state.record.answers[`addr-reachable/${host.id}`])
  const findings = audit.ofHost.get(host.id) ?? []
  const of = { kind: 'host', id: host.id } as const
  const mend = (typed: string) => {
    const slip = /^192\.1(?:6[0-79]|7\d)\./.exec(typed)
    const meant = typed.replace(/^192\.1[67]\d/, '192.168')
    // What is still no address is no mend.
    if (slip && parseIpv4(meant) !== null)
      return { words: `192.${typed.slice(4, 7)}… is a public address. Use ${meant}?`, value: meant }
    return findings.length > 0 && suggestion ? { words: `Use ${suggestion}`, value: suggestion } : null
  }
  return (
    <li className="py-3" aria-label={`Address of ${name ?? host.facts.name}`}>
      <div className="grid items-start gap-3 md:grid-cols-[1fr_1.1fr_auto_auto_auto]">
        {name ? <p className="font-bold md:pt-8">{name}</p> : <TextFact {...of} field="name" label="Device" />}
        <TextFact {...of} field="address" label={`Address${name ? ` of ${name}` : ''}`} exact mend={mend} />
        <YesNoFact {...of} field="reserved" label="Reserved" />
        {host.facts.unit !== undefined && (
          <div data-place={placeKey({ kind: 'answer', id: 'addr-reachable', field: host.id })}>
            <p className="label">Page reached</p>
            <div className="mt-1">
              <Chips
                label={`Page of ${name} reached at its address`}
                value={answer?.answer as 'yes' | undefined}
                disabled={!mayWrite}
                options={[
                  { value: 'yes', words: 'Yes' },
                  { value: 'no', words: 'No' }
                ]}
                onChoose={(given) =>
                  write('rule.answered', { rule: 'addr-reachable', subject: host.id, answer: given })
                }
              />
            </div>
          </div>
        )}
        {mayWrite && (
          <Button
            kind="quiet"
            className="px-2 md:mt-6"
            aria-label={`Take the address of ${name ?? host.facts.name} out`}
            onClick={() => write('thing.removed', { thing: 'host', id: host.id })}
          >
            <Trash2 aria-hidden size={18} />
          </Button>
        )}
      </div>
      {findings.length > 0 && (
        <ul className="mt-2">
          {findings.map((finding) => (
            <li key={finding.code} className="bg-inv px-3 py-1.5 font-bold text-oninv">
              {finding.detail}
            </li>
          ))}
        </ul>
      )}
    </li>
  )
}

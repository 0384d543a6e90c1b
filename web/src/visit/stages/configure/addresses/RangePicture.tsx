import { type HomeAudit } from '@pasado/core/work/addresses/home-audit'
import { formatIpv4, parseIpv4, type Range4 } from '@pasado/core/values/ipv4'
import { standing, type Segment } from '@pasado/core/record/record'
import { useVisit } from '../../../session/visit-state'

/** The whole range as a bar: where the pool is, where the fixed addresses and the gateway are. Also told in words. */
export function RangePicture({ segment, range, audit }: { segment: Segment; range: Range4; audit: HomeAudit }) {
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

import { useMemo, useState } from 'react'
import { v7 as uuidv7 } from 'uuid'
import { readClientList } from '@pasado/core/address/client-list'
import { parseCidr, parseIpv4 } from '@pasado/core/values/ipv4'
import { readMac } from '@pasado/core/values/mac'
import { standing, unitName, type Segment } from '@pasado/core/record/record'
import { useMayWrite } from '../../../session/facts'
import { useVisit } from '../../../session/visit-state'
import { write } from '../../../session/write'
import { Button } from '../../../../ui/Button'
import { TextArea } from '../../../../ui/Field'

/** How a pasted client stands to the range. */
function standWords({ known, inside, pooled }: { known: unknown; inside: boolean; pooled: boolean }): string {
  if (known) return 'recorded'
  if (!inside) return 'outside this range'
  return pooled ? 'dealt from the pool' : 'fixed'
}

/** What a router's list of clients says stands on a segment: pasted, looked through, and taken as fixed addresses one by one. */
export function PasteClients({ segment }: { segment: Segment }) {
  const record = useVisit((state) => state.record)
  const mayWrite = useMayWrite()
  const [text, setText] = useState('')
  const found = useMemo(() => readClientList(text), [text])
  if (!mayWrite || segment.facts.cidr === undefined) return null
  const range = parseCidr(segment.facts.cidr)
  const hosts = standing(record.hosts)
  const pools = standing(record.pools).filter(({ facts }) => facts.segment === segment.id && facts.from && facts.to)
  const units = standing(record.units)
  const unitOf = (mac: string | null) =>
    mac === null
      ? undefined
      : units.find(({ facts }) => {
          try {
            return facts.mac !== undefined && readMac({ text: facts.mac }).mac === mac
          } catch {
            return false
          }
        })
  const rows = found.clients.map((client) => {
    const number = parseIpv4(client.address)!
    const inside = !('problem' in range) && number >= range.first && number <= range.last
    return {
      ...client,
      inside,
      unit: unitOf(client.mac),
      pooled: pools.some(({ facts }) => number >= parseIpv4(facts.from!)! && number <= parseIpv4(facts.to!)!),
      known: hosts.find(({ facts }) => facts.address === client.address)
    }
  })
  return (
    <details className="mt-3">
      <summary className="min-h-11 py-2">What is on it: paste the router’s list of clients</summary>
      <TextArea
        aria-label="List of clients"
        rows={4}
        exact
        spellCheck={false}
        value={text}
        onChange={(event) => setText(event.target.value.slice(0, 200_000))}
        placeholder="any columns: name, address, MAC"
      />
      {text.trim() !== '' && (
        <p className="fine mt-1" role="status">
          {rows.length} {rows.length === 1 ? 'device' : 'devices'} read
          {found.skipped ? `, ${found.skipped} lines without an address left out` : ''}.
        </p>
      )}
      {rows.length > 0 && (
        <table className="mt-1 w-full text-left text-sm">
          <thead className="fine">
            <tr>
              <th className="py-1 font-normal">Device</th>
              <th className="font-normal">Address</th>
              <th className="font-normal">It is</th>
              <th />
            </tr>
          </thead>
          <tbody>
            {rows.map((row) => (
              <tr key={row.address} className="border-t border-rule">
                <th scope="row" className="py-1.5 pr-2">
                  {row.unit ? unitName(row.unit) : (row.name ?? 'without a name')}
                </th>
                <td className="exact pr-2">{row.address}</td>
                <td className="pr-2">{standWords(row)}</td>
                <td className="text-right">
                  {!row.known && row.inside && (
                    <Button
                      aria-label={`Record ${row.address} as fixed`}
                      onClick={() =>
                        write('host.set', {
                          id: uuidv7(),
                          set: {
                            segment: segment.id,
                            address: row.address,
                            ...(row.unit ? { unit: row.unit.id } : { name: row.name ?? 'Device' }),
                            ...(row.pooled ? { reserved: true } : {})
                          }
                        })
                      }
                    >
                      {row.pooled ? 'Reserved for it' : 'Record'}
                    </Button>
                  )}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
    </details>
  )
}

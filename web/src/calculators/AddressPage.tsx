import { useMemo, useState } from 'react'
import { auditAddresses } from '@pasado/core/address/audit'
import { auditInput, type AuditOutput } from '@pasado/core/address/audit-schema'
import { parseCidr, formatIpv4, type Range4 } from '@pasado/core/values/ipv4'
import { maskOf } from '@pasado/core/work/configure/conversion'
import { Refusal } from '@pasado/core/values/problem'
import { BenchPage, SelectBox } from './parts'
import { TextArea, Input } from '../ui/Field'

function Line({
  label,
  value,
  onChange,
  problem,
  rows
}: {
  label: string
  value: string
  onChange: (typed: string) => void
  problem?: string | null
  rows?: number
}) {
  return (
    <label className="label">
      {label}
      {rows ? (
        <TextArea
          rows={rows}
          exact
          className="mt-1 font-normal"
          spellCheck={false}
          value={value}
          onChange={(event) => onChange(event.target.value)}
        />
      ) : (
        <Input
          exact
          className="mt-1 font-normal"
          autoComplete="off"
          value={value}
          onChange={(event) => onChange(event.target.value)}
        />
      )}
      {problem && (
        <span role="alert" className="mt-1 block">
          {problem}
        </span>
      )}
    </label>
  )
}

/** A range with its pool and fixed addresses: what is wrong with it, and what is free. */
export function AddressPage() {
  const [cidr, setCidr] = useState('192.168.20.0/24')
  const [gateway, setGateway] = useState('192.168.20.1')
  const [from, setFrom] = useState('192.168.20.100')
  const [to, setTo] = useState('192.168.20.199')
  const [hosts, setHosts] = useState('access point 192.168.20.240\nprinter 192.168.20.150\ncamera 192.169.20.12')
  const [school, setSchool] = useState<'outside' | 'inside'>('outside')
  const range = parseCidr(cidr.trim())
  const wrongRange = 'problem' in range ? `Range ${range.problem}` : null
  const found = useMemo(() => {
    if ('problem' in range) return null
    const lines = hosts
      .split('\n')
      .map((line) => line.trim())
      .filter(Boolean)
      .map((line) => {
        const cut = line.lastIndexOf(' ')
        return cut < 0
          ? { device: line, address: line }
          : { device: line.slice(0, cut).trim(), address: line.slice(cut + 1) }
      })
    const parsed = auditInput.safeParse({
      segments: [
        {
          id: 'range',
          cidr: cidr.trim(),
          ...(gateway.trim() ? { gateway: gateway.trim() } : {}),
          dhcp: from.trim() && to.trim() ? [{ device: 'router', from: from.trim(), to: to.trim() }] : []
        }
      ],
      hosts: lines.map(({ device, address }) => ({ device, segment: 'range', address, reserved: false })),
      poolSchool: school
    })
    if (!parsed.success)
      return { problem: `${parsed.error.issues[0]!.path.slice(-1).join('')}: ${parsed.error.issues[0]!.message}` }
    try {
      return auditAddresses(parsed.data)
    } catch (error) {
      return {
        problem:
          error instanceof Refusal
            ? error.problems.map(({ path, message }) => `${path.slice(-1).join('')}: ${message}`).join('; ')
            : 'That cannot be audited.'
      }
    }
  }, [cidr, gateway, from, to, hosts, school, range])
  return (
    <BenchPage
      title="Ranges and addresses"
      source="IPv4 by the book: well formed, private, inside, used once, clear of pools by the school. The free address is the highest at which a new device would get no finding."
      inputs={
        <>
          <Line label="Range" value={cidr} onChange={setCidr} problem={wrongRange} />
          <Line label="Gateway" value={gateway} onChange={setGateway} />
          <Line label="Pool from" value={from} onChange={setFrom} />
          <Line label="Pool to" value={to} onChange={setTo} />
          <Line label="Fixed addresses, one a line: name, then address" value={hosts} onChange={setHosts} rows={5} />
          <SelectBox
            label="Fixed addresses go"
            value={school}
            options={[
              { value: 'outside', label: 'outside the pool' },
              { value: 'inside', label: 'inside the pool' }
            ]}
            onChange={setSchool}
          />
        </>
      }
      result={
        found === null || 'problem' in range ? (
          <p className="text-soft">Mend what is wrong on the left.</p>
        ) : (
          <Audited found={found} range={range} />
        )
      }
    />
  )
}

function Audited({ found, range }: { found: AuditOutput | { problem: string }; range: Range4 }) {
  if ('problem' in found)
    return (
      <p role="alert" className="font-bold">
        {found.problem}
      </p>
    )
  return (
    <>
      <p>
        <b className="exact text-3xl">{found.suggestions[0]?.address ?? 'none'}</b>{' '}
        <span className="text-xl">is free</span>
        <span className="block">
          mask <span className="exact">{maskOf(range.prefix)}</span>, {formatIpv4(range.first)} to{' '}
          {formatIpv4(range.last)}, {(range.last - range.first + 1).toLocaleString('en')} addresses
        </span>
      </p>
      <ul className="mt-3 flex flex-col gap-1">
        {found.findings.map(({ code, subject, detail }) => (
          <li key={`${code} ${subject}`} className="bg-inv px-3 py-2 text-oninv">
            <b>{subject === 'range' ? '' : `${subject}: `}</b>
            {detail}
          </li>
        ))}
      </ul>
      {found.findings.length === 0 && <p className="mt-3 font-bold">Nothing is wrong with it.</p>}
    </>
  )
}

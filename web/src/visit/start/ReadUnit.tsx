import { useState } from 'react'
import { format } from 'date-fns'
import { v7 as uuidv7 } from 'uuid'
import { parseCidr, parseIpv4 } from '@pasado/core/address/ipv4'
import { readDotted, underOurNames } from '@pasado/core/formats/dotted'
import { readMac } from '@pasado/core/identity/mac'
import type { Facts } from '@pasado/core/record/facts'
import { checkField } from '@pasado/core/record/facts'
import { standing, unitName, type Unit } from '@pasado/core/record/record'
import { ApiProblem, ask } from '../../app/api'
import { useMayWrite } from '../facts'
import { useVisit, write } from '../store'

/** What a unit tells that the record has a field for: by the dotted name. */
const fieldOf = { 'device.serial': 'serial', 'device.mac': 'mac', 'device.firmware': 'firmware', mode: 'mode', 'dhcp.server': 'dhcpServer', 'dhcp.relay': 'dhcpRelay', 'lan.secondary': 'secondaryAddress' } as const
const words: Record<keyof typeof fieldOf, string> = { 'device.serial': 'Serial', 'device.mac': 'MAC address', 'device.firmware': 'Firmware', mode: 'Mode', 'dhcp.server': 'DHCP server', 'dhcp.relay': 'DHCP relay', 'lan.secondary': 'Secondary address' }

/** Whether two values of a field are the same, MAC addresses however they are written. */
const same = (name: string, a: string, b: string) => { if (name !== 'device.mac') return a === b; try { return readMac({ text: a }).mac === readMac({ text: b }).mac } catch { return false } }

/** Under so many octets a dump is a unit's. */
const MOST_OCTETS = 1_000_000

/** What a unit tells of itself, read from the simulated house or from a dump, and where the record says otherwise. */
export function ReadUnit({ unit, dumps = false }: { unit: Unit; dumps?: boolean }) {
  const house = useVisit((state) => state.record.house)
  const visit = useVisit((state) => state.id)
  const record = useVisit((state) => state.record)
  const mayWrite = useMayWrite()
  const [problem, setProblem] = useState<string | null>(null)
  const [busy, setBusy] = useState(false)
  if (!house && !dumps) return null
  const keep = (values: Record<string, string>) => {
    write('unit.read', { unit: unit.id, values: Object.fromEntries(Object.entries(values).slice(0, 200)) })
    if (unit.facts.firmwareBefore === undefined && values['device.firmware']) write('unit.set', { id: unit.id, set: { firmwareBefore: values['device.firmware'] }, origin: 'measured' })
  }
  const readDump = async (file: File) => {
    if (file.size > MOST_OCTETS) { setProblem(`${file.name} is larger than a unit’s dump can be (1 MB).`); return }
    const { values: found, problems } = readDotted(await file.text())
    setProblem(problems.length ? `${problems.slice(0, 3).join('; ')}${problems.length > 3 ? `; and ${problems.length - 3} more` : ''}.` : null)
    if (Object.keys(found).length) keep(underOurNames(found))
  }
  const read = async () => {
    setBusy(true)
    setProblem(null)
    try {
      const { values } = await ask<{ values: Record<string, string> }>('POST', `/visits/${visit}/units/${unit.id}/read`, {})
      keep(values)
    } catch (error) {
      setProblem(error instanceof ApiProblem ? error.message : 'The server is not in reach; try again.')
    } finally { setBusy(false) }
  }
  const values = unit.read?.values
  const recorded = (name: keyof typeof fieldOf): string | undefined => (name === 'device.firmware' ? unit.facts.firmwareAfter ?? unit.facts.firmwareBefore : (unit.facts as Record<string, unknown>)[fieldOf[name]] as string | undefined)
  const take = (name: keyof typeof fieldOf, value: string) => {
    const field = name === 'device.firmware' ? 'firmwareAfter' : fieldOf[name]
    const checked = checkField('unit', field, value)
    if ('problem' in checked) setProblem(`${words[name]} ${checked.problem}`)
    else write('unit.set', { id: unit.id, set: { [field]: checked.value } as Facts<'unit'>, origin: 'measured' })
  }
  const host = standing(record.hosts).find(({ facts }) => facts.unit === unit.id)
  const address = values?.['lan.address']
  const segment = standing(record.segments).find(({ facts }) => { const range = facts.cidr === undefined ? null : parseCidr(facts.cidr); const number = address === undefined ? null : parseIpv4(address); return range !== null && !('problem' in range) && number !== null && number >= range.first && number <= range.last })
  const takeAddress = () => { if (address !== undefined) write('host.set', { id: host?.id ?? uuidv7(), set: { unit: unit.id, address, ...(segment ? { segment: segment.id } : {}) }, origin: 'measured' }) }
  const names = standing(record.networks).flatMap(({ facts }) => facts.ssid ?? [])
  const ssid = values?.['wifi.ssid']
  const differs = values ? (Object.keys(fieldOf) as (keyof typeof fieldOf)[]).filter((name) => values[name] !== undefined && !same(name, values[name]!, recorded(name) ?? '')) : []
  return (
    <section aria-label={`Read from ${unitName(unit)}`} className="border border-rule p-3">
      <div className="flex flex-wrap items-center gap-3"><h3>What {unitName(unit)} tells</h3>{mayWrite && house && <button type="button" className="btn" disabled={busy} onClick={() => void read()}>{busy ? 'Reading …' : values ? 'Read it again' : 'Read from the unit'}</button>}{mayWrite && dumps && <label className="btn focus-within:outline-3 focus-within:outline-plum">From a dump<input type="file" className="sr-only" aria-label={`Dump of ${unitName(unit)}`} accept=".json,.txt,.conf,application/json,text/plain" onChange={(event) => { const file = event.target.files?.[0]; if (file) void readDump(file); event.target.value = '' }} /></label>}{unit.read && <span className="fine">read {format(new Date(unit.read.at), 'HH:mm')}{house ? ', simulated house' : ''}</span>}</div>
      {problem && <p role="alert" className="mt-2 font-bold">{problem}</p>}
      {values && differs.length === 0 && (address === undefined || address === host?.facts.address) && <p className="mt-2">The record says the same.</p>}
      {values && (differs.length > 0 || (address !== undefined && address !== host?.facts.address) || (ssid !== undefined && names.length > 0 && !names.includes(ssid))) && (
        <table className="mt-2 w-full text-left text-sm"><caption className="label text-left">Where the record and the unit differ</caption><thead className="fine"><tr><th className="font-normal" /><th className="font-normal">record</th><th className="font-normal">unit</th><th /></tr></thead>
          <tbody>{differs.map((name) => <tr key={name} className="border-t border-rule"><th scope="row" className="py-1.5">{words[name]}</th><td className="exact">{recorded(name) ?? 'nothing'}</td><td className="exact">{values[name]}</td><td className="text-right">{mayWrite && <button type="button" className="btn" onClick={() => take(name, values[name]!)} aria-label={`Take ${words[name]} from the unit`}>Take it</button>}</td></tr>)}
            {address !== undefined && address !== host?.facts.address && <tr className="border-t border-rule"><th scope="row" className="py-1.5">Address</th><td className="exact">{host?.facts.address ?? 'nothing'}</td><td className="exact">{address}</td><td className="text-right">{mayWrite && <button type="button" className="btn" onClick={takeAddress} aria-label="Take Address from the unit">Take it</button>}</td></tr>}
            {ssid !== undefined && names.length > 0 && !names.includes(ssid) && <tr className="border-t border-rule"><th scope="row" className="py-1.5">Network name</th><td className="exact">{names.join(', ')}</td><td className="exact">{ssid}</td><td className="text-right">change it on its page</td></tr>}
          </tbody>
        </table>
      )}
      {values && <details className="mt-2"><summary className="min-h-11 py-2">All it tells</summary><dl className="exact grid grid-cols-[auto_1fr] gap-x-4 text-sm">{Object.entries(values).map(([name, value]) => <div key={name} className="contents"><dt>{name}</dt><dd>{value}</dd></div>)}</dl></details>}
    </section>
  )
}

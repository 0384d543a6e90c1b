import type { Band } from '@pasado/core/values/band'
import { useState } from 'react'
import { format } from 'date-fns'
import { v7 as uuidv7 } from 'uuid'
import { compareUnit, comparedNames, type ComparedName, type ComparedRow } from '@pasado/core/work/configure/compare'
import { readDotted, underOurNames } from '@pasado/core/documents/dotted'
import { checkField } from '@pasado/core/record/facts'
import { segmentOf } from '@pasado/core/work/prove/path'
import { standing, thingsOf, unitName, type Unit } from '@pasado/core/record/record'
import { ApiProblem, ask } from '../../../app/api'
import { useMayWrite } from '../../session/facts'
import type { Look } from '../../../outbox/outbox'
import { takeLook } from '../../session/record-now'
import { useVisit } from '../../session/visit-state'
import { write } from '../../session/write'
import { Button } from '../../../ui/Button'
import { Problem } from '../../../ui/Problem'
import { FileButton } from '../../../ui/FileButton'

/** The field of a unit that a dotted name is kept in; addresses and pools have things of their own. */
const fieldOf: Partial<Record<ComparedName, string>> = {
  'device.serial': 'serial',
  'device.mac': 'mac',
  'device.firmware': 'firmwareAfter',
  mode: 'mode',
  'dhcp.server': 'dhcpServer',
  'dhcp.relay': 'dhcpRelay',
  'lan.secondary': 'secondaryAddress'
}
const bandOf: Partial<Record<ComparedName, Band>> = {
  'wifi.2.4.channel': '2.4',
  'wifi.5.channel': '5',
  'wifi.6.channel': '6'
}

/** Whether the record may hold a value before the unit has it: an address is planned, a firmware is seen. */
const isAnIntention = (name: ComparedName) =>
  name === 'lan.address' || name === 'mode' || name.startsWith('dhcp.') || name === 'lan.secondary'

/** Under so many octets a dump is a unit's. */
const MOST_OCTETS = 1_000_000

const readWords = (again: boolean) => (again ? 'Read it again' : 'Read from the unit')

/** What a unit tells of itself, read from the simulated house or from a dump, and where the record says otherwise. */
export function ReadUnit({ unit, dumps = false }: { unit: Unit; dumps?: boolean }) {
  const house = useVisit((state) => state.record.house)
  const visit = useVisit((state) => state.id)
  const record = useVisit((state) => state.record)
  const catalogue = useVisit((state) => state.catalogue)
  const policy = useVisit((state) => state.standard.policy)
  const mayWrite = useMayWrite()
  const [problem, setProblem] = useState<string | null>(null)
  const [busy, setBusy] = useState(false)
  if (!house && !dumps) return null
  const keep = (values: Record<string, string>, look: Look) => {
    write('unit.read', { unit: unit.id, values: Object.fromEntries(Object.entries(values).slice(0, 200)) }, { look })
    if (unit.facts.firmwareBefore === undefined && values['device.firmware'])
      write(
        'unit.set',
        { id: unit.id, set: { firmwareBefore: values['device.firmware'] }, origin: 'measured' },
        { look }
      )
  }
  const readDump = async (file: File) => {
    if (file.size > MOST_OCTETS) {
      setProblem(`${file.name} is larger than a unit’s dump can be (1 MB).`)
      return
    }
    const look = takeLook()
    const { values: found, problems } = readDotted(await file.text())
    setProblem(
      problems.length
        ? `${problems.slice(0, 3).join('; ')}${problems.length > 3 ? `; and ${problems.length - 3} more` : ''}.`
        : null
    )
    if (Object.keys(found).length) keep(underOurNames(found), look)
  }
  const read = async () => {
    setBusy(true)
    setProblem(null)
    const look = takeLook()
    try {
      const { values } = await ask('POST /visits/:id/units/:unit/read', {
        params: { id: visit!, unit: unit.id },
        body: {}
      })
      keep(values, look)
    } catch (error) {
      setProblem(error instanceof ApiProblem ? error.message : 'The server is not in reach; try again.')
    } finally {
      setBusy(false)
    }
  }
  const values = unit.read?.values
  const rows = compareUnit(record, catalogue, policy, unit)
  const shown = dumps ? rows : rows.filter(({ differs }) => differs !== null)
  /** Records a value under its name; what is wrong with it, or null. */
  const keepUnder = (name: ComparedName, value: string): string | null => {
    const band = bandOf[name]
    if (band) {
      const radio = standing(thingsOf(record, 'radio')).find(
        ({ facts }) => facts.unit === unit.id && facts.band === band
      )
      const checked = checkField('radio', 'channel', Number(value))
      if ('problem' in checked) return checked.problem
      write('radio.set', {
        id: radio?.id ?? uuidv7(),
        set: { unit: unit.id, band, channel: checked.value as number },
        origin: 'measured'
      })
      return null
    }
    if (name === 'lan.address') {
      const segment = segmentOf(record, value)
      write('host.set', {
        id: standing(record.hosts).find(({ facts }) => facts.unit === unit.id)?.id ?? uuidv7(),
        set: { unit: unit.id, address: value, ...(segment ? { segment: segment.id } : {}) },
        origin: 'measured'
      })
      return null
    }
    if (name === 'dhcp.from' || name === 'dhcp.to') {
      const pool = standing(record.pools).find(({ facts }) => facts.unit === unit.id)
      const field = name === 'dhcp.from' ? 'from' : 'to'
      const checked = checkField('pool', field, value)
      if ('problem' in checked) return checked.problem
      const segment = standing(record.segments).find(({ facts }) => facts.use === 'home')
      write('pool.set', {
        id: pool?.id ?? uuidv7(),
        set: { unit: unit.id, [field]: value, ...(pool || !segment ? {} : { segment: segment.id }) },
        origin: 'measured'
      })
      return null
    }
    const field = fieldOf[name]
    if (!field) return 'is kept with the home’s networks: change it under Wi-Fi'
    const checked = checkField('unit', field, value)
    if ('problem' in checked) return checked.problem
    write('unit.set', { id: unit.id, set: { [field]: checked.value }, origin: 'measured' })
    return null
  }
  const take = (name: ComparedName, value: string) => {
    const wrong = keepUnder(name, value)
    setProblem(wrong === null ? null : `${comparedNames[name]} ${wrong}`)
  }
  return (
    <section aria-label={`Read from ${unitName(unit)}`} className="border border-rule p-3">
      <div className="flex flex-wrap items-center gap-3">
        <h3>What {unitName(unit)} tells</h3>
        {mayWrite && house && (
          <Button disabled={busy} onClick={() => void read()}>
            {busy ? 'Reading …' : readWords(!!values)}
          </Button>
        )}
        {mayWrite && dumps && (
          <FileButton
            accept=".json,.txt,.conf,application/json,text/plain"
            name={`Dump of ${unitName(unit)}`}
            onFile={(file) => void readDump(file)}
          >
            From a dump
          </FileButton>
        )}
        {unit.read && (
          <span className="fine">
            read {format(new Date(unit.read.at), 'HH:mm')}
            {house ? ', simulated house' : ''}
          </span>
        )}
      </div>
      <Problem message={problem} className="mt-2" />
      {values && rows.every(({ differs }) => differs === null) && (
        <p className="mt-2">What is wanted, what is recorded and what it tells are the same.</p>
      )}
      {shown.length > 0 && (values || dumps) && (
        <div className="mt-2 overflow-x-auto">
          <table className="w-full text-left text-sm">
            <caption className="label text-left">{dumps ? 'Wanted, recorded and told' : 'Where they differ'}</caption>
            <thead className="fine max-sm:hidden">
              <tr>
                <th className="font-normal" />
                <th className="font-normal">wanted</th>
                <th className="font-normal">recorded</th>
                <th className="font-normal">the unit tells</th>
                <th />
              </tr>
            </thead>
            <tbody>
              {shown.map((line) => (
                <tr
                  key={line.name}
                  className={`border-t border-rule max-sm:grid max-sm:grid-cols-3 max-sm:py-1.5 ${line.differs ? 'font-bold' : ''}`}
                >
                  <th scope="row" className="pr-3 max-sm:col-span-3 sm:py-1.5">
                    {line.label}
                  </th>
                  {[line.wanted, line.recorded, line.read].map((value, at) => (
                    <td key={at} className="exact pr-2 [overflow-wrap:anywhere] max-sm:text-xs sm:pr-3">
                      <span className="fine block font-normal sm:hidden">{['wanted', 'recorded', 'it tells'][at]}</span>
                      {value ?? <span className="text-soft">–</span>}
                    </td>
                  ))}
                  <td className="font-normal max-sm:col-span-3 sm:min-w-40 sm:text-right">
                    <WhatToDo line={line} mayWrite={mayWrite} onTake={take} />
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        </div>
      )}
      {values && (
        <details className="mt-2">
          <summary className="min-h-11 py-2">All it tells</summary>
          <dl className="exact grid grid-cols-[auto_1fr] gap-x-4 text-sm">
            {Object.entries(values).map(([name, value]) => (
              <div key={name} className="contents">
                <dt>{name}</dt>
                <dd>{value}</dd>
              </div>
            ))}
          </dl>
        </details>
      )}
    </section>
  )
}

/** What is to be done about a line in which record and unit differ: taken over, recorded, or mended on the unit. */
function WhatToDo({
  line: { name, label, wanted, recorded, read: told, differs },
  mayWrite,
  onTake
}: {
  line: ComparedRow
  mayWrite: boolean
  onTake: (name: ComparedName, value: string) => void
}) {
  if (differs === null) return null
  return (
    <>
      {mayWrite && told !== null && told !== recorded && name !== 'wifi.ssid' && (
        <Button onClick={() => onTake(name, told)} aria-label={`Take ${label} from the unit`}>
          Take it
        </Button>
      )}
      {mayWrite && differs === 'record' && told === null && wanted !== null && isAnIntention(name) && (
        <Button onClick={() => onTake(name, wanted)} aria-label={`Record what is wanted: ${label}`}>
          Record what is wanted
        </Button>
      )}
      {differs === 'record' && told === null && !isAnIntention(name) && (
        <span>{name === 'device.firmware' ? 'install it, then record it' : 'to be set'}</span>
      )}
      {differs === 'unit' && (
        <span className="ml-2">{told !== recorded && name !== 'wifi.ssid' ? 'or ' : ''}mend it on the unit</span>
      )}
      {name === 'wifi.ssid' && differs !== 'unit' && <span>mend it on the unit, or under Wi-Fi</span>}
    </>
  )
}

import { Trash2 } from 'lucide-react'
import { v7 as uuidv7 } from 'uuid'
import { type HomeAudit } from '@pasado/core/work/addresses/home-audit'
import { parseIpv4 } from '@pasado/core/values/ipv4'
import { standing, unitName, type Host, type Segment } from '@pasado/core/record/record'
import { Chips } from '../../../../ui/Chips'
import { TextFact, YesNoFact } from '../../../fields/FactField'
import { useMayWrite } from '../../../session/facts'
import { useAnswerNow } from '../../../session/answer-now'
import { Stale } from '../../../frame/Stale'
import { placeKey } from '../../../session/place'
import { useVisit } from '../../../session/visit-state'
import { write } from '../../../session/write'
import { Button } from '../../../../ui/Button'
import { List } from '../../../../ui/List'
import { TakeOut } from '../../../frame/TakeOut'

export function Hosts({ segment, audit }: { segment: Segment; audit: HomeAudit }) {
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
      <List framed className="mt-1">
        {hosts.map((host) => (
          <HostRow
            key={host.id}
            host={host}
            audit={audit}
            name={host.facts.unit ? unitName(units.find(({ id }) => id === host.facts.unit) ?? units[0]!) : null}
            suggestion={suggestion}
          />
        ))}
      </List>
      {mayWrite && (
        <div className="mt-2 flex flex-wrap gap-2">
          {left.map((unit) => (
            <Button
              key={unit.id}
              data-place={placeKey({ kind: 'host', id: 'new', field: unit.id })}
              onClick={() => addUnit(unit.id)}
            >
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
  const answer = useAnswerNow()('addr-reachable', host.id)
  const findings = audit.ofHost.get(host.id) ?? []
  const of = { kind: 'host', id: host.id } as const
  const mend = (typed: string) => {
    const slip = /^192\.1(?:6[0-79]|7\d)\./.exec(typed)
    const meant = typed.replace(/^192\.1[67]\d/, '192.168')
    // What is still no address is no mend.
    if (slip && parseIpv4(meant) !== null)
      return { label: `192.${typed.slice(4, 7)}… is a public address. Use ${meant}?`, value: meant }
    return findings.length > 0 && suggestion ? { label: `Use ${suggestion}`, value: suggestion } : null
  }
  return (
    <li className="py-3" aria-label={`Address of ${name ?? host.facts.name}`}>
      <div className="grid items-start gap-3 md:grid-cols-[1fr_1.1fr_auto_auto_auto]">
        {name ? <p className="font-bold md:pt-8">{name}</p> : <TextFact {...of} field="name" label="Device" />}
        <TextFact {...of} field="address" label={`Address${name ? ` of ${name}` : ''}`} exact suggest={mend} />
        <YesNoFact {...of} field="reserved" label="Reserved" />
        {host.facts.unit !== undefined && (
          <div data-place={placeKey({ kind: 'answer', id: 'addr-reachable', field: host.id })}>
            <p className="label">Page reached</p>
            <div className="mt-1">
              <Chips
                label={`Page of ${name} reached at its address`}
                value={answer.value}
                disabled={!mayWrite}
                options={[
                  { value: 'yes', label: 'Yes' },
                  { value: 'no', label: 'No' }
                ]}
                onChoose={(given) =>
                  write('rule.answered', { rule: 'addr-reachable', subject: host.id, answer: given })
                }
              />
              <Stale why={answer.stale} />
            </div>
          </div>
        )}
        {mayWrite && (
          <TakeOut
            thing="host"
            className="px-2 md:mt-6"
            aria-label={`Take the address of ${name ?? host.facts.name} out`}
            id={host.id}
          >
            <Trash2 aria-hidden size={18} />
          </TakeOut>
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

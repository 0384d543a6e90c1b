import { useState } from 'react'
import type { House } from '@pasado/core/house/house'
import type { CableNow } from '@pasado/core/house/moment'
import type { HousePort } from '@pasado/core/house/definition'
import type { Deed } from './use-house'
import { Button } from '../ui/Button'
import { List } from '../ui/List'
import { Select } from '../ui/Field'

const kindsOf: Record<CableNow['kind'], readonly string[]> = {
  network: ['lan', 'internet'],
  coax: ['coax'],
  telephone: ['telephone-line', 'telephone'],
  fibre: ['fibre']
}
const lineKind = {
  coax: 'coax',
  'telephone-line': 'telephone',
  fibre: 'fibre',
  'fixed-wireless': 'network',
  'existing-router': 'network'
} as const
const kindWords: Record<CableNow['kind'], string> = {
  network: 'Network cable',
  coax: 'Coax',
  telephone: 'Line cable',
  fibre: 'Fibre'
}
const key = ({ unit, port }: HousePort) => `${unit} ${port}`

/** Every cable of the house: where its ends are, and putting them elsewhere. */
export function HouseCables({ house, act }: { house: House; act: (deed: Deed) => void }) {
  const ports = [...house.units.values()].flatMap(({ definition, model }) =>
    model.ports.map((port) => ({
      unit: definition.id,
      port: port.id,
      kind: port.kind,
      label: `${definition.name}, ${port.name}`
    }))
  )
  const line = { unit: 'line', port: 'wall', kind: '', label: 'the line’s outlet' }
  return (
    <section aria-label="Cables" className="paper mt-4 p-4">
      <h2 className="text-lg">Cables</h2>
      <List className="mt-1">
        {[...house.cables.values()].map((cable) => (
          <OneCable
            key={cable.id}
            house={house}
            cable={cable}
            ports={[
              ...(lineKind[house.definition.line.kind] === cable.kind ? [line] : []),
              ...ports.filter(({ kind }) => kindsOf[cable.kind].includes(kind))
            ]}
            act={act}
          />
        ))}
      </List>
    </section>
  )
}

function OneCable({
  house,
  cable,
  ports,
  act
}: {
  house: House
  cable: CableNow
  ports: readonly (HousePort & { label: string })[]
  act: (deed: Deed) => void
}) {
  const [a, setA] = useState(cable.a ? key(cable.a) : '')
  const [b, setB] = useState(cable.b ? key(cable.b) : '')
  const [name, number] = [kindWords[cable.kind], cable.id.split('-').at(-1)]
  const end = (value: string) => ports.find((port) => key(port) === value)
  const put = () => {
    const [first, second] = [end(a), end(b)]
    if (first && second)
      act({
        do: 'cable',
        cable: cable.id,
        a: { unit: first.unit, port: first.port },
        b: { unit: second.unit, port: second.port }
      })
  }
  const speed = cable.a && cable.b && cable.kind === 'network' ? house.network.linkMbps(cable.id) : null
  const select = (label: string, value: string, onChange: (value: string) => void) => (
    <Select
      aria-label={`${name} ${number}, ${label}`}
      className="w-auto min-w-0 grow"
      value={value}
      onChange={(event) => onChange(event.target.value)}
    >
      <option value="">not in</option>
      {ports.map((port) => (
        <option key={key(port)} value={key(port)}>
          {port.label}
        </option>
      ))}
    </Select>
  )
  return (
    <li className="py-2">
      <div className="flex flex-wrap items-center gap-2">
        <b className="min-w-36">
          {name} {number}
        </b>
        {select('one end', a, setA)}
        {select('other end', b, setB)}
        {cable.a ? (
          <Button
            onClick={() => {
              act({ do: 'uncable', cable: cable.id })
              setA('')
              setB('')
            }}
          >
            Take it out
          </Button>
        ) : (
          <Button disabled={!a || !b || a === b} onClick={put}>
            Put it in
          </Button>
        )}
      </div>
      <p className="fine">
        {cable.category ? `Cat ${cable.category.slice(3)}, ` : ''}
        {cable.lengthM} m{speed !== null && (speed === 0 ? ', no link comes up' : `, link at ${speed} Mbit/s`)}
      </p>
    </li>
  )
}

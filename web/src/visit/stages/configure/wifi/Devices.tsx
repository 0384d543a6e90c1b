import { Trash2 } from 'lucide-react'
import { v7 as uuidv7 } from 'uuid'
import { standing, thingsOf } from '@pasado/core/record/record'
import { adviseSecurity, canJoin } from '@pasado/core/work/wifi/security'
import { SelectFact, SeveralFact, TextFact } from '../../../fields/FactField'
import { useMayWrite } from '../../../session/facts'
import { useVisit } from '../../../session/visit-state'
import { write } from '../../../session/write'
import { Button } from '../../../../ui/Button'
import { List } from '../../../../ui/List'
import { TakeOut } from '../../../frame/TakeOut'

const canWords = [
  { value: 'wep', label: 'WEP only' },
  { value: 'wpa-tkip', label: 'WPA with TKIP' },
  { value: 'wpa2-aes', label: 'WPA2' },
  { value: 'wpa3', label: 'WPA3' }
] as const

/** The customer's devices and what each can do at best; which security that comes to, and which cannot join what is recorded. */
export function Devices() {
  const record = useVisit((state) => state.record)
  const least = useVisit((state) => state.standard.policy.leastSecurity)
  const mayWrite = useMayWrite()
  const devices = standing(thingsOf(record, 'device'))
  const networks = standing(record.networks)
  const advice = adviseSecurity(devices, least)
  const shutOut =
    networks.length === 0
      ? []
      : devices.filter(
          ({ facts }) =>
            !networks.some(
              (network) =>
                network.facts.security !== undefined &&
                canJoin(facts.security, network.facts.security) &&
                (facts.bands === undefined ||
                  network.facts.bands === undefined ||
                  facts.bands.some((band) => network.facts.bands!.includes(band)))
            )
        )
  return (
    <section aria-label="The customer’s devices" className="paper p-4">
      <h3>The customer’s devices</h3>
      <p className="mt-1" role="status">
        {advice.reason}
      </p>
      {shutOut.length > 0 && (
        <p className="mt-1 bg-inv px-3 py-2 font-bold text-oninv">
          {shutOut.map(({ facts }) => facts.name ?? 'A device').join(', ')} can join no network that is recorded.
        </p>
      )}
      {devices.length > 0 && (
        <List framed className="mt-2">
          {devices.map((device) => {
            const of = { kind: 'device', id: device.id } as const
            return (
              <li
                key={device.id}
                aria-label={`Device ${device.facts.name ?? ''}`}
                className="grid items-start gap-x-4 gap-y-2 py-3 md:grid-cols-[1.3fr_1fr_1.7fr_auto]"
              >
                <TextFact {...of} field="name" label="Device" />
                <SelectFact {...of} field="security" label="Can do at best" none="not known" options={canWords} />
                <SeveralFact
                  {...of}
                  field="bands"
                  label="Bands"
                  options={[
                    { value: '2.4', label: '2.4 GHz' },
                    { value: '5', label: '5 GHz' },
                    { value: '6', label: '6 GHz' }
                  ]}
                />
                {mayWrite && (
                  <TakeOut
                    thing="device"
                    className="justify-self-start px-2 md:mt-6"
                    aria-label={`Take ${device.facts.name ?? 'this device'} out`}
                    id={device.id}
                  >
                    <Trash2 aria-hidden size={18} />
                  </TakeOut>
                )}
              </li>
            )
          })}
        </List>
      )}
      {mayWrite && (
        <p className="mt-2 flex flex-wrap gap-2">
          {(['Phone', 'Laptop', 'Television', 'Printer', 'Camera', 'Doorbell'] as const).map((name) => (
            <Button
              key={name}

              aria-label={`Add a device: ${name}`}
              onClick={() =>
                write('device.set', { id: uuidv7(), set: { name, security: 'wpa2-aes' }, origin: 'typed' })
              }
            >
              + {name}
            </Button>
          ))}
        </p>
      )}
    </section>
  )
}

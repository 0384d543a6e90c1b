import { useState } from 'react'
import QRCode from 'qrcode'
import { v7 as uuidv7 } from 'uuid'
import { securities } from '@pasado/core/record/things/network'
import { secretFor, standing, unitName, type Network } from '@pasado/core/record/record'
import { staysName, staysThatSend } from '@pasado/core/record/equipment'
import { isOnPaper } from '@pasado/core/values/on-paper'
import { passphraseOf, takesPassphraseFrom } from '@pasado/core/work/wifi/passphrase'
import { wifiQr } from '@pasado/core/values/wifi-qr'
import { Sheet } from '../../../../ui/Sheet'
import { ChoiceFact, SelectFact, SeveralFact, TextFact, YesNoFact } from '../../../fields/FactField'
import { useMayWrite } from '../../../session/facts'
import { placeKey } from '../../../session/place'
import { SecretFact } from '../../../fields/SecretFact'
import { showSecret } from '../../../session/secrets'
import { useVisit } from '../../../session/visit-state'
import { write } from '../../../session/write'
import { Devices } from './Devices'
import { NameProposals } from './NameProposals'
import { Prepared } from './Prepared'
import { securityWords } from './words'
import { Button } from '../../../../ui/Button'
import { TakeOut } from '../../../frame/TakeOut'

/** Networks on the air: names, bands, security, passphrases. */
export function Networks() {
  const networks = standing(useVisit((state) => state.record.networks))
  const segments = standing(useVisit((state) => state.record.segments))
  const mayWrite = useMayWrite()
  const add = (use: 'main' | 'guest') => {
    const segment = segments.find(({ facts }) => facts.use === (use === 'guest' ? 'guests' : 'home')) ?? segments[0]
    write('network.set', {
      id: uuidv7(),
      set: { use, bands: ['2.4', '5'], security: 'wpa2-wpa3', ...(segment ? { segment: segment.id } : {}) },
      origin: 'catalogue'
    })
  }
  return (
    <div className="flex flex-col gap-5" data-place={placeKey({ kind: 'network', id: 'new', field: 'ssid' })}>
      <NameProposals />
      {networks.map((network) => (
        <NetworkSheet key={network.id} network={network} />
      ))}
      {mayWrite && (
        <p className="flex flex-wrap gap-2">
          <Button onClick={() => add('main')}>Add the home’s network</Button>
          <Button onClick={() => add('guest')}>Add a guest network</Button>
        </p>
      )}
      <Devices />
    </div>
  )
}

function NetworkSheet({ network }: { network: Network }) {
  const segments = standing(useVisit((state) => state.record.segments))
  const extenders = standing(useVisit((state) => state.record.units)).filter(({ facts }) => facts.role === 'extender')
  const senders = standing(useVisit((state) => state.record.stays) ?? {}).filter(({ facts }) =>
    staysThatSend.has(facts.kind)
  )
  const mayWrite = useMayWrite()
  const field = { kind: 'network', id: network.id } as const
  const { use, security, ssid } = network.facts
  const giver = useVisit((state) => {
    const id = takesPassphraseFrom(state.record, network)
    return id === null ? null : (state.record.networks[id] ?? null)
  })
  const own = useVisit((state) => secretFor(state.record, 'wifi-passphrase', network.id))
  return (
    <section aria-label={`Network ${ssid ?? 'without a name'}`} className="paper p-4">
      <div className="grid gap-x-6 gap-y-3 xl:grid-cols-2">
        <TextFact
          {...field}
          field="ssid"
          label="Name (SSID)"
          exact
          hint="1 to 32 octets. Neither the customer’s name nor the street."
        />
        {ssid !== undefined && !isOnPaper(ssid) && (
          <TextFact
            {...field}
            field="transcription"
            label="The name as it is said"
            hint={
              <b>
                Paper cannot show this name. Write it in Latin, Greek or Cyrillic letters: the pack prints that beside
                the square, which has the name itself.
              </b>
            }
          />
        )}
        <ChoiceFact
          {...field}
          field="use"
          label="For"
          options={[
            { value: 'main', label: 'home' },
            { value: 'guest', label: 'guests' },
            { value: 'office', label: 'office' },
            { value: 'equipment', label: 'equipment' }
          ]}
        />
        {security !== 'open' && giver && !own && (
          <div>
            <p className="label">Passphrase</p>
            <p className="mt-1 text-soft">
              The same as of {giver.facts.ssid ?? 'the home’s network'}: to the customer they are one network.
            </p>
          </div>
        )}
        {security !== 'open' && (!giver || own) && (
          <SecretFact
            purpose="wifi-passphrase"
            thing="network"
            id={network.id}
            label={`Passphrase${ssid ? ` of ${ssid}` : ''}`}
            canMake
            wep={security === 'wep'}
          />
        )}
        <ChoiceFact
          {...field}
          field="security"
          label="Security"
          options={securities.map((value) => ({ value, label: securityWords[value] }))}
        />
        <SeveralFact
          {...field}
          field="bands"
          label="Bands"
          options={[
            { value: '2.4', label: '2.4 GHz' },
            { value: '5', label: '5 GHz' },
            { value: '6', label: '6 GHz' }
          ]}
        />
        <div className="grid gap-3 sm:grid-cols-2">
          <SelectFact
            {...field}
            field="segment"
            label="Lands in"
            none="not recorded"
            options={segments.map(({ id, facts }) => ({ value: id, label: facts.name ?? facts.cidr ?? 'segment' }))}
          />
          {senders.length > 0 && (
            <SelectFact
              {...field}
              field="stays"
              label="Theirs, of what stays"
              none="ours"
              options={senders.map((stays) => ({ value: stays.id, label: staysName(stays) }))}
            />
          )}
          {extenders.length > 0 && (
            <SelectFact
              {...field}
              field="extender"
              label="Sent by"
              none="the router"
              options={extenders.map((unit) => ({ value: unit.id, label: unitName(unit) }))}
            />
          )}
        </div>
        <div className="flex flex-wrap gap-x-6 gap-y-3">
          {use === 'guest' && <YesNoFact {...field} field="isolated" label="Apart from the home’s devices" />}
          <YesNoFact {...field} field="hidden" label="Hidden" />
        </div>
      </div>
      <Prepared network={network} />
      <p className="mt-3 flex flex-wrap justify-between gap-2">
        <JoinCode network={network} />
        {mayWrite && (
          <TakeOut thing="network" id={network.id}>
            Take this network out
          </TakeOut>
        )}
      </p>
    </section>
  )
}

/** The code to join with a camera; asking for it shows the passphrase, and is logged. */
function JoinCode({ network }: { network: Network }) {
  const secret = useVisit((state) => passphraseOf(state.record, network))
  const [svg, setSvg] = useState<string | null>(null)
  const { ssid, security, hidden } = network.facts
  const open = security === 'open'
  if (ssid === undefined || (!open && !secret)) return <span />
  const show = async () => {
    const passphrase = open ? undefined : await showSecret(secret!.ref, 'joining a device')
    const { payload } = wifiQr({
      ssid,
      security: open || security === 'wep' ? security : 'wpa',
      ...(passphrase === undefined ? {} : { passphrase }),
      ...(hidden ? { hidden } : {})
    })
    setSvg(await QRCode.toString(payload, { type: 'svg', margin: 2 }))
  }
  return (
    <>
      <Button onClick={() => void show()}>Show the code to join {ssid}</Button>
      <Sheet
        open={svg !== null}
        onClose={() => setSvg(null)}
        title={`Join ${ssid}`}
        description="Point the phone’s camera here. That it was shown is logged."
      >
        {svg && (
          <img
            alt={`Code to join ${ssid}`}
            className="mx-auto w-full max-w-80 bg-[#fff]"
            src={`data:image/svg+xml;utf8,${encodeURIComponent(svg)}`}
          />
        )}
      </Sheet>
    </>
  )
}

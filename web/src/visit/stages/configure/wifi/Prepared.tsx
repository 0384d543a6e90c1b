import { useState } from 'react'
import { preparedSecret, type Network } from '@pasado/core/record/record'
import { Button } from '../../../../ui/Button'
import { SecretFact } from '../../../fields/SecretFact'
import { TextFact } from '../../../fields/FactField'
import { useMayWrite } from '../../../session/facts'
import { placeKey } from '../../../session/place'
import { useVisit } from '../../../session/visit-state'
import { write } from '../../../session/write'

/** A name and a passphrase that are to be typed in later: on no air and in no pack until somebody says that they are typed in. */
export function Prepared({ network }: { network: Network }) {
  const secret = useVisit((state) => preparedSecret(state.record, 'wifi-passphrase', network.id))
  const [isOpen, setOpen] = useState(false)
  const mayWrite = useMayWrite()
  const { preparedName, security } = network.facts
  const isPrepared = preparedName !== undefined || secret !== null
  const place = placeKey({ kind: 'network', id: network.id, field: 'preparedName' })
  if (!isPrepared && !isOpen)
    return mayWrite ? (
      <div data-place={place}>
        <Button kind="quiet" onClick={() => setOpen(true)}>
          Prepare a name to type in later
        </Button>
      </div>
    ) : null
  const typedIn = () => {
    setOpen(false)
    if (preparedName !== undefined)
      write('network.set', { id: network.id, set: { ssid: preparedName, preparedName: null } })
    if (secret) write('secret.typed-in', { ref: secret.ref })
  }
  return (
    <fieldset data-place={place} className="mt-4 border-t border-rule pt-3">
      <legend className="label">Prepared, on no air yet</legend>
      <div className="mt-1 grid gap-x-6 gap-y-3 xl:grid-cols-2">
        <TextFact
          kind="network"
          id={network.id}
          field="preparedName"
          label="Name to type in"
          exact
          hint="The pack and the codes do not have it until it is typed in."
        />
        {security !== 'open' && (
          <SecretFact
            place={placeKey({ kind: 'secret', id: network.id, field: 'prepared' })}
            purpose="wifi-passphrase"
            thing="network"
            id={network.id}
            label="Passphrase to type in"
            canMake
            wep={security === 'wep'}
            prepared
          />
        )}
      </div>
      {mayWrite && isPrepared && (
        <p className="mt-3">
          <Button kind="main" onClick={typedIn}>
            Typed in
          </Button>
        </p>
      )}
    </fieldset>
  )
}
